"""Endpoints of recordings of machines that shake, and of what turns in a model."""

import uuid
from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import File, Form, Router, UploadedFile
from pydantic import Field

from fleet.queries.machines import machine_for
from shops.access import member_of
from shops.endpoints import allowed

from .actions import recording as shaking
from .queries import recordings
from .schemas_recordings import RecordingOut, RecordingsOut, ShaftIn, SimulatedIn

router = Router(tags=["recordings"])


@router.get("/machines/{int:machine_id}/recordings", response=RecordingsOut)
def recordings_of_machine(request: HttpRequest, machine_id: int) -> RecordingsOut:
    """How a machine shook, and what turns in it."""
    member = member_of(request)
    return recordings.of_machine(member, machine_for(member, machine_id))


@router.post("/machines/{int:machine_id}/recordings-file", response=RecordingOut, **allowed(shaking.from_file))
def keep_recordings_file(
    request: HttpRequest,
    machine_id: int,
    file: File[UploadedFile],
    told: Form[Annotated[str, Field(max_length=4000)]],
    source: Form[Literal["phone", "file"]] = "file",
) -> RecordingOut:
    """A recording from a WAV or CSV file, or from the phone's own sensor. told: how the machine ran, a RecordingIn as JSON."""
    member = member_of(request)
    new = shaking.told_of(told)
    content = file.read(shaking.LARGEST + 1)
    kept = shaking.from_file(member, machine_for(member, machine_id), new, source, file.name or "", content)
    return recordings.page(member, kept)


@router.post("/machines/{int:machine_id}/recordings", response=RecordingOut, **allowed(shaking.simulate))
def simulate_recording(request: HttpRequest, machine_id: int, new: SimulatedIn) -> RecordingOut:
    """What the simulated recorder records. The same UUID twice is once."""
    member = member_of(request)
    return recordings.page(member, shaking.simulate(member, machine_for(member, machine_id), new))


@router.get("/recordings/{uuid:recording_id}", response=RecordingOut)
def fault_recording(request: HttpRequest, recording_id: uuid.UUID, beside: uuid.UUID | None = None) -> RecordingOut:
    """One recording, analysed; with another one of the machine beside it."""
    member = member_of(request)
    found = shaking.recording_for(member, recording_id)
    other = shaking.recording_for(member, beside) if beside else None
    return recordings.page(member, found, other if other and other.machine_id == found.machine_id else None)


@router.post("/recordings/{uuid:recording_id}/take-back", response=RecordingOut, **allowed(shaking.take_back))
def take_back_recording(request: HttpRequest, recording_id: uuid.UUID) -> RecordingOut:
    """It counts no more."""
    member = member_of(request)
    return recordings.page(member, shaking.take_back(member, recording_id))


@router.post("/machines/{int:machine_id}/shafts", response=RecordingsOut, **allowed(shaking.write_shaft))
def write_shaft(request: HttpRequest, machine_id: int, new: ShaftIn) -> RecordingsOut:
    """A shaft as the manual of the machine's model has it. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    shaking.write_shaft(member, machine, new)
    return recordings.of_machine(member, machine)


@router.post(
    "/machines/{int:machine_id}/shafts/{uuid:model_shaft_id}/take-back",
    response=RecordingsOut,
    **allowed(shaking.take_shaft_back),
)
def take_shaft_back(request: HttpRequest, machine_id: int, model_shaft_id: uuid.UUID) -> RecordingsOut:
    """As it was before."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    shaking.take_shaft_back(member, machine, model_shaft_id)
    return recordings.of_machine(member, machine)
