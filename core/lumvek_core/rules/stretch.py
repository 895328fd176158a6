"""A chain's stretch over a number of pitches."""

import datetime as dt
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..bounds import Over, Within
from ..calculators import chain
from ..catalogue.model import Check
from ..errors import BadInput
from ..judgement import forecast_text
from ..judgement.forecast_text import Ahead
from ..judgement.parse_reading import Value, number_of
from ..units import Unit, plain
from .base import Case, Limit, Rule, Span
from .verdict import Action, Facts, Severity, Verdict

_BETWEEN_LENGTHS = re.compile(r"\s+/\s*|/\s+")
"""An inch fraction is written without spaces, two lengths with them."""


@dataclass(frozen=True)
class StretchFacts(Facts):
    """new, limit: lengths over the same pitches. used: share of the stretch allowed."""

    compared: ClassVar[str] = "reading"
    kind: Literal["stretch"] = "stretch"
    reading: float = 0.0
    new: float = 0.0
    limit: float = 0.0
    stretch_pct: float = 0.0
    used: float = 0.0
    ahead: Ahead | None = None


@dataclass(frozen=True)
class StretchRule(Rule):
    """Length over a number of chain pitches under tension, held against the stretch at which it is retired, in per cent.

    watch_chance: as for wear.
    """

    answers, figures, facts = "measure", 0, StretchFacts
    drawings = frozenset({"chain"})
    renews = True

    kind: Literal["stretch"]
    pitch: Annotated[float, Over(0), Limit("Pitch")]
    pitches: Annotated[float, Over(0), Limit("Pitches measured", "")]
    limit_pct: Annotated[float, Over(0), Limit("Retire at", "%")] = 3
    watch_chance: Annotated[float, Over(0), Within(0, 1), Limit("Watch from a chance of", shown_as="share")] = 0.10

    @property
    def new(self) -> float:
        return self.pitch * self.pitches

    def stretch_of(self, measured: float) -> float:
        """Per cent."""
        return 100 * (measured / self.new - 1)

    def judge(self, case: Case) -> Verdict:
        measured, say, expected = case.reading, case.say, case.context.expected
        result = chain.chain_stretch(chain.OverPitches(self.pitch, self.pitches, measured, self.limit_pct))
        shown = f"{plain(result.stretch_pct, 2)} % stretch, limit {plain(self.limit_pct, 2)} %"
        why = [
            f"{say.figure(measured)} over {plain(self.pitches, 0)} pitches of {say.figure(self.pitch)}: "
            f"100 × ({plain(measured, 1)} ÷ {plain(self.new, 1)} − 1) = {plain(result.stretch_pct, 2)} %, "
            f"give or take {plain(result.plus_minus_pct, 2)} % for the tape."
        ]
        severity: Severity = result.state
        if expected:
            why.append(forecast_text.why(self.watch_chance))
            if severity != "due":
                severity = forecast_text.watched(expected, self.watch_chance)
                ends = [self.stretch_of(one) for one in (expected.value, expected.low, expected.high)]
                value, low, high = (plain(max(one, 0.0), 2) for one in ends)
                shown += f"; {forecast_text.in_words(expected, f'{value} %', low, high)}"
        actions: dict[Severity, Action] = {"watch": "recheck", "due": case.check.action}
        limit = self.new * (1 + self.limit_pct / 100)
        ahead = forecast_text.ahead(expected)
        facts = StretchFacts("stretch", measured, self.new, limit, result.stretch_pct, result.used, ahead)
        return Verdict(severity, actions.get(severity, "none"), f"{shown}.", why, facts, used=result.used)

    def sizes(self) -> list[str]:
        return ["pitch", "pitches"]

    def more_than_figures(self) -> bool:
        return True

    def read(self, check: Check, raw: Sequence[str], unit: Unit) -> Value | None:
        """``1010 / 985``: a marked length pulled apart and pushed together, as it would be over the pitches when new."""
        lengths = _BETWEEN_LENGTHS.split(raw[0].strip())
        if len(lengths) != 2:
            return None
        ends = [number_of(check, text, 0, unit) for text in lengths]
        if not 0 < ends[1] <= ends[0]:
            raise BadInput("raw.0", "the pulled length comes first and is the longer one: 1010 / 985")
        return Value(numbers=[self.new * ends[0] / ends[1]], text=raw[0].strip())

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [plain(1.012 * self.new, 1)]

    def usual_span(self, check: Check) -> Span:
        return self.new, self.new * (1 + 1.1 * self.limit_pct / 100)

    def ends(self) -> Span | None:
        return self.new, self.new * (1 + self.limit_pct / 100)

    def chance_to_watch(self) -> float:
        return self.watch_chance

    def per_cent_of(self) -> float | None:
        return self.new
