"""Taking back what moved: the opposite movement is appended, and what went with it is put back as it was."""

import uuid
from typing import cast

from fleet.actions import fitments
from shops.access import Conflict
from shops.models import Member
from shops.rights import action

from ..models import Movement
from ..queries import stock
from ..queries.movements import may, movement_of
from . import ordering, stocking


@action("move parts")
def take_back(member: Member, movement: uuid.UUID) -> Movement:
    """Take back a movement, once however often it is asked for. Returns the movement that undoes it.

    Raises NotFoundHere, Conflict where pieces are gone that it brought, or it is itself a taking back.
    """
    stocking.lock_supply(member)
    moved = movement_of(member, movement)
    if done := getattr(moved, "undone_by", None):
        return cast(Movement, done)
    if not may(moved):
        raise Conflict("A taking back stands: do the thing itself again.")
    if moved.reason == Movement.Reason.FITTED:
        fitments.take_off(member, moved.uuid)
    elif moved.reason == Movement.Reason.RECEIVED:
        ordering.send_away(member, moved.number, moved.change)
    elif moved.reason == Movement.Reason.MOVED:
        _opposite(member, Movement.objects.get(uuid=uuid.uuid5(moved.uuid, "there")))
    return _opposite(member, moved)


def _opposite(member: Member, moved: Movement) -> Movement:
    there = stock.levels(member.shop_id, [moved.number]).get(moved.number, {}).get(moved.place, 0)
    if there < moved.change:
        raise Conflict(f"Only {there} left on the {moved.place}: what it brought has gone on since. Take that back first.")
    return Movement.objects.create(
        uuid=uuid.uuid5(moved.uuid, "taken back"),
        shop_id=member.shop_id,
        number=moved.number,
        place=moved.place,
        change=-moved.change,
        reason=Movement.Reason.UNDONE,
        note=f"{moved.get_reason_display().lower()}{f', {moved.note}' if moved.note else ''}"[:200],
        undoes=moved,
        by=member.user,
    )
