"""From what was read at like places over the years to where each will stand at the end of the coming season.

A forecast needs the use since a part was fitted, and readings of that part alone. This is where a history that is not so tidy
gets a sensible answer: nobody wrote down when the part was fitted, there is one reading or none, somebody slipped with the
tape, somebody renewed the part and did not say so. Whatever was decided is told beside the forecast.
"""

import math
from collections.abc import Collection, Sequence
from dataclasses import dataclass, field, replace
from itertools import pairwise
from statistics import median

from ..calculators.forecast import NINETY, SLIP, Chance, chance_word, p_cross
from . import one_place
from .one_place import Standing
from .wear import Ahead, Line, Row, rows_together
from .wearing import SEASON_SHARE, Coming, Measured, Wearing, renewed_between, renewed_from

OWN_SEASONS = 12
"""Seasons of single places that weigh as much as the starting value."""
FASTER = 1.25
"""A place that stands out is called faster from so many times the middle rate on: where much is known, small differences stand
out too."""


@dataclass(frozen=True)
class Place:
    """One of several like places, with the readings of the part in it, oldest first.

    fitted: counter at which the part was fitted, None where nobody wrote it down. life: of this variant against the usual one
    (1.3: a hardened part). group: places that wear alike, such as rows behind wheels.
    """

    name: str
    readings: Sequence[Measured]
    fitted: float | None = None
    life: float = 1.0
    group: str | None = None


@dataclass(frozen=True)
class Told:
    """The line at one counter, with its 90 % range."""

    counter: float
    value: float
    low: float
    high: float


@dataclass(frozen=True)
class PlaceAhead:
    """What is to be expected at a place. value, low, high (90 %), p_cross: of the true value at the season's end; now: today's,
    last: the newest reading.

    rate: per hour or hectare, of this very part. n: readings it rests on. doubted: readings that do not fit; renewed: the first
    reading of a part that must have been fitted without anybody writing it down. path: from where its history begins to the end
    of the season. faster: it stands out, and for the worse. better: readings got better by more than their own error, which
    wear never does.
    """

    name: str
    n: int
    start_known: bool
    rate: float
    rate_sd: float
    last: float | None
    now: float
    value: float
    low: float
    high: float
    p_cross: float
    chance_word: Chance
    stands_out: bool
    faster: bool
    doubted: list[int] = field(default_factory=list)
    renewed: int | None = None
    better: bool = False
    path: list[Told] = field(default_factory=list)


@dataclass(frozen=True)
class _Line:
    """A place as it is fitted: use 0 at `start`."""

    place: Place
    start: float
    start_known: bool
    kept: list[Measured]
    doubted: list[int]
    renewed: int | None

    def use(self, counter: float) -> float:
        return max(counter - self.start, 0.0) / self.place.life


def look_ahead(wearing: Wearing, places: Sequence[Place], coming: Coming) -> list[PlaceAhead]:
    """Where each place will stand at `coming.end`. Places that learn from each other belong in one call.

    A place with neither a reading nor a known fitting has no forecast and is left out. A slip is left out of the line, worst
    first, and named; what a technician stands by is not. Of one reading alone nothing can be left out: it is doubted, and
    counts.
    """
    known = [place for place in places if place.readings or place.fitted is not None]
    if not known:
        return []
    lines, found = _settled(wearing, known, coming)
    rates = [one.rate / line.place.life for one, line in zip(found, lines, strict=True)]
    middle = abs(median(rates))
    told = []
    for i, (line, one) in enumerate(zip(lines, found, strict=True)):
        apart = _apart(i, rates, one, line)
        told.append(_told(wearing, line, one, coming, apart, apart and abs(rates[i]) > FASTER * middle))
    return told


def _settled(wearing: Wearing, places: Sequence[Place], coming: Coming) -> tuple[list[_Line], list[Ahead]]:
    """The lines of these places without their slips, and what follows from them."""
    lines = [_begun(wearing, place, coming.now) for place in places]
    for _ in range(3):
        found = _fitted(wearing, lines, coming)
        lines, again = _without_slips(lines, found)
        if not again:
            return lines, found
    return lines, _fitted(wearing, lines, coming)


def standings(wearing: Wearing, places: Sequence[Place], coming: Coming, today: Collection[int] = ()) -> dict[str, Standing]:
    """What is known of each place before it is read, for `one_place` to go on from. Places without any history are told too.

    today: keys of the readings that are being taken. Every place learns from the others' readings of today, none from its own:
    that one is still to be typed, or may be typed again. Like places belong in one call.
    """
    before = [replace(place, readings=[one for one in place.readings if one.key not in today]) for place in places]
    if not before:
        return {}
    lines, found = _settled(wearing, before, coming)
    if today:
        _, found = _settled(wearing, places, coming)
    walk, told = one_place.walk_of(wearing, coming), {}
    for line, one in zip(lines, found, strict=True):
        rate, rate_var = one.others
        begun = one_place.begun(wearing, line.start, rate, rate_var, line.place.life, known=line.start_known)
        known = one_place.standing_after(wearing, begun, line.kept, walk)
        told[line.place.name] = replace(known, doubted=bool(line.doubted))
    return told


@dataclass(frozen=True)
class Judged:
    """places: the forecasts. season_share: how far seasons were taken to differ; seasons: of single places it was learnt
    from.
    """

    places: list[PlaceAhead]
    season_share: float
    seasons: int


def forecast(wearing: Wearing, places: Sequence[Place], coming: Coming) -> Judged:
    """As `look_ahead`, with the season term learnt from these places' own seasons where there are enough of them."""
    found = look_ahead(wearing, places, coming)
    out = {one.name: set(one.doubted) for one in found}
    tidy = [
        replace(place, readings=[one for one in place.readings if one.key not in out[place.name]])
        for place in places
        if place.name in out and all(one.renewed is None for one in found if one.name == place.name)
    ]
    share, seasons = own_season_share(wearing, tidy, coming.season_use)
    if seasons:
        found = look_ahead(wearing, places, replace(coming, season_share=share))
    return Judged(found, share, seasons)


def own_season_share(wearing: Wearing, places: Sequence[Place], season_use: float) -> tuple[float, int]:
    """(share, seasons): how far this machine's seasons differ, drawn towards the starting value until there are enough of them.

    From what single places lost in one season against their own mean, less what the readings' errors explain. Places with fewer
    than three readings say nothing. Slips must be left out before.
    """
    off, seasons = 0.0, 0
    for place in places:
        steps = [(b.counter - a.counter, b.value - a.value) for a, b in pairwise(place.readings)]
        steps = [(use / place.life, change) for use, change in steps if use > 0]
        if len(steps) < 2:
            continue
        rate = sum(change for _, change in steps) / sum(use for use, _ in steps)
        free = len(steps) / (len(steps) - 1)
        off += sum(free * (change - rate * use) ** 2 / use - 2 * wearing.reading_sd**2 / use for use, change in steps)
        seasons += len(steps)
    if not seasons:
        return SEASON_SHARE, 0
    own = max(off / seasons / (wearing.rate**2 * season_use), 0.0)
    share = math.sqrt((OWN_SEASONS * SEASON_SHARE**2 + seasons * own) / (OWN_SEASONS + seasons))
    return min(max(share, 0.05), 0.5), seasons


def _begun(wearing: Wearing, place: Place, now: float) -> _Line:
    """Where a place's history begins: where its part was fitted, else at its first reading."""
    renewed = _renewed(wearing, place.readings)
    if renewed:
        kept = list(place.readings[renewed:])
        return _Line(place, kept[0].counter, False, kept, [], kept[0].key)
    if place.fitted is not None:
        return _Line(place, place.fitted, True, list(place.readings), [], None)
    return _Line(place, place.readings[0].counter if place.readings else now, False, list(place.readings), [], None)


def _renewed(wearing: Wearing, readings: Sequence[Measured]) -> int:
    """Index of the first reading of a part that was renewed unsaid; 0 where none was.

    It reads as good as new and far better than the time before, and the time before was no slip: the reading before that one
    bears it out, or there is none.
    """
    far = renewed_from(wearing)
    used = [wearing.used(one.value) for one in readings]
    for i in range(len(readings) - 1, 0, -1):
        slipped = i > 1 and used[i] >= used[i - 2] - far / 2
        if renewed_between(wearing, readings[i - 1].value, readings[i].value) and not slipped:
            return i
    return 0


def _fitted(wearing: Wearing, lines: Sequence[_Line], coming: Coming) -> list[Ahead]:
    line = Line(
        new=wearing.new,
        new_sd=one_place.start_sd(wearing, None),
        reading_sd=wearing.reading_sd,
        rate=wearing.rate,
        rate_sd=wearing.spread * abs(wearing.rate),
        walk=one_place.walk_of(wearing, coming),
    )
    rows = [
        Row(
            uses=[one.use(reading.counter) for reading in one.kept],
            values=[reading.value for reading in one.kept],
            ahead=one.use(coming.end),
            group=one.place.group,
            new_sd=None if one.start_known or not one.kept else one_place.start_sd(wearing, one.kept[0].value),
            also=[one.use(counter) for counter in _counters(one, coming)],
        )
        for one in lines
    ]
    return rows_together(line, rows)[0]


def _counters(line: _Line, coming: Coming) -> list[float]:
    """Today first; then the way from where the history begins through today to the season's end."""
    half = coming.now + (coming.end - coming.now) / 2
    return [coming.now, line.start, coming.now, half, coming.end]


def _without_slips(lines: Sequence[_Line], found: Sequence[Ahead]) -> tuple[list[_Line], bool]:
    """The lines without the worst slip of each, and whether any was left out. The newer of two that are as bad goes first."""
    kept, again = [], False
    for line, ahead in zip(lines, found, strict=True):
        newest = len(line.kept) - 1
        bad = [i for i, error in enumerate(ahead.errors) if error > SLIP and not (i == newest and line.kept[i].stands)]
        if not bad:
            kept.append(line)
            continue
        worst = max(bad, key=lambda i: (round(ahead.errors[i], 1), i))
        alone = len(line.kept) == 1
        readings = line.kept if alone else [one for i, one in enumerate(line.kept) if i != worst]
        doubted = [*line.doubted, line.kept[worst].key]
        if alone:
            kept.append(replace(line, doubted=[*dict.fromkeys(doubted)]))
            continue
        again = True
        kept.append(
            replace(line, kept=readings, doubted=doubted, start=line.start if line.start_known else readings[0].counter)
        )
    return kept, again


def _apart(index: int, rates: Sequence[float], ahead: Ahead, line: _Line) -> bool:
    """Whether a place wears otherwise than the rest by more than it is unsure."""
    if len(rates) < 2:
        return False
    others = (sum(rates) - rates[index]) / (len(rates) - 1)
    return abs(rates[index] - others) > NINETY * ahead.rate_sd / line.place.life


def _told(wearing: Wearing, line: _Line, ahead: Ahead, coming: Coming, stands_out: bool, faster: bool) -> PlaceAhead:
    now, *path = ahead.also
    end_sd = math.hypot(ahead.sd, ahead.rate * coming.use_sd / line.place.life)
    path[-1] = (path[-1][0], end_sd)
    crossed = p_cross(ahead.value, end_sd, wearing.new, wearing.limit)
    # With one slip left out of many the others go down as they should; of two readings nobody knows which one is wrong.
    told = line.kept if line.renewed is not None or len(line.kept) > 1 else line.place.readings
    used = [wearing.used(reading.value) for reading in told]
    error = 4 * math.sqrt(2) * wearing.reading_sd / abs(wearing.limit - wearing.new)
    return PlaceAhead(
        name=line.place.name,
        n=len(line.kept),
        start_known=line.start_known,
        rate=ahead.rate / line.place.life,
        rate_sd=ahead.rate_sd / line.place.life,
        last=line.kept[-1].value if line.kept else None,
        now=now[0],
        value=ahead.value,
        low=ahead.value - NINETY * end_sd,
        high=ahead.value + NINETY * end_sd,
        p_cross=crossed,
        chance_word=chance_word(crossed),
        stands_out=stands_out,
        faster=faster,
        doubted=line.doubted,
        renewed=line.renewed,
        better=any(a - b > error for a, b in pairwise(used)),
        path=[
            Told(counter, value, value - NINETY * sd, value + NINETY * sd)
            for counter, (value, sd) in zip(_counters(line, coming)[1:], path, strict=True)
        ],
    )
