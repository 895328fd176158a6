"""Where the knife section stops at both ends of its stroke."""

import datetime as dt
import re
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Within
from ..calculators import knife
from ..catalogue.model import Check
from ..judgement.words import Words
from .base import Case, Limit, Rule, Span
from .verdict import Facts, Verdict

PAST = re.compile(r"past\s+(.+)|(.+?)\s*past", re.IGNORECASE)


@dataclass(frozen=True)
class RegisterFacts(Facts):
    """left, right: short of a guard's middle, below zero past it. centring, stroke: what is wrong with the head and the
    stroke.
    """

    kind: Literal["register"] = "register"
    left: float = 0.0
    right: float = 0.0
    left_shown: str = ""
    right_shown: str = ""
    tolerance: float = 0.0
    centring: float = 0.0
    stroke: float = 0.0


@dataclass(frozen=True)
class RegisterRule(Rule):
    """Where the knife section stops at the left and at the right end of its stroke: short of a guard's middle, or past it."""

    answers, figures, facts = "measure", 2, RegisterFacts
    drawings = frozenset({"register"})

    kind: Literal["register"]
    tolerance: Annotated[float, Within(0), Limit("Alike within", shown_as="amount")]
    overtravel: Annotated[float, Within(0), Limit("Overtravel")] = 0

    def judge(self, case: Case) -> Verdict:
        (left, right), say = case.value.numbers, case.say
        result = knife.knife_register(knife.RegisterGiven(left, right, self.tolerance, self.overtravel))
        why = [
            f"Centring = (left − right) ÷ 2 = {say.amount(result.centring_mm)}; stroke error = left + right"
            f"{' + twice the overtravel' if self.overtravel else ''} = {say.amount(result.stroke_error_mm)}; allowed "
            f"{say.amount(self.tolerance)}."
        ]
        shown = _stop(left, say), _stop(right, say)
        facts = RegisterFacts("register", left, right, *shown, self.tolerance, result.centring_mm, result.stroke_error_mm)
        if result.state == "registered":
            return Verdict("sound", "none", result.words, why, facts)
        return Verdict("due", "investigate" if result.state == "stroke" else "adjust", result.words, why, facts)

    def more_than_figures(self) -> bool:
        return True

    def negative(self, text: str) -> str | None:
        """``2 past`` and ``past 2``: beyond the middle."""
        past = PAST.fullmatch(text.strip())
        return (past[1] or past[2]) if past else None

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["1", "1 past"]

    def usual_span(self, check: Check) -> Span:
        return 0.0, 1.5 * max(self.tolerance, 1.0)


def _stop(value: float, say: Words) -> str:
    return "on the middle" if value == 0 else f"{say.figure(abs(value))} {'short' if value > 0 else 'past'}"
