"""Endpoints of wear ahead, counters, logbook, services and the put-away list."""

import uuid
from typing import TYPE_CHECKING

from django.http import HttpRequest, StreamingHttpResponse
from ninja import File, Form, Query, Router, UploadedFile

from fleet.actions import counting
from fleet.queries.machines import machine_for
from inspection.queries import rule_books
from lumvek_core.errors import BadInput
from shops.access import member_of
from shops.endpoints import allowed
from shops.queries.outside import inquiry_of
from shops.schemas import InquiryIn, InquiryOut
from tabular import sheets, streamed
from tabular.paging import page_of

from .actions import counter_import, servicing
from .queries import counters, forecast_views, timeline, upkeep, wear
from .queries.timeline_upkeep import KINDS
from .schemas import FleetAheadOut, MachineAheadOut, WearOut
from .schemas_upkeep import (
    CounterIn,
    CountersOut,
    EntryOut,
    LogbookAsked,
    LogbookOut,
    LogbookStationOut,
    NextUseIn,
    PutAwayOut,
    ServiceDoneIn,
    ServicesOut,
    TickIn,
)

if TYPE_CHECKING:
    from fleet.models import Machine
    from shops.models import Member

router = Router(tags=["logbook"])
PAGE = 60


def _machine(request: HttpRequest, machine_id: int) -> "tuple[Member, Machine]":
    member = member_of(request)
    return member, machine_for(member, machine_id)


@router.get("/ahead", response=FleetAheadOut)
def fleet_ahead(request: HttpRequest) -> FleetAheadOut:
    """Parts of all machines that may not last the season, the dearest to wait with first."""
    return forecast_views.fleet(member_of(request))


@router.get("/machines/{int:machine_id}/ahead", response=MachineAheadOut)
def machine_ahead(request: HttpRequest, machine_id: int, more: float = 0.0) -> MachineAheadOut:
    """Every wearing place of a machine at the end of its season, or of one that is longer by a share `more`."""
    member, machine = _machine(request, machine_id)
    if not -0.9 <= more <= forecast_views.MOST_MORE:
        raise BadInput("more", f"must be between -0.9 and {forecast_views.MOST_MORE:g}")
    return forecast_views.of_machine(member, machine, more)


@router.get("/machines/{int:machine_id}/wear/{str:check}", response=WearOut)
def wear_of(request: HttpRequest, machine_id: int, check: str) -> WearOut:
    """One kind of part: every place's readings, line and fan, its seasons, and others to hold it against."""
    return wear.of_check(*_machine(request, machine_id), check)


@router.post("/machines/{int:machine_id}/next-use", response=MachineAheadOut, **allowed(counting.set_next_use))
def set_next_use(request: HttpRequest, machine_id: int, new: NextUseIn) -> MachineAheadOut:
    """What the coming season is to be; nothing: as the last ones were."""
    member, machine = _machine(request, machine_id)
    counting.set_next_use(member, machine, new.use)
    return forecast_views.of_machine(member, machine)


@router.get("/machines/{int:machine_id}/counters", response=CountersOut)
def counters_of(request: HttpRequest, machine_id: int) -> CountersOut:
    """What the meter showed, the newest first."""
    return counters.shown(_machine(request, machine_id)[1])


@router.post("/machines/{int:machine_id}/counters", response=CountersOut, **allowed(counting.record))
def count_machine(request: HttpRequest, machine_id: int, new: CounterIn) -> CountersOut:
    """Keep what the meter shows; a figure that cannot be is asked about in field `shown`. The same UUID twice is one
    reading.
    """
    member, machine = _machine(request, machine_id)
    counting.record(
        member,
        machine,
        new.uuid,
        new.shown,
        new.at,
        "typed",
        unit=new.unit,
        confirmed=new.confirmed,
        exchanged=new.exchanged,
        old_shown=new.old_shown,
    )
    return counters.shown(machine)


@router.post("/machines/{int:machine_id}/counters/telematics", response=InquiryOut, **allowed(counter_import.ask_telematics))
def ask_telematics(request: HttpRequest, machine_id: int, new: InquiryIn) -> InquiryOut:
    """Have the machine's modem asked; what it sent last is taken, or told of the inquiry why not."""
    member, machine = _machine(request, machine_id)
    counter_import.ask_telematics(member, machine, new.uuid)
    return inquiry_of(member, new.uuid)


@router.post("/machines/{int:machine_id}/counters/{uuid:reading}/withdraw", response=CountersOut, **allowed(counting.withdraw))
def withdraw_counter(request: HttpRequest, machine_id: int, reading: uuid.UUID) -> CountersOut:
    """Take a wrong counter reading out of the count; it stays in the log."""
    member, machine = _machine(request, machine_id)
    counting.withdraw(member, machine, reading)
    return counters.shown(machine)


@router.post("/counters-file", response={200: None}, **allowed(counter_import.take_file))
def counters_file(request: HttpRequest, file: File[UploadedFile], dry: Form[bool] = True) -> StreamingHttpResponse:
    """Counters of several machines from a CSV or XLSX file: a line of JSON for each step, the last one with the report. dry:
    only say what it would do."""
    return streamed.table_told(counter_import.take_file(member_of(request), sheets.uploaded(file), dry=dry), dry=dry)


@router.get("/machines/{int:machine_id}/logbook", response=LogbookOut)
def logbook(request: HttpRequest, machine_id: int, asked: Query[LogbookAsked]) -> LogbookOut:
    """A page of everything that happened to a machine."""
    member, machine = _machine(request, machine_id)
    found = timeline.entries(member, machine, asked.kind, asked.words(), asked.station)
    shown, page = page_of(found if asked.order == "newest" else found[::-1], asked.page, PAGE)
    return LogbookOut(
        machine=machine.name,
        stations=[
            LogbookStationOut(key=one.key, name=one.name)
            for one in rule_books.shipped().families[machine.model.family].stations
        ],
        kinds=KINDS,
        entries=[EntryOut(**vars(one)) for one in shown],
        page=page,
    )


@router.get("/machines/{int:machine_id}/services", response=ServicesOut)
def services(request: HttpRequest, machine_id: int) -> ServicesOut:
    """Services by counter and calendar, most pressing first."""
    return upkeep.due(*_machine(request, machine_id))


@router.post("/machines/{int:machine_id}/services", response=ServicesOut, **allowed(servicing.record))
def service_done(request: HttpRequest, machine_id: int, new: ServiceDoneIn) -> ServicesOut:
    """Keep that a service was done. The same UUID twice is once."""
    member, machine = _machine(request, machine_id)
    servicing.record(member, machine, new.uuid, new.key, new.day, new.counter, new.note)
    return upkeep.due(member, machine)


@router.post("/machines/{int:machine_id}/services/{uuid:done}/take-back", response=ServicesOut, **allowed(servicing.take_back))
def take_back_service(request: HttpRequest, machine_id: int, done: uuid.UUID) -> ServicesOut:
    """Take back that a service was done."""
    member, machine = _machine(request, machine_id)
    servicing.take_back(member, machine, done)
    return upkeep.due(member, machine)


@router.get("/machines/{int:machine_id}/put-away", response=PutAwayOut)
def put_away(request: HttpRequest, machine_id: int, season: int | None = None) -> PutAwayOut:
    """What is done before a machine stands for the winter, ticked and dated."""
    return upkeep.put_away(*_machine(request, machine_id), season)


@router.post("/machines/{int:machine_id}/put-away", response=PutAwayOut, **allowed(servicing.tick))
def tick_put_away(request: HttpRequest, machine_id: int, new: TickIn) -> PutAwayOut:
    """Tick a thing of the put-away list, or take that back. The same UUID twice is once."""
    member, machine = _machine(request, machine_id)
    servicing.tick(member, machine, new.uuid, new.key, new.season, new.done)
    return upkeep.put_away(member, machine, new.season)
