"""Endpoints of machines, walk-arounds, readings, findings and parts."""

import uuid

from django.http import HttpRequest
from ninja import Router

from fleet.queries import machine_for
from lumvek_core.catalogue.model import RuleBook as CoreBook
from shops.access import DECIDERS, INSPECTORS, member_of, only

from . import books, present, queries, recording, services
from .models import WalkAround
from .schemas import (
    BoardMachineOut,
    ChangedOut,
    CompanionIn,
    DecisionIn,
    FindingsOut,
    PartsOut,
    ReadingIn,
    StartIn,
    WalkAroundBrief,
    WalkAroundOut,
)

machines = Router(tags=["machines"])
walk_arounds = Router(tags=["walk-arounds"])


@machines.get("", response=list[BoardMachineOut])
def board(request: HttpRequest) -> list[BoardMachineOut]:
    """The machines of the shop with the state of their newest walk-around."""
    return present.board(member_of(request))


@machines.post("/{int:machine_id}/walk-arounds", response=WalkAroundBrief)
def start(request: HttpRequest, machine_id: int, wanted: StartIn) -> WalkAroundBrief:
    """Begin a walk-around under a UUID made by the client."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    only(member, INSPECTORS, "start a walk-around")
    return present.brief(services.start(member, machine, wanted.id, wanted.phase))


def _open(request: HttpRequest, walk_around_id: uuid.UUID) -> tuple[WalkAround, CoreBook]:
    found = queries.walk_around_for(member_of(request), walk_around_id)
    return found, books.opened(found.rule_book_id)


@walk_arounds.get("/{uuid:walk_around_id}", response=WalkAroundOut)
def walk_around(request: HttpRequest, walk_around_id: uuid.UUID) -> WalkAroundOut:
    """One walk-around, whole."""
    return present.walk_around(*_open(request, walk_around_id), member_of(request))


@walk_arounds.post("/{uuid:walk_around_id}/readings", response=ChangedOut)
def record(request: HttpRequest, walk_around_id: uuid.UUID, new: ReadingIn) -> ChangedOut:
    """Record one reading. The same UUID twice is one reading."""
    member = member_of(request)
    found, book = _open(request, walk_around_id)
    only(member, INSPECTORS, "record readings")
    changed = recording.record_reading(member, walk_around_id, recording.NewReading(**new.dict()))
    return present.changed(found, book, member, changed)


@walk_arounds.post("/{uuid:walk_around_id}/finish", response=WalkAroundBrief)
def finish(request: HttpRequest, walk_around_id: uuid.UUID) -> WalkAroundBrief:
    """Close the walk-around; what was not seen stays named."""
    member = member_of(request)
    _open(request, walk_around_id)
    only(member, INSPECTORS, "finish a walk-around")
    services.finish(member, walk_around_id)
    return present.brief(queries.walk_around_for(member, walk_around_id))


@walk_arounds.get("/{uuid:walk_around_id}/findings", response=FindingsOut)
def findings(request: HttpRequest, walk_around_id: uuid.UUID) -> FindingsOut:
    """What needs something done, with decisions."""
    return present.findings(*_open(request, walk_around_id), member_of(request))


@walk_arounds.post("/{uuid:walk_around_id}/decisions", response=FindingsOut)
def decide(request: HttpRequest, walk_around_id: uuid.UUID, new: DecisionIn) -> FindingsOut:
    """Decide a finding at one or several positions: do, wait until, decline with a reason, or open again."""
    member = member_of(request)
    found, book = _open(request, walk_around_id)
    only(member, DECIDERS, "decide findings")
    services.decide(member, walk_around_id, new.uuid, new.check, new.positions, new.choice, new.until, new.reason)
    return present.findings(found, book, member)


@walk_arounds.get("/{uuid:walk_around_id}/parts", response=PartsOut)
def parts(request: HttpRequest, walk_around_id: uuid.UUID) -> PartsOut:
    """The parts that findings and companions call for, merged."""
    return present.parts_page(*_open(request, walk_around_id), member_of(request))


@walk_arounds.post("/{uuid:walk_around_id}/companions", response=PartsOut)
def companions(request: HttpRequest, walk_around_id: uuid.UUID, new: CompanionIn) -> PartsOut:
    """Decline companions with a reason, or take that back."""
    member = member_of(request)
    found, book = _open(request, walk_around_id)
    only(member, DECIDERS, "decide on parts")
    services.decline_companion(member, walk_around_id, new.slot, new.positions, new.reason)
    return present.parts_page(found, book, member)
