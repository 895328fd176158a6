"""Wear between a size when new and a limit, shrinking or growing."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..bounds import Over, Within
from ..calculators import wear
from ..catalogue.model import Check
from ..judgement import forecast_text
from ..judgement.forecast_text import Ahead
from ..judgement.words import Words, percent
from ..units import plain
from .base import Case, Limit, Rule, Span
from .verdict import Action, Facts, Severity, Verdict

READING_ERROR = 0.8
"""One standard deviation of a tape, mm; used where a check does not say better."""


@dataclass(frozen=True)
class WearFacts(Facts):
    """used: share of the wear allowed. ahead: at the season's end, where there is a forecast."""

    compared: ClassVar[str] = "reading"
    kind: Literal["wear"] = "wear"
    reading: float = 0.0
    new: float = 0.0
    limit: float = 0.0
    used: float = 0.0
    ahead: Ahead | None = None


@dataclass(frozen=True)
class WearRule(Rule):
    """Wears from a size when new to a limit, shrinking or growing.

    Watched from a share of its wear, or where there is a forecast from a chance (watch_chance) to reach the limit in the coming
    season.
    """

    answers, figures, facts = "measure", 0, WearFacts
    drawings = frozenset({"disc", "scale"})
    renews = True
    offered = "A size that wears, from new to a limit"

    kind: Literal["wear"]
    new: Annotated[float, Limit("When new")]
    limit: Annotated[float, Limit("Renew at")]
    watch_from: Annotated[float, Over(0), Within(0, 1), Limit("Watch from", shown_as="share")] = 0.75
    watch_chance: Annotated[float, Over(0), Within(0, 1), Limit("Watch from a chance of", shown_as="share")] = 0.10

    def judge(self, case: Case) -> Verdict:
        reading, expected, say = case.reading, case.context.expected, case.say
        result = wear.wear_used(wear.WearGiven(self.new, self.limit, reading, self.watch_from))
        used = max(result.used, 0.0)
        beside = say.alike(reading, self.limit)
        shown, limit, left = beside.figure(reading), beside.figure(self.limit), beside.between(reading, self.limit)
        why = [
            f"Used share = (new − reading) ÷ (new − limit) = ({say.figure(self.new)} − {say.figure(reading)}) ÷ "
            f"({say.figure(self.new)} − {say.figure(self.limit)}) = {percent(used)}.",
            forecast_text.why(self.watch_chance)
            if expected
            else f"Watch from {percent(self.watch_from)} used, renew at the limit.",
        ]
        severity: Severity = result.state
        if expected and severity != "due":
            severity = forecast_text.watched(expected, self.watch_chance)
        actions: dict[Severity, Action] = {"due": case.check.action, "watch": "recheck"}
        if severity == "due":
            past = f", past it by {left}" if abs(reading - self.limit) > 1e-6 else " reached"
            reason = f"{shown}, limit {limit}{past}."
            if expected:
                reason += f" Left in, {forecast_text.at_the_end(expected, say)}."
        elif expected:
            will = forecast_text.in_words(expected, say.figure(expected.value), say.bare(expected.low), say.bare(expected.high))
            reason = f"{shown}, limit {limit}: {percent(1 - used)} of its wear left; {will}."
        else:
            reason = f"{shown}, limit {limit}: {percent(used)} of its wear used, {left} left."
        if result.beyond_new:
            why.append("Better than new: confirmed by the technician.")
        facts = WearFacts("wear", reading, self.new, self.limit, result.used, forecast_text.ahead(expected))
        return Verdict(severity, actions.get(severity, "none"), reason, why, facts, used=result.used)

    def sizes(self) -> list[str]:
        return ["new", "limit"] if self.new else []  # a play begins at nothing on every model

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [plain(self.new + 0.35 * (self.limit - self.new), 1)]

    def readings_named(self) -> dict[str, float]:
        return {"size when new": self.new, "limit": self.limit}

    def unusable(self) -> str:
        return "the limit must differ from the size when new" if self.new == self.limit else ""

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        """From better than new, by the larger of 5 % of the allowance and three times the reading's own error, to three times
        the allowance past the limit."""
        allowance = self.limit - self.new
        better = max(0.05 * abs(allowance), 3 * (check.reading_error or READING_ERROR))
        past = self.limit + 3 * allowance
        return (max(self.new - better, 0.0), past) if allowance > 0 else (max(past, 0.0), self.new + better)

    def beyond(self, say: Words) -> str:
        return f"When new it is {say.figure(self.new)}" if self.new else "When new there is none"

    def usual_span(self, check: Check) -> Span:
        past = self.limit + 0.1 * (self.limit - self.new)
        return (self.new, past) if self.new < self.limit else (past, self.new)

    def ends(self) -> Span | None:
        return self.new, self.limit

    def chance_to_watch(self) -> float:
        return self.watch_chance
