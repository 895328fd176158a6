"""Pins: what was chosen by hand stays, and where it contradicts a rule that is said."""

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from itertools import combinations

from ...calculators.common import moment
from .model import JobPin, PinConflict, SeasonGiven
from .problem import Placed, Problem, Work, crews_for, passes, problem_of
from .rules import Rule, breaks, too_many
from .working_time import Crew

MOST_STEPS = 4000
"""Of looking for who should do what is pinned, so that least is contradicted."""


@dataclass
class Pinned:
    """held: pinned works that contradict something: they stay as they are here, whatever else. first: where each pinned work
    can be put to begin with. at_odds: pairs that contradict each other. stretches: of what lies outside of working time."""

    first: dict[int, Placed] = field(default_factory=dict)
    held: dict[int, Placed] = field(default_factory=dict)
    at_odds: set[frozenset[int]] = field(default_factory=set)
    conflicts: list[PinConflict] = field(default_factory=list)
    stretches: dict[int, tuple[datetime, datetime]] = field(default_factory=dict)


@dataclass(frozen=True)
class _Way:
    """One way to do a pinned work, with what it contradicts by itself."""

    placed: Placed
    against: tuple[tuple[Rule, str], ...]
    stretch: tuple[datetime, datetime] | None = None


def frozen(given: SeasonGiven) -> dict[str, JobPin]:
    """A pin for each job that begins so soon that nobody wants it moved, and has none: where it stood, and who was to do it."""
    now = moment(given.now, "now")
    until = now + timedelta(hours=min(given.freeze_h, 24 * given.horizon_days))
    people, places = {one.name for one in given.technicians}, {None, *(one.name for one in given.places)}
    jobs = {job.id: job for job in given.jobs if job.pin is None}
    found = {}
    for i, one in enumerate(given.previous):
        soon = now <= moment(one.start, f"previous.{i}.start") < until
        same_people = one.id in jobs and len(one.technicians) == jobs[one.id].hands and set(one.technicians) <= people
        if soon and same_people and one.place in places:
            found[one.id] = JobPin(one.start, one.technicians, one.place)
    return found


def with_pins(given: SeasonGiven, pins: Mapping[str, JobPin]) -> SeasonGiven:
    return replace(given, jobs=[replace(job, pin=pins[job.id]) if job.id in pins else job for job in given.jobs])


def settled(given: SeasonGiven) -> tuple[SeasonGiven, Problem, Pinned]:
    """The question with what is frozen, as long as that contradicts nothing, and its pins. Raises BadInput.

    What is frozen behind something that is free to move is let go too: it may not be done by then."""
    held = frozen(given)
    while True:
        asked = with_pins(given, held)
        problem = problem_of(asked)
        pinned = settle(problem)
        against = {name for one in pinned.conflicts for name in (one.id, one.with_) if name in held}
        free = {job.id for job in asked.jobs if job.pin is None}
        against |= {job.id for job in asked.jobs if job.id in held and free.intersection(job.after)}
        if not against:
            return asked, problem, pinned
        held = {name: pin for name, pin in held.items() if name not in against}


def settle(problem: Problem) -> Pinned:
    """Who does the pinned works and where, so that as little as possible is contradicted."""
    works = sorted((work for work in problem.works if work.pinned is not None), key=lambda work: (work.pinned, work.number))
    ways = {work.number: _ways(problem, work) for work in works}
    chosen = _Choice(problem, works, ways).best()
    found = Pinned(first={number: way.placed for number, way in chosen.items()})
    for work in works:
        way = chosen[work.number]
        found.conflicts += [PinConflict(work.job.id, rule, None, words) for rule, words in way.against]
        if way.against:
            found.held[work.number] = way.placed
        if way.stretch:
            found.stretches[work.number] = way.stretch
    for one, other in combinations(works, 2):
        first, second = found.first[one.number], found.first[other.number]
        if rule := breaks(problem, one, first, other, second):
            found.at_odds.add(frozenset((one.number, other.number)))
            found.conflicts.append(
                PinConflict(other.job.id, rule, one.job.id, _words(problem, rule, one, first, other, second))
            )
    _full(problem, works, found)
    for number in set().union(*found.at_odds):
        found.held[number] = found.first[number]
    return found


def _full(problem: Problem, works: list[Work], found: Pinned) -> None:
    """More people on one machine, or more lifts, than there is room for."""
    for machine, at in enumerate(problem.given.machines):
        mine = [work for work in works if work.machine == machine and work.at_machine]
        _crowd(problem, mine, found, at.max_hands, "hands", f"more than {at.max_hands} people at {at.name} at once")
    lifting = [work for work in works if work.job.lift]
    _crowd(problem, lifting, found, problem.given.lifts, "lift", f"more lifts at once than the {problem.given.lifts} there are")


def _crowd(problem: Problem, works: list[Work], found: Pinned, most: int, rule: Rule, words: str) -> None:
    kept: list[tuple[int, int, int]] = []
    for work in works:
        at = found.first[work.number]
        load = (at.start, at.end, 1 if rule == "lift" else work.job.hands)
        if too_many([*kept, load], most):
            if not any(one.id == work.job.id and one.rule == rule for one in found.conflicts):
                found.conflicts.append(PinConflict(work.job.id, rule, None, words))
            found.held[work.number] = at
        else:
            kept.append(load)


class _Choice:
    """One way for each pinned work, looked for from the first to the last."""

    def __init__(self, problem: Problem, works: list[Work], ways: dict[int, list[_Way]]) -> None:
        self.problem, self.works, self.ways = problem, works, ways
        self.steps, self.least, self.found = 0, 10**9, dict[int, _Way]()

    def best(self) -> dict[int, _Way]:
        self._go(0, {}, 0)
        return self.found

    def _go(self, at: int, chosen: dict[int, _Way], cost: int) -> None:
        if cost >= self.least:
            return
        if at == len(self.works):
            self.least, self.found = cost, dict(chosen)
            return
        work = self.works[at]
        tried = sorted(((self._cost(work, way, chosen), i) for i, way in enumerate(self.ways[work.number])))
        for more, i in tried:
            if self.found and self.steps > MOST_STEPS:
                return
            self.steps += 1
            self._go(at + 1, {**chosen, work.number: self.ways[work.number][i]}, cost + more)

    def _cost(self, work: Work, way: _Way, chosen: dict[int, _Way]) -> int:
        others = (self.problem.works[number] for number in chosen)
        return len(way.against) + sum(
            breaks(self.problem, other, chosen[other.number].placed, work, way.placed) is not None for other in others
        )


def _ways(problem: Problem, work: Work) -> list[_Way]:
    given, job = problem.given, work.job
    assert job.pin is not None and work.pinned is not None  # noqa: S101  (only pinned works come here)
    named = tuple(sorted(i for i, one in enumerate(given.technicians) if one.name in job.pin.technicians))
    crews = crews_for(given, job)
    lacking = not crews
    if lacking:
        crews = [crew for crew in combinations(range(len(given.technicians)), job.hands) if set(named) <= set(crew)] or [named]
    spots: list[tuple[int | None, tuple[tuple[Rule, str], ...]]] = _spots(problem, work)
    found = []
    for crew in crews:
        against: list[tuple[Rule, str]] = []
        if lacking:
            skill = f"none of them has the skill {job.skill}" if job.skill else f"it takes {job.hands} people"
            against.append(("skill" if job.skill else "hands", skill))
        end, stretch, alone = _by_itself(problem, work, crew)
        for spot, there in spots:
            found.append(_Way(Placed(work.pinned, end, crew, spot), (*against, *alone, *there), stretch))
    return found


def _spots(problem: Problem, work: Work) -> list[tuple[int | None, tuple[tuple[Rule, str], ...]]]:
    given, pin = problem.given, work.job.pin
    if not work.spots:
        return [(None, ())]
    if pin is None or pin.place is None:
        return [(spot, ()) for spot in work.spots]
    here = [i for i, spot in enumerate(problem.spots) if given.places[spot.place].name == pin.place]
    if not here:
        return [(spot, (("place", f"{pin.place} is no place for a machine"),)) for spot in work.spots]
    place = given.places[problem.spots[here[0]].place]
    machine = given.machines[work.machine]
    if not passes(machine, place):
        return [(spot, (("place", f"{machine.name} does not pass the door of {place.name}"),)) for spot in here]
    if not set(here) & set(work.spots):
        return [(spot, (("place", f"it wants another kind of place than {place.name}"),)) for spot in here]
    return [(spot, ()) for spot in here]


def _by_itself(
    problem: Problem, work: Work, crew: Crew
) -> tuple[int, tuple[datetime, datetime] | None, tuple[tuple[Rule, str], ...]]:
    """Where it ends, where it lies on the clock if not in working time, and what it contradicts whoever else does what."""
    job, time, slot = work.job, problem.time, work.pinned or 0
    assert job.pin is not None  # noqa: S101
    start = moment(job.pin.start, "")
    against: list[tuple[Rule, str]] = []
    for part in job.parts:
        if part.arrives is None:
            against.append(("parts", f"nobody knows when {part.id} comes"))
        elif slot < time.first_from(moment(part.arrives, "")):
            against.append(("parts", f"{part.id} is not here before {moment(part.arrives, ''):%Y-%m-%d %H:%M}"))
    at_machine = problem.given.machines[work.machine]
    if work.spots and slot < problem.first_change(work):
        against.append(("posture", f"{at_machine.name} cannot be in posture so soon"))
    there = slot < len(time) and time.begins(slot) <= start < time.end_of(slot)
    outdoors = job.weather_bound and crew in work.calendars and work.calendars[crew] is not time.calendar(crew, dry_only=False)
    for dry in (True, False) if outdoors else (False,):
        if not crew:
            break
        calendar = work.calendars[crew] if dry else time.calendar(crew, dry_only=False)
        ends = time.ends_by_start(calendar, work.slots, splittable=job.splittable)
        if there and slot in ends:
            if outdoors and not dry:
                against.append(("weather", "it is not dry then"))
            return ends[slot], None, tuple(against)
    who = " and ".join(problem.given.technicians[i].name for i in crew) or "nobody"
    against.append(("start", _not_then(problem, who, start, there)))
    end = start + timedelta(minutes=job.minutes)
    return max(slot, time.first_from(end)), (start, end), tuple(against)


def _not_then(problem: Problem, who: str, start: datetime, there: bool) -> str:
    if start < problem.time.now:
        return "it lies before now"
    if start >= problem.time.ends:
        return "it lies behind the end of the plan"
    return f"{who} cannot do it from then on in one go" if there else f"{who} does not work then"


def _words(problem: Problem, rule: Rule, one: Work, first: Placed, other: Work, second: Placed) -> str:
    """What two pins contradict, as a sentence's second half."""
    given, name = problem.given, _name(one)
    match rule:
        case "hands":
            both = [given.technicians[i].name for i in sorted(set(first.crew) & set(second.crew))]
            if both:
                return f"{' and '.join(both)} would be at “{name}” at the same time"
            return f"there is no room at {given.machines[one.machine].name} for more people beside “{name}”"
        case "after":
            late, early = (one, other) if other.number in one.after else (other, one)
            return f"“{_name(late)}” comes after “{_name(early)}”, which is not done by then"
        case "posture":
            machine = given.machines[one.machine].name
            return f"{machine} stands {one.posture} for “{name}”, and this wants {other.posture}"
        case "place":
            return f"“{name}” has the place, or the machine is not moved by then"
    return f"it contradicts “{name}”"


def _name(work: Work) -> str:
    return work.job.name or work.job.id


def chain_conflict(problem: Problem, first: int, then: int) -> PinConflict:
    """That a pinned work begins before what must be done before it can be."""
    before, pinned = problem.works[first], problem.works[then]
    words = f"“{_name(before)}” comes before it, and cannot be done by then"
    return PinConflict(pinned.job.id, "after", before.job.id, words)
