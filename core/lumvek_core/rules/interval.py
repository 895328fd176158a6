"""What is done again after a time."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Over
from ..catalogue.model import Check
from ..compare import reached
from ..judgement.parse_reading import Value, last_done
from ..units import Unit, plain
from .base import Case, Limit, Rule
from .verdict import Facts, Verdict


@dataclass(frozen=True)
class IntervalFacts(Facts):
    """since, every: hours or days, whichever the reading was given in."""

    kind: Literal["interval"] = "interval"
    since: float = 0.0
    every: float = 0.0


@dataclass(frozen=True)
class IntervalRule(Rule):
    """Done again after so many hours of the machine's counter or so many days, whichever comes first."""

    answers, figures, facts, wants = "interval", 0, IntervalFacts, frozenset({"counter"})

    kind: Literal["interval"]
    every_h: Annotated[Annotated[float, Over(0)] | None, Limit("Every", "h")] = None
    every_days: Annotated[Annotated[float, Over(0)] | None, Limit("Every", "days")] = None

    def judge(self, case: Case) -> Verdict:
        """Due when the interval is reached; what cannot be counted from here (no counter, no day) is only written down."""
        value, counter_h, today = case.value, case.context.counter_h, case.context.today
        if value.numbers:
            last = f"{plain(value.numbers[0], 0)} h"
            if counter_h is None or self.every_h is None:
                return Verdict("sound", "none", f"Last done at {last}; no interval in hours to hold it against.")
            since, every, unit = counter_h - value.numbers[0], self.every_h, "h"
            if since < 0:
                return Verdict("watch", "recheck", f"Last done at {last}, but the counter stands at {plain(counter_h, 0)} h.")
        else:
            if today is None or self.every_days is None:
                return Verdict("sound", "none", f"Last done on {value.text}; no interval in days to hold it against.")
            since, every, unit = float((today - dt.date.fromisoformat(value.text)).days), self.every_days, "days"
            if since < 0:
                return Verdict("watch", "recheck", f"Last done on {value.text}, which is still to come.")
        facts = IntervalFacts("interval", since, every)
        said = f"{plain(since, 0)} of {plain(every, 0)} {unit} since it was last done"
        if reached(since, every):
            return Verdict("due", "lubricate" if self.every_h else "replace", f"{said}: due.", facts=facts, used=since / every)
        left = f"{plain(every - since, 0)} {unit} left"
        return Verdict("sound", "none", f"{said}; {left}.", facts=facts, used=since / every)

    def read(self, check: Check, raw: Sequence[str], unit: Unit) -> Value | None:
        return last_done(raw[0])

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [f"{counter_h - 120:.0f} h"] if self.every_h else [(day - dt.timedelta(days=250)).isoformat()]

    def unusable(self) -> str:
        return "" if self.every_h or self.every_days else "needs an interval in hours or days"
