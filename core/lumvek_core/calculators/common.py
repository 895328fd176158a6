"""Bounds that many calculations share."""

from typing import Annotated

from ..errors import BadInput
from ..shapes import Over, Within

Positive = Annotated[float, Over(0)]
NotNegative = Annotated[float, Within(0)]
Chance = Annotated[float, Within(0, 1)]
Percent = Annotated[float, Within(0, 100)]
Count = Annotated[int, Within(0)]


def different_names(names: list[str], field: str) -> None:
    """Refuse a name that is given twice: its figures could not be told apart. `field` is the list's name."""
    for i, name in enumerate(names):
        if name in names[:i]:
            raise BadInput(f"{field}.{i}.name", f"“{name}” is there already")


def some(things: object, field: str, what: str) -> None:
    """Refuse an empty list."""
    if not things:
        raise BadInput(field, f"needs at least one {what}")
