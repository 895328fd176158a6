"""A machine's counter, in hours or hectares: what the meter showed, what the machine has done in all, and what cannot be.

A meter is exchanged or starts again at zero; the machine's own count goes on. All moments and figures are arguments.
"""

import datetime as dt
from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from statistics import stdev

from .compare import below, exceeds
from .errors import Doubted
from .units import plain

MOST_A_DAY = {"h": 22.0, "ha": 250.0}
"""More than this in a day is asked about."""
MOST_SEASONS = 3.0
"""And more than so many of its usual seasons at once."""
YEAR = dt.timedelta(days=365)


@dataclass(frozen=True)
class Count:
    """What the machine had done at a moment, all its meters together."""

    at: dt.datetime
    total: float


def total_at(counts: Sequence[Count], when: dt.datetime) -> float | None:
    """What the machine had done at a moment, between two counts in proportion; after the last one the last, before the first
    None."""
    i = bisect_right(counts, when, key=lambda one: one.at)
    if i == 0:
        return None
    if i == len(counts):
        return counts[-1].total
    before, after = counts[i - 1], counts[i]
    share = (when - before.at) / (after.at - before.at)
    return before.total + share * (after.total - before.total)


def seasons(counts: Sequence[Count], today: dt.datetime, most: int = 6) -> list[float]:
    """Use in each of the last years, newest first, as far as the counts reach back."""
    marks = [total_at(counts, today - i * YEAR) for i in range(most + 1)]
    return [now - before for now, before in pairwise(marks) if now is not None and before is not None]


def usual_season(counts: Sequence[Count], today: dt.datetime) -> float | None:
    """The mean of the last three seasons on record that had any use; None where there is none."""
    used = [one for one in seasons(counts, today) if exceeds(one, 0)][:3]
    return sum(used) / len(used) if used else None


UNSURE = 0.25
"""One standard deviation of a season's length, as a share, until there are three seasons to tell."""


def season_sd(counts: Sequence[Count], today: dt.datetime, use: float) -> float:
    """How far one season's use differs from the next, from the last seasons that had any; a starting value with fewer than
    three."""
    used = [one for one in seasons(counts, today) if exceeds(one, 0)]
    return stdev(used) if len(used) > 2 else UNSURE * use


def question(counts: Sequence[Count], new: Count, unit: str) -> Doubted | None:
    """What to ask about a count (field ``shown``) before it is believed; None where nothing is wrong. unit: ``h`` or ``ha``.

    Counts may come in any order of time: the new one is held against its neighbours.
    """
    i = bisect_right(counts, new.at, key=lambda one: one.at)
    before, after = counts[i - 1] if i else None, counts[i] if i < len(counts) else None
    if before and below(new.total, before.total):
        less = f"{_shown(new.total, unit)} is less than the {_shown(before.total, unit)} of {_day(before.at)}"
        return Doubted("shown", f"{less}. Was the meter exchanged or set back, or was a figure mistyped?", "exchange")
    if after and exceeds(new.total, after.total):
        return Doubted(
            "shown", f"{_shown(new.total, unit)} is more than the {_shown(after.total, unit)} read later, on {_day(after.at)}."
        )
    if before is None:
        return None
    more, days = new.total - before.total, (new.at - before.at) / dt.timedelta(days=1)
    if exceeds(more, MOST_A_DAY[unit] * max(days, 1)):
        most = f"no machine does more than {_shown(MOST_A_DAY[unit], unit)} a day"
        return Doubted("shown", f"{_shown(more, unit)} since {_day(before.at)}: {most}.", "confirm", "exchange")
    season = usual_season(counts, before.at)
    if season and exceeds(more, MOST_SEASONS * season * max(days / YEAR.days, 1)):
        usual = f"where a season is usually {_shown(season, unit)}"
        return Doubted("shown", f"{_shown(more, unit)} since {_day(before.at)}, {usual}.", "confirm", "exchange")
    return None


def _shown(figure: float, unit: str) -> str:
    return f"{plain(figure, 0)} {unit}"


def _day(at: dt.datetime) -> str:
    return f"{at:%-d %b %Y}"
