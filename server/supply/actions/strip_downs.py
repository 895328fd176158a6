"""Taking along what lies open anyway."""

import uuid
from collections.abc import Sequence

from inspection.actions import locking
from inspection.actions.parts_in_step import refresh_parts
from inspection.models import WalkAround
from inspection.queries import rule_books
from lumvek_core import positions
from lumvek_core.errors import BadInput
from parts.actions import Along, take_along
from shops.models import Member
from shops.rights import action

from ..queries.strip_down_offers import build


@action("decide on parts")
def take(member: Member, walk_around_id: uuid.UUID, slot: str, at: Sequence[str], taken: bool) -> WalkAround:
    """Put parts that lie open on the list, or take them off again. Raises BadInput for what does not lie open."""
    found = locking.lock(member, walk_around_id)
    offered = {(part.slot, part.position): (group, part) for group in build(member, found) for part in group.parts}
    missing = [key for key in at if (slot, key) not in offered]
    if missing or not at:
        raise BadInput("positions", f"does not lie open at {', '.join(missing) or 'no position'}")
    book = rule_books.opened(found.rule_book_id)
    handed = book.family.slots[slot].handed
    along = []
    for key in at:
        group, part = offered[slot, key]
        side = (positions.find(key).side or "") if handed else ""
        along.append(Along(key, side, part.because, f"{group.name}: it lies open anyway."))
    take_along(found.pk, slot, along, taken=taken)
    refresh_parts(found, book)
    return found
