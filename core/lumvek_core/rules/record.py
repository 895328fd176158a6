"""What is written down for the next time."""

import datetime as dt
from dataclasses import dataclass
from typing import Literal

from ..catalogue.model import Check
from .base import Case, Rule
from .verdict import Verdict


@dataclass(frozen=True)
class RecordRule(Rule):
    """Written down for the next time, not judged."""

    drawings = frozenset({"scale"})
    offered = "A figure written down, not judged"

    kind: Literal["record"]

    def judge(self, case: Case) -> Verdict:
        said = case.say.all(case.value.numbers) if case.value.numbers else case.value.text or "–"
        return Verdict("sound", "none", f"Recorded: {said}.")

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["none"] if check.kind == "note" else ["12"] * max(1, len(check.values))
