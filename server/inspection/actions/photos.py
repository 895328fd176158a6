"""Pictures of a place: checked, written anew, kept in the database beside what they show."""

import uuid

from django.db.models import QuerySet

from fleet.models import Machine
from lumvek_core.errors import BadInput
from shops.access import Conflict, NotFoundHere
from shops.models import Member
from shops.pictures import clean
from shops.rights import action
from shops.taken_back import take_back

from ..judging.typed_readings import where
from ..models import NotePhoto, OperatorNote, Photo
from .locking import lock

MOST = 200
"""Pictures in one walk-around."""
MOST_AT_A_NOTE = 8


@action("add pictures")
def add(
    member: Member, walk_around_id: uuid.UUID, photo_uuid: uuid.UUID, check: str, position: str, caption: str, data: bytes
) -> None:
    """Keep a picture of a place. The same UUID twice is one picture. Raises BadInput, NotFoundHere, Conflict."""
    image, width, height = clean(data)  # before anything is held: it takes its time
    walk_around = lock(member, walk_around_id)
    known = Photo.objects.filter(uuid=photo_uuid).only("walk_around_id").first()
    if known:
        if known.walk_around_id != walk_around.pk:
            raise BadInput("uuid", "belongs to another walk-around")
        return
    if walk_around.finished_at:
        raise Conflict("This walk-around is finished; its pictures are too.")
    if Photo.objects.filter(walk_around=walk_around, taken_back_at=None).count() >= MOST:
        raise BadInput("photo", f"there are {MOST} pictures already")
    found, place = where(walk_around, check, position)
    Photo.objects.create(
        uuid=photo_uuid,
        walk_around=walk_around,
        check_key=found.key,
        position_key=place.key,
        caption=caption.strip(),
        image=image,
        width=width,
        height=height,
        by=member.user,
    )


@action("write notes")
def add_to_note(member: Member, machine: Machine, note_uuid: uuid.UUID, photo_uuid: uuid.UUID, data: bytes) -> None:
    """Keep a picture beside an operator's note. The same UUID twice is one picture. Raises BadInput, NotFoundHere."""
    image, width, height = clean(data)  # before anything is held: it takes its time
    note = OperatorNote.objects.select_for_update().filter(machine=machine, uuid=note_uuid).first()
    if note is None:
        raise NotFoundHere("There is no such note.")
    if known := NotePhoto.objects.filter(uuid=photo_uuid).only("note_id").first():
        if known.note_id != note.pk:
            raise BadInput("uuid", "belongs to another note")
        return
    if note.photos.count() >= MOST_AT_A_NOTE:
        raise BadInput("photo", f"there are {MOST_AT_A_NOTE} pictures already")
    NotePhoto.objects.create(uuid=photo_uuid, note=note, image=image, width=width, height=height)


@action("remove pictures")
def remove(member: Member, walk_around_id: uuid.UUID, photo_uuid: uuid.UUID) -> None:
    """Take a picture back while the walk-around runs."""
    take_back(member, _shown_at(member, walk_around_id, photo_uuid))


@action("remove pictures")
def restore(member: Member, walk_around_id: uuid.UUID, photo_uuid: uuid.UUID) -> None:
    """Put a picture back that was taken away."""
    _shown_at(member, walk_around_id, photo_uuid).update(taken_back_at=None, taken_back_by=None)


def _shown_at(member: Member, walk_around_id: uuid.UUID, photo_uuid: uuid.UUID) -> QuerySet[Photo]:
    walk_around = lock(member, walk_around_id)
    if walk_around.finished_at:
        raise Conflict("This walk-around is finished; its pictures are too.")
    found = Photo.objects.filter(walk_around=walk_around, uuid=photo_uuid)
    if not found.exists():
        raise NotFoundHere("There is no such picture.")
    return found
