"""A plan at once: works one after the other, each as early as the ones before it leave room.

In which order is what makes it good: by season date, by what takes least, by what is most urgent, or as in a plan there is.
"""

import random
import time
from bisect import bisect_left
from collections.abc import Callable, Iterable, Mapping, Sequence
from heapq import heappop, heappush
from typing import Any

from .pins import Pinned
from .problem import Placed, Problem, Work
from .rules import Draft, Score, changes_of, moved, score, too_many
from .working_time import Crew

Rank = Callable[[Work], tuple[Any, ...]]
"""Which work comes first: the least. Numbers and names, in the same order for every work."""


def by_season_date(problem: Problem) -> Rank:
    """Machines in the order of their dates, a machine's works by posture: the plain rule of the whiteboard."""
    ranks = {machine: i for i, machine in enumerate(sorted(problem.of_machine, key=lambda one: _date_key(problem, one)))}
    return lambda work: (ranks[work.machine], work.posture or "", work.number)


def shortest_first(problem: Problem) -> Rank:
    """What takes least first, of any machine."""
    return lambda work: (work.slots, work.number)


def _date_key(problem: Problem, machine: int) -> tuple[object, ...]:
    due = problem.due[machine]
    return (due is None, due or problem.time.now, -problem.weights[machine], machine)


def by_urgency(problem: Problem, dice: random.Random, spread: float) -> Rank:
    """By how much room a machine's date leaves for its work, a machine's works by posture; `spread`: how far chance may shift
    both."""
    tails = _tails(problem)
    room: dict[int, float] = {}
    for machine, works in problem.of_machine.items():
        due = problem.due[machine]
        last = problem.time.first_from(due) if due else 2 * len(problem.time)
        room[machine] = (last - max(work.release + tails[work.number] for work in works)) / problem.weights[machine] ** 0.5
        room[machine] += dice.gauss(0, spread * max(1, len(problem.time) / 10))
    postures = {(work.machine, work.posture): dice.random() for work in problem.works}
    release = {key: min(work.release for work in problem.works if (work.machine, work.posture) == key) for key in postures}
    return lambda work: (
        room[work.machine],
        release[work.machine, work.posture] + postures[work.machine, work.posture] * spread * len(problem.time) / 4,
        -tails[work.number],
        work.number,
    )


def _tails(problem: Problem) -> dict[int, int]:
    """Slots from the beginning of each work to the end of what must come after it."""
    found = {work.number: work.slots for work in problem.works}
    for work in reversed(problem.works):
        for before in work.after:
            found[before] = max(found[before], problem.works[before].slots + found[work.number])
    return found


def draft(
    problem: Problem,
    pinned: Pinned,
    rank: Rank,
    floor: Mapping[int, int] | None = None,
    held: Mapping[int, Placed] | None = None,
) -> Draft:
    """A plan that breaks no rule, but for what pins contradict.

    floor: slots before which a work does not begin, where another plan is to be kept. held: works that stay where they are.
    """
    return _Drafting(problem, pinned, floor or {}, {**(held or {}), **pinned.first}).made(rank)


def best_of_many(
    problem: Problem, pinned: Pinned, seconds: float, seed: int = 0, begin: Iterable[Draft] = ()
) -> tuple[Draft, Score]:
    """The best of as many drafts as there is time for; at least of the plain rules'."""
    ends, dice = time.monotonic() + seconds, random.Random(seed)  # noqa: S311  (no secret)
    tried = [*begin]
    if problem.before:
        tried.append(_as_before(problem, pinned))
    tried += [draft(problem, pinned, rank) for rank in (by_urgency(problem, dice, 0), by_season_date(problem))]
    best = min(tried, key=lambda one: score(problem, one))
    least = score(problem, best)
    spread, since = 0.05, 0
    while time.monotonic() < ends and since < 20 + len(problem.works):
        found = draft(problem, pinned, by_urgency(problem, dice, spread))
        spread = 0.02 if spread > 1 else spread * 1.2
        since += 1
        if (reached := score(problem, found)) < least:
            best, least, since = found, reached, 0
    return best, least


def _as_before(problem: Problem, pinned: Pinned) -> Draft:
    """In the order of the plan before, nothing sooner than it stood there."""
    floor = {number: max(start, 0) for number, (start, _) in problem.before.items()}
    return draft(problem, pinned, lambda work: (floor.get(work.number, len(problem.time)), work.number), floor)


def closed_up(problem: Problem, pinned: Pinned, plan: Draft) -> Draft:
    """The same plan without needless waiting: each work as much earlier as the others leave room, by the same people at the
    same place, where that moves nothing that stands as it stood before and changes no posture more."""
    placed = dict(plan.placed)
    for number in sorted(plan.placed, key=lambda one: (plan.placed[one].start, one)):
        work, at = problem.works[number], placed[number]
        if work.pinned is not None or (number in problem.before and not moved(problem, number, at)):
            continue
        others = {one: there for one, there in placed.items() if one != number}
        sooner = _Drafting(problem, pinned, {}, others).sooner(work, at)
        if sooner is None:
            continue
        tried = {**others, number: sooner}
        if len(changes_of(problem, work.machine, tried)) <= len(changes_of(problem, work.machine, placed)):
            placed = tried
    return Draft(placed, plan.broken)


class _Drafting:
    """The plan while it is made."""

    def __init__(self, problem: Problem, pinned: Pinned, floor: Mapping[int, int], held: Mapping[int, Placed]) -> None:
        self.problem, self.pinned, self.floor, self.held = problem, pinned, floor, held
        self.draft = Draft()
        self.busy = [0] * len(problem.given.technicians)
        self.on_machine: dict[int, list[int]] = {}
        self.in_spot: dict[int, list[int]] = {}
        self.lifting: list[int] = []
        self.then: dict[int, list[int]] = {}
        for work in problem.works:
            for before in work.after:
                self.then.setdefault(before, []).append(work.number)

    def made(self, rank: Rank) -> Draft:
        for number, placed in self.held.items():
            self._put(self.problem.works[number], placed)
        waits = {work.number: set(work.after) - set(self.held) for work in self.problem.works}
        heap: list[tuple[tuple[Any, ...], int]] = []
        for work in self.problem.works:
            if not waits[work.number] and work.number not in self.held:
                heappush(heap, (rank(work), work.number))
        done = set(self.held)
        while heap:
            work = self.problem.works[heappop(heap)[1]]
            self._place(work)
            done.add(work.number)
            for number in self.then.get(work.number, []):
                waits[number].discard(work.number)
                if not waits[number] and number not in done:
                    heappush(heap, (rank(self.problem.works[number]), number))
        for number in self.held:
            for before in self.problem.works[number].after:
                there = self.draft.placed.get(before)
                if there and there.end > self.draft.placed[number].start and not self._at_odds(before, number):
                    self.draft.broken.add((before, number))
        return self.draft

    def sooner(self, work: Work, at: Placed) -> Placed | None:
        """The work with the same people at the same place before it stands now, among everything that is held."""
        for number, placed in self.held.items():
            self._put(self.problem.works[number], placed)
        first = max([work.release] + [self.held[one].end for one in work.after if one in self.held])
        ends = work.ends.get(at.crew)
        return self._earliest_of(work, at.crew, ends, at.spot, first, at.end - 1) if ends else None

    def _at_odds(self, one: int, other: int) -> bool:
        return frozenset((one, other)) in self.pinned.at_odds

    def _put(self, work: Work, placed: Placed) -> None:
        self.draft.placed[work.number] = placed
        for person in placed.crew:
            self.busy[person] |= _mask(placed.start, placed.end)
        if placed.spot is not None:
            self.on_machine.setdefault(work.machine, []).append(work.number)
            if self.problem.spots[placed.spot].alone:
                self.in_spot.setdefault(placed.spot, []).append(work.number)
        if work.job.lift:
            self.lifting.append(work.number)

    def _place(self, work: Work) -> None:
        """As early as it can be done; before what is held and comes after it, where that is possible."""
        if any(before not in self.draft.placed for before in work.after):
            return
        first = max([work.release, self.floor.get(work.number, 0)] + [self.draft.placed[one].end for one in work.after])
        then = [self.draft.placed[one].start for one in self.then.get(work.number, []) if one in self.held]
        found = self._earliest(work, first, min(then)) if then else None
        found = found or self._earliest(work, first, len(self.problem.time))
        if found is None and self.floor:
            found = self._earliest(work, max([work.release] + [self.draft.placed[one].end for one in work.after]),
                                   len(self.problem.time))  # fmt: skip
        if found:
            self._put(work, found)

    def _earliest(self, work: Work, first: int, last: int) -> Placed | None:
        best: tuple[tuple[int, ...], Placed] | None = None
        before = self.problem.before.get(work.number)
        for spot in work.spots or (None,):
            for crew, ends in work.ends.items():
                until = best[1].end if best else last
                found = self._earliest_of(work, crew, ends, spot, first, min(last, until))
                if found is None:
                    continue
                same = before is not None and before[1] == crew
                key = (found.end, not same, self._elsewhere(work, spot), sum(self.busy[i].bit_count() for i in crew))
                if best is None or key < best[0]:
                    best = key, found
        return best[1] if best else None

    def _elsewhere(self, work: Work, spot: int | None) -> bool:
        there = self.on_machine.get(work.machine, [])
        return any(self.draft.placed[number].spot != spot for number in there[-1:])

    def _earliest_of(
        self, work: Work, crew: Crew, ends: Mapping[int, int], spot: int | None, first: int, last: int
    ) -> Placed | None:
        starts = work.calendars[crew].open
        at = bisect_left(starts, first)
        while at < len(starts):
            start = starts[at]
            end = ends.get(start)
            if start >= last:
                return None
            if end is None:
                at += 1
                continue
            if end > last:
                return None
            placed = Placed(start, end, crew, spot)
            later = self._blocked_until(work, placed)
            if later is None:
                return placed
            at = bisect_left(starts, max(later, start + 1), at + 1)
        return None

    def _blocked_until(self, work: Work, placed: Placed) -> int | None:
        """The first slot at which what is in the way may be over; None where nothing is."""
        mask = _mask(placed.start, placed.end)
        for person in placed.crew:
            if taken := self.busy[person] & mask:
                return taken.bit_length()
        if placed.spot is not None:
            for number in self.on_machine.get(work.machine, []):
                other, there = self.problem.works[number], self.draft.placed[number]
                elsewhere = there.spot != placed.spot
                if self.problem.together(work, other) and not elsewhere:
                    continue
                free = there.end + self.problem.gap(other, work, elsewhere)
                if placed.start < free and placed.end + self.problem.gap(work, other, elsewhere) > there.start:
                    return free
            for number in self.in_spot.get(placed.spot, []):
                if self.problem.works[number].machine == work.machine:
                    continue
                there = self.draft.placed[number]
                free = there.end + self.problem.shunt
                if placed.start < free and placed.end + self.problem.shunt > there.start:
                    return free
            most = self.problem.given.machines[work.machine].max_hands
            if later := self._crowded(placed, self.on_machine.get(work.machine, []), work.job.hands, most, hands=True):
                return later
        if work.job.lift:
            return self._crowded(placed, self.lifting, 1, self.problem.given.lifts, hands=False)
        return None

    def _crowded(self, placed: Placed, others: Sequence[int], mine: int, most: int, *, hands: bool) -> int | None:
        loads, ends = [(placed.start, placed.end, mine)], []
        for number in others:
            there = self.draft.placed[number]
            if there.start < placed.end and placed.start < there.end:
                start, end = max(there.start, placed.start), min(there.end, placed.end)
                loads.append((start, end, self.problem.works[number].job.hands if hands else 1))
                ends.append(there.end)
        if too_many(loads, most):
            return min(ends, default=len(self.problem.time))
        return None


def _mask(start: int, end: int) -> int:
    return ((1 << (end - start)) - 1) << start if end > start else 0
