"""What the logbook tells of a machine at work: headers coupled, calibrations, loads, how it was set in the field."""

from collections.abc import Iterator

from calibration.models import CalibrationRun, CollectedLoad
from calibration.queries.page import run_out
from faults.models import SwapTest, Trace
from faults.queries import own_symptoms
from faults.queries.tracing import brief
from field.models import SetInField
from field.queries.cards import set_out
from fleet.models import Coupling, Machine
from inspection.queries.serializers import full_name, system_of
from lumvek_core.counted import counted
from lumvek_core.units import plain
from shops.models import Member

from .timeline_upkeep import Entry, taken_back_words

OUTCOMES = {"saved": "saved", "unsaved": "left without saving", "aborted": "aborted"}
ENDS = {"": "under way", "found": "found", "not-found": "not found", "watched": "to be watched"}
GONE = {"": "", "put-right": "gone since it was put right", "other-speed": "gone since a speed or range was changed: not cured"}
WORKED = {None: "", True: "It worked", False: "It did not work"}


def calibration_entries(member: Member, machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    """Calibrations gone through, loads collected for them, headers coupled. Three queries."""
    link = f"/machines/{machine.pk}/calibrations"
    for run in CalibrationRun.objects.filter(machine=machine).select_related("by", "header"):
        shown = run_out(run, system_of(member))
        steps = "" if run.outcome == "saved" else f"{run.steps} of {shown.of_steps} steps done"
        told = [shown.values, steps, shown.words, f"with {shown.header}" if shown.header else "", taken_back_words(run, names)]
        title = f"{_gone(run)}{shown.name} {OUTCOMES[run.outcome]}"
        yield Entry(run.at, "calibration", title, "; ".join(filter(None, told)), by=shown.by, link=link)
    for load in CollectedLoad.objects.filter(machine=machine):
        told = [
            f"{plain(load.machine_kg, 0)} kg shown" if load.machine_kg is not None else "",
            f"{plain(load.shown_pct, 1)} % shown" if load.shown_pct is not None else "",
            load.found,
            load.crop,
            taken_back_words(load, names),
        ]
        title = f"{_gone(load)}Load {load.name}".rstrip()
        yield Entry(
            load.at, "calibration", title, "; ".join(filter(None, told)), by=names.get(load.by_id, "somebody"), link=link
        )
    for one in Coupling.objects.filter(machine=machine).select_related("header"):
        title = f"{_gone(one)}{one.header.name} coupled" if one.header else f"{_gone(one)}No header on it"
        yield Entry(one.at, "calibration", title, taken_back_words(one, names), by=names.get(one.by_id, "somebody"), link=link)


def field_entries(member: Member, machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    """How it was set in the field, in the member's units. One query."""
    for row in SetInField.objects.filter(machine=machine).select_related("by", "header"):
        shown = set_out(row, system_of(member))
        told = [
            ", ".join(filter(None, [row.crop, row.place, row.condition, shown.header])),
            f"because {row.why}" if row.why else "",
            WORKED[row.worked],
            taken_back_words(row, names),
        ]
        title = f"{_gone(row)}Set in the field: {', '.join(shown.shown) or 'nothing otherwise'}"
        text = "; ".join(filter(None, told))
        yield Entry(row.at, "field", title, text, by=shown.by, link=f"/machines/{machine.pk}/field")


def fault_entries(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    """Faults that were traced, and swap tests. Five queries."""
    known = own_symptoms.ever(machine.shop)
    for row in Trace.objects.filter(machine=machine).select_related("by").prefetch_related("answers"):
        shown = brief(row, known)
        looked = sum(answer.taken_back_at is None for answer in row.answers.all())
        told = [
            row.words,
            f"{ENDS[row.outcome]}{f': {shown.was}' if shown.was else ''}",
            GONE[row.gone],
            f"ruled out: {', '.join(row.cleared).lower()}" if row.cleared else "",
            f"{counted(looked, 'look')} besides readings" if looked else "",
            taken_back_words(row, names),
        ]
        text = "; ".join(filter(None, told))
        link = f"/machines/{machine.pk}/faults/{row.uuid}"
        yield Entry(row.ended_at or row.begun_at, "fault", f"{_gone(row)}{shown.symptom}", text, by=shown.by, link=link)
    yield from _swap_entries(machine)


def _swap_entries(machine: Machine) -> Iterator[Entry]:
    for test in SwapTest.objects.filter(machine=machine).select_related("by"):
        words = f"{test.words}{f': {test.proven}' if test.proven else ''}" if test.ended_at else "under way"
        fitted = "a new one was fitted" if test.fitted else ""
        yield Entry(
            test.ended_at or test.begun_at,
            "fault",
            f"{_gone(test)}Swap test, rows {' and '.join(test.rows)}",
            "; ".join(filter(None, [words, fitted])),
            by=full_name(test.by),
            link=f"/machines/{machine.pk}/swap-tests/{test.uuid}",
        )


def _gone(row: CalibrationRun | CollectedLoad | Coupling | SetInField | Trace | SwapTest) -> str:
    return "Taken back: " if row.taken_back_at else ""
