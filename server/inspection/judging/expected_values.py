"""What the history of a machine lets expect of the places that are being read, while they are read.

What was known before a walk-around is pooled once and kept (`PlacesBefore`); each reading then moves its own place in closed
form. Like places learn from what is read of each other today when the last of them is read, and when the walk-around is
finished. A reading that surprises is held against everything there is, at once.
"""

import datetime as dt
from collections.abc import Collection, Iterable, Mapping
from dataclasses import asdict, dataclass, replace

from fleet.actions.history import mark_stale
from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.coupled import prefix_of
from lumvek_core.forecast import history, one_place
from lumvek_core.forecast.one_place import Standing
from lumvek_core.forecast.wearing import Coming, Measured, wearing_of
from lumvek_core.judgement.context import Expected

from ..models import PlacesBefore, Reading, Verdict, WalkAround, WearForecast
from ..queries import coupled, forecasts

Pair = tuple[str, str]
"""Check and position."""
Rows = Mapping[Pair, Verdict]


def expected_at(
    walk_around: WalkAround,
    book: CoreBook,
    rows: Rows,
    asked: Collection[Pair],
    typed: Collection[Pair],
    *,
    anew: Collection[str] = (),
) -> dict[Pair, Expected]:
    """What is to be expected at the places that are asked about, with what was just read there.

    rows: those that are at hand, with what was just read. typed: only these can be doubted; a place that was settled is not
    opened again by its neighbours. anew: checks whose like places are pooled again with what was read today. One query where
    nothing is pooled, none where nothing wears.
    """
    checks = {key: book.family.checks[key] for key in sorted({key for key, _ in asked})}
    checks = {key: check for key, check in checks.items() if check.wears}
    if not checks:
        return {}
    before = _before(walk_around, book, checks, rows, typed, set(anew))
    found: dict[Pair, Expected] = {}
    whole: set[Pair] = set()
    for pair in asked:
        if pair[0] in checks and pair in rows and rows[pair].reading.state == Reading.State.SEEN:
            told = before[pair[0]].read(checks[pair[0]], pair[1], rows[pair].reading)
            if told is None:
                whole.add(pair)
            elif told != NOTHING:
                found[pair] = told
    return found | _held_against_all(walk_around, book, checks, rows, whole, typed)


NOTHING = Expected(0, 0, 0, 0, 0, "")
"""Where nothing can be said: a machine without a counter."""


@dataclass(frozen=True)
class _Before:
    """`PlacesBefore` as the core takes it."""

    coming: Coming | None
    counted_at: dt.datetime | None
    places: dict[str, tuple[Standing, dt.datetime | None]]

    @classmethod
    def of(cls, row: PlacesBefore) -> "_Before":
        places = {}
        for name, columns in row.places.items():
            fitted_at = columns.pop("fitted_at")
            places[name] = Standing(**columns), dt.datetime.fromisoformat(fitted_at) if fitted_at else None
        return cls(Coming(**row.season) if row.season else None, row.counted_at, places)

    def read(self, check: Check, position: str, reading: Reading) -> Expected | None:
        """What a reading makes of its place; None where its own history does not suffice to say."""
        wearing, numbers = wearing_of(check), reading.value.get("numbers")
        if wearing is None or self.coming is None or self.counted_at is None or not numbers:
            return NOTHING
        standing, fitted_at = self.places[position]
        measured = Measured(reading.pk, self.coming.now, float(numbers[0]), reading.confirmed)
        earlier = reading.taken_at < self.counted_at or (fitted_at is not None and reading.taken_at <= fitted_at)
        if earlier or one_place.surprising(wearing, standing, measured, one_place.walk_of(wearing, self.coming)):
            return None
        seen = one_place.read(wearing, standing, measured, self.coming)
        return Expected(seen.now, seen.value, seen.low, seen.high, seen.p_cross, seen.chance_word)


def _before(
    walk_around: WalkAround,
    book: CoreBook,
    checks: Mapping[str, Check],
    rows: Rows,
    typed: Collection[Pair],
    anew: set[str],
) -> dict[str, _Before]:
    """What was known of these checks' places, pooled now where it was not yet, or where the machine's history has changed."""
    owners = _owners(walk_around, checks)
    kept = {row.check_key: row for row in PlacesBefore.objects.filter(walk_around=walk_around, check_key__in=checks)}
    for machine, mine in owners.items():
        missing = {
            key: check
            for key, check in mine.items()
            if key in anew or key not in kept or kept[key].edition != machine.history_edition
        }
        kept |= _pooled(walk_around, machine, missing, _today(walk_around, anew & missing.keys(), rows, typed))
        if machine is not walk_around.machine or not machine.wear_stale:
            # The machine is held with its walk-around: stale now is stale until this is written.
            mark_stale(machine.pk)
    return {key: _Before.of(row) for key, row in kept.items()}


def _pooled(
    walk_around: WalkAround, machine: Machine, checks: Mapping[str, Check], today: Mapping[Pair, Reading]
) -> dict[str, PlacesBefore]:
    """The places of these checks by all that is known of like ones, kept. today: what is to be learnt from this walk-around."""
    if not checks:
        return {}
    known = forecasts.know([machine], checks, without=walk_around)[machine.pk]
    _add(known, today)
    own = {reading.pk for reading in today.values()}
    coming, shares, made = known.coming(), _season_shares(machine, checks), {}
    for key, check in checks.items():
        wearing, standings = wearing_of(check), dict[str, Standing]()
        if wearing is not None and coming is not None:
            places = known.places(check, [one.key for one in positions.expand(check.per, walk_around.layout)])
            share = shares.get(key) or history.forecast(wearing, places, coming).season_share
            coming = replace(coming, season_share=share)
            standings = history.standings(wearing, places, coming, own)
        fitments = {name: known.fitment(check, name) for name in standings}
        made[key] = PlacesBefore(
            walk_around=walk_around,
            machine=machine,
            check_key=key,
            edition=machine.history_edition,
            counted_at=known.counts[-1].at if known.counts else None,
            season=asdict(coming) if coming else {},
            places={
                name: asdict(one) | {"fitted_at": fitment.fitted_at.isoformat() if (fitment := fitments[name]) else ""}
                for name, one in standings.items()
            },
        )
    PlacesBefore.objects.bulk_create(
        made.values(), update_conflicts=True, update_fields=["machine", "edition", "counted_at", "season", "places"]
    )
    return made


def _held_against_all(
    walk_around: WalkAround,
    book: CoreBook,
    checks: Mapping[str, Check],
    rows: Rows,
    asked: set[Pair],
    typed: Collection[Pair],
) -> dict[Pair, Expected]:
    """The same by a fit of all readings of like places, today's too: it finds slips, and parts that were renewed unsaid."""
    found: dict[Pair, Expected] = {}
    wanted = {key: checks[key] for key, _ in asked}
    for machine, mine in _owners(walk_around, wanted).items():
        known = forecasts.know([machine], mine, without=walk_around)[machine.pk]
        _add(known, _today(walk_around, mine, rows, typed))
        shares = _season_shares(machine, mine)
        for key, check in mine.items():
            wearing, coming, places = wearing_of(check), known.coming(), known.places(check)
            if wearing is None or coming is None:
                continue
            coming = replace(coming, season_share=shares.get(key) or history.forecast(wearing, places, coming).season_share)
            for one in history.look_ahead(wearing, places, coming):
                if (key, one.name) in asked:
                    doubted = (key, one.name) in typed and rows[key, one.name].reading.pk in one.doubted
                    found[key, one.name] = Expected(
                        one.now, one.value, one.low, one.high, one.p_cross, one.chance_word, doubted
                    )
    return found


def _today(walk_around: WalkAround, checks: Collection[str], rows: Rows, typed: Collection[Pair]) -> dict[Pair, Reading]:
    """What was read of these checks in this walk-around, but for what waits for an answer and is not the answer."""
    if not checks:
        return {}
    stored = Verdict.objects.filter(walk_around=walk_around, check_key__in=checks).select_related("reading")
    now = {(row.check_key, row.position_key): row for row in stored.only("check_key", "position_key", "ask", "reading")}
    now |= {pair: row for pair, row in rows.items() if pair[0] in checks}
    return {
        pair: row.reading
        for pair, row in now.items()
        if row.reading.state == Reading.State.SEEN and (pair in typed or not row.ask)
    }


def _add(known: forecasts.Known, today: Mapping[Pair, Reading]) -> None:
    """Today's readings to what is known."""
    for (key, place), reading in today.items():
        forecasts.add(known, key, place, reading.pk, reading.taken_at, reading.value, reading.confirmed)


def _season_shares(machine: Machine, checks: Iterable[str]) -> dict[str, float]:
    """How far a machine's seasons differ, by check: learnt from years of readings, so that one more today does not change
    it.
    """
    stored = WearForecast.objects.filter(machine=machine, check_key__in=list(checks)).values_list("check_key", "season")
    return {key: season["season_share"] for key, season in stored if season.get("season_share")}


def _owners(walk_around: WalkAround, checks: Mapping[str, Check]) -> dict[Machine, dict[str, Check]]:
    """The machine or header that each check is made on."""
    headers = any(prefix_of(key) for key in checks)
    there = coupled.of(walk_around) if headers else None
    found: dict[Machine, dict[str, Check]] = {}
    for key, check in checks.items():
        found.setdefault(there.owner(key) if there else walk_around.machine, {})[key] = check
    return found
