"""The machines of a large shop that are not in a plan: when each will roughly be ready."""

import datetime as dt
from typing import Any

from lumvek_core import registry, structure
from shops.models import Member

from . import hands
from .question import Question, iso
from .work import Job

LATER_DAYS = 180
"""How far ahead people's days are looked at for the machines that are not planned to the hour."""


def roughly(member: Member, found: Question, answer: dict[str, Any]) -> list[dict[str, Any]]:
    """When the machines that are not in a plan will roughly be ready, in what it leaves of everybody's days: the season's
    nearest first."""
    if not found.later:
        return []
    now, names = dt.datetime.fromisoformat(found.asked["now"]), hands.names_of(found.persons)
    machines: dict[str, list[Job]] = {}
    for job in found.later:
        machines.setdefault(job.machine.name, []).append(job)
    known = {name: mine[0].machine for name, mine in machines.items()}
    reckoned = registry.find("season_roughly").run({
        "now": found.asked["now"],
        "technicians": [
            {
                "name": names[one.member.pk],
                "shifts": [structure.write(span) for span in hands.shifts(one, member.shop, now, LATER_DAYS)],
                "skills": one.skills,
            }
            for one in found.persons
        ],
        "machines": [
            {"name": name, "season_date": iso(known[name].season_date), "priority": known[name].priority,
             "jobs": [_reckoned(job) for job in mine]}
            for name, mine in machines.items()
        ],
        "busy": [
            {"technician": who, **part} for job in answer["jobs"] for who in job["technicians"] for part in job["parts"]
        ],
    })  # fmt: skip
    listed = [
        {
            **one,
            "id": known[one["name"]].pk,
            "season_date": iso(known[one["name"]].season_date),
            "jobs": len(machines[one["name"]]),
        }
        for one in reckoned["machines"]
    ]
    return sorted(listed, key=lambda one: (one["season_date"] or "9999", one["name"]))


def _reckoned(job: Job) -> dict[str, Any]:
    days = [part.arrives for part in job.parts]
    last = max((when.date() for when in days if when), default=None)
    first = max(filter(None, (last, job.not_before)), default=None)
    return {"minutes": job.minutes_left, "hands": job.draft.hands, "skill": job.draft.skill, "not_before": iso(first),
            "waits": None in days}  # fmt: skip
