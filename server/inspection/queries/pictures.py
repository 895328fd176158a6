"""The pictures of walk-arounds and notes."""

import uuid
from collections.abc import Iterable

from fleet.models import Machine
from shops.access import NotFoundHere

from ..models import NotePhoto, Photo, PinnedPicture, StripPicture, WalkAround


def of(walk_around: WalkAround) -> list[Photo]:
    """The pictures of a walk-around without their content. One query."""
    return list(walk_around.photos.filter(taken_back_at=None).defer("image").select_related("by"))


def pinned(shop_id: int, machines: Iterable[Machine]) -> dict[str, list[PinnedPicture]]:
    """The shop's own pictures of what states look like on these models, by check. One query."""
    found: dict[str, list[PinnedPicture]] = {}
    pins = PinnedPicture.objects.in_shop(shop_id).filter(
        model__in={one.model_id for one in machines}, taken_back_at=None, photo__taken_back_at=None
    )
    for one in pins.select_related("photo").defer("photo__image"):
        found.setdefault(one.check_key, []).append(one)
    return found


def of_strip_downs(walk_around: WalkAround) -> list[StripPicture]:
    """The pictures of strip-downs in order of removal, without their content. One query."""
    return list(walk_around.strip_pictures.filter(taken_back_at=None).defer("image").select_related("by"))


def strip_image_of(walk_around: WalkAround, picture: uuid.UUID) -> bytes:
    """A picture of a strip-down as JPEG. Raises NotFoundHere."""
    return _image(walk_around.strip_pictures.filter(uuid=picture).first())


def image_of(walk_around: WalkAround, photo: uuid.UUID) -> bytes:
    """One picture as JPEG. Raises NotFoundHere."""
    return _image(Photo.objects.filter(walk_around=walk_around, uuid=photo).first())


def note_image_of(machine: Machine, note: uuid.UUID, photo: uuid.UUID) -> bytes:
    """A picture of an operator's note as JPEG. Raises NotFoundHere."""
    return _image(NotePhoto.objects.filter(note__machine=machine, note__uuid=note, uuid=photo).first())


def _image(found: Photo | NotePhoto | StripPicture | None) -> bytes:
    if found is None:
        raise NotFoundHere("There is no such picture.")
    return bytes(found.image)
