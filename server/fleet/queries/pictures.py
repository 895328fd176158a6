"""The pictures of a machine."""

import uuid

from shops.access import NotFoundHere

from ..models import Machine, MachinePicture


def of_machine(machine: Machine) -> list[MachinePicture]:
    """Without their content, the machine before its plate. One query."""
    return list(machine.pictures.filter(taken_back_at=None).defer("image").select_related("by"))


def image_of(machine: Machine, picture: uuid.UUID) -> bytes:
    """One of them as JPEG. Raises NotFoundHere."""
    found = machine.pictures.filter(uuid=picture, taken_back_at=None).first()
    if found is None:
        raise NotFoundHere("There is no such picture.")
    return bytes(found.image)
