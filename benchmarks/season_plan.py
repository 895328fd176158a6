"""The season's plan on drawn shops: how soon there is one, how far it is from its bound, and how it stands against two plain rules
(earliest season date first, shortest job first), as ratios of weighted lateness and of posture changes; and a shop of 300 machines,
of which the season's nearest are planned and the others reckoned roughly."""

import datetime as dt
import json
import sys
import time
from statistics import mean
from typing import Any

from lumvek_core import registry, structure
from lumvek_core.planning.season.first_plan import by_season_date, draft, shortest_first
from lumvek_core.planning.season.model import SeasonGiven
from lumvek_core.planning.season.nearest import Waiting, nearest
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


def at_size(seed: int, seconds: float) -> dict[str, float]:
    """300 machines with eight jobs each: seconds to the first plan of the nearest, and to the rough days of all others."""
    raw = shop(seed, machines=300, jobs=2400, technicians=12, days=56)
    raw["places"][1]["capacity"] = 60
    jobs_of: dict[str, list[dict[str, Any]]] = {}
    for job in raw["jobs"]:
        jobs_of.setdefault(job["machine"], []).append(job)
    fleet = {
        i: Waiting(i, one["name"], len(jobs_of[one["name"]]), dt.date.fromisoformat(one["season_date"]), one["priority"])
        for i, one in enumerate(raw["machines"])
        if one["name"] in jobs_of
    }
    near = {fleet[i].name for i in nearest(list(fleet.values()))}
    rest = [one for one in raw["machines"] if one["name"] not in near]
    raw["machines"] = [one for one in raw["machines"] if one["name"] in near]
    raw["jobs"] = [job for job in raw["jobs"] if job["machine"] in near]
    began, first = time.monotonic(), []

    def told(_what: str, _found: int, _bound: int) -> None:
        first.append(time.monotonic() - began)

    answer = registry.find("season_schedule").run(raw | {"time_limit_s": seconds, "causes": False}, told)
    planned = time.monotonic()
    later = registry.find("season_roughly").run({
        "now": raw["now"], "technicians": raw["technicians"],
        "machines": [
            {"name": one["name"], "season_date": one["season_date"],
             "jobs": [{"minutes": job["minutes"], "hands": job["hands"], "skill": job["skill"]} for job in jobs_of.get(one["name"], [])]}
            for one in rest
        ],
        "busy": [{"technician": who, **part} for job in answer["jobs"] for who in job["technicians"] for part in job["parts"]],
    })  # fmt: skip
    return {
        "first_s": first[0], "rough_s": time.monotonic() - planned, "near": len(near), "jobs": len(raw["jobs"]),
        "later": len(later["machines"]), "gap_pct": answer["gap_pct"],
    }  # fmt: skip


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
    for seed in (1, 2):
        one = at_size(seed, 10)
        print(
            f"300 machines, 12 people: {one['near']:.0f} of them ({one['jobs']:.0f} jobs) planned after {one['first_s']:.2f} s, "
            f"in 10 s {one['gap_pct']:.1f} % above their bound at most; {one['later']:.0f} reckoned roughly in {one['rough_s']:.2f} s"
        )


if __name__ == "__main__":
    main()
