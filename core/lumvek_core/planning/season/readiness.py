"""How far a machine is from being ready: hours of work left, and how much sooner or later than planned it may be."""

import datetime as dt
from collections.abc import Iterable, Sequence
from dataclasses import dataclass

SOONER, LATER = 0.75, 1.5
"""Shares of what is reckoned that untimed work may take, until the shop's own times are known."""
Shift = tuple[dt.datetime, dt.datetime]


@dataclass(frozen=True)
class WorkLeft:
    """Minutes of one job as reckoned, and between which it mostly takes here; None where it was not timed often enough."""

    minutes: float
    low: float | None = None
    high: float | None = None


@dataclass(frozen=True)
class Range:
    """hours: of work that is left. first, last: between which moments it will mostly be ready."""

    hours: float
    first: dt.datetime
    last: dt.datetime


def ready_between(ready: dt.datetime, left: Sequence[WorkLeft], shifts: Iterable[Shift]) -> Range:
    """From when it is ready as planned, and how sure its work is. What is sooner and what is later cancel out in part, so the
    spread of several jobs is the root of the sum of their squares. Moved along working time; behind the last shift it stays
    there."""
    known = _joined(shifts)
    low = sum((one.minutes - (one.low if one.low is not None else SOONER * one.minutes)) ** 2 for one in left) ** 0.5
    high = sum(((one.high if one.high is not None else LATER * one.minutes) - one.minutes) ** 2 for one in left) ** 0.5
    hours = sum(one.minutes for one in left) / 60
    return Range(hours, _moved(known, ready, -max(low, 0.0)), _moved(known, ready, max(high, 0.0)))


def _joined(shifts: Iterable[Shift]) -> list[Shift]:
    found: list[Shift] = []
    for start, end in sorted(shifts):
        if found and start <= found[-1][1]:
            found[-1] = (found[-1][0], max(end, found[-1][1]))
        else:
            found.append((start, end))
    return found


def _moved(shifts: Sequence[Shift], at: dt.datetime, minutes: float) -> dt.datetime:
    """So many minutes of working time later, or sooner where they are negative."""
    left = dt.timedelta(minutes=abs(minutes))
    ahead = minutes >= 0
    for start, end in shifts if ahead else reversed(shifts):
        begin, stop = (max(start, at), end) if ahead else (start, min(end, at))
        if stop <= begin:
            continue
        if stop - begin >= left:
            return begin + left if ahead else stop - left
        left -= stop - begin
        at = stop if ahead else begin
    return at
