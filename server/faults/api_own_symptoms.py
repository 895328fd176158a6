"""Endpoints of the symptoms and causes that a shop adds to those of the trade."""

import uuid

from django.http import HttpRequest
from ninja import Router

from fleet.queries.machines import machine_for
from shops.access import member_of
from shops.endpoints import allowed

from .actions import own_symptoms as acts
from .queries import own_symptoms
from .schemas_own_symptoms import OwnCauseIn, OwnSymptomIn, OwnSymptomsOut

router = Router(tags=["own symptoms"])


@router.get("/machines/{int:machine_id}/own-symptoms", response=OwnSymptomsOut)
def own_symptoms_of_machine(request: HttpRequest, machine_id: int) -> OwnSymptomsOut:
    """Symptoms of a machine and what hangs on it with their causes, and which of them are the shop's own."""
    member = member_of(request)
    return own_symptoms.page(member, machine_for(member, machine_id))


@router.post("/machines/{int:machine_id}/own-symptoms", response=OwnSymptomsOut, **allowed(acts.add_symptom))
def add_own_symptom(request: HttpRequest, machine_id: int, new: OwnSymptomIn) -> OwnSymptomsOut:
    """Add one that the trade's list has not. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    acts.add_symptom(member, new)
    return own_symptoms.page(member, machine)


@router.post("/machines/{int:machine_id}/own-causes", response=OwnSymptomsOut, **allowed(acts.add_cause))
def add_own_cause(request: HttpRequest, machine_id: int, new: OwnCauseIn) -> OwnSymptomsOut:
    """Add a cause to a symptom. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    acts.add_cause(member, new)
    return own_symptoms.page(member, machine)


@router.post(
    "/machines/{int:machine_id}/own-symptoms/{uuid:own_symptom_id}/take-away",
    response=OwnSymptomsOut,
    **allowed(acts.take_symptom_away),
)
def take_own_symptom_away(request: HttpRequest, machine_id: int, own_symptom_id: uuid.UUID) -> OwnSymptomsOut:
    """It is traced no more."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    acts.take_symptom_away(member, own_symptom_id)
    return own_symptoms.page(member, machine)


@router.post(
    "/machines/{int:machine_id}/own-causes/{uuid:own_cause_id}/take-away",
    response=OwnSymptomsOut,
    **allowed(acts.take_cause_away),
)
def take_own_cause_away(request: HttpRequest, machine_id: int, own_cause_id: uuid.UUID) -> OwnSymptomsOut:
    """It is looked for no more."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    acts.take_cause_away(member, own_cause_id)
    return own_symptoms.page(member, machine)
