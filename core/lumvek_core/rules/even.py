"""Like places that must be alike."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from statistics import median
from typing import Annotated, ClassVar, Literal

from .. import positions
from ..bounds import Within
from ..calculators import windows
from ..catalogue.model import Check
from ..compare import below, exceeds
from ..judgement.words import Alike, without_unit
from ..units import plain, show_turns
from .base import Case, Limit, Rule, Span
from .verdict import Facts, Verdict
from .window import FAR


@dataclass(frozen=True)
class EvenFacts(Facts):
    """target: what all are held against; None while there is nothing to compare with. off: by more than is allowed.

    correction_shown: with its sign and without its unit, where it is off.
    """

    compared: ClassVar[str] = "reading"
    kind: Literal["even"] = "even"
    reading: float = 0.0
    target: float | None = None
    spread: float = 0.0
    tolerance: float = 0.0
    correction: float = 0.0
    correction_shown: str = ""


@dataclass(frozen=True)
class EvenRule(Rule):
    """All positions alike within a tolerance. per_turn: how far one clockwise turn of the adjuster moves it.

    by_side: left is held against left and right against right. least, most: what each must have by itself; `cure` mends that.
    """

    facts, compares = EvenFacts, True
    drawings = frozenset({"even", "scale"})

    kind: Literal["even"]
    tolerance: Annotated[float, Within(0), Limit("Alike within", shown_as="amount")]
    target: float | Literal["median", "mean"] = "median"
    per_turn: Annotated[float | None, Limit("A clockwise turn moves it")] = None
    by_side: bool = False
    least: Annotated[float | None, Limit("At least")] = None
    most: Annotated[float | None, Limit("At most")] = None
    cure: str = ""

    def judge(self, case: Case) -> Verdict:
        reading, say, here = case.reading, case.say, case.position.key
        others = case.context.others.get(case.check.key, {})
        readings = {
            name: other.numbers[0]
            for name, other in others.items()
            if other.numbers and (not self.by_side or positions.find(name).side == case.position.side)
        } | {here: reading}
        shown = say.figure(reading)
        if alone := self._alone(case):
            return alone
        if len(readings) < 2:
            facts = EvenFacts(reading=reading, tolerance=self.tolerance)
            return Verdict("sound", "none", f"{shown}; nothing to compare with yet.", facts=facts)
        result = windows.even(windows.EvenGiven(readings, self.tolerance, self.target, per_turn=self.per_turn))
        target = result.target if result.target is not None else reading
        correction = result.corrections[here]
        why = [
            f"{len(readings)} positions compared, {self.target if isinstance(self.target, str) else 'target'} "
            f"{say.figure(target)}, "
            f"spread {say.amount(result.spread)}, allowed {say.amount(self.tolerance)}."
        ]
        turned = result.turns[here] if result.turns else 0.0
        turns = f", about {show_turns(turned)}" if turned else ""
        if result.state == "even" or not exceeds(abs(correction), self.tolerance / 2):
            alike = f"alike within {say.amount(self.tolerance)}" if self.tolerance else "like the others"
            facts = EvenFacts("even", reading, target, result.spread, self.tolerance, correction)
            return Verdict("sound", "none", f"{shown}, {alike}.", why, facts)
        beside = say.alike(reading, target)
        sign = "+" if correction > 0 else "−"
        shown_bare = f"{sign}{without_unit(case.check, abs(correction), say.system)}"
        facts = EvenFacts("even", reading, target, result.spread, self.tolerance, correction, shown_bare)
        correct = f"{sign}{beside.between(reading, target)}{turns}"
        if len(readings) == 2:
            stand = _two_sides(readings, beside)
            reason = f"{stand}: both belong at {beside.figure(target)}, correct by {correct}."
        else:
            reason = f"{beside.figure(reading)}, the others stand at {beside.figure(target)}: correct by {correct}."
        return Verdict("due", "adjust", reason, why, facts)

    def _alone(self, case: Case) -> Verdict | None:
        """The verdict on a place that has too little or too much by itself."""
        reading, facts = case.reading, EvenFacts(reading=case.reading, tolerance=self.tolerance)
        for bound, out, which in (
            (self.least, self.least is not None and below(reading, self.least), "at least"),
            (self.most, self.most is not None and exceeds(reading, self.most), "at most"),
        ):
            if bound is not None and out:
                beside = case.say.alike(reading, bound)
                reason = f"{beside.figure(reading)}, wanted {beside.figure(bound)} {which}. {self.cure}".strip()
                return Verdict("due", "adjust", reason, facts=facts)
        return None

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [plain(self.least * 1.3 if self.least else min(12.0, self.most or 12.0), 1)] * max(1, len(check.values))

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        """A quarter to four times the middle one of the others."""
        if len(others) < 2 or median(others) <= 0:
            return None
        return median(others) / FAR, median(others) * FAR

    def usual_span(self, check: Check) -> Span:
        middle = sum(check.plausible) / 2 if check.plausible else 30.0
        return middle - self.tolerance, middle + self.tolerance


def _two_sides(readings: Mapping[str, float], beside: Alike) -> str:
    """Two places are told as two: ``left 16 mm, right 14 mm``."""
    places = sorted(readings, key=positions.reading_order)
    return ", ".join(f"{positions.find(key).label.lower()} {beside.figure(readings[key])}" for key in places)
