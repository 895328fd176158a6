"""Pictures of a strip-down, step by step, with the loose parts of each. Repairs come later: the walk-around may be finished."""

import uuid
from dataclasses import dataclass

from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member
from shops.pictures import clean
from shops.rights import action
from shops.taken_back import take_back

from ..models import StripPicture
from ..queries import rule_books
from ..queries.walk_arounds import walk_around_for

MOST = 60
"""Pictures of one strip-down."""


@dataclass(frozen=True)
class Step:
    """What was taken off: in words, and how many loose parts came with it."""

    strip_down: str
    place: str = ""
    words: str = ""
    loose: int = 0


@action("add pictures")
def add(member: Member, walk_around_id: uuid.UUID, picture_id: uuid.UUID, step: Step, data: bytes) -> None:
    """Keep a picture of the next step. The same UUID twice is one picture. Raises BadInput, NotFoundHere."""
    image, width, height = clean(data)  # before anything is held: it takes its time
    walk_around = walk_around_for(member, walk_around_id)
    known = StripPicture.objects.filter(uuid=picture_id).only("walk_around_id").first()
    if known:
        if known.walk_around_id != walk_around.pk:
            raise BadInput("uuid", "belongs to another walk-around")
        return
    if step.strip_down not in {one.key for one in rule_books.shipped().strip_downs}:
        raise BadInput("strip_down", "is not a strip-down")
    if not 0 <= step.loose <= 999:
        raise BadInput("loose", "must be between 0 and 999")
    there = walk_around.strip_pictures.filter(strip_down=step.strip_down, place=step.place, taken_back_at=None).count()
    if there >= MOST:
        raise BadInput("photo", f"there are {MOST} pictures already")
    StripPicture.objects.create(
        uuid=picture_id,
        walk_around=walk_around,
        strip_down=step.strip_down,
        place=step.place,
        words=step.words.strip(),
        loose=step.loose,
        image=image,
        width=width,
        height=height,
        by=member.user,
    )


@action("remove pictures")
def remove(member: Member, walk_around_id: uuid.UUID, picture_id: uuid.UUID) -> None:
    """Take a step back that was kept by mistake."""
    walk_around = walk_around_for(member, walk_around_id)
    found = walk_around.strip_pictures.filter(uuid=picture_id)
    if not found.exists():
        raise NotFoundHere("There is no such picture.")
    take_back(member, found)


@action("remove pictures")
def restore(member: Member, walk_around_id: uuid.UUID, picture_id: uuid.UUID) -> None:
    """Put a step back that was taken away."""
    walk_around = walk_around_for(member, walk_around_id)
    if not walk_around.strip_pictures.filter(uuid=picture_id).update(taken_back_at=None, taken_back_by=None):
        raise NotFoundHere("There is no such picture.")
