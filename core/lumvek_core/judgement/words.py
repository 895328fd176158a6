"""Figures in the sentences of a verdict, as its reader wants them."""

from ..catalogue.model import Check
from ..units import System, plain, show_length


class Words:
    """Figures as this reader wants them, with their unit."""

    def __init__(self, check: Check, system: System) -> None:
        self.check, self.system = check, system

    def figure(self, number: float) -> str:
        if self.check.unit == "mm":
            return show_length(number, self.system)
        if self.check.unit in ("hole", "notch"):
            return f"{self.check.unit} {plain(number, 2)}"
        return self.amount(number)

    def bare(self, number: float) -> str:
        """As `figure`, to stand beside another that has the unit; never below nothing."""
        shown = self.figure(max(number, 0.0))
        return shown.removesuffix(f" {self.system}") if self.check.unit == "mm" else shown

    def amount(self, number: float) -> str:
        """A difference rather than a place: ``2 holes`` where a place is ``hole 5``."""
        if self.check.unit == "mm":
            return show_length(number, self.system)
        unit = self.check.unit or ""
        plural = {"hole": "holes", "notch": "notches"}.get(unit, unit) if number != 1 else unit.removesuffix("s")
        return f"{plain(number, 2)} {plural}".strip()

    def all(self, numbers: list[float]) -> str:
        if not self.check.values:
            return self.figure(numbers[0])
        return ", ".join(f"{name} {self.figure(number)}" for name, number in zip(self.check.values, numbers, strict=True))


def percent(share: float) -> str:
    """A share as whole per cent that never reads 100 before it is reached."""
    return f"{min(round(100 * share), 99) if share < 1 else round(100 * share)} %"
