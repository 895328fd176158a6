"""What makes a machine late, and what would cure it: the same question once more with something otherwise.

Each answer is the least lateness of that one machine with no other machine later than it is in the plan.
"""

import datetime as dt
import time
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass, replace

from ...calculators.common import moment
from .first_plan import by_season_date, draft
from .model import Awaited, Cause, Fix, Place, SeasonGiven, Span, Technician
from .pins import Pinned, settle
from .planner import WHOLE
from .problem import Placed, Problem, Work, problem_of
from .rules import Draft, late_of
from .working_time import span

MOST_RUSHED = 6
MOST_DAYS = 3
LEAST_S = 0.3
"""Less is too little for a solver to begin."""
NEAR = 50
"""Works that give way while one machine is hurried; where there are no more, the answer is exact."""
ONE_MORE = "one more pair of hands"
Relaxed = Callable[[SeasonGiven, str], SeasonGiven]


@dataclass(frozen=True)
class Why:
    cause: Cause
    fixes: list[Fix]


def why_late(given: SeasonGiven, problem: Problem, plan: Draft, seconds: float, enough: Callable[[], bool]) -> dict[int, Why]:
    """Of each machine that is late or not ready at all; the latest first, as long as there is time."""
    late = late_of(problem, plan.placed)
    asked = sorted((m for m in late if late[m] > 0), key=lambda m: (-problem.weights[m] * late[m], m))
    ends, found = time.monotonic() + seconds, dict[int, Why]()
    for i, machine in enumerate(asked):
        left = ends - time.monotonic()
        if left <= 0 or enough():
            break
        found[machine] = _Question(given, problem, plan, machine, ends=time.monotonic() + left / (len(asked) - i)).answer()
    for machine, cause in _left_out(given, problem).items():
        if machine in found or problem.late[machine] is None:
            found[machine] = Why(cause, found[machine].fixes if machine in found else [])
    return found


def _left_out(given: SeasonGiven, problem: Problem) -> dict[int, Cause]:
    """What keeps a machine's work out of the plan altogether."""
    machines = {machine.name: i for i, machine in enumerate(given.machines)}
    return {machines[job.machine]: problem.left_out[job.id].cause for job in given.jobs if job.id in problem.left_out}


class _Question:
    """One machine."""

    def __init__(self, given: SeasonGiven, problem: Problem, plan: Draft, machine: int, ends: float) -> None:
        self.given, self.problem, self.plan, self.machine, self.ends = given, problem, plan, machine, ends
        self.name = given.machines[machine].name
        self.slot_h = problem.time.slot.total_seconds() / 3600
        self.late = late_of(problem, plan.placed)

    def answer(self) -> Why:
        asked = list(self._otherwise())
        as_it_is = self._least(lambda given, _name: given, len(asked) + 1)
        gains: dict[Cause, int] = {}
        fixes: list[Fix] = []
        for i, (cause, fix, relaxed) in enumerate(asked):
            gain = as_it_is - self._least(relaxed, len(asked) - i)
            if cause:
                gains[cause] = gain
            if fix and gain > 0:
                fixes.append(replace(fix, gain_h=gain * self.slot_h))
        best = max(gains, key=lambda one: gains[one])
        return Why(best if gains[best] > 0 else "season_date", sorted(fixes, key=lambda fix: (-fix.gain_h, fix.kind, fix.what)))

    def _otherwise(self) -> Iterator[tuple[Cause | None, Fix | None, Relaxed]]:
        """What may be otherwise, as a cause, a cure or both: first what helps most often, should there be no time for all."""
        rushed = [(None, Fix("rush_part", part.id, 0), without_part(part.id)) for part in reversed(self._awaited())]
        if rushed:
            yield "parts", None, without_parts
        yield from rushed
        yield "hands", Fix("one_hand", ONE_MORE, 0), with_hand
        yield "bay", None, with_room
        yield "weather", None, dry_throughout
        for day in self._free_days():
            yield None, Fix("one_day", str(day), 0), with_day(day)

    def _awaited(self) -> list[Awaited]:
        """Parts that are not here yet: those that come last, and before all those that the machine itself waits for. Others
        may hold its hands or its bay; they are tried where there is little to look through."""
        now, own = self.problem.time.now, _leading_to(self.given, self.name)
        everybodys = len(self.problem.works) <= NEAR
        awaited: dict[str, tuple[bool, bool, str, Awaited]] = {}
        for job in self.given.jobs:
            for part in job.parts:
                mine = job.id in own or (part.id in awaited and awaited[part.id][0])
                if (mine or everybodys) and (part.arrives is None or moment(part.arrives, "") > now):
                    awaited[part.id] = mine, part.arrives is None, part.arrives or "", part
        return [part for *_, part in sorted(awaited.values(), key=lambda one: one[:3])][-MOST_RUSHED:]

    def _free_days(self) -> list[dt.date]:
        """The first days on which nobody works, before the machine is ready."""
        time_ = self.problem.time
        worked = {time_.begins(slot).date() for slot in range(len(time_))}
        ends = [self.plan.placed[work.number].end for work in self._works() if work.number in self.plan.placed]
        last = time_.finished(max(ends, default=len(time_))).date()
        days = (time_.now.date() + dt.timedelta(days=i) for i in range(max(0, (last - time_.now.date()).days)))
        return [day for day in days if day not in worked][:MOST_DAYS]

    def _works(self) -> list[Work]:
        return self.problem.of_machine.get(self.machine, [])

    def _least(self, relaxed: Relaxed, shares: int) -> int:
        """Late slots of the machine, with something otherwise."""
        now = self.late[self.machine]
        left = self.ends - time.monotonic()
        if left <= 0:
            return now
        given = relaxed(self.given, self.name)
        problem = problem_of(given)
        pinned = settle(problem)
        begin = min(
            (one for one in self._tried(problem, pinned) if _whole(problem, one) and self._no_worse(problem, one)),
            key=lambda one: late_of(problem, one.placed)[self.machine],
            default=None,
        )
        if begin is None:
            return now
        best = late_of(problem, begin.placed)[self.machine]
        left = self.ends - time.monotonic()
        if best == 0 or left < LEAST_S:
            return min(best, now)
        from ...solvers.season import SeasonModel
        from ...solvers.season_ladder import Ladder

        model = SeasonModel(problem, pinned, begin, self._giving_way(problem, begin))
        for machine, variable in model.late.items():
            if machine != self.machine and not isinstance(variable, int):
                model.model.add(variable <= self.late[machine])
        reached = Ladder(model).least(model.late[self.machine], left / shares, best, lambda _found, _bound: None)
        return min(best, now, reached[0]) if reached else min(best, now)

    def _tried(self, problem: Problem, pinned: Pinned) -> Iterator[Draft]:
        """Plans at once: as it was, with the machine's works put into the gaps of all others, and with the machine first."""
        kept = _carried(self.problem, self.plan, problem)
        yield kept
        others = {n: placed for n, placed in kept.placed.items() if problem.works[n].machine != self.machine}
        order = {n: placed.start for n, placed in kept.placed.items()}
        by_date = by_season_date(problem)
        yield draft(problem, pinned, lambda work: (order.get(work.number, 0), work.number), held=others)
        yield draft(problem, pinned, by_date, held=others)
        if len(problem.works) <= WHOLE:
            yield draft(problem, pinned, lambda work: (work.machine != self.machine, *by_date(work)))

    def _no_worse(self, problem: Problem, plan: Draft) -> bool:
        """Whether no other machine is later than it was."""
        late = late_of(problem, plan.placed)
        return len(plan.broken) <= len(self.plan.broken) and all(
            late[machine] <= was for machine, was in self.late.items() if machine != self.machine
        )

    def _giving_way(self, problem: Problem, plan: Draft) -> set[int]:
        """The machine's works and those nearest to them in the plan."""
        mine = {work.number for work in problem.of_machine.get(self.machine, [])}
        times = [plan.placed[number].start for number in mine if number in plan.placed] or [0]
        others = sorted(
            (number for number in plan.placed if number not in mine),
            key=lambda number: (min(abs(plan.placed[number].start - at) for at in times), number),
        )
        return mine | set(others[: max(0, NEAR - len(mine))])


def _whole(problem: Problem, plan: Draft) -> bool:
    return len(plan.placed) == len(problem.works)


def _carried(before: Problem, plan: Draft, problem: Problem) -> Draft:
    """The same plan in a question that allows more: the same people at the same places, from the same moments on."""
    numbers = {work.job.id: work.number for work in problem.works}
    found = Draft()
    for number, placed in plan.placed.items():
        new = numbers.get(before.works[number].job.id)
        if new is None:
            continue
        start = problem.time.first_from(before.time.begins(placed.start)) if placed.start < len(before.time) else placed.start
        end = problem.works[new].ends.get(placed.crew, {}).get(start)
        if end is not None:
            found.placed[new] = Placed(start, end, placed.crew, placed.spot)
    return found


# What may be otherwise


def without_parts(given: SeasonGiven, machine: str) -> SeasonGiven:
    """Every part is here that a machine's work waits for, or work that comes before it."""
    own = _leading_to(given, machine)
    return replace(given, jobs=[replace(job, parts=[]) if job.id in own else job for job in given.jobs])


def _leading_to(given: SeasonGiven, machine: str) -> set[str]:
    """The jobs of a machine, and all that must be done before them."""
    jobs = {job.id: job for job in given.jobs}
    found: set[str] = set()
    ahead = [job.id for job in given.jobs if job.machine == machine]
    while ahead:
        key = ahead.pop()
        if key not in found and key in jobs:
            found.add(key)
            ahead += jobs[key].after
    return found


def without_part(part: str) -> Relaxed:
    """That part is here now, for whatever waits for it."""
    return lambda given, _machine: replace(
        given, jobs=[replace(job, parts=[one for one in job.parts if one.id != part]) for job in given.jobs]
    )


def with_hand(given: SeasonGiven, _machine: str) -> SeasonGiven:
    """Somebody who can do everything, and works whenever anybody does."""
    skills = sorted({job.skill for job in given.jobs if job.skill})
    shifts = list({(one.start, one.end): one for person in given.technicians for one in person.shifts}.values())
    names = {one.name for one in given.technicians}
    name = next(name for name in _names(ONE_MORE) if name not in names)
    return replace(given, technicians=[*given.technicians, Technician(name, shifts, skills)])


def with_room(given: SeasonGiven, _machine: str) -> SeasonGiven:
    """A bay beside the others that everything fits into."""
    names = {one.name for one in given.places}
    name = next(name for name in _names("one more bay") if name not in names)
    return replace(given, places=[*given.places, Place(name, "bay", capacity=60)])


def dry_throughout(given: SeasonGiven, _machine: str) -> SeasonGiven:
    now = moment(given.now, "now")
    return replace(given, dry=[Span(now.isoformat(), (now + dt.timedelta(days=given.horizon_days)).isoformat())])


def with_day(day: dt.date) -> Relaxed:
    """Everybody works that day as on the first day they work at all."""

    def relaxed(given: SeasonGiven, _machine: str) -> SeasonGiven:
        return replace(given, technicians=[replace(one, shifts=[*one.shifts, *_like_first(one.shifts, day)])
                                           for one in given.technicians])  # fmt: skip

    return relaxed


def with_date(machine: str, day: dt.date) -> Relaxed:
    """That machine is wanted on another day."""
    return lambda given, _machine: replace(
        given,
        machines=[replace(one, season_date=day.isoformat()) if one.name == machine else one for one in given.machines],
    )


def _like_first(shifts: Sequence[Span], day: dt.date) -> list[Span]:
    read = sorted(span(one, "") for one in shifts)
    if not read:
        return []
    first = read[0][0].date()
    by = day - first
    return [Span((start + by).isoformat(), (end + by).isoformat()) for start, end in read if start.date() == first]


def _names(name: str) -> Iterator[str]:
    yield name
    yield from (f"{name} {i}" for i in range(2, 99))
