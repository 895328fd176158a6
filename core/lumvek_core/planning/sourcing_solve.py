"""Choosing one option a line so that own costs and shared runs together are least: a facility location problem, solved by
HiGHS."""

import time
from collections.abc import Sequence
from dataclasses import dataclass

from .sourcing_options import Option, RunKey

TINY = 1e-9


@dataclass(frozen=True)
class Solved:
    """chosen: an option a line, in the order of the lines. bound: no choice costs less."""

    chosen: list[Option]
    cost: float
    bound: float
    optimal: bool


def total(chosen: Sequence[Option]) -> float:
    """What a choice costs: own costs, and every run once."""
    return sum(option.own for option in chosen) + sum({option.run.key: option.shared for option in chosen}.values())


def solve(lines: Sequence[Sequence[Option]], seconds: float) -> Solved:
    """The cheapest choice of one option from each line. Stopped early, it is the best found so far, with its bound.

    A trip that is made for one line alone carries one line, and there is one trip a supplier and day.
    """
    if not lines:
        return Solved([], 0.0, 0.0, True)
    from ..solvers.facility import cheapest

    begun = time.monotonic()
    ready = _by_hand(lines, begun + seconds / 3)
    kept = [_worth(options) for options in lines]
    options = [option for of_line in kept for option in of_line]
    runs = {key: i for i, key in enumerate(dict.fromkeys(option.run.key for option in options))}
    left = seconds - (time.monotonic() - begun)
    found = cheapest(kept, options, runs, max(left, 0.05))
    if found is None:
        return Solved(ready, total(ready), sum(min(option.own for option in of_line) for of_line in lines), False)
    chosen, bound, optimal = found
    if not optimal and total(ready) < total(chosen):
        chosen = ready
    cost = total(chosen)
    return Solved(chosen, cost, min(bound, cost), optimal)


def _worth(options: Sequence[Option]) -> list[Option]:
    """Without options that another one beats even if its run is driven for this line alone."""
    free = [option.own + option.shared for option in options if option.run.mode != "alone"]
    best = min(free, default=float("inf"))
    return [option for option in options if option.own <= best + TINY]


def _by_hand(lines: Sequence[Sequence[Option]], ends: float) -> list[Option]:
    """A choice that is always possible: every run open, then runs closed while that saves and there is time. Without the trips
    made after a call. ends: on the monotonic clock, s.
    """
    open_to = [[option for option in options if option.run.mode in ("plain", "sent")] for options in lines]
    runs = {option.run.key for options in open_to for option in options}
    chosen = [min(options, key=lambda option: option.own + option.shared) for options in open_to]
    better = True
    while better:
        better = False
        for key in sorted({option.run.key for option in chosen}, key=str):
            if time.monotonic() > ends:
                return chosen
            rest = runs - {key}
            if all(any(option.run.key in rest for option in options) for options in open_to):
                used = {option.run.key for option in chosen} & rest
                other = [_cheapest(options, used, rest) for options in open_to]
                if total(other) < total(chosen) - TINY:
                    chosen, runs, better = other, rest, True
    return chosen


def _cheapest(options: Sequence[Option], used: set[RunKey], allowed: set[RunKey]) -> Option:
    """The option of least cost for one line when some runs are driven anyway."""
    able = [option for option in options if option.run.key in allowed]
    return min(able, key=lambda option: option.own + (0.0 if option.run.key in used else option.shared))
