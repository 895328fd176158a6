"""What the logbook tells of a machine besides its walk-arounds: parts, services, counters, notes, the bench, putting away."""

import datetime as dt
from collections import defaultdict
from collections.abc import Iterator
from dataclasses import dataclass, field

from fleet.models import CounterReading, Fitment, Machine
from fleet.queries import counters
from fleet.queries.machines import fitments_of
from inspection.models import NotePhoto, OperatorNote
from inspection.queries import rule_books, serializers
from inspection.queries.coupled import long
from lumvek_core import positions
from lumvek_core.counted import counted
from lumvek_core.units import plain
from lumvek_core.workbench.subjects import SUBJECTS
from shops.days import said
from shops.taken_back import TakenBack
from workbench.models import BenchResult

from ..models import PutAwayTick, ServiceDone
from .upkeep import put_away_items

KINDS = {
    "walk-around": "Walk-arounds",
    "reading": "Readings",
    "set-aside": "Not taken",
    "decision": "Decisions",
    "part": "Parts fitted",
    "service": "Services",
    "counter": "Counter",
    "note": "Notes",
    "photo": "Pictures",
    "bench": "Bench",
    "put-away": "Put away",
    "calibration": "Calibrations",
    "field": "In the field",
    "fault": "Faults",
}


@dataclass(frozen=True)
class Entry:
    """One thing that happened. link: of a screen that tells it in full; photos: addresses of pictures."""

    at: dt.datetime
    kind: str
    title: str
    text: str = ""
    station: str = ""
    by: str = ""
    link: str = ""
    counter: str = ""
    photos: list[str] = field(default_factory=list)

    @property
    def whole(self) -> str:
        """All that is said of it, to search in."""
        return f"{self.title} {self.text} {self.station} {self.by} {self.counter} {KINDS[self.kind]}"


def taken_back_words(taken_back: TakenBack, names: dict[int, str], after: str = "") -> str:
    """Who took it back and when; empty while it counts."""
    if taken_back.taken_back_at is None:
        return ""
    return f"{after}taken back by {names.get(taken_back.taken_back_by_id or 0, 'somebody')}, {said(taken_back.taken_back_at)}"


def parts_entries(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    family = rule_books.family_of(machine.shop, machine.model.family, machine.model)
    current = {one.pk for one in fitments_of([machine.pk]).values()}
    groups: dict[tuple[dt.datetime, str, str, bool], list[Fitment]] = defaultdict(list)
    for one in Fitment.objects.filter(machine=machine):
        groups[one.fitted_at, one.slot, one.number, one.taken_back_at is not None].append(one)
    for (at, slot, number, taken_back), group in groups.items():
        where = positions.in_words(one.position_key for one in group)
        known = family.slots.get(long(machine, slot))
        name = known.name if known else slot
        gone = sum(one.pk not in current for one in group)
        total = next((one.counter for one in group if one.counter is not None), None)
        yield Entry(
            at,
            "part",
            f"{'Taken back: ' if taken_back else ''}{name} {number} fitted".replace("  ", " "),
            f"{counted(sum(one.quantity for one in group), 'piece')}{f' at {where}' if where else ''}"
            + (f"; {gone} of them renewed since" if gone and not taken_back else "")
            + taken_back_words(group[0], names, "; "),
            by=names.get(group[0].by_id, "somebody"),
            counter=f"{plain(total, 0)} {counters.unit_of(machine)}" if total is not None else "",
        )


def services_entries(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    known = {one.key: one.name for one in rule_books.shipped().services}
    for one in ServiceDone.objects.filter(machine=machine):
        at = one.at if one.day == one.at.date() else dt.datetime.combine(one.day, dt.time(12), tzinfo=dt.UTC)
        counter = f"{plain(one.counter, 0)} {counters.unit_of(machine)}" if one.counter is not None else ""
        title = f"{'Taken back: ' if one.taken_back_at else ''}{known.get(one.key, one.key)}"
        yield Entry(
            at,
            "service",
            title,
            one.note + taken_back_words(one, names, ". " if one.note else ""),
            by=names.get(one.by_id, "somebody"),
            counter=counter,
        )


def counters_entries(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    for one in CounterReading.objects.filter(machine=machine):
        told = [
            f"meter shows {plain(one.shown, 1)} {one.unit}" if one.shown != one.total else "",
            "asked about, and stands" if one.confirmed else "",
            "withdrawn" if one.withdrawn else "",
        ]
        title = "Meter exchanged" if one.exchanged else "Counter read"
        yield Entry(
            one.at,
            "counter",
            f"{title}: {plain(one.total, 1)} {one.unit}",
            "; ".join(filter(None, [f"by {one.source}" if one.source != "typed" else "", *told])),
            by=names.get(one.by_id, "somebody"),
            counter=f"{plain(one.total, 0)} {one.unit}" if one.unit == counters.unit_of(machine) else "",
        )


def notes_entries(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    shown = {station.key: station.name for station in rule_books.shipped().families[machine.model.family].stations}
    pictures: dict[int, list[NotePhoto]] = defaultdict(list)
    for photo in NotePhoto.objects.filter(note__machine=machine).defer("image"):
        pictures[photo.note_id].append(photo)
    for one in OperatorNote.objects.filter(machine=machine).select_related("by", "closed_by"):
        yield Entry(
            one.at,
            "note",
            f"{'Taken back: ' if one.taken_back_at else ''}{one.text}",
            f"Cause: {one.cause} ({serializers.full_name(one.closed_by)})"
            if one.cause and one.closed_by
            else (taken_back_words(one, names) or "Open until its cause is found."),
            station=shown.get(one.station_key, ""),
            by=serializers.full_name(one.by),
            photos=[f"/api/machines/{machine.pk}/notes/{one.uuid}/photos/{photo.uuid}" for photo in pictures[one.pk]],
        )


def bench_entries(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    for one in BenchResult.objects.filter(machine=machine, withdrawn_at=None):
        subject = SUBJECTS.get(one.subject)
        yield Entry(
            one.at,
            "bench",
            f"{subject.name if subject else one.subject}: {one.sheet.get('answer', '')}",
            one.note,
            by=names.get(one.by_id, "somebody"),
            link=f"/bench/{one.subject}",
        )


def put_away(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    texts = {one.key: one.name for one in put_away_items(machine)}
    for one in PutAwayTick.objects.filter(machine=machine):
        done = "" if one.done else "Taken back: "
        yield Entry(
            one.at,
            "put-away",
            f"{done}{texts.get(one.key, one.key)}",
            f"After the season {one.season}",
            by=names.get(one.by_id, "somebody"),
        )
