"""From what was typed to a value."""

import datetime as dt
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from .. import pressures, units
from ..calculators.opener import FEELERS_MM
from ..catalogue.model import Check
from ..counted import counted
from ..errors import BadInput
from .words import WHOLE, pressure_unit

FULL_WIDTH = {ord("０") + digit: str(digit) for digit in range(10)} | {
    ord(wide): plain for wide, plain in zip("．，／－＋＝　", ".,/-+= ", strict=True)
}
"""Digits and signs as keyboards of other scripts type them."""

_NUMBER = re.compile(r"[-+−]?(?:[0-9]+(?:[.,][0-9]*)?|[.,][0-9]+)")


@dataclass(frozen=True)
class Value:
    """What a reading means. numbers: in the check's unit, lengths in mm. choice: key of a named state. feeler_mm: its
    thickness."""

    numbers: list[float] = field(default_factory=list)
    choice: str = ""
    text: str = ""
    feeler_mm: float | None = None


def parse_reading(
    check: Check,
    raw: Sequence[str],
    feeler: str = "",
    default_unit: units.Unit = "mm",
    feelers: Mapping[str, float] = FEELERS_MM,
    gauge: str = "",
) -> Value:
    """The value that `raw` means for this check.

    raw: one text for each figure of the position, or one text in all. Choices are understood by key or by their number on
    screen. feeler: a name from `feelers` (the shop's own go before the usual ones) or a thickness. gauge: the unit that this
    machine's gauge showed the last time, which a bare figure is in. Raises BadInput with field ``raw.<n>`` or ``feeler``.
    """
    raw = [text.translate(FULL_WIDTH) for text in raw]
    states = check.rule.states()
    wanted = 1 if states or not check.values else len(check.values)
    if len(raw) != wanted:
        raise BadInput("raw", f"needs {counted(wanted, 'entry', 'entries')}")
    if states:
        return Value(choice=_state(raw[0], [option.key for option in states]))
    if check.kind == "note":
        return Value(text=raw[0].strip())
    if gauge and check.rule.keeps_unit and _NUMBER.fullmatch(raw[0].strip()):
        raw = [f"{raw[0]} {gauge}"]
    if value := check.rule.read(check, raw, default_unit):
        return value
    numbers = [number_of(check, text, i, default_unit) for i, text in enumerate(raw)]
    thickness = _feeler(feeler, {**FEELERS_MM, **feelers}) if check.rule.by_feeler else None
    return Value(numbers=numbers, feeler_mm=thickness)


def _state(text: str, keys: list[str]) -> str:
    text = text.strip().lower()
    if text in keys:
        return text
    if text.isascii() and text.isdigit() and 1 <= int(text) <= len(keys):
        return keys[int(text) - 1]
    raise BadInput("raw.0", f"must be one of the {len(keys)} states shown")


def number_of(check: Check, text: str, index: int = 0, default_unit: units.Unit = "mm") -> float:
    """One figure in the check's unit, lengths in mm. Raises BadInput with field ``raw.<index>``."""
    if beyond := check.rule.negative(text):
        return -number_of(check, beyond, index, default_unit)
    if check.unit == "mm":
        try:
            return units.parse_length(text.strip().removesuffix("short"), default_unit)
        except BadInput as problem:
            raise BadInput(f"raw.{index}", problem.message) from None
    if pressure := pressure_unit(check, "in" if default_unit == "in" else "mm"):
        try:
            return pressures.parse_pressure(text, pressure) / pressures.MBAR_PER[check.unit]  # type: ignore[index]
        except BadInput as problem:
            raise BadInput(f"raw.{index}", problem.message) from None
    cleaned = text.strip().lower().removesuffix(check.unit or "").strip()
    if not _NUMBER.fullmatch(cleaned) or len(cleaned) > 12:
        raise BadInput(f"raw.{index}", f"must be a number{f' of {check.unit}' if check.unit else ''}")
    value = float(cleaned.replace("−", "-").replace(",", "."))
    if value < 0:
        raise BadInput(f"raw.{index}", "must be 0 or more")
    if check.unit in WHOLE and not value.is_integer():
        raise BadInput(f"raw.{index}", "is counted: it must be a whole number")
    return value


def last_done(text: str) -> Value:
    """When it was last done: the counter in hours, or a day as ``2026-03-05`` or ``5.3.2026``."""
    cleaned = text.strip().lower()
    for pattern in ("%Y-%m-%d", "%d.%m.%Y"):
        try:
            return Value(text=dt.datetime.strptime(cleaned, pattern).date().isoformat())
        except ValueError:
            continue
    cleaned = cleaned.removesuffix("h").strip()
    if not _NUMBER.fullmatch(cleaned) or len(cleaned) > 12 or cleaned[0] in "-−":
        raise BadInput("raw.0", "must be the counter when it was last done (1890 h) or the day (2026-03-05)")
    return Value(numbers=[float(cleaned.replace(",", "."))])


def _feeler(text: str, feelers: Mapping[str, float]) -> float:
    name = text.strip().lower()
    if name in feelers:
        return feelers[name]
    if not name:
        raise BadInput("feeler", "say which feeler was used")
    try:
        thickness = units.parse_length(name)
    except BadInput as problem:
        raise BadInput("feeler", problem.message) from None
    if not 0 < thickness <= 5:
        raise BadInput("feeler", "must be between 0 and 5 mm thick")
    return thickness
