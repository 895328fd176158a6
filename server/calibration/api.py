"""Endpoints of calibrations: what is due on a machine, what came of it, what happened, and loads."""

import uuid

from django.http import HttpRequest
from ninja import Router

from fleet.queries.machines import machine_for
from shops.access import member_of
from shops.endpoints import allowed

from .actions import recording
from .queries import page
from .schemas import CalibrationRunIn, CalibrationsOut, CollectedLoadIn, HappenedIn, LoadWeighedIn

router = Router(tags=["calibration"])


@router.get("/machines/{int:machine_id}", response=CalibrationsOut)
def calibrations(request: HttpRequest, machine_id: int) -> CalibrationsOut:
    """The calibrations of a machine as it stands, due ones first, and what came of earlier ones."""
    member = member_of(request)
    return page.page(member, machine_for(member, machine_id))


@router.post("/machines/{int:machine_id}/runs", response=CalibrationsOut, **allowed(recording.run))
def keep_calibration(request: HttpRequest, machine_id: int, new: CalibrationRunIn) -> CalibrationsOut:
    """Keep what came of a calibration. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    recording.run(member, machine, new)
    return page.page(member, machine)


@router.post("/runs/{uuid:calibration_run_id}/take-back", response=CalibrationsOut, **allowed(recording.take_back_run))
def take_back_calibration(request: HttpRequest, calibration_run_id: uuid.UUID) -> CalibrationsOut:
    """Take back what came of a calibration."""
    member = member_of(request)
    return page.page(member, recording.take_back_run(member, calibration_run_id))


@router.post("/machines/{int:machine_id}/happened", response=CalibrationsOut, **allowed(recording.say_happened))
def say_happened(request: HttpRequest, machine_id: int, new: HappenedIn) -> CalibrationsOut:
    """Say that something was done to a machine, or another header coupled. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    recording.say_happened(member, machine, new)
    return page.page(member, machine)


@router.post("/happened/{uuid:happened_id}/take-back", response=CalibrationsOut, **allowed(recording.take_back_happened))
def take_back_happened(request: HttpRequest, happened_id: uuid.UUID) -> CalibrationsOut:
    """It did not happen."""
    member = member_of(request)
    return page.page(member, recording.take_back_happened(member, happened_id))


@router.post("/machines/{int:machine_id}/loads", response=CalibrationsOut, **allowed(recording.collect))
def collect_load(request: HttpRequest, machine_id: int, new: CollectedLoadIn) -> CalibrationsOut:
    """Keep a load as the machine told it. The same UUID twice is once."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    recording.collect(member, machine, new)
    return page.page(member, machine)


@router.post("/loads/{uuid:load_id}/weigh", response=CalibrationsOut, **allowed(recording.weigh))
def weigh_load(request: HttpRequest, load_id: uuid.UUID, found: LoadWeighedIn) -> CalibrationsOut:
    """Say what scale and grain store found of a load."""
    member = member_of(request)
    return page.page(member, recording.weigh(member, load_id, found))


@router.post("/loads/{uuid:load_id}/take-back", response=CalibrationsOut, **allowed(recording.take_back_load))
def take_back_load(request: HttpRequest, load_id: uuid.UUID) -> CalibrationsOut:
    """A load counts no more."""
    member = member_of(request)
    return page.page(member, recording.take_back_load(member, load_id))
