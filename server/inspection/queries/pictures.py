"""The pictures of walk-arounds and notes."""

import uuid

from fleet.models import Machine
from shops.access import NotFoundHere

from ..models import NotePhoto, Photo, WalkAround


def of(walk_around: WalkAround) -> list[Photo]:
    """The pictures of a walk-around without their content. One query."""
    return list(walk_around.photos.filter(taken_back_at=None).defer("image").select_related("by"))


def image_of(walk_around: WalkAround, photo: uuid.UUID) -> bytes:
    """One picture as JPEG. Raises NotFoundHere."""
    return _image(Photo.objects.filter(walk_around=walk_around, uuid=photo).first())


def note_image_of(machine: Machine, note: uuid.UUID, photo: uuid.UUID) -> bytes:
    """A picture of an operator's note as JPEG. Raises NotFoundHere."""
    return _image(NotePhoto.objects.filter(note__machine=machine, note__uuid=note, uuid=photo).first())


def _image(found: Photo | NotePhoto | None) -> bytes:
    if found is None:
        raise NotFoundHere("There is no such picture.")
    return bytes(found.image)
