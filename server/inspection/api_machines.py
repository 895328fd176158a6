"""Adding machines, changing what they are, putting them out of the lists, their pictures."""

import uuid as uuids
from typing import Annotated

from django.http import HttpRequest, HttpResponse, StreamingHttpResponse
from ninja import File, Form, Router, UploadedFile

from fleet.actions import pictures
from fleet.queries.machines import machine_for
from fleet.queries.pictures import image_of
from shops.access import member_of
from shops.endpoints import allowed
from shops.pictures import LARGEST_BYTES
from tabular import sheets, streamed

from .actions import machine_import, machine_park
from .api_notes import jpeg
from .queries import machine_kinds, open_work, serializers
from .schemas import MachineOut
from .schemas_machines import GoneIn, KindsOut, NewMachineIn, OpenWorkOut, ParticularsIn, ParticularsOut

machine_endpoints = Router(tags=["machines"])
work_endpoints = Router(tags=["people"])


@work_endpoints.get("/{int:person_id}/open-work", response=list[OpenWorkOut], **allowed("let people go"))
def open_work_of(request: HttpRequest, person_id: int) -> list[OpenWorkOut]:
    """The walk-arounds that somebody is at."""
    return open_work.open_work(member_of(request), person_id)


@machine_endpoints.get("/kinds", response=KindsOut, **allowed("add machines"))
def kinds(request: HttpRequest) -> KindsOut:
    """What is asked when a machine is added."""
    return machine_kinds.kinds(member_of(request))


@machine_endpoints.post("/new", response=MachineOut, **allowed(machine_park.add))
def add_machine(request: HttpRequest, wanted: NewMachineIn) -> MachineOut:
    """Add a machine under a UUID made by the client, with its model where that is new."""
    return serializers.machine_out(machine_park.add(member_of(request), wanted))


@machine_endpoints.post("/file", response={200: None}, **allowed(machine_import.take_file))
def machines_file(request: HttpRequest, file: File[UploadedFile], dry: Form[bool] = True) -> StreamingHttpResponse:
    """Machines from a CSV or XLSX file: a line of JSON for each step, the last one with the report. dry: only say what each
    line would do."""
    return streamed.table_told(machine_import.take_file(member_of(request), sheets.uploaded(file), dry=dry), dry=dry)


@machine_endpoints.get("/{int:machine_id}/particulars", response=ParticularsOut)
def particulars(request: HttpRequest, machine_id: int) -> ParticularsOut:
    """What a machine is."""
    member = member_of(request)
    return machine_kinds.particulars(member, machine_for(member, machine_id))


@machine_endpoints.post("/{int:machine_id}/particulars", response=ParticularsOut, **allowed(machine_park.change))
def change_machine(request: HttpRequest, machine_id: int, wanted: ParticularsIn) -> ParticularsOut:
    """What a machine is from now on."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    machine_park.change(member, machine, wanted)
    return machine_kinds.particulars(member, machine)


@machine_endpoints.post("/{int:machine_id}/gone", response=ParticularsOut, **allowed(machine_park.put_out))
def put_out(request: HttpRequest, machine_id: int, wanted: GoneIn) -> ParticularsOut:
    """Sold or scrapped: in no list any more."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    machine_park.put_out(member, machine, wanted.why, wanted.on)
    return machine_kinds.particulars(member, machine)


@machine_endpoints.post("/{int:machine_id}/back", response=ParticularsOut, **allowed(machine_park.bring_back))
def bring_machine_back(request: HttpRequest, machine_id: int) -> ParticularsOut:
    """In use again."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    machine_park.bring_back(member, machine)
    return machine_kinds.particulars(member, machine)


@machine_endpoints.post("/{int:machine_id}/pictures", response=ParticularsOut, **allowed(pictures.add))
def add_machine_picture(
    request: HttpRequest,
    machine_id: int,
    uuid: Form[uuids.UUID],
    photo: File[UploadedFile],
    what: Annotated[str, Form(max_length=100)] = "machine",
) -> ParticularsOut:
    """A picture of the machine or its plate. The same UUID twice is one picture."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    pictures.add(member, machine, uuid, what, photo.read(LARGEST_BYTES + 1))
    return machine_kinds.particulars(member, machine)


@machine_endpoints.get("/{int:machine_id}/pictures/{uuid:machine_picture_id}", response={200: bytes})
def machine_picture(request: HttpRequest, machine_id: int, machine_picture_id: uuids.UUID) -> HttpResponse:
    """A picture of a machine as JPEG."""
    return jpeg(image_of(machine_for(member_of(request), machine_id), machine_picture_id))


@machine_endpoints.post(
    "/{int:machine_id}/pictures/{uuid:machine_picture_id}/remove", response=ParticularsOut, **allowed(pictures.remove)
)
def remove_machine_picture(request: HttpRequest, machine_id: int, machine_picture_id: uuids.UUID) -> ParticularsOut:
    """Take a picture away."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    pictures.remove(member, machine, machine_picture_id)
    return machine_kinds.particulars(member, machine)


@machine_endpoints.post(
    "/{int:machine_id}/pictures/{uuid:machine_picture_id}/restore", response=ParticularsOut, **allowed(pictures.restore)
)
def restore_machine_picture(request: HttpRequest, machine_id: int, machine_picture_id: uuids.UUID) -> ParticularsOut:
    """Put a picture back that was taken away."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    pictures.restore(member, machine, machine_picture_id)
    return machine_kinds.particulars(member, machine)
