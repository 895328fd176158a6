"""A setting that must lie between two figures."""

import datetime as dt
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..calculators import windows
from ..catalogue.model import Check
from ..units import plain, show_turns
from .base import Case, Limit, Rule, Span
from .verdict import Facts, Verdict

BELOW = re.compile(r"(?:[-−–]\s*|below\s+)(.+)|(.+?)\s+below", re.IGNORECASE)
FAR = 4
"""So many times the width of a window beyond it is far outside; so many times a wanted figure too."""


@dataclass(frozen=True)
class WindowFacts(Facts):
    """miss: how far outside, with sign; 0 inside."""

    compared: ClassVar[str] = "reading"
    kind: Literal["window"] = "window"
    reading: float = 0.0
    low: float = 0.0
    high: float = 0.0
    miss: float = 0.0


@dataclass(frozen=True)
class WindowRule(Rule):
    """Must lie between low and high. `if_low` and `if_high` say in words what cures a miss.

    signed: it may lie below nothing.
    """

    answers, figures, facts = "measure", 0, WindowFacts
    drawings = frozenset({"scale", "gauge-wheel-gap"})
    offered = "A size that must lie between two"

    kind: Literal["window"]
    low: Annotated[float, Limit("From")]
    high: Annotated[float, Limit("To")]
    target: Annotated[float | None, Limit("Aim for")] = None
    per_turn: float | None = None
    signed: bool = False
    if_low: str = ""
    if_high: str = ""

    def judge(self, case: Case) -> Verdict:
        reading, say = case.reading, case.say
        result = windows.window(windows.WindowGiven(reading, self.low, self.high, self.target, self.per_turn))
        beside = say.alike(reading, self.low, self.high)
        shown, low, high = beside.figure(reading), beside.figure(self.low), beside.figure(self.high)
        wanted = low if self.low == self.high else f"{low} to {high}"
        why = [f"Wanted {wanted}, ends included; found {shown}."]
        facts = WindowFacts("window", reading, self.low, self.high, result.miss)
        if result.state == "in_window":
            return Verdict("sound", "none", f"{shown}, wanted {wanted}.", why, facts)
        direction, end, cure = ("under", self.low, self.if_low) if result.state == "low" else ("over", self.high, self.if_high)
        reason = f"{shown}, {beside.between(reading, end)} {direction} the wanted {wanted}."
        if result.turns is not None:
            reason += f" About {show_turns(result.turns)}."
        return Verdict("due", "adjust", f"{reason} {cure}".strip(), why, facts)

    def more_than_figures(self) -> bool:
        return self.signed

    def negative(self, text: str) -> str | None:
        """``-5``, ``below 5`` and ``5 below``, where a figure may lie below nothing."""
        below = BELOW.fullmatch(text.strip()) if self.signed else None
        return (below[1] or below[2]) if below else None

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [plain((self.low + self.high) / 2 if self.target is None else self.target, 1)]

    def readings_named(self) -> dict[str, float]:
        return {"low end": self.low, "high end": self.high}

    def unusable(self) -> str:
        return "low must not be above high" if self.low > self.high else ""

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        if self.high <= 0:
            return None
        width = self.high - self.low
        if self.signed:
            return self.low - FAR * width, self.high + FAR * width
        return max(0.0, self.low - max(FAR * width, 0.75 * self.low)), self.high + (FAR * width or self.high)

    def usual_span(self, check: Check) -> Span:
        room = (self.high - self.low) * 0.25
        return self.low - room, self.high + room
