"""Figures that are kept of a calibration, as each reader types and reads them: lengths are kept in the unit that the catalogue
names, ``mm`` or ``m``, whatever they were typed in."""

import re
from typing import Literal

from .catalogue.calibration import CalibrationValue
from .compare import exceeds
from .errors import BadInput
from .units import MM_PER, NUMBER, System, decimal_of, parse_length, plain, show_length, tidy

LengthUnit = Literal["mm", "m", "in", "ft"]
_TYPED_IN: dict[tuple[str, System], LengthUnit] = {
    ("mm", "mm"): "mm",
    ("m", "mm"): "m",
    ("mm", "in"): "in",
    ("m", "in"): "ft",
}


def unit_of(value: CalibrationValue, system: System) -> str:
    """What a bare figure is in for a reader of this system: widths are in feet where lengths are in inches."""
    return _TYPED_IN.get((value.unit, system), value.unit)


def kept(text: str, value: CalibrationValue, system: System) -> float:
    """What is kept of a figure as it was typed: ``-1/8`` of an inch as -3.175 mm.

    Raises BadInput with field ``text`` where it is none, or lies outside what anybody can mean.
    """
    text = text.strip().replace("−", "-")
    sign, bare = (-1, text[1:].strip()) if text.startswith("-") else (1, text)
    typed_in = _TYPED_IN.get((value.unit, system))
    if typed_in:
        found = sign * parse_length(bare, typed_in) / float(MM_PER[value.unit])
    else:
        found = sign * _plain_figure(bare, value.unit)
    if exceeds(found, value.high) or exceeds(value.low, found):
        ends = f"{_bare(value.low, value, system)} and {shown(value.high, value, system)}"
        raise BadInput("text", f"must lie between {ends}")
    return found


def shown(figure: float, value: CalibrationValue, system: System) -> str:
    """With its unit, as a reader of this system reads it: ``2.5 mm``, ``3/32 in``, ``29.5 ft``."""
    unit = unit_of(value, system)
    if value.unit == "mm":
        text = show_length(figure, system)
    elif unit == "ft":
        text = f"{plain(figure * float(MM_PER['m'] / MM_PER['ft']), 1)} ft"
    else:
        text = f"{plain(figure, 4)} {unit}".rstrip()
    return text.replace("-", "−")


def _bare(figure: float, value: CalibrationValue, system: System) -> str:
    return shown(figure, value, system).removesuffix(f" {unit_of(value, system)}")


def _plain_figure(text: str, unit: str) -> float:
    figure = tidy(text).removesuffix(unit.lower()).strip()
    if not re.fullmatch(NUMBER, figure):
        raise BadInput("text", "must be a figure" + (f" in {unit}" if unit else ""))
    return float(decimal_of(figure))
