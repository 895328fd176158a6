"""Bounds that many calculations share."""

import datetime as dt
from typing import Annotated

from ..bounds import Over, Within
from ..errors import BadInput

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


def day(text: str, field: str) -> dt.date:
    """A calendar day as ``2026-03-05``. Raises BadInput at `field`."""
    try:
        return dt.date.fromisoformat(text)
    except ValueError:
        raise BadInput(field, "must be a day such as 2026-03-05") from None


def moment(text: str, field: str) -> dt.datetime:
    """A day with a time of the shop's own clock, ``2026-03-05T08:20``; a day alone is its midnight. Raises BadInput at
    `field`.
    """
    try:
        found = dt.datetime.fromisoformat(text)
    except ValueError:
        raise BadInput(field, "must be a day and time such as 2026-03-05T08:20") from None
    if found.tzinfo is not None:
        raise BadInput(field, "is read on the shop's own clock: leave the time zone out")
    return found


def clock(text: str, field: str) -> dt.time:
    """A time of day as ``07:30``. Raises BadInput at `field`."""
    try:
        found = dt.time.fromisoformat(text)
    except ValueError:
        raise BadInput(field, "must be a time such as 07:30") from None
    if found.tzinfo is not None:
        raise BadInput(field, "must be a time such as 07:30")
    return found
