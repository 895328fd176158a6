"""The people of the demo, so that the launcher can print them without starting Django."""

from dataclasses import dataclass

PASSWORD = "sallow-bridge"  # noqa: S105  (opens made-up data on this machine only; load_demo refuses to run when serving)


@dataclass(frozen=True)
class Person:
    username: str
    first: str
    last: str
    role: str


PEOPLE = (
    Person("tomas", "Tomas", "Vey", "technician"),
    Person("ines", "Ines", "Marrow", "technician"),
    Person("ada", "Ada", "Quill", "lead"),
    Person("bram", "Bram", "Oster", "parts"),
    Person("lotte", "Lotte", "Ferring", "owner"),
)

NEWCOMER = Person("maud", "Maud", "Terrow", "lead")
EMPTY_SHOP = "Wharf Lane Workshop"
"""A second shop, on its first day: to try out how one begins."""
