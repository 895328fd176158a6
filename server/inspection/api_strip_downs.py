"""Endpoints of the pictures of a strip-down."""

import uuid
from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import File, Form, Router, UploadedFile

from shops.access import member_of
from shops.endpoints import allowed
from shops.pictures import LARGEST_BYTES

from .actions import strip_pictures
from .api import opened_for
from .api_notes import jpeg
from .queries import pictures, serializers
from .schemas_notes import StripPictureOut

strip_downs = Router(tags=["strip-downs"])


def _shown(request: HttpRequest, walk_around_id: uuid.UUID) -> list[StripPictureOut]:
    found, _ = opened_for(request, walk_around_id)
    return [serializers.strip_picture(one) for one in pictures.of_strip_downs(found)]


@strip_downs.get("/{uuid:walk_around_id}/strip-pictures", response=list[StripPictureOut])
def strip_pictures_of(request: HttpRequest, walk_around_id: uuid.UUID) -> list[StripPictureOut]:
    """The pictures of a walk-around's strip-downs in order of removal."""
    return _shown(request, walk_around_id)


@strip_downs.post("/{uuid:walk_around_id}/strip-pictures", response=list[StripPictureOut], **allowed(strip_pictures.add))
def add_strip_picture(
    request: HttpRequest,
    walk_around_id: uuid.UUID,
    uuid: Form[uuid.UUID],
    strip_down: Annotated[str, Form(max_length=100)],
    photo: File[UploadedFile],
    place: Annotated[str, Form(max_length=100)] = "",
    words: Annotated[str, Form(max_length=200)] = "",
    loose: Form[int] = 0,
) -> list[StripPictureOut]:
    """Keep a picture of the next step. The same UUID twice is one picture."""
    step = strip_pictures.Step(strip_down[:60], place[:40], words[:200], loose)
    strip_pictures.add(member_of(request), walk_around_id, uuid, step, photo.read(LARGEST_BYTES + 1))
    return _shown(request, walk_around_id)


@strip_downs.post(
    "/{uuid:walk_around_id}/strip-pictures/{uuid:picture_id}/remove",
    response=list[StripPictureOut],
    **allowed(strip_pictures.remove),
)
def remove_strip_picture(request: HttpRequest, walk_around_id: uuid.UUID, picture_id: uuid.UUID) -> list[StripPictureOut]:
    """Take a step back that was kept by mistake."""
    strip_pictures.remove(member_of(request), walk_around_id, picture_id)
    return _shown(request, walk_around_id)


@strip_downs.post(
    "/{uuid:walk_around_id}/strip-pictures/{uuid:picture_id}/restore",
    response=list[StripPictureOut],
    **allowed(strip_pictures.restore),
)
def restore_strip_picture(request: HttpRequest, walk_around_id: uuid.UUID, picture_id: uuid.UUID) -> list[StripPictureOut]:
    """Put a step back that was taken away."""
    strip_pictures.restore(member_of(request), walk_around_id, picture_id)
    return _shown(request, walk_around_id)


@strip_downs.get("/{uuid:walk_around_id}/strip-pictures/{uuid:picture_id}", response={200: bytes})
def strip_picture_file(request: HttpRequest, walk_around_id: uuid.UUID, picture_id: uuid.UUID) -> HttpResponse:
    """A picture of a strip-down as JPEG."""
    found, _ = opened_for(request, walk_around_id)
    return jpeg(pictures.strip_image_of(found, picture_id))
