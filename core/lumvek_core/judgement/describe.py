"""Values in words, for grids, lists and files."""

from ..catalogue.model import Check
from ..units import System
from .parse_reading import Value
from .words import unit_of, with_unit, without_unit


def short(check: Check, value: Value, system: System) -> str:
    """As little as a cell of a grid can show: ``387``, ``15 3/8``, ``30 · 31 · 28``, ``Rough``. The unit stands above the
    grid.
    """
    if value.choice:
        return _state(check, value)
    if own := check.rule.short(check, value, system):
        return own
    return " · ".join(without_unit(check, number, system) for number in value.numbers) or value.text


def full(check: Check, value: Value, system: System) -> str:
    """With unit: ``387 mm``, ``inside 2, outside 1 washers``, ``Rough``."""
    if value.choice:
        return _state(check, value)
    if not value.numbers:
        return value.text
    if own := check.rule.full(check, value, system):
        return own
    if len(value.numbers) == 1:
        return with_unit(check, value.numbers[0], system)
    unit = unit_of(check, system)
    if check.values and check.unit != "mm":
        named = (f"{name} {without_unit(check, n, system)}" for name, n in zip(check.values, value.numbers, strict=True))
        return f"{', '.join(named)} {unit}".strip()
    return f"{short(check, value, system)} {unit}".strip()


def remedy(check: Check, severity: str) -> str:
    """What the catalogue says is to be done about a fault; nothing where there is none."""
    return check.remedy if severity in ("due", "stop") else ""


def _state(check: Check, value: Value) -> str:
    return next((option.name for option in check.rule.states() if option.key == value.choice), value.choice)
