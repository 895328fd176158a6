"""What people do with jobs: moving, beginning, stopping, doing them, saying why they cannot be done, and typing others."""

import datetime as dt
import uuid
from dataclasses import dataclass, field
from typing import Any

from django.utils import timezone

from fleet.queries.machines import machine_for
from lumvek_core.errors import BadInput
from shops import taken_back
from shops.access import NotAllowed, kept_already, there
from shops.actions.log import log_change
from shops.days import not_to_come
from shops.models import Change, Member
from shops.rights import action, may

from ..models import JobMark, OwnJob
from ..queries import marks, plans
from . import planning

MOVES = "plan the season"


@dataclass(frozen=True)
class Done:
    """What somebody did with a job. kind: of `JobMark`. pin: where it was put, of one that was moved; empty: it may move again.
    minutes: that one took. reason, not_before: why it cannot be done, and until when. at: when; None: now."""

    kind: str
    pin: dict[str, Any] = field(default_factory=dict)
    minutes: float | None = None
    reason: str = ""
    not_before: dt.date | None = None
    at: dt.datetime | None = None


@action("work by the plan")
def mark(member: Member, uuid_: uuid.UUID, key: str, what: Done) -> None:
    """Keep what was done with a job of the plan. The same UUID twice is once. Moving a job takes the right to plan; one that
    cannot be done has the season planned anew beside.

    Raises BadInput, NotAllowed, NotFoundHere.
    """
    if kept_already(member, JobMark, uuid_):
        return
    _may_mark(member, what.kind)
    job, now = plans.job_shown(member, key), timezone.now()
    at = what.at or now
    if what.kind == JobMark.Kind.CANNOT and not what.reason.strip():
        raise BadInput("reason", "say why it cannot be done: somebody else has to plan around it")
    not_to_come(at)
    begun = marks.begun(member, key)
    if what.kind == JobMark.Kind.STOP and begun is None:
        raise BadInput("kind", "it is not begun")
    made = JobMark.objects.create(
        uuid=uuid_,
        machine=machine_for(member, job["machine_id"]),
        key=key,
        kind=what.kind,
        name=job["name"],
        of=job["of"],
        reckoned=job["reckoned"],
        pin=what.pin,
        minutes=_taken(job, begun, what.minutes, at) if what.kind == JobMark.Kind.DONE else None,
        reason=what.reason.strip(),
        not_before=what.not_before,
        by=member.user,
        at=at,
    )
    log_change(member, Change.About.PLAN, made.about, "", marks.words(made))
    if what.kind == JobMark.Kind.CANNOT:
        planning.again_beside(member)


def _may_mark(member: Member, kind: str) -> None:
    if kind == JobMark.Kind.PIN and not may(member, MOVES):
        raise NotAllowed(f"A {member.role_name.lower()} cannot {MOVES}.")


def _taken(job: dict[str, Any], begun: JobMark | None, typed: float | None, at: dt.datetime) -> float | None:
    """Minutes that a job took: as somebody says, else as it was timed; None where nobody knows."""
    if typed is not None or begun is None:
        return typed
    return max(1.0, (at - begun.at).total_seconds() / 60 + float(job["worked_min"]))


@action("work by the plan")
def take_back(member: Member, mark_uuid: uuid.UUID) -> None:
    """Take back what was done with a job; it stays in the log as taken back. Raises NotAllowed, NotFoundHere."""
    found = there(JobMark.objects.in_shop(member.shop_id).filter(uuid=mark_uuid)).select_related("machine")
    made = found.get()
    _may_mark(member, made.kind)
    if taken_back.take_back(member, found):
        log_change(member, Change.About.PLAN, made.about, marks.words(made), "taken back")


@action("plan the season")
def add_job(member: Member, uuid_: uuid.UUID, machine_id: int, values: dict[str, Any]) -> None:
    """Keep a job that was typed. The same UUID twice is once. Raises BadInput, NotFoundHere."""
    if kept_already(member, OwnJob, uuid_):
        return
    made = OwnJob.objects.create(
        uuid=uuid_, machine=machine_for(member, machine_id), by=member.user, **(values | {"name": _named(values)})
    )
    log_change(member, Change.About.PLAN, "Job", "", made.words)


@action("plan the season")
def change_job(member: Member, uuid_: uuid.UUID, machine_id: int, values: dict[str, Any]) -> None:
    """What a typed job is from now on; sent again it is the same. Where it was put and what was done with it stays, unless it
    is on another machine now. Raises BadInput, NotFoundHere."""
    kept = there(OwnJob.objects.in_shop(member.shop_id).filter(uuid=uuid_)).select_related("machine").get()
    before = kept.words
    kept.machine = machine_for(member, machine_id)
    for name, value in (values | {"name": _named(values)}).items():
        setattr(kept, name, value)
    kept.save()
    log_change(member, Change.About.PLAN, "Job", before, kept.words)


def _named(values: dict[str, Any]) -> str:
    name = str(values["name"]).strip()
    if not name:
        raise BadInput("name", "say what is to be done")
    return name


@action("plan the season")
def take_back_job(member: Member, uuid_: uuid.UUID) -> None:
    """Take back a job that was typed. Raises NotFoundHere."""
    found = there(OwnJob.objects.in_shop(member.shop_id).filter(uuid=uuid_)).select_related("machine")
    if taken_back.take_back(member, found):
        log_change(member, Change.About.PLAN, "Job", found.get().words, "taken back")
