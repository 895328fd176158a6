"""The facility location problem behind sourcing, for SciPy's HiGHS. Loaded only when somebody plans."""

from collections.abc import Sequence

import numpy as np
from scipy.optimize import Bounds, LinearConstraint, milp
from scipy.sparse import coo_array

from ..planning.sourcing_options import Option, Run, RunKey


def cheapest(
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
