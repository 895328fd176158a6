"""Which rule two placed works break, and how good a plan is."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from typing import Literal

from .problem import Placed, Problem, Work

Rule = Literal["start", "hands", "skill", "parts", "weather", "after", "posture", "place", "lift"]
Pair = frozenset[int]


@dataclass
class Draft:
    """A plan while it is made. placed: works by number. at_odds: pairs whose pins contradict each other, and stay; broken:
    pairs of which the second is pinned before the first can be done."""

    placed: dict[int, Placed] = field(default_factory=dict)
    broken: set[tuple[int, int]] = field(default_factory=set)


Score = tuple[int, int, int, int, int]
WITHOUT = 1000
"""A work without a place counts as much as so many pins that begin too soon."""


def score(problem: Problem, draft: Draft) -> Score:
    """Least is best: works without a place and pins that begin too soon, weighted late slots, works moved, posture changes,
    last slot."""
    return (
        WITHOUT * (len(problem.works) - len(draft.placed)) + len(draft.broken),
        sum(problem.weights[machine] * late for machine, late in late_of(problem, draft.placed).items()),
        sum(moved(problem, number, draft.placed.get(number)) for number in problem.before),
        sum(len(changes_of(problem, machine, draft.placed)) for machine in problem.of_machine),
        max((placed.end for placed in draft.placed.values()), default=0),
    )


def late_of(problem: Problem, placed: Mapping[int, Placed]) -> dict[int, int]:
    """Late slots on the clock of each machine with a date: to the end of the plan where a job of it has no place."""
    found = {}
    for machine, late in enumerate(problem.late):
        if late is not None:
            works = problem.of_machine.get(machine, [])
            ends = [late[placed[work.number].end] if work.number in placed else late[-1] for work in works]
            found[machine] = late[-1] if machine in problem.never_ready else max(ends, default=0)
    return found


def moved(problem: Problem, number: int, placed: Placed | None) -> bool:
    return placed is None or problem.before[number] != (placed.start, placed.crew)


def changes_of(problem: Problem, machine: int, placed: Mapping[int, Placed]) -> list[tuple[str, str, int]]:
    """Each change of a machine's posture: from, to, and the slot at which it can begin."""
    at = problem.given.machines[machine].posture
    works = sorted(
        (work for work in problem.of_machine.get(machine, []) if work.posture and work.number in placed),
        key=lambda work: (placed[work.number].start, work.number),
    )
    found, free = [], 0
    for work in works:
        if at and work.posture != at:
            found.append((at, str(work.posture), free))
        at, free = work.posture, max(free, placed[work.number].end)
    return found


def between_machines(problem: Problem, one: Work, first: Placed, other: Work, second: Placed) -> Rule | None:
    """The rule that two works on different machines break."""
    if _overlap(first, second) and set(first.crew) & set(second.crew):
        return "hands"
    apart = first.spot is not None and first.spot == second.spot and problem.spots[first.spot].alone
    if apart and not _clear(first, second, problem.shunt, problem.shunt):
        return "place"
    return None


def on_machine(problem: Problem, one: Work, first: Placed, other: Work, second: Placed) -> Rule | None:
    """The rule that two works on the same machine break."""
    if _overlap(first, second) and set(first.crew) & set(second.crew):
        return "hands"
    if first.spot is None or second.spot is None:
        return None
    elsewhere = first.spot != second.spot
    if problem.together(one, other) and not elsewhere:
        return None
    if _clear(first, second, problem.gap(one, other, elsewhere), problem.gap(other, one, elsewhere)):
        return None
    if elsewhere:
        return "place"
    return "hands" if one.posture is None or other.posture is None or one.posture == other.posture else "posture"


def breaks(problem: Problem, one: Work, first: Placed, other: Work, second: Placed) -> Rule | None:
    """The rule that two placed works break together; None where they do not."""
    if (other.number in one.after and first.start < second.end) or (one.number in other.after and second.start < first.end):
        return "after"
    rule = on_machine if one.machine == other.machine else between_machines
    return rule(problem, one, first, other, second)


def _overlap(first: Placed, second: Placed) -> bool:
    return first.start < second.end and second.start < first.end


def _clear(first: Placed, second: Placed, after_first: int, after_second: int) -> bool:
    return first.end + after_first <= second.start or second.end + after_second <= first.start


def too_many(loads: Iterable[tuple[int, int, int]], most: int) -> bool:
    """Whether at some slot more than so many are taken. loads: start, end, how many."""
    steps = sorted((at, change) for start, end, many in loads for at, change in ((start, many), (end, -many)))
    level = 0
    for _, change in steps:
        level += change
        if level > most:
            return True
    return False
