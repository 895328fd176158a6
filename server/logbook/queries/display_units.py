"""Figures of wear as a reader wants them: lengths in their own unit, stretch in per cent."""

from dataclasses import dataclass

from lumvek_core.catalogue.model import Check
from lumvek_core.units import System

MM_PER_INCH = 25.4


@dataclass(frozen=True)
class Scale:
    """shown = (value − zero) · factor, in `unit`, with so many decimals."""

    unit: str
    decimals: int
    factor: float = 1.0
    zero: float = 0.0

    def value(self, value: float) -> float:
        return round((value - self.zero) * self.factor, 6)

    def change(self, change: float) -> float:
        """A difference or a rate."""
        return round(change * self.factor, 9)


def scale_of(check: Check, system: System) -> Scale:
    if new := check.rule.per_cent_of():
        return Scale("%", 2, 100 / new, new)
    if check.unit == "mm" and system == "in":
        return Scale("in", 3, 1 / MM_PER_INCH)
    fine = check.reading_error is not None and check.reading_error < 0.5
    return Scale(check.unit or "", 2 if fine else 1)
