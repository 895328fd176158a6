"""What was moved, and whether it can be taken back."""

import uuid

from shops.access import NotFoundHere
from shops.models import Member

from ..models import Movement


def movement_of(member: Member, movement: uuid.UUID) -> Movement:
    """A movement of the member's shop. Raises NotFoundHere."""
    found = Movement.objects.select_related("undone_by").of(member).filter(uuid=movement).first()
    if found is None:
        raise NotFoundHere("There is no such movement.")
    return found


def may(moved: Movement) -> bool:
    """Whether it counts and can be taken back. What was loaded is two movements, taken back by the one that left its place."""
    if moved.reason == Movement.Reason.UNDONE or hasattr(moved, "undone_by"):
        return False
    return moved.reason != Movement.Reason.MOVED or moved.change < 0
