"""Choosing one option a line so that own costs and shared runs together are least: a facility location problem, solved by HiGHS."""

import datetime as dt
import time
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array

from .sourcing_options import Option, Run

RunKey = tuple[str, str, str, dt.date, dt.date]
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
    begun = time.monotonic()
    ready = _by_hand(lines)
    kept = [_worth(options) for options in lines]
    options = [option for of_line in kept for option in of_line]
    runs = {key: i for i, key in enumerate(dict.fromkeys(option.run.key for option in options))}
    left = seconds - (time.monotonic() - begun)
    found = _milp(kept, options, runs, max(left, 0.05))
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


def _by_hand(lines: Sequence[Sequence[Option]]) -> list[Option]:
    """A choice that is always possible: every run open, then runs closed while that saves. Without the trips made after a call."""
    open_to = [[option for option in options if option.run.mode in ("plain", "sent")] for options in lines]
    runs = {option.run.key for options in open_to for option in options}
    chosen = [min(options, key=lambda option: option.own + option.shared) for options in open_to]
    better = True
    while better:
        better = False
        for key in sorted({option.run.key for option in chosen}, key=str):
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


def _milp(
    kept: Sequence[Sequence[Option]], options: Sequence[Option], runs: dict[RunKey, int], seconds: float
) -> tuple[list[Option], float, bool] | None:
    """x: a line on a run; y: a run is made. Each line once, only on runs that are made. None if nothing was found in time."""
    n, m = len(options), len(runs)
    of_run: dict[RunKey, Run] = {option.run.key: option.run for option in options}
    shared = {option.run.key: option.shared for option in options}
    cost = np.array([option.own for option in options] + [shared[key] for key in runs], dtype=float)
    line_of = [i for i, of_line in enumerate(kept) for _ in of_line]
    once = coo_array((np.ones(n), (line_of, range(n))), shape=(len(kept), n + m))
    at = [n + runs[option.run.key] for option in options]
    made = coo_array((np.r_[np.ones(n), -np.ones(n)], (np.r_[range(n), range(n)], np.r_[range(n), at])), shape=(n, n + m))
    rules = [LinearConstraint(once, 1, 1), LinearConstraint(made, -np.inf, 0)]
    rules += _trip_rules(options, runs, of_run, n, m)
    whole = np.r_[np.zeros(n), np.ones(m)]
    # With the runs settled the rest is an assignment, so x comes out whole by itself.
    answer = milp(
        cost, constraints=rules, integrality=whole, bounds=Bounds(0, 1), options={"time_limit": seconds, "mip_rel_gap": 0}
    )
    if answer.x is None:
        return None
    chosen, first = [], 0
    for of_line in kept:
        share = answer.x[first : first + len(of_line)]
        chosen.append(of_line[int(np.argmax(share))])
        first += len(of_line)
    bound = answer.mip_dual_bound if answer.mip_dual_bound is not None else answer.fun
    return chosen, float(bound), answer.status == 0


def _trip_rules(
    options: Sequence[Option], runs: dict[RunKey, int], of_run: dict[RunKey, Run], n: int, m: int
) -> list[LinearConstraint]:
    """One trip a supplier and day, and one line on a trip that is made for it alone."""
    rules = []
    days: dict[tuple[str, object], list[int]] = {}
    for key, i in runs.items():
        if of_run[key].mode != "sent":
            days.setdefault((of_run[key].supplier, of_run[key].date), []).append(i)
        if of_run[key].mode == "alone":
            row = np.zeros(n + m)
            row[[j for j, option in enumerate(options) if option.run.key == key]] = 1
            rules.append(LinearConstraint(row, -np.inf, 1))
    for together in days.values():
        if len(together) > 1:
            row = np.zeros(n + m)
            row[[n + i for i in together]] = 1
            rules.append(LinearConstraint(row, -np.inf, 1))
    return rules
