"""When the machines that are not planned yet will roughly be ready: what is left of everybody's days, poured out in turn."""

import datetime as dt
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import AtMost, Over, Within
from ..calculators.common import day, different_names, moment
from ..errors import BadInput
from ..registry import calculator_at_length
from .season.model import Technician
from .season.working_time import span

ROOM = 0.8
"""Share of people's free time that is reckoned with: what postures, room and weather take, nobody looks at here. Own
judgement."""
MOST_DAYS = 366
TINY = 1e-6


@dataclass(frozen=True)
class RoughJob:
    """not_before: the day its parts are here; waits: nobody knows when they come."""

    minutes: Annotated[float, Over(0), Within(0, 60000)]
    hands: Annotated[int, Within(1, 2)] = 1
    skill: str | None = None
    not_before: str | None = None
    waits: bool = False


@dataclass(frozen=True)
class RoughMachine:
    """season_date: the first day it works; null: any day will do. max_hands: people who can work on it at once."""

    name: str
    jobs: Annotated[list[RoughJob], AtMost(700)]
    season_date: str | None = None
    priority: Annotated[float, Over(0), Within(0, 100)] = 1
    max_hands: Annotated[int, Within(1, 12)] = 2


@dataclass(frozen=True)
class Busy:
    """Somebody has other work then."""

    technician: str
    start: str
    end: str


@dataclass(frozen=True)
class RoughlyGiven:
    """now: on the shop's clock. busy: what is planned already. room: of the free time that is left."""

    now: str
    technicians: Annotated[list[Technician], AtMost(40)]
    machines: Annotated[list[RoughMachine], AtMost(400)]
    busy: Annotated[list[Busy], AtMost(20_000)] = field(default_factory=list)
    room: Annotated[float, Over(0), Within(0, 1)] = ROOM


@dataclass(frozen=True)
class RoughlyReady:
    """hours: of people's work. begins, ready: days; null where it has no day. late_days: that ready lies on or after the season
    date; null where either is not known. without: why it has no day; empty where it has one."""

    name: str
    hours: float
    begins: str | None
    ready: str | None
    late_days: int | None
    without: str


@dataclass(frozen=True)
class RoughPlan:
    machines: list[RoughlyReady]


@calculator_at_length()
def season_roughly(given: RoughlyGiven) -> RoughPlan:
    """When each machine will roughly be ready, in what planned work leaves of everybody's days.

    Machines in the order of their season dates (none last), then priority, then name; a machine's jobs as they stand. Each is
    poured into the days from `now` or `not_before` on: of people who have the skill what the skilled one does, of anybody the
    second pair of hands; from whoever has most time left that day, no more a machine and day than max_hands times the longest
    of anybody's days. Of free time `room` is counted. Places, postures, weather and the order of jobs are not looked at. Days
    are ISO. Bad input: names there twice, people who are not there, times that end before they begin.
    """
    different_names([one.name for one in given.technicians], "technicians")
    different_names([one.name for one in given.machines], "machines")
    free = _free(given)
    skilled = {skill: [i for i, one in enumerate(given.technicians) if skill in one.skills]
               for skill in {job.skill for machine in given.machines for job in machine.jobs if job.skill}}  # fmt: skip
    longest = {when: max(minutes) for when, minutes in free.items()}
    found = {i: _poured(given, i, free, longest, skilled) for i in in_turn(given.machines)}
    return RoughPlan([found[i] for i in range(len(given.machines))])


def in_turn(machines: Sequence[RoughMachine]) -> list[int]:
    """Machines by number, the season's nearest first. Raises BadInput."""
    days = [
        day(one.season_date, f"machines.{i}.season_date") if one.season_date else dt.date.max for i, one in enumerate(machines)
    ]
    return sorted(range(len(machines)), key=lambda i: (days[i], -machines[i].priority, machines[i].name))


def _free(given: RoughlyGiven) -> dict[dt.date, list[float]]:
    """Minutes of each day, ascending, that each person has left to be reckoned with. Raises BadInput."""
    now = moment(given.now, "now")
    people = {one.name: i for i, one in enumerate(given.technicians)}
    found: dict[dt.date, list[float]] = {}

    def add(person: int, start: dt.datetime, end: dt.datetime, sign: int) -> None:
        start = max(start, now)
        while start < end:
            midnight = dt.datetime.combine(start.date() + dt.timedelta(days=1), dt.time())
            until = min(end, midnight)
            of_day = found.setdefault(start.date(), [0.0] * len(people))
            of_day[person] += sign * (until - start).total_seconds() / 60
            start = until

    last = now + dt.timedelta(days=MOST_DAYS)
    for i, one in enumerate(given.technicians):
        for k, shift in enumerate(one.shifts):
            start, end = span(shift, f"technicians.{i}.shifts.{k}")
            add(i, start, min(end, last), 1)
    for i, busy in enumerate(given.busy):
        if busy.technician not in people:
            raise BadInput(f"busy.{i}.technician", f"there is no technician “{busy.technician}”")
        start, end = span(busy, f"busy.{i}")
        add(people[busy.technician], start, min(end, last), -1)
    return {when: [max(0.0, one) * given.room for one in minutes] for when, minutes in sorted(found.items())}


def _poured(
    given: RoughlyGiven,
    number: int,
    free: Mapping[dt.date, list[float]],
    longest: Mapping[dt.date, float],
    skilled: Mapping[str, Sequence[int]],
) -> RoughlyReady:
    machine = given.machines[number]
    anybody = range(len(given.technicians))
    used: dict[dt.date, float] = {}
    without = ""
    for k, job in enumerate(machine.jobs):
        first = day(job.not_before, f"machines.{number}.jobs.{k}.not_before") if job.not_before else dt.date.min
        if job.waits:
            without = without or "nobody knows when its parts come"
            continue
        able = skilled[job.skill] if job.skill else anybody
        for who, minutes in ((able, job.minutes), (anybody, job.minutes * (job.hands - 1))):
            left = minutes
            for when, of_day in free.items():
                if left <= 0 or when < first:
                    continue
                room = machine.max_hands * longest[when] - used.get(when, 0.0)
                took = _take(of_day, who, min(left, max(0.0, room)))
                if took:
                    used[when], left = used.get(when, 0.0) + took, left - took
            if left > TINY:
                without = without or (f"nobody has the skill {job.skill}" if not able else "no time is left in the days ahead")
    hours = sum(job.minutes * job.hands for job in machine.jobs) / 60
    begins, ready = (min(used), max(used)) if used and not without else (None, None)
    if not machine.jobs:
        begins = ready = moment(given.now, "now").date()
    season = day(machine.season_date, f"machines.{number}.season_date") if machine.season_date else None
    late = max(0, (ready - season).days + 1) if ready and season else None
    return RoughlyReady(machine.name, hours, _iso(begins), _iso(ready), late, without)


def _take(of_day: list[float], who: Iterable[int], wanted: float) -> float:
    """Minutes taken of a day, from whoever has most left first."""
    took = 0.0
    for person in sorted(who, key=lambda one: -of_day[one]):
        part = min(of_day[person], wanted - took)
        of_day[person] -= part
        took += part
    return took


def _iso(when: dt.date | None) -> str | None:
    return when.isoformat() if when else None
