"""Oil or coolant at its mark."""

from dataclasses import dataclass, replace
from typing import Literal

from .base import Case, Option
from .states import StatesRule
from .verdict import Verdict

STATES = [
    Option("right", "At its mark"),
    Option("low", "Low", "due", "lubricate"),
    Option("high", "High", "due", "investigate"),
    Option("milky", "Milky", "due", "investigate"),
]
WORDS = {
    "low": "Low: top up, and look for the leak.",
    "high": "High: find out what has run in.",
    "milky": "Milky: water in the oil. Drain, find where it enters, new oil.",
}


@dataclass(frozen=True)
class LevelRule(StatesRule):
    """Oil or coolant at its mark: right, low, high or milky. grade: what the maker names, to be shown beside it."""

    answers = "level"
    offered = "A level at its mark"

    kind: Literal["level"]
    grade: str = ""

    def states(self) -> list[Option]:
        return STATES

    def judge(self, case: Case) -> Verdict:
        said = WORDS.get(case.value.choice, "At its mark.")
        if case.value.choice == "low" and self.grade:
            said += f" {self.grade} unless the case or the manual says another."
        return replace(super().judge(case), reason=said)

    def oil_grade(self) -> str:
        return self.grade
