"""Lengths as people write them."""

from dataclasses import dataclass

from .. import units
from ..registry import calculator


@dataclass(frozen=True)
class LengthText:
    text: str
    default_unit: units.Unit = "mm"


@dataclass(frozen=True)
class Length:
    value_mm: float
    inches_text: str
    mm_text: str


@calculator
def parse_length(given: LengthText) -> Length:
    """Understand a length in any of the trade's notations.

    ``14 5/8``, ``14½``, ``.025``, ``25 thou``, ``37,1 cm``, ``1' 2 1/2"``. A bare decimal takes the default unit, a fraction is
    always inches. Returns the value in mm and as it is shown in both systems. Refuses, with the reason, what can be read two
    ways (field ``text``).
    """
    value = units.parse_length(given.text, given.default_unit)
    return Length(value, units.show_inches(value), units.show_mm(value))
