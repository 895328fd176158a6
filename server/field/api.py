"""Endpoints of field cards and daily cards."""

import uuid

from django.http import HttpRequest
from ninja import Router

from fleet.queries.machines import machine_for
from shops.access import member_of
from shops.endpoints import allowed

from .actions import recording
from .queries import cards, daily
from .schemas import DailyCardOut, DailyFleetOut, DailyTickIn, FieldCardOut, SetInFieldIn, WorkedIn

router = Router(tags=["field"])


@router.get("/machines/{int:machine_id}/card", response=FieldCardOut)
def field_card(request: HttpRequest, machine_id: int, crop: str = "") -> FieldCardOut:
    """What is set in the field on a machine, in order, with what worked the last times with a crop."""
    member = member_of(request)
    return cards.card(member, machine_for(member, machine_id), crop[:60])


@router.post("/machines/{int:machine_id}/card", response=FieldCardOut, **allowed(recording.keep))
def keep_field_settings(request: HttpRequest, machine_id: int, new: SetInFieldIn) -> FieldCardOut:
    """Keep how a machine was set. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    recording.keep(member, machine, new)
    return cards.card(member, machine, new.crop)


@router.post("/settings/{uuid:field_setting_id}/worked", response=FieldCardOut, **allowed(recording.say_worked))
def field_setting_worked(request: HttpRequest, field_setting_id: uuid.UUID, said: WorkedIn) -> FieldCardOut:
    """Whether it worked."""
    member = member_of(request)
    return cards.card(member, recording.say_worked(member, field_setting_id, said.worked))


@router.post("/settings/{uuid:field_setting_id}/take-back", response=FieldCardOut, **allowed(recording.take_back))
def take_back_field_setting(request: HttpRequest, field_setting_id: uuid.UUID) -> FieldCardOut:
    """It was not set so."""
    member = member_of(request)
    return cards.card(member, recording.take_back(member, field_setting_id))


@router.get("/machines/{int:machine_id}/daily", response=DailyCardOut)
def daily_card(request: HttpRequest, machine_id: int) -> DailyCardOut:
    """What is looked at each day, and what was ticked today."""
    member = member_of(request)
    return daily.card(member, machine_for(member, machine_id))


@router.post("/machines/{int:machine_id}/daily", response=DailyCardOut, **allowed(recording.tick))
def tick_daily(request: HttpRequest, machine_id: int, new: DailyTickIn) -> DailyCardOut:
    """Tick things of the daily card. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    recording.tick(member, machine, new)
    return daily.card(member, machine)


@router.get("/daily", response=list[DailyFleetOut], **allowed("see daily cards"))
def daily_cards(request: HttpRequest) -> list[DailyFleetOut]:
    """The daily cards of every machine, the least regular first."""
    return daily.fleet(member_of(request))
