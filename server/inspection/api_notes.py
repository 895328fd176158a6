"""Endpoints of what the operator noticed, and of pictures."""

import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router, UploadedFile

from fleet.queries.machines import machine_for
from shops.access import member_of
from shops.endpoints import allowed
from shops.pictures import LARGEST_BYTES

from .actions import notes, photos, pinning
from .api import opened_for
from .queries import pictures, serializers
from .schemas import PhotoOut
from .schemas_notes import CauseIn, NoteIn, NoteOut
from .schemas_plan import PinnedOut
from .schemas_writes import PinPictureIn

note_endpoints = Router(tags=["machines"])
picture_endpoints = Router(tags=["walk-arounds"])


@note_endpoints.post("/{int:machine_id}/notes", response=list[NoteOut], **allowed(notes.note))
def note(request: HttpRequest, machine_id: int, new: NoteIn) -> list[NoteOut]:
    """Keep what the operator noticed."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    notes.note(member, machine, new.uuid, new.text, new.station)
    return serializers.notes(machine)


@note_endpoints.post("/{int:machine_id}/notes/{uuid:note_id}/photos", response=list[NoteOut], **allowed(photos.add_to_note))
def add_note_photo(
    request: HttpRequest, machine_id: int, note_id: uuid.UUID, uuid: Form[uuid.UUID], photo: File[UploadedFile]
) -> list[NoteOut]:
    """Keep a picture beside an operator's note. The same UUID twice is one picture."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    photos.add_to_note(member, machine, note_id, uuid, photo.read(LARGEST_BYTES + 1))
    return serializers.notes(machine)


@note_endpoints.get("/{int:machine_id}/notes/{uuid:note_id}/photos/{uuid:photo_id}", response={200: bytes})
def note_photo_file(request: HttpRequest, machine_id: int, note_id: uuid.UUID, photo_id: uuid.UUID) -> HttpResponse:
    """A note's picture as JPEG."""
    machine = machine_for(member_of(request), machine_id)
    return jpeg(pictures.note_image_of(machine, note_id, photo_id))


@note_endpoints.post("/{int:machine_id}/notes/{uuid:note_id}/close", response=list[NoteOut], **allowed(notes.close_note))
def close_note(request: HttpRequest, machine_id: int, note_id: uuid.UUID, new: CauseIn) -> list[NoteOut]:
    """Close an operator's note with its cause."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    notes.close_note(member, machine, note_id, new.cause)
    return serializers.notes(machine)


@note_endpoints.post("/{int:machine_id}/notes/{uuid:note_id}/open", response=list[NoteOut], **allowed(notes.open_note))
def open_note(request: HttpRequest, machine_id: int, note_id: uuid.UUID) -> list[NoteOut]:
    """Open a note again that was closed."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    notes.open_note(member, machine, note_id)
    return serializers.notes(machine)


@note_endpoints.post(
    "/{int:machine_id}/notes/{uuid:note_id}/take-back", response=list[NoteOut], **allowed(notes.take_back_note)
)
def take_back_note(request: HttpRequest, machine_id: int, note_id: uuid.UUID) -> list[NoteOut]:
    """Take a note back that should not have been written."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    notes.take_back_note(member, machine, note_id)
    return serializers.notes(machine)


@picture_endpoints.post("/{uuid:walk_around_id}/photos", response=list[PhotoOut], **allowed(photos.add))
def add_photo(
    request: HttpRequest,
    walk_around_id: uuid.UUID,
    uuid: Form[uuid.UUID],
    check: Annotated[str, Form(max_length=100)],
    position: Annotated[str, Form(max_length=100)],
    photo: File[UploadedFile],
    caption: Annotated[str, Form(max_length=200)] = "",
) -> list[PhotoOut]:
    """Keep a picture of a place. The same UUID twice is one picture."""
    member = member_of(request)
    found, _ = opened_for(request, walk_around_id)
    data = photo.read(LARGEST_BYTES + 1)
    photos.add(member, walk_around_id, uuid, check, position, caption[:200], data)
    return [serializers.photo(one) for one in pictures.of(found)]


@picture_endpoints.post(
    "/{uuid:walk_around_id}/photos/{uuid:photo_id}/remove", response=list[PhotoOut], **allowed(photos.remove)
)
def remove_photo(request: HttpRequest, walk_around_id: uuid.UUID, photo_id: uuid.UUID) -> list[PhotoOut]:
    """Take a picture away while the walk-around runs."""
    member = member_of(request)
    found, _ = opened_for(request, walk_around_id)
    photos.remove(member, walk_around_id, photo_id)
    return [serializers.photo(one) for one in pictures.of(found)]


@picture_endpoints.post(
    "/{uuid:walk_around_id}/photos/{uuid:photo_id}/restore", response=list[PhotoOut], **allowed(photos.restore)
)
def restore_photo(request: HttpRequest, walk_around_id: uuid.UUID, photo_id: uuid.UUID) -> list[PhotoOut]:
    """Put a picture back that was taken away."""
    found, _ = opened_for(request, walk_around_id)
    member = member_of(request)
    photos.restore(member, walk_around_id, photo_id)
    return [serializers.photo(one) for one in pictures.of(found)]


@picture_endpoints.post("/{uuid:walk_around_id}/photos/{uuid:photo_id}/pin", response=PinnedOut, **allowed(pinning.pin))
def pin_photo(request: HttpRequest, walk_around_id: uuid.UUID, photo_id: uuid.UUID, wanted: PinPictureIn) -> PinnedOut:
    """Pin a picture to its check on this model: this is what it looks like."""
    pinned = pinning.pin(member_of(request), walk_around_id, photo_id, wanted.uuid, wanted.state)
    return serializers.pinned(pinned)


@picture_endpoints.post("/pins/{uuid:pin_id}/take-off", response=PinnedOut, **allowed(pinning.unpin))
def unpin_photo(request: HttpRequest, pin_id: uuid.UUID) -> PinnedOut:
    """Take a pin off; the picture stays where it was taken."""
    return serializers.pinned(pinning.unpin(member_of(request), pin_id))


@picture_endpoints.get("/{uuid:walk_around_id}/photos/{uuid:photo_id}", response={200: bytes})
def photo_file(request: HttpRequest, walk_around_id: uuid.UUID, photo_id: uuid.UUID) -> HttpResponse:
    """A picture as JPEG."""
    found, _ = opened_for(request, walk_around_id)
    return jpeg(pictures.image_of(found, photo_id))


def jpeg(image: bytes) -> HttpResponse:
    response = HttpResponse(image, content_type="image/jpeg")
    response["Cache-Control"] = "private, max-age=86400, immutable"
    return response
