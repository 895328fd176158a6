"""What the operator noticed: kept, closed with its cause, opened again, taken back."""

import uuid

from django.db.models import QuerySet
from django.utils import timezone

from fleet.models import Machine
from lumvek_core.catalogue.station_guess import guess_station
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action
from shops.taken_back import take_back

from ..models import OperatorNote
from ..queries import rule_books


@action("write notes")
def note(member: Member, machine: Machine, note_uuid: uuid.UUID, text: str, station: str = "") -> None:
    """Keep what the operator noticed, for a station; where none is named, for the one whose words it uses, if there is one."""
    there = OperatorNote.objects.filter(uuid=note_uuid).values_list("machine_id", flat=True).first()
    if there == machine.pk:
        return
    if there is not None:
        raise BadInput("uuid", "belongs to another machine")
    if not text.strip():
        raise BadInput("text", "say what was noticed")
    family = rule_books.shipped().families[machine.model.family]
    if station and station not in {one.key for one in family.stations}:
        raise BadInput("station", "is no station of this machine")
    OperatorNote.objects.create(
        uuid=note_uuid,
        machine=machine,
        text=text.strip(),
        station_key=station or guess_station(family, text),
        by=member.user,
    )


@action("close notes")
def close_note(member: Member, machine: Machine, note_uuid: uuid.UUID, cause: str) -> None:
    """Close an operator's note with its cause. Raises BadInput, NotFoundHere."""
    if not cause.strip():
        raise BadInput("cause", "say what it was")
    _note_of(machine, note_uuid).filter(closed_at=None).update(
        cause=cause.strip(), closed_by=member.user, closed_at=timezone.now()
    )


@action("close notes")
def open_note(member: Member, machine: Machine, note_uuid: uuid.UUID) -> None:
    """Open a closed note again: that was not the cause. Raises NotFoundHere."""
    _note_of(machine, note_uuid).update(cause="", closed_by=None, closed_at=None)


@action("write notes")
def take_back_note(member: Member, machine: Machine, note_uuid: uuid.UUID) -> None:
    """Take back a note that should not have been written; it stays in the logbook. Raises NotFoundHere."""
    take_back(member, _note_of(machine, note_uuid))


def _note_of(machine: Machine, note_uuid: uuid.UUID) -> QuerySet[OperatorNote]:
    found = OperatorNote.objects.filter(machine=machine, uuid=note_uuid)
    if not found.exists():
        raise NotFoundHere("There is no such note.")
    return found
