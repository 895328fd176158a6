"""Which machines of a large shop are planned to the hour: as many as can be, those first that work is under way on, those
somebody chose, then the season's nearest."""

import datetime as dt
from collections.abc import Collection, Sequence
from dataclasses import dataclass

from .model import MOST_JOBS, MOST_MACHINES


@dataclass(frozen=True)
class Waiting:
    """A machine with work. held: work on it is under way, or was set by hand. season_date: None: any day will do."""

    id: int
    name: str
    jobs: int
    season_date: dt.date | None = None
    priority: float = 1
    held: bool = False


def nearest(
    machines: Sequence[Waiting], chosen: Collection[int] = (), most_machines: int = MOST_MACHINES, most_jobs: int = MOST_JOBS
) -> set[int]:
    """Ids of those that are planned to the hour. chosen: these come before the season's nearest. One with more jobs than there
    is room for leaves its place to the next."""
    found: set[int] = set()
    room = most_jobs
    for one in sorted(machines, key=lambda one: (not one.held, one.id not in chosen, *_turn(one))):
        if len(found) < most_machines and one.jobs <= room:
            found.add(one.id)
            room -= one.jobs
    return found


def _turn(one: Waiting) -> tuple[dt.date, float, str]:
    return one.season_date or dt.date.max, -one.priority, one.name
