"""Figures in the sentences of a verdict, as its reader wants them."""

from collections.abc import Sequence

from ..catalogue.model import Check
from ..counted import counted
from ..pressures import PressureUnit, show_pressure
from ..units import System, beside, notation, plain, show_length

TYRES_FROM = 1000
"""Gauges that reach so many mbar show bar and psi; those of fans and vacuums mbar and inches of water."""
WHOLE = ("hole", "notch", "washers")
"""Units that are counted, never measured."""
PLACES = ("hole", "notch")
"""Places one after the other: ``hole 5`` is one of them, ``5 holes`` would be how far it is to another."""


def pressure_unit(check: Check, system: System) -> PressureUnit | None:
    """What a gauge for this check shows to a reader of these units; None where no pressure is read."""
    if check.unit not in ("mbar", "bar"):
        return None
    high = check.plausible[1] * (1000 if check.unit == "bar" else 1) if check.plausible else 0.0
    if high >= TYRES_FROM:
        return "psi" if system == "in" else "bar"
    return "inH2O" if system == "in" else "mbar"


def unit_of(check: Check, system: System) -> str:
    """The unit a bare figure of this check is in, and stands beside its field."""
    return {"mm": system, "deg": "°"}.get(check.unit or "") or pressure_unit(check, system) or check.unit or ""


def with_unit(check: Check, number: float, system: System) -> str:
    """A figure of this check with its unit: ``387 mm``, ``15 3/8 in``, ``2.2 bar``, ``notch 4``, ``2.5°``."""
    if check.unit == "mm":
        return show_length(number, system)
    if pressure := pressure_unit(check, system):
        return show_pressure(number, pressure)
    if check.unit in PLACES:
        return f"{check.unit} {plain(number, 2)}"
    if check.unit == "deg":
        return f"{plain(number, 2)}°"
    return f"{plain(number, 2)} {check.unit or ''}".strip()


def without_unit(check: Check, number: float, system: System) -> str:
    """As `with_unit`, where the unit stands above a grid; a thousandth of an inch keeps its own."""
    shown = with_unit(check, number, system)
    unit = unit_of(check, system)
    return shown.removesuffix(unit).removeprefix(unit).strip() if unit else shown


class Words:
    """Figures as this reader wants them, with their unit."""

    def __init__(self, check: Check, system: System) -> None:
        self.check, self.system = check, system

    def figure(self, number: float) -> str:
        return with_unit(self.check, number, self.system) if self.check.unit in PLACES else self.amount(number)

    def alike(self, *numbers: float) -> "Alike":
        """Figures that stand beside each other in one sentence, rounded together."""
        return Alike(self, numbers)

    def bare(self, number: float) -> str:
        """As `figure`, to stand beside another that has the unit; never below nothing."""
        return self.figure(max(number, 0.0)).removesuffix(f" {unit_of(self.check, self.system)}")

    def amount(self, number: float) -> str:
        """A difference rather than a place: ``2 holes`` where a place is ``hole 5``."""
        names = {"hole": ("hole", ""), "notch": ("notch", "notches"), "washers": ("washer", ""), "turns": ("turn", "")}
        if self.check.unit not in names:
            return with_unit(self.check, number, self.system)
        return counted(number, *names[self.check.unit])

    def all(self, numbers: list[float]) -> str:
        if not self.check.values:
            return self.figure(numbers[0])
        return ", ".join(f"{name} {self.figure(number)}" for name, number in zip(self.check.values, numbers, strict=True))


class Alike:
    """Figures in one notation, and the difference that is left between two of them as they are shown."""

    def __init__(self, say: Words, numbers: Sequence[float]) -> None:
        self.say = say
        self.notation = notation(numbers, say.system) if say.check.unit == "mm" else None

    def figure(self, number: float) -> str:
        return beside(number, self.notation.show(number), self.say.system) if self.notation else self.say.figure(number)

    def between(self, one: float, other: float) -> str:
        return self.notation.between(one, other) if self.notation else self.say.amount(abs(one - other))


def percent(share: float) -> str:
    """A share as whole per cent that never reads 100 before it is reached."""
    return f"{min(round(100 * share), 99) if share < 1 else round(100 * share)} %"
