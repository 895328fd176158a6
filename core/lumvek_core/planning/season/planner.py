"""From a first plan to the best there is time for: what is late first, then what moves, postures, and the last day."""

import random
import time
from collections.abc import Callable
from dataclasses import dataclass

from .first_plan import best_of_many, closed_up
from .pins import Pinned
from .problem import Problem
from .rules import Draft, Score, score

WHOLE = 160
"""Works up to which the whole plan is one model; above, parts of it are planned anew while the rest stands."""
PART = 40
PART_S = 1.5
Told = Callable[[float, float], bool | None]


@dataclass
class Solved:
    """bound: no plan is less late, weighted slots. optimal: no plan is better in anything. enough: somebody said so."""

    draft: Draft
    score: Score
    bound: int
    optimal: bool = False
    enough: bool = False


def solve(problem: Problem, pinned: Pinned, seconds: float, told: Told) -> Solved:
    """The best plan found in so much time. told: weighted late slots of the best so far, and what no plan is under."""
    ends = time.monotonic() + seconds
    draft, reached = best_of_many(problem, pinned, min(1.0, seconds / 6))
    solved = Solved(draft, reached, min(least_late(problem), reached[1]))
    solved.enough = bool(told(reached[1], solved.bound))
    if not problem.works:
        solved.optimal = True
    elif not solved.enough:
        (_whole if len(problem.works) <= WHOLE else _in_parts)(problem, pinned, solved, ends, told)
    solved.draft = closed_up(problem, pinned, solved.draft)
    solved.score = score(problem, solved.draft)
    return solved


def least_late(problem: Problem) -> int:
    """What no plan is under: each work as early as its parts, its people's shifts and what comes before it allow."""
    done: dict[int, int] = {}
    total = {machine: late[-1] if machine in problem.never_ready else 0 for machine, late in enumerate(problem.late) if late}
    for work in problem.works:
        first = max([work.release] + [done[before] for before in work.after])
        of_kind = {id(ends): ends for ends in work.ends.values()}.values()
        firsts = (next((end for start, end in ends.items() if start >= first), len(problem.time)) for ends in of_kind)
        done[work.number] = min(firsts, default=len(problem.time))
        late = problem.late[work.machine]
        if late and work.pinned is None:
            total[work.machine] = max(total[work.machine], late[done[work.number]])
    return sum(problem.weights[machine] * late for machine, late in total.items())


def _whole(problem: Problem, pinned: Pinned, solved: Solved, ends: float, told: Told) -> None:
    from ...solvers.season import SeasonModel
    from ...solvers.season_ladder import Ladder

    model = SeasonModel(problem, pinned, solved.draft, range(len(problem.works)))
    ladder = Ladder(model)
    steps: list[tuple[int, Callable[[], object], float]] = [(0, model.missing, 0.3)] if model.tight else []
    steps.append((1, model.lateness, 0.6))
    if problem.before:
        steps.append((2, model.moved, 0.5))
    steps += [(3, model.posture_moves, 0.6), (4, model.last, 1.0)]
    solved.optimal = True
    for rung, goal, share in steps:
        left = ends - time.monotonic()
        now = score(problem, ladder.best)
        late = _as_late(solved, told) if rung == 1 else _still(now[1], solved, told)
        reached = ladder.least(goal(), left * share, now[rung], late) if left > 0 and not ladder.enough else None
        if reached is None:
            solved.optimal = False
            break
        solved.optimal = solved.optimal and reached[0] == reached[1]
        if rung == 1:
            solved.bound = max(solved.bound, min(reached))
            told(reached[0], solved.bound)
    solved.enough = ladder.enough
    # Whatever a ladder found keeps every rung below; a draft of it is as good as the one it began with, or better.
    if (found := score(problem, ladder.best)) <= solved.score:
        solved.draft, solved.score = ladder.best, found


def _as_late(solved: Solved, told: Told) -> Told:
    return lambda found, bound: told(found, min(found, max(bound, solved.bound)))


def _still(late: float, solved: Solved, told: Told) -> Told:
    """While something else is made least, lateness is what it was."""
    return lambda _found, _bound: told(late, solved.bound)


def _in_parts(problem: Problem, pinned: Pinned, solved: Solved, ends: float, told: Told) -> None:
    from ...solvers.season import SeasonModel
    from ...solvers.season_ladder import Ladder

    dice = random.Random(1)  # noqa: S311  (no secret)
    while (left := ends - time.monotonic()) > 0.2 and not solved.enough:
        free, window = _part(problem, solved.draft, dice)
        model = SeasonModel(problem, pinned, solved.draft, free, window)
        ladder = Ladder(model)
        goals = [model.missing] if model.tight else []
        goals += [model.lateness] + ([model.moved] if problem.before else []) + [model.posture_moves]
        for goal in goals:
            if ladder.least(goal(), min(left / 3, PART_S), 0, _still(solved.score[1], solved, told)) is None:
                break
        solved.enough = ladder.enough
        if (found := score(problem, ladder.best)) < solved.score:
            solved.draft, solved.score = ladder.best, found
            told(found[1], solved.bound)


def _part(problem: Problem, draft: Draft, dice: random.Random) -> tuple[set[int], tuple[int, int]]:
    """Works that are planned anew together, and between when: of one machine, late ones more often, and what is done about that
    time."""
    machines = list(problem.of_machine)
    weights = []
    for machine in machines:
        table = problem.late[machine]
        ends = [draft.placed[work.number].end for work in problem.of_machine[machine] if work.number in draft.placed]
        weights.append(1 + (table[max(ends, default=0)] if table else 0) ** 0.5)
    chosen = dice.choices(machines, weights)[0]
    times = [draft.placed[work.number] for work in problem.of_machine[chosen] if work.number in draft.placed]
    at = dice.choice(times).start if times else 0
    near = sorted(draft.placed, key=lambda number: (abs(draft.placed[number].start - at), number))[:PART]
    missing = {work.number for work in problem.works if work.number not in draft.placed}
    first, last = min(draft.placed[n].start for n in near), max(draft.placed[n].end for n in near)
    room = max(8, (last - first) // 3)
    return missing | set(near), (max(0, first - room), last + room)
