"""A bearing by feel."""

from dataclasses import dataclass, replace
from typing import Literal

from .base import Case, Option
from .states import StatesRule
from .verdict import Verdict

STATES = [
    Option("smooth", "Smooth"),
    Option("dry", "Dry", "due", "lubricate"),
    Option("rough", "Rough", "due", "replace"),
    Option("loose", "Loose", "due", "replace"),
    Option("noisy", "Noisy", "due", "replace"),
]


@dataclass(frozen=True)
class BearingRule(StatesRule):
    """What the fingers feel: smooth, dry, rough, loose or noisy."""

    answers = "bearing"
    offered = "A bearing turned by hand"

    kind: Literal["bearing"]

    def states(self) -> list[Option]:
        return STATES

    def judge(self, case: Case) -> Verdict:
        verdict = super().judge(case)
        if verdict.action == "lubricate":
            return replace(verdict, reason=f"{self.state_of(case).name}: grease, turn, and feel again.")
        return verdict
