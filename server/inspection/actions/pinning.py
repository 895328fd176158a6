"""Pinning a picture to a check of a model: this is what it looks like."""

import uuid

from django.db.models import QuerySet

from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action
from shops.taken_back import take_back

from ..models import Photo, PinnedPicture
from ..queries import coupled, rule_books
from ..queries.walk_arounds import walk_around_for


@action("pin pictures")
def pin(member: Member, walk_around_id: uuid.UUID, photo_id: uuid.UUID, pin_id: uuid.UUID, state: str) -> PinnedPicture:
    """Pin a picture of a walk-around to its check on that model. state: key of what it shows, empty for what is measured.

    The same UUID twice is one pin. Raises BadInput, NotFoundHere.
    """
    walk_around = walk_around_for(member, walk_around_id)
    if there := _pins(member).filter(uuid=pin_id).first():
        return there
    photo = Photo.objects.filter(walk_around=walk_around, uuid=photo_id, taken_back_at=None).defer("image").first()
    if photo is None:
        raise NotFoundHere("There is no such picture.")
    check = rule_books.opened(walk_around.rule_book_id).family.checks[photo.check_key]
    name = next((one.name for one in check.rule.states() if one.key == state), "")
    if state and not name:
        raise BadInput("state", "is not a state of this check")
    model = coupled.of(walk_around).owner(photo.check_key).model
    pinned: PinnedPicture = PinnedPicture.objects.create(
        uuid=pin_id,
        shop=member.shop,
        model=model,
        photo=photo,
        check_key=photo.check_key,
        state=state,
        state_name=name,
        by=member.user,
    )
    return pinned


@action("pin pictures")
def unpin(member: Member, pin_id: uuid.UUID) -> PinnedPicture:
    """Take a pin off again; the picture stays where it was taken. Raises NotFoundHere."""
    found = _pins(member).filter(uuid=pin_id)
    pinned = found.first()
    if pinned is None:
        raise NotFoundHere("There is no such pin.")
    take_back(member, found)
    return pinned


def _pins(member: Member) -> QuerySet[PinnedPicture]:
    return PinnedPicture.objects.of(member).select_related("photo").defer("photo__image")
