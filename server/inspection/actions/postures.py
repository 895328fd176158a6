"""Confirming postures with their locks, and handing over, which ends them."""

import datetime as dt
import uuid

from django.utils import timezone

from lumvek_core.errors import BadInput
from shops.models import Member
from shops.rights import action, who_may

from ..models import HandOver, PostureHold
from ..queries import rule_books
from .locking import known, lock, running


@action("confirm locks")
def confirm_posture(
    member: Member, walk_around_id: uuid.UUID, hold_uuid: uuid.UUID, posture: str, at: dt.datetime | None = None
) -> None:
    """Record that the machine stands in a posture with its locks set. Whatever it stood in before has ended with that.

    A part on the bench ends nothing: the machine stays as it is. Raises BadInput, NotFoundHere, Conflict.
    """
    walk_around = lock(member, walk_around_id)
    if known(PostureHold.objects.filter(uuid=hold_uuid), walk_around):
        return
    running(walk_around)
    postures = rule_books.opened(walk_around.rule_book_id).postures
    if posture not in postures:
        raise BadInput("posture", "does not occur on this machine")
    at = at or timezone.now()
    if not postures[posture].off_machine:
        PostureHold.objects.filter(walk_around=walk_around, ended_at=None).update(ended_at=at)
    PostureHold.objects.create(uuid=hold_uuid, walk_around=walk_around, posture=posture, by=member.user, at=at)


@action("hand a walk-around over")
def hand_over(member: Member, walk_around_id: uuid.UUID, hand_over_uuid: uuid.UUID, to: int, note: str = "") -> None:
    """Pass a walk-around on; what was confirmed about its posture must be confirmed again by the next one."""
    walk_around = lock(member, walk_around_id)
    if known(HandOver.objects.filter(uuid=hand_over_uuid), walk_around):
        return
    running(walk_around)
    taker = who_may(Member.objects.of(member), "record readings").select_related("user").filter(pk=to).first()
    if taker is None or taker.pk == member.pk:
        raise BadInput("to", "must be another technician of this shop")
    HandOver.objects.create(
        uuid=hand_over_uuid, walk_around=walk_around, giver=member.user, taker=taker.user, note=note.strip()
    )
    PostureHold.objects.filter(walk_around=walk_around, ended_at=None).update(ended_at=timezone.now())
    walk_around.people.add(taker)
