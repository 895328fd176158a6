"""How many places of each station stand how: stored with the walk-around, so that a board of many machines counts nothing."""

from collections import Counter, defaultdict
from collections.abc import Iterable, Mapping

from django.db.models import Count, F

from ..models import Verdict, WalkAround
from .expected_values import Pair

Tallies = dict[str, dict[str, int]]
"""Station → state → how many; states that nothing stands in are left out."""


def state_of(row: Verdict) -> str:
    """How a place stands, by the name that it is counted under."""
    return _state(row.severity, row.ask)


def follow(
    walk_around: WalkAround, stood: Mapping[Pair, str], rows: Mapping[Pair, Verdict], changed: Iterable[tuple[Pair, str]]
) -> None:
    """Take over what is judged otherwise now, without counting anything. One query at most.

    stood: how places stood before, those that had a verdict; rows: what stands there now; changed: places with their stations.
    """
    optional, tallies = _optional(walk_around), {key: Counter(one) for key, one in walk_around.tallies.items()}
    for pair, station in changed:
        if pair[0] not in optional:
            count = tallies.setdefault(station, Counter())
            if pair in stood:
                count[stood[pair]] -= 1
            if pair in rows:
                count[state_of(rows[pair])] += 1
    _keep(walk_around, {key: dict(sorted((+one).items())) for key, one in tallies.items() if +one})


def recount(walk_around: WalkAround) -> None:
    """Count anew. For whoever writes many verdicts, under the walk-around's lock. Two queries at most."""
    _keep(walk_around, counted(walk_around))


def counted(walk_around: WalkAround) -> Tallies:
    """What the verdicts come to, counted now. Optional checks do not count. One query."""
    rows = Verdict.objects.filter(walk_around=walk_around).exclude(check_key__in=_optional(walk_around))
    counts: dict[str, Counter[str]] = defaultdict(Counter)
    for station, severity, ask, n in rows.values_list("station_key", "severity", "ask").annotate(n=Count("id")).order_by():
        counts[station][_state(severity, ask)] += n
    return {station: dict(sorted(count.items())) for station, count in counts.items()}


def _keep(walk_around: WalkAround, tallies: Tallies) -> None:
    walk_around.tallies = tallies
    WalkAround.objects.filter(pk=walk_around.pk).update(tallies=tallies, edition=F("edition") + 1)


def changed(walk_around: WalkAround) -> None:
    """Note that its machine stands otherwise, though no place does. One query."""
    WalkAround.objects.filter(pk=walk_around.pk).update(edition=F("edition") + 1)


def _optional(walk_around: WalkAround) -> set[str]:
    return {key for station in walk_around.stations for key in station["optional"]}


def _state(severity: str, ask: str) -> str:
    return "asked" if ask else severity.replace("-", "_")
