"""What people do with jobs: moving, beginning, stopping, doing them, or saying why they cannot be done."""

import datetime as dt
import uuid
from typing import Any

from django.utils import timezone

from fleet.queries.machines import machine_for
from lumvek_core.errors import BadInput
from shops import taken_back
from shops.access import NotAllowed, NotFoundHere
from shops.models import Member
from shops.rights import action, may

from ..models import JobMark, OwnJob
from ..queries import plans
from . import planning

MOVES = "plan the season"


@action("work by the plan")
def mark(
    member: Member,
    uuid_: uuid.UUID,
    key: str,
    kind: str,
    *,
    pin: dict[str, Any] | None = None,
    minutes: float | None = None,
    reason: str = "",
    not_before: dt.date | None = None,
    at: dt.datetime | None = None,
) -> None:
    """Keep what was done with a job of the plan. The same UUID twice is once. Moving a job takes the right to plan; one that
    cannot be done has the season planned anew beside.

    Raises BadInput, NotAllowed, NotFoundHere.
    """
    had = JobMark.objects.filter(uuid=uuid_).select_related("machine").first()
    if had is not None:
        if had.machine.shop_id != member.shop_id or had.key != key:
            raise NotFoundHere("There is no such job.")
        return
    if kind == JobMark.Kind.PIN and not may(member, MOVES):
        raise NotAllowed(f"A {member.role_name.lower()} cannot {MOVES}.")
    job = plans.job_shown(member, key)
    if kind == JobMark.Kind.CANNOT and not reason.strip():
        raise BadInput("reason", "say why it cannot be done: somebody else has to plan around it")
    now = timezone.now()
    if at is not None and at > now + dt.timedelta(minutes=5):
        raise BadInput("at", "is still to come")
    begun = plans.begun(member).get(key)
    if kind == JobMark.Kind.STOP and begun is None:
        raise BadInput("kind", "it is not begun")
    JobMark.objects.create(
        uuid=uuid_,
        machine=machine_for(member, job["machine_id"]),
        key=key,
        kind=kind,
        name=job["name"],
        of=job["of"],
        reckoned=job["reckoned"],
        pin=pin or {},
        minutes=_taken(job, begun, minutes, at or now) if kind == JobMark.Kind.DONE else None,
        reason=reason.strip(),
        not_before=not_before,
        by=member.user,
        at=at or now,
    )
    if kind == JobMark.Kind.CANNOT:
        planning.again_beside(member)


def _taken(job: dict[str, Any], begun: JobMark | None, typed: float | None, at: dt.datetime) -> float | None:
    """Minutes that a job took: as somebody says, else as it was timed; None where nobody knows."""
    if typed is not None or begun is None:
        return typed
    return max(1.0, (at - begun.at).total_seconds() / 60 + float(job["worked_min"]))


@action("work by the plan")
def take_back(member: Member, mark_uuid: uuid.UUID) -> None:
    """Take back what was done with a job; it stays in the log as taken back. Raises NotFoundHere."""
    found = JobMark.objects.in_shop(member.shop_id).filter(uuid=mark_uuid)
    if not found.exists():
        raise NotFoundHere("There is no such job.")
    if found.filter(kind=JobMark.Kind.PIN).exists() and not may(member, MOVES):
        raise NotAllowed(f"A {member.role_name.lower()} cannot {MOVES}.")
    taken_back.take_back(member, found)


@action("plan the season")
def add_job(member: Member, uuid_: uuid.UUID, machine_id: int, values: dict[str, Any]) -> None:
    """Keep a job that was typed. The same UUID twice is once."""
    had = OwnJob.objects.filter(uuid=uuid_).select_related("machine").first()
    if had is not None:
        if had.machine.shop_id != member.shop_id:
            raise NotFoundHere("There is no such job.")
        return
    if not values["name"].strip():
        raise BadInput("name", "say what is to be done")
    OwnJob.objects.create(uuid=uuid_, machine=machine_for(member, machine_id), by=member.user, **values)


@action("plan the season")
def take_back_job(member: Member, uuid_: uuid.UUID) -> None:
    """Take back a job that was typed. Raises NotFoundHere."""
    found = OwnJob.objects.in_shop(member.shop_id).filter(uuid=uuid_)
    if not found.exists():
        raise NotFoundHere("There is no such job.")
    taken_back.take_back(member, found)
