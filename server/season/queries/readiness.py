"""The season board: of each machine, how far it is from being ready, and when that will be."""

import datetime as dt

from lumvek_core.planning.season.readiness import WorkLeft, ready_between
from shops.models import Member

from ..schemas import ReadinessOut, SeasonJobOut, SeasonPlanOut
from . import plans


def readiness(member: Member) -> list[ReadinessOut]:
    """By the plan that people work by, worst first; nothing without one. An owner sees their own machines."""
    plan = plans.taken(member)
    if plan is None:
        return []
    shown = plans.shown(member, plan)
    shifts = [
        (dt.datetime.fromisoformat(one.start), dt.datetime.fromisoformat(one.end))
        for person in shown.people
        for one in person.shifts
    ]
    found = [_of(shown, machine.id, shifts) for machine in shown.machines]
    return sorted(found, key=lambda one: (-one.late_h, one.due or "9", one.machine))


def _of(plan: SeasonPlanOut, machine_id: int, shifts: list[tuple[dt.datetime, dt.datetime]]) -> ReadinessOut:
    machine = next(one for one in plan.machines if one.id == machine_id)
    jobs = [job for job in plan.jobs if job.machine_id == machine_id and not job.done]
    ready = dt.datetime.fromisoformat(machine.ready) if machine.ready else None
    left = [WorkLeft(job.minutes, job.low, job.high) for job in jobs]
    between = ready_between(ready, left, shifts) if ready and jobs else None
    return ReadinessOut(
        machine=machine_id,
        due=machine.due,
        ready=machine.ready,
        first=between.first.date().isoformat() if between else None,
        last=between.last.date().isoformat() if between else None,
        late_h=machine.late_h,
        words=machine.words,
        hours_left=sum(job.minutes * job.hands for job in jobs) / 60,
        jobs_left=len(jobs),
        parts_out=len(_awaited(jobs)),
        may_be_late=bool(between and machine.due and machine.late_h <= 0 and between.last.isoformat() > machine.due),
    )


def _awaited(jobs: list[SeasonJobOut]) -> set[str]:
    return {part.id for job in jobs for part in job.parts}
