"""From what was typed to a value."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field

from .. import units
from ..calculators.opener import FEELERS_MM
from ..catalogue.model import Check
from ..errors import BadInput
from .rules import ContactRule, CountRule, options

_NUMBER = re.compile(r"[-−]?(?:[0-9]+(?:[.,][0-9]*)?|[.,][0-9]+)")


@dataclass(frozen=True)
class Value:
    """What a reading means. numbers: in the check's unit, lengths in mm. choice: key of a named state. feeler_mm: its thickness."""

    numbers: list[float] = field(default_factory=list)
    choice: str = ""
    text: str = ""
    feeler_mm: float | None = None


def understand(check: Check, raw: Sequence[str], feeler: str = "", default_unit: units.Unit = "mm") -> Value:
    """The value that `raw` means for this check.

    raw: one text for each figure of the position, or one text in all. Choices are understood by key or by their number on
    screen. feeler: a name from `FEELERS_MM` or a thickness. Raises BadInput with field ``raw.<n>`` or ``feeler``.
    """
    states = options(check.rule)
    wanted = 1 if states or not check.values else len(check.values)
    if len(raw) != wanted:
        raise BadInput("raw", f"needs {wanted} {'entry' if wanted == 1 else 'entries'}")
    if states:
        return Value(choice=_state(raw[0], [option.key for option in states]))
    if check.kind == "note":
        return Value(text=raw[0].strip())
    numbers = [_number(check, text, i, default_unit) for i, text in enumerate(raw)]
    return Value(numbers=numbers, feeler_mm=_feeler(feeler) if isinstance(check.rule, ContactRule) else None)


def _state(text: str, keys: list[str]) -> str:
    text = text.strip().lower()
    if text in keys:
        return text
    if text.isascii() and text.isdigit() and 1 <= int(text) <= len(keys):
        return keys[int(text) - 1]
    raise BadInput("raw.0", f"must be one of the {len(keys)} states shown")


def _number(check: Check, text: str, index: int, default_unit: units.Unit) -> float:
    if check.unit == "mm":
        try:
            return units.parse_length(text, default_unit)
        except BadInput as problem:
            raise BadInput(f"raw.{index}", problem.message) from None
    cleaned = text.strip().lower().removesuffix(check.unit or "").strip()
    if not _NUMBER.fullmatch(cleaned) or len(cleaned) > 12:
        raise BadInput(f"raw.{index}", f"must be a number{f' of {check.unit}' if check.unit else ''}")
    value = float(cleaned.replace("−", "-").replace(",", "."))
    if value < 0:
        raise BadInput(f"raw.{index}", "must be 0 or more")
    if isinstance(check.rule, CountRule):
        if not value.is_integer():
            raise BadInput(f"raw.{index}", "must be a whole number")
        if value > check.rule.of:
            raise BadInput(f"raw.{index}", f"there are only {check.rule.of}")
    return value


def _feeler(text: str) -> float:
    name = text.strip().lower()
    if name in FEELERS_MM:
        return FEELERS_MM[name]
    if not name:
        raise BadInput("feeler", "say which feeler was used")
    try:
        thickness = units.parse_length(name)
    except BadInput as problem:
        raise BadInput("feeler", problem.message) from None
    if not 0 < thickness <= 5:
        raise BadInput("feeler", "must be between 0 and 5 mm thick")
    return thickness
