"""Pictures of a machine and its plate. They stay with what was taken back; the log of changes says who did it."""

import uuid

from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.actions.log import log_change
from shops.models import Change, Member
from shops.pictures import clean
from shops.rights import action
from shops.taken_back import take_back

from ..models import Machine, MachinePicture
from .holding import hold

MOST = 12
"""Pictures of one machine."""


@action("add pictures")
def add(member: Member, machine: Machine, picture: uuid.UUID, what: str, data: bytes) -> None:
    """Keep a picture. The same UUID twice is one picture. Raises BadInput, NotFoundHere for another machine's UUID."""
    image, width, height = clean(data)  # before anything is held: it takes its time
    hold(machine)
    known = MachinePicture.objects.filter(uuid=picture).only("machine_id").first()
    if known is not None:
        if known.machine_id != machine.pk:
            raise NotFoundHere("There is no such picture.")
        return
    if what not in MachinePicture.What.values:
        raise BadInput("what", "is the machine or its plate")
    if machine.pictures.filter(taken_back_at=None).count() >= MOST:
        raise BadInput("photo", f"there are {MOST} pictures already")
    made = MachinePicture.objects.create(
        uuid=picture, machine=machine, what=what, image=image, width=width, height=height, by=member.user
    )
    log_change(member, Change.About.MACHINE, machine.name, "", f"picture added: {made.get_what_display().lower()}")


@action("remove pictures")
def remove(member: Member, machine: Machine, picture: uuid.UUID) -> None:
    """Take a picture away. Raises NotFoundHere."""
    found = machine.pictures.filter(uuid=picture)
    _there(found.exists())
    if take_back(member, found):
        log_change(member, Change.About.MACHINE, machine.name, "picture", "taken away")


@action("remove pictures")
def restore(member: Member, machine: Machine, picture: uuid.UUID) -> None:
    """Put a picture back that was taken away. Raises NotFoundHere."""
    found = machine.pictures.filter(uuid=picture)
    _there(found.exists())
    if found.exclude(taken_back_at=None).update(taken_back_at=None, taken_back_by=None):
        log_change(member, Change.About.MACHINE, machine.name, "picture taken away", "put back")


def _there(found: bool) -> None:
    if not found:
        raise NotFoundHere("There is no such picture.")
