"""So much at least: a clearance that may be larger, or what must be left of a part whose size when new nobody states."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..bounds import Over
from ..catalogue.model import Check
from ..compare import below
from ..units import plain
from .base import Case, Limit, Rule, Span
from .verdict import Action, Facts, Verdict


@dataclass(frozen=True)
class LeastFacts(Facts):
    compared: ClassVar[str] = "reading"
    kind: Literal["least"] = "least"
    reading: float = 0.0
    least: float = 0.0


@dataclass(frozen=True)
class LeastRule(Rule):
    """Must be so much at least; more is no finding. `cure` says in words what mends it."""

    answers, figures, facts = "measure", 0, LeastFacts
    drawings = frozenset({"scale"})
    offered = "A size that must be so much at least"

    kind: Literal["least"]
    least: Annotated[float, Over(0), Limit("At least")]
    action: Action = "adjust"
    cure: str = ""

    def judge(self, case: Case) -> Verdict:
        beside = case.say.alike(case.reading, self.least)
        shown, wanted = beside.figure(case.reading), beside.figure(self.least)
        why = [f"Wanted {wanted} at least; found {shown}."]
        facts = LeastFacts("least", case.reading, self.least)
        if not below(case.reading, self.least):
            return Verdict("sound", "none", f"{shown}, wanted {wanted} at least.", why, facts)
        reason = f"{shown}, {beside.between(case.reading, self.least)} under the {wanted} wanted at least."
        return Verdict("due", self.action, f"{reason} {self.cure}".strip(), why, facts)

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [plain(1.3 * self.least, 1)]

    def readings_named(self) -> dict[str, float]:
        return {"least": self.least}

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        return (check.plausible[0], check.plausible[1]) if check.plausible else None

    def usual_span(self, check: Check) -> Span:
        return 0.9 * self.least, 2 * self.least
