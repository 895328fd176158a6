"""The route of one walk-around: its checks grouped by posture, so that the machine is moved least."""

from collections.abc import Sequence

from ..catalogue.lists import Move
from ..catalogue.model import Check, Station
from ..catalogue.rule_book import RuleBook
from ..errors import BadInput
from .route import Route, RouteCheck, RouteGiven, posture_route
from .shortest import RouteMove, shortest

BENCH = "bench"


def plan(book: RuleBook, checks: Sequence[Check], moves: Sequence[Move]) -> Route:
    """The order of postures for these checks, from the posture the machine is found in.

    Stations are ranked by the shop's school of order. Beside each check's own `after`, what is cleaned *first* comes before
    everything else at its station, and what is greased *last* comes after everything else that is done there in the same
    posture. Raises BadInput if the catalogue's order contradicts itself.
    """
    rank = {key: i for i, key in enumerate(ranked(book))}
    station_of = {check.key: station.key for station in book.family.stations for check in station.checks}
    wanted = {check.key for check in checks}
    given = [
        RouteCheck(check.key, check.posture, rank[station_of[check.key]], _after(check, checks, station_of, wanted))
        for check in checks
    ]
    return posture_route(RouteGiven(given, ways(moves), book.family.start))


def ways(moves: Sequence[Move]) -> list[RouteMove]:
    """One-way moves: those that go both ways are two."""
    there = [RouteMove(move.from_, move.to, move.minutes) for move in moves]
    return there + [RouteMove(move.to, move.from_, move.minutes) for move in moves if move.both]


def minutes_of(postures: Sequence[str], book: RuleBook, moves: Sequence[Move]) -> list[tuple[float, list[str]]]:
    """Minutes to each posture from the one before, and what is passed through, for an order somebody has chosen.

    Raises BadInput with field ``order`` where no way leads from one to the next.
    """
    found = shortest(ways(moves), [book.family.start, *postures])
    before = [book.family.start, *postures]
    for at, posture in zip(before, postures, strict=False):
        if posture not in found[at]:
            raise BadInput("order", f"no way leads from {at} to {posture}")
    return [found[at][posture] for at, posture in zip(before, postures, strict=False)]


def ranked(book: RuleBook) -> list[str]:
    """Stations in the order of the shop's school: with the crop or the soil, once round, from the rear, or meters first."""
    stations = book.family.stations
    by_rows = any(check.per.startswith("row") for station in stations for check in station.checks)
    match book.schools.get("order", "flow"):
        case "round":
            stations = sorted(stations, key=lambda s: s.round if s.round is not None else len(stations))
        case "rear-first" if by_rows:
            stations = stations[::-1]
        case "meter-first" if by_rows:
            stations = sorted(stations, key=lambda s: s.posture != BENCH)
    return [station.key for station in stations]


def _after(check: Check, checks: Sequence[Check], station_of: dict[str, str], wanted: set[str]) -> list[str]:
    """Keys of what must be done before a check."""
    before = [key for key in check.after if key in wanted]
    for other in checks:
        if other.key == check.key or station_of[other.key] != station_of[check.key] or check.key in other.after:
            continue
        cleaned_first = other.order == "first" and check.order != "first"
        greased_last = check.order == "last" and other.order != "last" and other.posture == check.posture
        if cleaned_first or greased_last:
            before.append(other.key)
    return list(dict.fromkeys(before))


def stations_of(book: RuleBook, keys: Sequence[str]) -> list[Station]:
    """The stations that these checks stand at, in working order."""
    wanted = set(keys)
    return [station for station in book.family.stations if any(check.key in wanted for check in station.checks)]
