"""The question as the planners work on it: checked, in slots and by number, each job with who could do it, where and when."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from itertools import combinations

from ...calculators.common import moment
from ...counted import counted
from ...errors import BadInput
from ..shortest import shortest
from .given_checked import check_names, order_kept
from .model import Cause, Place, SeasonGiven, SeasonJob, SeasonMachine
from .working_time import Calendar, Crew, WorkingTime

OUT_OF_DOORS = ("outside", "field")


@dataclass(frozen=True)
class Spot:
    """Room for one machine. place: by number; alone: no other machine stands there at the same time."""

    place: int
    alone: bool


@dataclass
class Work:
    """A job that can be planned. ends: of each crew that could do it, where it ends by where it begins. release: the first slot
    it may begin in. spots: where;
    empty at the bench. after: by number in the list of works. posture: None at the bench, and where any will do."""

    number: int
    job: SeasonJob
    machine: int
    slots: int
    calendars: dict[Crew, Calendar]
    ends: dict[Crew, Mapping[int, int]]
    spots: tuple[int, ...]
    release: int
    after: tuple[int, ...] = ()
    pinned: int | None = None

    @property
    def posture(self) -> str | None:
        return self.job.posture if self.spots else None

    @property
    def at_machine(self) -> bool:
        return bool(self.spots)

    @cached_property
    def starts(self) -> tuple[int, ...]:
        """Every slot it can begin in."""
        of_kind = {id(ends): ends for ends in self.ends.values()}.values()
        return tuple(sorted({start for ends in of_kind for start in ends if start >= self.release}))


@dataclass(frozen=True)
class LeftOut:
    """Why a job cannot be planned, and what would have to be otherwise."""

    cause: Cause
    words: str


@dataclass(frozen=True)
class Placed:
    """Where a work stands in a plan: slots, crew, spot (None at the bench)."""

    start: int
    end: int
    crew: Crew
    spot: int | None


@dataclass
class Problem:
    """works: what can be planned; left_out: why the others cannot. late: of each machine, lateness by where it is finished;
    before: where works stood in the previous plan, with who did them."""

    given: SeasonGiven
    time: WorkingTime
    spots: list[Spot]
    works: list[Work]
    left_out: dict[str, LeftOut]
    due: list[dt.datetime | None]
    late: list[list[int] | None]
    weights: list[int]
    between: dict[tuple[str, str], int]
    shunt: int
    before: dict[int, tuple[int, Crew]] = field(default_factory=dict)

    @cached_property
    def of_machine(self) -> dict[int, list[Work]]:
        found: dict[int, list[Work]] = {}
        for work in self.works:
            found.setdefault(work.machine, []).append(work)
        return found

    @cached_property
    def never_ready(self) -> frozenset[int]:
        """Machines with a job that cannot be planned."""
        machines = {machine.name: i for i, machine in enumerate(self.given.machines)}
        return frozenset(machines[job.machine] for job in self.given.jobs if job.id in self.left_out)

    def gap(self, first: Work, then: Work, moved: bool) -> int:
        """Slots between two works on one machine of which the second begins when the first has ended: for the posture, and for
        moving the machine."""
        change = self.between.get((first.posture, then.posture), 0) if first.posture and then.posture else 0
        return change + (self.shunt if moved else 0)

    def together(self, one: Work, other: Work) -> bool:
        """Whether two works on one machine may overlap, where they are done at the same spot."""
        return (
            one.posture is None
            or other.posture is None
            or one.posture == other.posture
        ) and one.job.hands + other.job.hands <= self.given.machines[one.machine].max_hands  # fmt: skip

    def first_change(self, work: Work) -> int:
        """Slots until a machine stands in the posture of a work, from where it stands now."""
        posture = self.given.machines[work.machine].posture
        return self.between[posture, work.posture] if posture and work.posture else 0


def problem_of(given: SeasonGiven) -> Problem:
    """Raises BadInput for names that are not there, circles, and postures no way leads to."""
    check_names(given)
    time = WorkingTime.of(given)
    spots = _spots(given)
    between = _between(given, time)
    works: list[Work] = []
    left_out: dict[str, LeftOut] = {}
    machines = {machine.name: i for i, machine in enumerate(given.machines)}
    for i in order_kept(given):
        job = given.jobs[i]
        if waits := [name for name in job.after if name in left_out]:
            before = next(one for one in given.jobs if one.id == waits[0])
            words = f"comes after {before.name or before.id}, which has no place in the plan"
            left_out[job.id] = LeftOut(left_out[waits[0]].cause, words)
            continue
        work = _work(given, time, spots, i, machines[job.machine], len(works), between)
        if isinstance(work, LeftOut):
            left_out[job.id] = work
        else:
            works.append(work)
    numbers = {work.job.id: work.number for work in works}
    for work in works:
        work.after = tuple(sorted({numbers[name] for name in work.job.after}))
    due = [
        time.due(machine.season_date, f"machines.{i}.season_date") if machine.season_date else None
        for i, machine in enumerate(given.machines)
    ]
    return Problem(
        given,
        time,
        spots,
        works,
        left_out,
        due,
        [time.late(one) if one else None for one in due],
        [max(1, round(100 * machine.priority)) for machine in given.machines],
        between,
        time.slots(given.shunt_min),
        _before(given, time, numbers),
    )


def _spots(given: SeasonGiven) -> list[Spot]:
    """A spot for each machine that finds room; one for all where all do."""
    found = []
    for i, place in enumerate(given.places):
        if place.kind == "bench":
            continue
        many = 1 if place.capacity >= len(given.machines) else place.capacity
        found += [Spot(i, place.capacity < len(given.machines))] * many
    return found


def _between(given: SeasonGiven, time: WorkingTime) -> dict[tuple[str, str], int]:
    """Slots from each posture of a machine to each other of it."""
    names = {job.posture for job in given.jobs if job.posture} | {one.posture for one in given.machines if one.posture}
    ways = shortest(given.moves, sorted(names))
    of_machine: dict[str, set[str]] = {one.name: {one.posture} if one.posture else set() for one in given.machines}
    found = {(name, name): 0 for name in names}
    for i, job in enumerate(given.jobs):
        if not job.posture or job.place_kind == "bench":
            continue
        for other in sorted(of_machine[job.machine]):
            for pair in ((other, job.posture), (job.posture, other)):
                if pair not in found:
                    if pair[1] not in ways[pair[0]]:
                        raise BadInput(f"jobs.{i}.posture", f"no way leads from {pair[0]} to {pair[1]}")
                    found[pair] = time.slots(ways[pair[0]][pair[1]][0])
        of_machine[job.machine].add(job.posture)
    return found


def _work(
    given: SeasonGiven,
    time: WorkingTime,
    spots: Sequence[Spot],
    i: int,
    machine: int,
    number: int,
    between: dict[tuple[str, str], int],
) -> Work | LeftOut:
    """The job as work, or why it cannot be planned."""
    job, at = given.jobs[i], given.machines[machine]
    where, kind = spots_for(given, spots, job)
    release = time.now
    for k, part in enumerate(job.parts):
        if part.arrives is None and job.pin is None:
            return LeftOut("parts", f"nobody knows when {part.id} comes")
        release = release if part.arrives is None else max(release, moment(part.arrives, f"jobs.{i}.parts.{k}.arrives"))
    pinned = moment(job.pin.start, f"jobs.{i}.pin.start") if job.pin else None
    if where is None:
        nowhere = "there is no place for it: nothing outside, and no door it passes"
        return LeftOut("bay", nowhere if kind == "outside" else f"there is no {kind}")
    if where and job.hands > at.max_hands:
        return LeftOut("hands", f"takes {job.hands} people, and {at.max_hands} can work on {at.name} at once")
    crews = crews_for(given, job)
    if not crews and pinned is None:
        few = f"takes {counted(job.hands, 'person', 'people')}, and there are fewer"
        return LeftOut("hands", f"nobody has the skill {job.skill}" if job.skill and given.technicians else few)
    slots = time.slots(job.minutes)
    wet = job.weather_bound and kind in OUT_OF_DOORS
    calendars = {crew: time.calendar(crew, dry_only=wet) for crew in crews}
    first = time.first_from(release)
    if where and at.posture and job.posture:
        first = max(first, between[at.posture, job.posture])
    all_ends = {crew: time.ends_by_start(calendar, slots, splittable=job.splittable) for crew, calendar in calendars.items()}
    ends = {crew: of_crew for crew, of_crew in all_ends.items() if next(reversed(of_crew), -1) >= first}
    if not ends and pinned is None:
        return _no_time(time, job, first, kind)
    # A moment inside a slot counts from that slot's beginning.
    at_slot = None if pinned is None else time.first_from(pinned - (pinned - time.origin) % time.slot)
    return Work(number, job, machine, slots, calendars, ends, tuple(where), first, pinned=at_slot)


def spots_for(given: SeasonGiven, spots: Sequence[Spot], job: SeasonJob) -> tuple[list[int] | None, str]:
    """Where a job can be done, None for nowhere; and the kind of place. What does not pass the door is worked on outside."""
    kind = job.place_kind
    if kind == "bench":
        return [], kind
    machine = next(one for one in given.machines if one.name == job.machine)

    def of_kind(wanted: str) -> list[int]:
        return [i for i, spot in enumerate(spots)
                if given.places[spot.place].kind == wanted and passes(machine, given.places[spot.place])]  # fmt: skip

    found = of_kind(kind)
    if kind == "bay" and not found:
        found, kind = of_kind("outside"), "outside"
    return found or None, kind


def passes(machine: SeasonMachine, place: Place) -> bool:
    """Whether a machine passes a door; one as wide as its door does not."""
    sizes = ((machine.width_mm, place.door_width_mm), (machine.height_mm, place.door_height_mm))
    return all(size is None or door is None or size < door * (1 - 1e-9) for size, door in sizes)


def crews_for(given: SeasonGiven, job: SeasonJob) -> list[Crew]:
    """Who could do it: as many as it takes, one of them with the skill; of a pinned job, those it is pinned to."""
    people = range(len(given.technicians))
    named = {i for i in people if job.pin and given.technicians[i].name in job.pin.technicians}
    return [
        crew
        for crew in combinations(people, job.hands)
        if named <= set(crew) and (job.skill is None or any(job.skill in given.technicians[i].skills for i in crew))
    ]


def _no_time(time: WorkingTime, job: SeasonJob, first: int, kind: str) -> LeftOut:
    if first >= len(time):
        if job.parts:
            return LeftOut("parts", "its parts come after the last shift of the plan")
        return LeftOut("hands", "there is no shift left in the plan")
    if job.weather_bound and kind in OUT_OF_DOORS:
        return LeftOut("weather", "no dry spell in the plan is long enough for it")
    return LeftOut("hands", "no shift in the plan is long enough for it")


def _before(given: SeasonGiven, time: WorkingTime, numbers: dict[str, int]) -> dict[int, tuple[int, Crew]]:
    people = {one.name: i for i, one in enumerate(given.technicians)}
    found = {}
    for i, one in enumerate(given.previous):
        start = moment(one.start, f"previous.{i}.start")
        crew = tuple(sorted(people[name] for name in one.technicians if name in people))
        if one.id in numbers:
            slot = time.first_from(start)
            # What stood at a moment nobody works at any more has moved in any case.
            same = slot < len(time) and time.begins(slot) == start
            found[numbers[one.id]] = (slot if same else -1, crew)
    return found
