"""The season's plan on drawn shops: how soon there is one, how far it is from its bound, and how it stands against two plain rules
(earliest season date first, shortest job first), as ratios of weighted lateness and of posture changes."""

import json
import sys
import time
from statistics import mean

from lumvek_core import structure
from lumvek_core.planning.season.first_plan import by_season_date, draft, shortest_first
from lumvek_core.planning.season.model import SeasonGiven
from lumvek_core.planning.season.pins import settled
from lumvek_core.planning.season.planner import solve
from lumvek_core.planning.season.rules import score
from lumvek_core.tests.drawn_shops import shop

MIDDLE, LARGE = {"machines": 10, "jobs": 120, "technicians": 3}, {"machines": 40, "jobs": 600, "technicians": 8}
LATE, POSTURES = 1, 3
"""Where they stand in a score."""


def measured(seed: int, size: dict[str, int], seconds: float) -> dict[str, float]:
    """One shop: seconds to the first plan, gap in per cent of the bound, and the plain rules against it."""
    began = time.monotonic()
    first: list[float] = []
    _, problem, pinned = settled(structure.read(SeasonGiven, shop(seed, **size)))

    def told(_found: float, _bound: float) -> None:
        first.append(time.monotonic() - began)

    solved = solve(problem, pinned, seconds, told)
    by_date, shortest = (score(problem, draft(problem, pinned, rule(problem))) for rule in (by_season_date, shortest_first))
    late, bound = solved.score[LATE], solved.bound
    return {
        "first_s": first[0],
        "gap_pct": 100 * (late - bound) / bound if bound else 100.0 * (late > 0),
        "late": late,
        "without": solved.score[0],
        "date_late": by_date[LATE] / late if late else 1.0,
        "short_late": shortest[LATE] / late if late else 1.0,
        "date_postures": by_date[POSTURES] / max(1, solved.score[POSTURES]),
        "short_postures": shortest[POSTURES] / max(1, solved.score[POSTURES]),
    }


def main() -> None:
    from ortools.sat.python import cp_model  # noqa: F401  (loading it is no part of planning)

    for name, size, seconds, seeds in (
        ("10 machines, 120 jobs", MIDDLE, 20, range(1, 9)),
        ("40 machines, 600 jobs", LARGE, 60, (1, 2)),
    ):
        found = [measured(seed, size, seconds) for seed in seeds]
        print(f"{name}, {seconds} s, {len(found)} shops:")
        print(f"  first plan after {max(one['first_s'] for one in found):.2f} s at most")
        print(
            f"  above its bound: {mean(one['gap_pct'] for one in found):.2f} %, at most {max(one['gap_pct'] for one in found):.2f} %"
        )
        print(
            f"  earliest season date first: {mean(one['date_late'] for one in found):.2f} × as late, {mean(one['date_postures'] for one in found):.2f} × the posture changes"
        )
        print(
            f"  shortest job first: {mean(one['short_late'] for one in found):.2f} × as late, {mean(one['short_postures'] for one in found):.2f} × the posture changes"
        )
        if "--json" in sys.argv:
            print(json.dumps(found))


if __name__ == "__main__":
    main()
