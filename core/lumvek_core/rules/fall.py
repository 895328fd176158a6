"""A gauge read every season: what it lost since the last time is the finding."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..bounds import Within
from ..catalogue.model import Check
from ..compare import exceeds
from ..errors import BadInput
from ..judgement.parse_reading import Value
from ..judgement.words import percent, pressure_unit
from ..pressures import MBAR_PER, PressureUnit, parse_pressure, pressure_unit_in, show_pressure
from ..units import System, Unit
from .base import Case, Limit, Rule, Span
from .verdict import Facts, Verdict


@dataclass(frozen=True)
class FallFacts(Facts):
    """last: what it read before, in the check's unit; None where nothing was read."""

    compared: ClassVar[str] = "reading"
    kind: Literal["fall"] = "fall"
    reading: float = 0.0
    last: float | None = None


@dataclass(frozen=True)
class FallRule(Rule):
    """A pressure as its gauge shows it, in the gauge's own unit. More than `fall` of the last one lost is to be looked into."""

    answers, figures, facts = "measure", 0, FallFacts
    drawings = frozenset({"scale"})
    wants, sets_up = frozenset({"log"}), True
    keeps_unit = True

    kind: Literal["fall"]
    fall: Annotated[float, Within(0, 1), Limit("Fall allowed", shown_as="share")] = 0.08

    def judge(self, case: Case) -> Verdict:
        reading, unit = case.reading, _unit_of(case.value, case)
        shown = show_pressure(reading, unit)
        visit, here = case.context.visit, case.position.key
        log = [past for past in case.context.log if past.position == here and past.visit != visit]
        earlier = [past.value for past in log if past.value.numbers]
        if not earlier:
            return Verdict("sound", "none", f"{shown}; nothing to compare with yet.", facts=FallFacts("fall", reading))
        was = earlier[-1].numbers[0]
        before = show_pressure(was, unit)
        facts, lost = FallFacts("fall", reading, was), (was - reading) / was if was else 0.0
        changed = f"{percent(abs(lost))} {'lost' if lost > 0 else 'more'}"
        why = [f"Last {before}, now {shown}: {changed}; up to {percent(self.fall)} lost is no finding."]
        if exceeds(lost, self.fall):
            reason = f"{shown}, last time {before}: {changed}. Listen as well, and look for the leak, the belt or the blade."
            return Verdict("due", "investigate", reason, why, facts)
        return Verdict("sound", "none", f"{shown}, last time {before}.", why, facts)

    def read(self, check: Check, raw: Sequence[str], unit: Unit) -> Value | None:
        """``26 inH2O``, ``65 mbar``; the unit that was typed is the gauge's and is kept with the figure."""
        usual = pressure_unit(check, "in" if unit == "in" else "mm") or "mbar"
        try:
            number = parse_pressure(raw[0], usual)
        except BadInput as problem:
            raise BadInput("raw.0", problem.message) from None
        return Value(numbers=[number], text=pressure_unit_in(raw[0]) or usual)

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["60"]

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        return (check.plausible[0], check.plausible[1]) if check.plausible else None

    def full(self, check: Check, value: Value, system: System) -> str | None:
        unit = value.text
        return show_pressure(value.numbers[0], unit) if unit in MBAR_PER else None

    def short(self, check: Check, value: Value, system: System) -> str | None:
        return self.full(check, value, system)


def _unit_of(value: Value, case: Case) -> PressureUnit:
    usual = pressure_unit(case.check, case.context.system) or "mbar"
    return value.text if value.text in MBAR_PER else usual
