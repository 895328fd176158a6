"""What every write in a walk-around begins with: the row held, the state asked, the UUID looked up."""

import uuid
from typing import Any

from django.db.models import QuerySet

from lumvek_core.errors import BadInput
from shops.access import Conflict, NotFoundHere
from shops.models import Member

from ..models import WalkAround


def lock(member: Member, walk_around_id: uuid.UUID) -> WalkAround:
    """The walk-around with its machine, held until the transaction ends, so that two people writing wait for each other."""
    held = WalkAround.objects.select_for_update().select_related("machine")
    walk_around = held.of(member).filter(pk=walk_around_id).first()
    if walk_around is None:
        raise NotFoundHere("There is no such walk-around.")
    return walk_around


def running(walk_around: WalkAround) -> None:
    """Raise Conflict unless something may still be recorded in this walk-around."""
    if walk_around.discarded_at:
        raise Conflict("This walk-around was discarded.")
    if walk_around.finished_at:
        raise Conflict("This walk-around is finished; what is read now belongs to a new one.")


def known(rows: QuerySet[Any], walk_around: WalkAround) -> bool:
    """Whether what has this UUID is on record already. Raises BadInput where it is on record for another walk-around."""
    owners = set(rows.values_list("walk_around_id", flat=True))
    if owners - {walk_around.pk}:
        raise BadInput("uuid", "belongs to another walk-around")
    return bool(owners)
