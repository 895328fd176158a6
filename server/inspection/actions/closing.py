"""The end of a walk-around: finishing it, opening it again, discarding one begun by mistake, and what could not be taken.

Each is a `WalkAroundEvent` under the client's UUID, so that repeating a request that came late changes nothing twice.
"""

import datetime as dt
import uuid
from dataclasses import dataclass

from django.utils import timezone

from lumvek_core.counted import counted
from lumvek_core.errors import BadInput
from parts import actions as parts
from shops.access import Conflict, NotAllowed
from shops.models import Member
from shops.rights import action

from ..judging.rejudging import rebuild, settle
from ..judging.tallies import recount
from ..judging.typed_readings import where
from ..models import Decision, Reading, SetAside, Verdict, WalkAround, WalkAroundEvent
from . import field_notes
from .locking import known, lock

Kind = WalkAroundEvent.Kind


@action("finish a walk-around")
def finish(member: Member, walk_around_id: uuid.UUID, event: uuid.UUID) -> None:
    """Close a walk-around. What was not seen stays named in it; finishing twice is the same as once. Raises Conflict."""
    walk_around = lock(member, walk_around_id)
    if _there(event, walk_around) or walk_around.finished_at:
        return
    if walk_around.discarded_at:
        raise Conflict("This walk-around was discarded.")
    settle(member, walk_around_id)
    asked = Verdict.objects.filter(walk_around=walk_around).exclude(ask="").count()
    if asked:
        raise Conflict(f"{counted(asked, 'reading waits', 'readings wait')} for an answer before it can be finished.")
    walk_around.places_before.all().delete()
    walk_around.finished_at = timezone.now()
    walk_around.finished_by = member.user
    _log(member, walk_around, event, Kind.FINISHED)
    field_notes.keep(member, walk_around)


@action("open a walk-around again")
def reopen(member: Member, walk_around_id: uuid.UUID, event: uuid.UUID, reason: str) -> None:
    """Open a finished walk-around again, as its next version: by a lead, or whoever was at it. Raises BadInput, Conflict,
    NotAllowed."""
    walk_around = lock(member, walk_around_id)
    if _there(event, walk_around):
        return
    _whose(member, walk_around, "open it again")
    if walk_around.discarded_at or not walk_around.finished_at:
        raise Conflict("This walk-around is not finished.")
    because = _because(reason, "say why it is opened again")
    walk_around.finished_at = walk_around.finished_by = None
    walk_around.version += 1
    _log(member, walk_around, event, Kind.REOPENED, because)


@action("discard a walk-around")
def discard(member: Member, walk_around_id: uuid.UUID, event: uuid.UUID, reason: str) -> None:
    """Take a walk-around that was begun by mistake out of every list. What was read stays in the log and can be brought
    back.
    """
    walk_around = lock(member, walk_around_id)
    if _there(event, walk_around) or walk_around.discarded_at:
        return
    _whose(member, walk_around, "discard it")
    if walk_around.finished_at:
        raise Conflict("This walk-around is finished: open it again first.")
    if Decision.objects.filter(walk_around=walk_around).exists():
        raise Conflict("Something was decided in this walk-around: it is no mistake any more.")
    because = _because(reason, "say why it is discarded")
    walk_around.discarded_at = timezone.now()
    # Verdicts and parts follow from the readings, and are made from them again if it is brought back.
    Verdict.objects.filter(walk_around=walk_around).delete()
    recount(walk_around)
    parts.forget(walk_around.pk)
    _log(member, walk_around, event, Kind.DISCARDED, because)


@action("bring a walk-around back")
def restore(member: Member, walk_around_id: uuid.UUID, event: uuid.UUID) -> None:
    """Bring a discarded walk-around back as it was."""
    walk_around = lock(member, walk_around_id)
    if _there(event, walk_around) or not walk_around.discarded_at:
        return
    _whose(member, walk_around, "bring it back")
    walk_around.discarded_at = None
    _log(member, walk_around, event, Kind.RESTORED)
    rebuild(walk_around)


@dataclass(frozen=True)
class NotTaken:
    """A reading that was refused: its UUID, its place, the figure as typed, the refusal in words, and when it was typed."""

    uuid: uuid.UUID
    check: str
    position: str
    shown: str
    refused: str
    taken_at: dt.datetime


@action("set readings aside")
def set_aside(member: Member, walk_around_id: uuid.UUID, what: NotTaken, outcome: str, word: str) -> None:
    """Keep what could not be taken in the logbook, or discard it with a word. Raises BadInput, Conflict, NotFoundHere."""
    walk_around = lock(member, walk_around_id)
    if known(SetAside.objects.filter(uuid=what.uuid), walk_around):
        return
    if Reading.objects.filter(uuid=what.uuid).exists():
        raise Conflict("This reading has been taken.")
    where(walk_around, what.check, what.position)
    if outcome == SetAside.Outcome.DISCARDED and not word.strip():
        raise BadInput("word", "say why it is discarded")
    SetAside.objects.create(
        uuid=what.uuid,
        walk_around=walk_around,
        check_key=what.check,
        position_key=what.position,
        shown=what.shown.strip(),
        refused=what.refused,
        outcome=outcome,
        word=word.strip(),
        taken_at=min(what.taken_at, timezone.now()),
        by=member.user,
    )


def _there(event: uuid.UUID, walk_around: WalkAround) -> bool:
    return known(WalkAroundEvent.objects.filter(uuid=event), walk_around)


def _whose(member: Member, walk_around: WalkAround, doing: str) -> None:
    at_it = walk_around.people.filter(pk=member.pk).exists() or walk_around.readings.filter(by=member.user_id).exists()
    if not member.leads and not at_it:
        raise NotAllowed(f"Only a lead or who was at this walk-around can {doing}.")


def _because(reason: str, asked: str) -> str:
    if not reason.strip():
        raise BadInput("reason", asked)
    return reason.strip()


def _log(member: Member, walk_around: WalkAround, event: uuid.UUID, kind: WalkAroundEvent.Kind, reason: str = "") -> None:
    walk_around.save(update_fields=["finished_at", "finished_by", "version", "discarded_at"])
    WalkAroundEvent.objects.create(
        uuid=event,
        walk_around=walk_around,
        kind=kind,
        version=walk_around.version,
        reason=reason,
        by=member.user,
        at=timezone.now(),
    )
