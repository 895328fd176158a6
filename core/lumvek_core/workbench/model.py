"""What a subject of the bench is made of, and the sheet that comes out."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass, field
from typing import Any, Literal

from .. import registry
from ..calculators.opener import FEELERS_MM
from ..units import System, plain, show_length
from .drawings import Drawing

Kind = Literal["length", "signed", "number", "count", "text", "names", "choice", "yes-no", "date", "lengths", "feeler"]
Tool = Literal["", "tape", "caliper", "depth gauge", "feeler", "force gauge"]
Mark = Literal["", "sound", "watch", "due"]
Texts = Mapping[str, "str | list[list[str]]"]


@dataclass(frozen=True)
class Choice:
    key: str
    name: str


@dataclass(frozen=True)
class Field:
    """One thing that is typed. key: its dotted path in the calculation's input.

    kind: length and signed are understood in any notation (signed also ``2 past``); lengths is several in one field. start: the
    starting value. optional: may be left empty. when: shown only while other fields hold one of these. from_check: the check and figure
    of a machine's rule book that says it better. tool: what it is measured with.
    """

    key: str
    name: str
    kind: Kind = "length"
    unit: str = ""
    start: str = ""
    hint: str = ""
    choices: tuple[Choice, ...] = ()
    optional: bool = False
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)
    from_check: tuple[str, str] | None = None
    tool: Tool = ""


@dataclass(frozen=True)
class Table:
    """Several rows of the same fields. keyed: the first column names the row and the calculation takes an object, not a list."""

    key: str
    name: str
    columns: tuple[Field, ...]
    keyed: bool = False
    optional: bool = False
    hint: str = ""
    when: Mapping[str, tuple[str, ...]] = field(default_factory=dict)


@dataclass(frozen=True)
class Example:
    name: str
    texts: Texts


@dataclass(frozen=True)
class Line:
    """One figure of the answer, with what it is."""

    name: str
    shown: str
    mark: Mark = ""


@dataclass(frozen=True)
class Run:
    """One calculation that was made: what went in and what came out, as on the command line."""

    given: dict[str, Any]
    result: dict[str, Any]


@dataclass(frozen=True)
class Sheet:
    """The answer. answer: in a few words, large. words: one sentence. why: formula in words, inputs, limits and their source.

    drawing: what is drawn of it, nothing where there is no answer to draw.
    """

    answer: str
    words: str = ""
    mark: Mark = ""
    lines: list[Line] = field(default_factory=list)
    why: list[str] = field(default_factory=list)
    caution: str = ""
    runs: dict[str, Run] = field(default_factory=dict)
    drawing: Drawing | None = None


class Work:
    """One piece of work at the bench: what was given, in the units its reader wants, and the calculations made with it."""

    def __init__(self, given: dict[str, Any], system: System = "mm", feelers: Mapping[str, float] = FEELERS_MM) -> None:
        self.given, self.system, self.feelers = given, system, feelers
        self.runs: dict[str, Run] = {}

    def run(self, calculator: str, **fields: Any) -> Any:
        """Calculate with these fields, absent ones (None) left out."""
        raw = {name: value for name, value in fields.items() if value is not None}
        result = registry.find(calculator).run(raw)
        self.runs[calculator] = Run(raw, result)
        return result

    def take(self, *names: str) -> dict[str, Any]:
        """These fields of what was given, as far as they were."""
        return {name: self.given[name] for name in names if name in self.given}

    def get(self, name: str, otherwise: Any = None) -> Any:
        return self.given.get(name, otherwise)

    def mm(self, value: float) -> str:
        return show_length(value, self.system)

    def signed(self, value: float) -> str:
        """A difference with its sign: ``+1.5 mm``."""
        return ("+" if value > 0 else "−" if value < 0 else "") + self.mm(abs(value))

    def feeler(self, thickness: float) -> str:
        """``card (0.3 mm)``, or the thickness alone."""
        named = next((name for name, own in self.feelers.items() if abs(own - thickness) < 1e-9), "")
        return f"{named} ({plain(thickness, 2)} mm)" if named else f"{plain(thickness, 2)} mm"

    def sheet(self, answer: str, words: str = "", mark: Mark = "", **rest: Any) -> Sheet:
        return Sheet(answer, words, mark, runs=self.runs, **rest)


@dataclass(frozen=True)
class Subject:
    """One screen of the bench.

    draws: the kind of its drawing. calculators: those it uses. examples: good, borderline, bad. source: where formula and
    starting values come from.
    """

    key: str
    name: str
    group: str
    about: str
    draws: type[Drawing]
    calculators: tuple[str, ...]
    fields: tuple["Field | Table", ...]
    examples: tuple[Example, ...]
    source: str
    work: Callable[[Work], Sheet]
    safety: str = ""
    takes_file: Literal["", "spacings", "depths"] = ""


def pct(value: float, decimals: int = 1) -> str:
    return f"{plain(value, decimals)} %"


def both(value: float, decimals: int, unit: str) -> str:
    """``45.9 mm`` for figures that have one unit everywhere."""
    return f"{plain(value, decimals)} {unit}".strip()
