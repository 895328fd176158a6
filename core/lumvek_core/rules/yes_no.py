"""A question with one right answer."""

from dataclasses import dataclass, replace
from typing import Literal

from .base import Case, Option
from .states import StatesRule
from .verdict import Action, Severity, Verdict


@dataclass(frozen=True)
class YesNoRule(StatesRule):
    """A question with one right answer."""

    answers = "yes-no"
    offered = "A question with yes or no"

    kind: Literal["yes-no"]
    right: Literal["yes", "no"] = "yes"
    severity: Severity = "due"
    action: Action = "repair"

    def states(self) -> list[Option]:
        fault: Severity = "due" if self.severity == "sound" else self.severity
        sound, wrong = ("yes", "no") if self.right == "yes" else ("no", "yes")
        return [Option(sound, sound.capitalize()), Option(wrong, wrong.capitalize(), fault, self.action)]

    def judge(self, case: Case) -> Verdict:
        verdict = super().judge(case)
        found = "in order" if verdict.severity == "sound" else "not in order"
        return replace(verdict, reason=f"{case.check.name}: {found}.")
