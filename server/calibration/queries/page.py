"""The calibrations of one machine: what is due and why, how each is done, what came of the earlier ones."""

from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from typing import Literal

from fleet.models import Coupling, Machine
from fleet.queries.machines import machines_for
from inspection.queries import rule_books, serializers
from inspection.queries.stands_now import coupled_now
from lumvek_core.calculators.calibrations_due import (
    CALIBRATED,
    CalibrationsDue,
    CalibrationsGiven,
    Due,
    Known,
    calibrations_due,
)
from lumvek_core.calculators.calibrations_due import Happened as Event
from lumvek_core.calibration_figures import shown, unit_of
from lumvek_core.catalogue.calibration import Calibration, CalibrationValue
from lumvek_core.units import System
from lumvek_core.workbench.subjects import subject_of
from shops.models import Member
from shops.rights import may

from ..models import CalibrationRun, CollectedLoad, Happened
from ..schemas import (
    BecauseOut,
    CalibrationOut,
    CalibrationRunOut,
    CalibrationsOut,
    CalibrationStepOut,
    CollectedLoadOut,
    FirstOut,
    HappenedChoiceOut,
    KeptValueOut,
    SaidHappenedOut,
    SeriesOut,
    SeriesPointOut,
)
from . import events

NEWEST = 60
"""Runs, loads and words that are shown."""


def of_machine(machine: Machine, header: Machine | None) -> list[Calibration]:
    """The calibrations a machine has with a header on it, in working order."""
    coupled = [(header.model.family, header.options)] if header else []
    return rule_books.shipped().calibrations.of(machine.model.family, machine.options, coupled)


def due(machine: Machine, header: Machine | None) -> CalibrationsDue:
    """What is due on a machine, by the core."""
    return due_of({machine: header})[machine.pk]


def due_of(coupled: Mapping[Machine, Machine | None]) -> dict[int, CalibrationsDue]:
    """What is due on each machine with the header that is on it. The number of queries is the same however many."""
    saved, happened = _saved(coupled), events.of_each(coupled)
    return {
        machine.pk: calibrations_due(
            CalibrationsGiven(_known(of_machine(machine, header), saved[machine.pk]), happened[machine.pk])
        )
        for machine, header in coupled.items()
    }


def _known(listed: Sequence[Calibration], saved: Mapping[str, CalibrationRun]) -> list[Known]:
    known = {one.key for one in listed}
    return [
        Known(
            key=one.key,
            due_after=one.due_after,
            after=[before for before in one.after if before.key in known],
            saved=events.local(saved[one.key].at) if one.key in saved else None,
        )
        for one in listed
    ]


def page(member: Member, machine: Machine) -> CalibrationsOut:
    """Everything, in the order it is done: what is due first."""
    header = coupled_now(machine)
    listed = {one.key: one for one in of_machine(machine, header)}
    found, saved = due(machine, header), _saved([machine])[machine.pk]
    values, system = _values(machine), serializers.system_of(member)
    order = [*(one.key for one in found.due), *found.right, *found.never]
    because = {one.key: one for one in found.due}
    families = rule_books.shipped().families
    headers = [one for one in machines_for(member) if families[one.model.family].is_header]
    own = set(machine.headers_of.values_list("pk", flat=True))
    runs = CalibrationRun.objects.filter(machine=machine).select_related("by", "header").order_by("-at", "-id")
    loads = CollectedLoad.objects.filter(machine=machine, taken_back_at=None).select_related("by").order_by("-at", "-id")
    happened = rule_books.shipped().calibrations.happened
    asked = {event for one in listed.values() for event in one.due_after}
    return CalibrationsOut(
        machine=serializers.machine_out(machine),
        header=header.pk if header else None,
        headers=[
            serializers.machine_out(one) for one in sorted(headers, key=lambda one: one.pk not in own)
        ] if families[machine.model.family].takes_headers else [],
        calibrations=[
            _out(listed[key], _state(key, found), because.get(key), listed, saved.get(key), values, system) for key in order
        ],
        happened=[HappenedChoiceOut(key=key, name=name) for key, name in happened.items() if f"told:{key}" in asked],
        said=_said(machine, happened),
        runs=[run_out(one, system) for one in runs[:NEWEST]],
        loads=[_load(one) for one in loads[:NEWEST]],
        series=_series(values, system),
        may_calibrate=may(member, "calibrate machines"),
    )  # fmt: skip


def _saved(machines: Iterable[Machine]) -> dict[int, dict[str, CalibrationRun]]:
    """The newest saved run of each calibration of each machine. One query."""
    found: dict[int, dict[str, CalibrationRun]] = {machine.pk: {} for machine in machines}
    rows = CalibrationRun.objects.filter(machine__in=found, outcome=CalibrationRun.Outcome.SAVED, taken_back_at=None)
    for one in rows.select_related("by").order_by("at", "id"):
        found[one.machine_id][one.key] = one
    return found


Values = dict[tuple[str, str], list[tuple[CalibrationRun, float]]]


def _said(machine: Machine, happened: Mapping[str, str]) -> list[SaidHappenedOut]:
    """What people said was done to a machine or coupled to it, the newest first."""

    def words(one: Happened | Coupling) -> str:
        if isinstance(one, Happened):
            return happened.get(one.what, one.what)
        return f"{one.header.name} coupled" if one.header else "no header on it"

    done = Happened.objects.filter(machine=machine, taken_back_at=None).select_related("by").order_by("-at", "-id")
    coupled = Coupling.objects.filter(machine=machine, taken_back_at=None).select_related("by", "header").order_by("-at", "-id")
    found: list[Happened | Coupling] = [*done[:NEWEST], *coupled[:NEWEST]]
    found.sort(key=lambda one: one.at, reverse=True)
    return [
        SaidHappenedOut(uuid=one.uuid, words=words(one), at=one.at, by=serializers.full_name(one.by)) for one in found[:NEWEST]
    ]


def _values(machine: Machine) -> Values:
    """Every figure that was kept of a saved run, by calibration and name, oldest first."""
    found: Values = defaultdict(list)
    rows = CalibrationRun.objects.filter(machine=machine, outcome=CalibrationRun.Outcome.SAVED, taken_back_at=None)
    for run in rows.exclude(values={}).order_by("at", "id"):
        for name, value in run.values.items():
            found[run.key, name].append((run, float(value)))
    return found


def _state(key: str, found: CalibrationsDue) -> Literal["due", "right", "never"]:
    return "right" if key in found.right else "never" if key in found.never else "due"


def _why(happened: Event, listed: Mapping[str, Calibration]) -> str:
    """What made it due, in words; another calibration's own name where that was saved."""
    other = listed.get(happened.event.removeprefix(CALIBRATED))
    return happened.words or (f"{other.name} saved" if other else happened.event)


def _out(
    one: Calibration,
    state: Literal["due", "right", "never"],
    due_: Due | None,
    listed: Mapping[str, Calibration],
    saved: CalibrationRun | None,
    values: Values,
    system: System,
) -> CalibrationOut:
    safety = rule_books.shipped().safety
    posture = safety.postures[one.posture]
    return CalibrationOut(
        key=one.key,
        name=one.name,
        state=state,
        because=[
            BecauseOut(words=_why(event, listed), at="" if event.event == "season" else event.at) for event in due_.because
        ]
        if due_
        else [],
        first=[FirstOut(name=listed[before.key].name, because=before.because) for before in due_.first] if due_ else [],
        posture=one.posture,
        lock=posture.lock,
        cautions=[*posture.cautions, *(safety.hazards[name] for name in one.hazards)],
        before=one.before,
        steps=[CalibrationStepOut(do=step.do, watch=step.watch, hold_s=step.hold_s) for step in one.steps],
        works=one.works,
        save=one.save,
        note=one.note,
        bench=subject_of(one.calculator),
        values=[_kept_value(value, values.get((one.key, value.key)), system) for value in one.values],
        saved_at=saved.at if saved else None,
        saved_by=serializers.full_name(saved.by) if saved else "",
    )


def _kept_value(value: CalibrationValue, kept: list[tuple[CalibrationRun, float]] | None, system: System) -> KeptValueOut:
    last = kept[-1][1] if kept else None
    return KeptValueOut(
        key=value.key,
        name=value.name,
        unit=unit_of(value, system),
        last=last,
        last_words=shown(last, value, system) if last is not None else "",
    )


def run_out(run: CalibrationRun, system: System) -> CalibrationRunOut:
    """What came of a calibration, in words and in the reader's units."""
    known = rule_books.shipped().calibrations.by_key.get(run.key)
    names = {value.key: value for value in known.values} if known else {}
    told = [f"{names[key].name} {shown(value, names[key], system)}" for key, value in run.values.items() if key in names]
    return CalibrationRunOut(
        uuid=run.uuid,
        key=run.key,
        name=known.name if known else run.key,
        outcome=run.outcome,  # type: ignore[arg-type]
        at=run.at,
        by=serializers.full_name(run.by),
        steps=run.steps,
        of_steps=len(known.steps) if known else run.steps,
        values=", ".join(told),
        header=run.header.name if run.header else "",
        words=run.words,
        taken_back=run.taken_back_at is not None,
    )


def _load(one: CollectedLoad) -> CollectedLoadOut:
    return CollectedLoadOut(
        uuid=one.uuid,
        name=one.name,
        crop=one.crop,
        flow=one.flow,  # type: ignore[arg-type]
        machine_kg=one.machine_kg,
        shown_pct=one.shown_pct,
        scale_kg=one.scale_kg,
        reference_pct=one.reference_pct,
        at=one.at,
        by=serializers.full_name(one.by),
    )


def _series(values: Values, system: System) -> list[SeriesOut]:
    """The figures over time, of those that were kept at least twice."""
    by_key = rule_books.shipped().calibrations.by_key
    found = []
    for (key, name), kept in values.items():
        value = next((one for one in by_key[key].values if one.key == name), None) if key in by_key else None
        if value and len(kept) > 1:
            points = [SeriesPointOut(at=run.at, value=figure, words=shown(figure, value, system)) for run, figure in kept]
            found.append(SeriesOut(name=f"{by_key[key].name}: {value.name.lower()}", points=points))
    return found
