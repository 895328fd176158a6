"""Keeping what came of calibrations, what happened to a machine, and loads. The same UUID twice is once."""

import uuid
from statistics import fmean
from typing import Any

from django.utils import timezone

from fleet.actions.coupling import couple
from fleet.actions.holding import hold
from fleet.models import Coupling, Machine
from fleet.queries.machines import machine_for
from inspection.queries import rule_books
from inspection.queries.serializers import system_of
from inspection.queries.stands_now import coupled_at
from lumvek_core import calibration_figures, registry
from lumvek_core.catalogue.calibration import Calibration
from lumvek_core.compare import exceeds
from lumvek_core.errors import BadInput
from lumvek_core.units import System
from shops import taken_back
from shops.access import kept_already, there
from shops.actions.log import log_change
from shops.days import not_to_come
from shops.models import Change, Member
from shops.rights import action

from ..models import CalibrationRun, CollectedLoad, Happened
from ..queries import page
from ..schemas import CalibrationRunIn, CollectedLoadIn, HappenedIn, LoadWeighedIn

RIGHT = "calibrate machines"
COUPLED = "header"
"""What is said when another header was coupled, or none is on it."""
FIRST_GUESS_PCT = 0.15
"""An offset that is typed so near to the bare difference, and not to what was worked out, is that difference."""


@action(RIGHT)
def run(member: Member, machine: Machine, new: CalibrationRunIn) -> None:
    """Keep what came of a calibration. Raises BadInput with field ``values.<key>`` and so on."""
    hold(machine)
    if kept_already(member, CalibrationRun, new.uuid):
        return
    header = coupled_at(machine, new.at)
    known = next((one for one in page.of_machine(machine, header) if one.key == new.key), None)
    if known is None:
        raise BadInput("key", "is no calibration of this machine as it stands")
    at = not_to_come(new.at, "at")
    if new.begun_at > new.at:
        raise BadInput("begun_at", "is later than its end")
    values = _values(known, new, new.units or system_of(member))
    CalibrationRun.objects.create(
        uuid=new.uuid,
        machine=machine,
        key=new.key,
        outcome=new.outcome,
        begun_at=new.begun_at,
        at=at,
        steps=min(new.steps, len(known.steps)),
        values=values if new.outcome == "saved" else {},
        given=new.given,
        header=header,
        words=new.words.strip(),
        by=member.user,
    )


def _values(known: Calibration, new: CalibrationRunIn, system: System) -> dict[str, float]:
    """The figures that were typed. What nobody can mean is refused, and so is the bare difference where an offset is stored."""
    asked = {value.key: value for value in known.values}
    found: dict[str, float] = {}
    for key, text in new.values.items():
        value = asked.get(key)
        if value is None:
            raise BadInput(f"values.{key}", "is not kept of this calibration")
        if text.strip():
            try:
                found[key] = calibration_figures.kept(text, value, system)
            except BadInput as problem:
                raise BadInput(f"values.{key}", problem.message) from None
    if known.calculator == "moisture_offset" and new.given and "offset" in found:
        _no_bare_difference(new.given, found["offset"])
    return found


def _no_bare_difference(given: dict[str, Any], typed: float) -> None:
    right = registry.find("moisture_offset").run(given)["offset_pct"]
    bare = fmean(pair["reference_pct"] - pair["shown_pct"] for pair in given["pairs"])
    if not exceeds(abs(typed - bare), FIRST_GUESS_PCT) and exceeds(abs(right - bare), FIRST_GUESS_PCT):
        raise BadInput(
            "values.offset",
            f"is the bare difference: it is added to the {given['stored_pct']:+g} % stored now, which makes {right:+.1f} %",
        )


@action(RIGHT)
def take_back_run(member: Member, uuid_: uuid.UUID) -> Machine:
    """Take back what came of a calibration; it stays in the log as taken back. Raises NotFoundHere."""
    return _take_back(member, CalibrationRun, uuid_)


@action(RIGHT)
def say_happened(member: Member, machine: Machine, new: HappenedIn) -> None:
    """Keep that something was done to a machine, or another header coupled. Raises BadInput, NotFoundHere."""
    hold(machine)
    if any(kept_already(member, kind, new.uuid) for kind in (Happened, Coupling)):
        return
    at = not_to_come(new.at, "at") if new.at else timezone.now()
    if new.what == COUPLED:
        header = machine_for(member, new.header) if new.header is not None else None
        if header and not rule_books.shipped().families[header.model.family].is_header:
            raise BadInput("header", "is no header")
        couple(member, machine, new.uuid, header, at)
        return
    if new.what not in rule_books.shipped().calibrations.happened:
        raise BadInput("what", "is nothing that makes a calibration due")
    Happened.objects.create(uuid=new.uuid, machine=machine, what=new.what, at=at, by=member.user)


@action(RIGHT)
def take_back_happened(member: Member, uuid_: uuid.UUID) -> Machine:
    """It did not happen. Raises NotFoundHere."""
    said_so = Happened.objects.of(member).filter(uuid=uuid_).exists()
    return _take_back(member, Happened if said_so else Coupling, uuid_)


@action(RIGHT)
def collect(member: Member, machine: Machine, new: CollectedLoadIn) -> None:
    """Keep a load as the machine told it; what it weighs may be said later. Raises BadInput."""
    hold(machine)
    if kept_already(member, CollectedLoad, new.uuid):
        return
    if new.machine_kg is None and new.shown_pct is None:
        raise BadInput("machine_kg", "say what the machine showed: kilograms or moisture")
    at = not_to_come(new.at, "at") if new.at else timezone.now()
    kept = new.model_dump(exclude={"at", "name", "crop"})
    CollectedLoad.objects.create(machine=machine, at=at, by=member.user, name=new.name.strip(), crop=new.crop.strip(), **kept)


@action(RIGHT)
def weigh(member: Member, uuid_: uuid.UUID, found: LoadWeighedIn) -> Machine:
    """Say what scale and grain store found of a load; said again it is what was said last. Raises NotFoundHere."""
    found_here = there(CollectedLoad.objects.of(member).filter(uuid=uuid_, taken_back_at=None))
    load: CollectedLoad = found_here.select_related("machine__model").get()
    told = {name: value for name, value in found.model_dump().items() if value is not None}
    if not told:
        raise BadInput("scale_kg", "say what the scale or the grain store found")
    before = load.found
    for name, value in told.items():
        setattr(load, name, value)
    load.save(update_fields=list(told))
    log_change(member, Change.About.MACHINE, f"{load.machine.name}: load {load.name}".rstrip(), before, load.found)
    machine: Machine = load.machine
    return machine


@action(RIGHT)
def take_back_load(member: Member, uuid_: uuid.UUID) -> Machine:
    """It counts no more. Raises NotFoundHere."""
    return _take_back(member, CollectedLoad, uuid_)


def _take_back(member: Member, kind: Any, uuid_: uuid.UUID) -> Machine:
    found = there(kind.objects.of(member).filter(uuid=uuid_)).select_related("machine__model")
    taken_back.take_back(member, found)
    machine: Machine = found.get().machine
    return machine
