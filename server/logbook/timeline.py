"""Everything that happened to a machine, in order, from wherever it is kept. The number of queries does not grow with its
years."""

import datetime as dt
import uuid
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator
from dataclasses import dataclass, field, replace
from typing import Any

from django.db.models import Q

from fleet import counters
from fleet.models import CounterReading, Fitment, Machine
from fleet.queries import fitments_of
from inspection import queries, rule_books, serializers
from inspection.coupled import long, own
from inspection.models import Decision, NotePhoto, OperatorNote, Photo, SetAside, Verdict, WalkAround, WalkAroundEvent
from inspection.values import read_value
from lumvek_core import counters as core_counters
from lumvek_core import positions
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.counted import counted
from lumvek_core.counters import Count
from lumvek_core.judgement import describe
from lumvek_core.units import plain
from lumvek_core.workbench.subjects import SUBJECTS
from shops.models import Member, Role
from shops.taken_back import TakenBack
from workbench.models import BenchResult

from .models import PutAwayTick, ServiceDone
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

    def holds(self, words: Iterable[str]) -> bool:
        """Whether all words stand in it, in any case and order."""
        whole = f"{self.title} {self.text} {self.station} {self.by} {self.counter} {KINDS[self.kind]}".lower()
        return all(word in whole for word in words)


def entries(member: Member, machine: Machine, kinds: Iterable[str] = (), search: str = "", station: str = "") -> list[Entry]:
    """What happened to a machine, the newest first; of these kinds only, of a station, and holding these words."""
    wanted = set(kinds) & set(KINDS) or set(KINDS)
    names = queries.names_in(member.shop_id)
    walks = _walk_arounds(member, machine)
    sources: dict[str, Callable[[], Iterator[Entry]]] = {
        "walk-around": lambda: _walked(walks),
        "reading": lambda: _readings(member, machine, walks, names),
        "set-aside": lambda: _set_aside(member, machine, walks, names),
        "decision": lambda: _decisions(walks),
        "photo": lambda: _photos(machine, walks, names),
        "part": lambda: _parts(machine, names),
        "service": lambda: _services(machine, names),
        "counter": lambda: _counters(machine, names),
        "note": lambda: _notes(machine, names),
        "bench": lambda: _bench(machine, names),
        "put-away": lambda: _put_away(machine, names),
    }
    found = [entry for kind, source in sources.items() if kind in wanted for entry in source()]
    words = search.lower().split()
    found = [one for one in found if (not station or one.station == station) and one.holds(words)]
    counts, unit = counters.counts_of([machine.pk])[machine.pk], counters.unit_of(machine)
    found.sort(key=lambda one: (one.at, list(KINDS).index(one.kind)), reverse=True)
    return [_with_counter(one, counts, unit) for one in found]


def _with_counter(one: Entry, counts: list[Count], unit: str) -> Entry:
    total = core_counters.total_at(counts, one.at)
    return one if one.counter or total is None else replace(one, counter=f"{plain(total, 0)} {unit}")


def _walk_arounds(member: Member, machine: Machine) -> list[WalkAround]:
    """The machine's own, and those a header was coupled in; an owner does not see somebody else's combine."""
    mine = Q(machine=machine) if member.role == Role.OWNER else Q(machine=machine) | Q(headers=machine)
    found = WalkAround.objects.filter(mine, shop=member.shop_id).distinct().defer("plan", "layout")
    return list(found.select_related("machine", "started_by", "finished_by"))


def _walked(walks: list[WalkAround]) -> Iterator[Entry]:
    told: dict[uuid.UUID, list[WalkAroundEvent]] = defaultdict(list)
    for event in WalkAroundEvent.objects.filter(walk_around__in=walks).select_related("by"):
        told[event.walk_around_id].append(event)
    for one in walks:
        name = one.phase.replace("-", " ").capitalize()
        link = f"/walk-arounds/{one.pk}/summary"
        yield Entry(
            one.started_at, "walk-around", f"{name} walk-around begun", by=serializers.full_name(one.started_by), link=link
        )
        if one.finished_at and one.finished_by and one.pk not in told:
            link = f"/walk-arounds/{one.pk}/findings"
            yield Entry(
                one.finished_at,
                "walk-around",
                f"{name} walk-around finished",
                by=serializers.full_name(one.finished_by),
                link=link,
            )
        for event in told.get(one.pk, []):
            version = f" (version {event.version})" if event.version > 1 else ""
            yield Entry(
                event.at,
                "walk-around",
                f"{name} walk-around {event.get_kind_display().lower()}{version}",
                event.reason,
                by=serializers.full_name(event.by),
                link=f"/walk-arounds/{one.pk}/{'findings' if event.kind == WalkAroundEvent.Kind.FINISHED else 'summary'}",
            )


def _readings(member: Member, machine: Machine, walks: list[WalkAround], names: dict[int, str]) -> Iterator[Entry]:
    """One entry a walk-around and station: what stood out with its reason, what was measured with its figures."""
    columns = (
        "walk_around", "station_key", "check_key", "position_key", "severity", "reason", "elsewhere",
        "reading__units", "reading__state", "reading__value", "reading__taken_at", "reading__by",
    )  # fmt: skip
    found: dict[tuple[uuid.UUID, str], list[dict[str, Any]]] = defaultdict(list)
    for row in Verdict.objects.filter(walk_around__in=walks).order_by("id").values(*columns):
        if (row["reading__units"] == "in") != (member.units == "in"):
            row["reason"] = row["elsewhere"].get("reason", row["reason"])
        if own(machine, row["station_key"]):
            found[row["walk_around"], row["station_key"]].append(row)
    by_id = {one.pk: one for one in walks}
    for (walk_around, station), listed in found.items():
        book = rule_books.opened(by_id[walk_around].rule_book_id)
        name = next((one.name for one in book.family.stations if one.key == station), station)
        people = list(dict.fromkeys(names.get(row["reading__by"], "somebody") for row in listed))
        yield Entry(
            at=max(row["reading__taken_at"] for row in listed),
            kind="reading",
            title=f"{name}: {_counted(listed)}",
            text=_told(member, book, listed),
            station=name,
            by=", ".join(people),
            link=f"/walk-arounds/{walk_around}",
        )


def _counted(listed: list[dict[str, Any]]) -> str:
    found = Counter(row["severity"] for row in listed)
    if set(found) == {"sound"}:
        return f"{len(listed)} read, all sound"
    return f"{len(listed)} read, {', '.join(f'{n} {severity}'.replace('-', ' ') for severity, n in found.items())}"


def _told(member: Member, book: CoreBook, listed: list[dict[str, Any]]) -> str:
    """Check by check: single figures in full, and whatever was not sound with its reason."""
    checks: dict[str, list[str]] = {}
    for row in listed:
        check = book.family.checks[row["check_key"]]
        place = positions.find(row["position_key"])
        where = "" if place is positions.WHOLE else f"{place.label.lower()} "
        if row["severity"] != "sound":
            checks.setdefault(check.name, []).append(where + row["reason"].rstrip("."))
        elif check.kind == "measure" and row["reading__state"] == "seen":
            shown = describe.full(check, read_value(row["reading__value"]), serializers.system_of(member))
            checks.setdefault(check.name, []).append(where + shown)
    return "\n".join(f"{name}: {'; '.join(told)}" for name, told in checks.items())


def _set_aside(member: Member, machine: Machine, walks: list[WalkAround], names: dict[int, str]) -> Iterator[Entry]:
    """What was typed and could not be taken: kept here in words, or discarded with one."""
    by_id = {one.pk: one for one in walks}
    for one in SetAside.objects.filter(walk_around__in=walks):
        book = rule_books.opened(by_id[one.walk_around_id].rule_book_id)
        check = book.family.checks.get(one.check_key)
        if check is None or not own(machine, one.check_key):
            continue
        place = positions.find(one.position_key)
        where = "" if place is positions.WHOLE else f", {place.label.lower()}"
        yield Entry(
            one.taken_at,
            "set-aside",
            f"{check.name}{where}: {one.shown}, {one.get_outcome_display().lower()}",
            " ".join(filter(None, [f"Not taken: {one.refused}" if one.refused else "", one.word])),
            station=book.station_of[check.key].name,
            by=names.get(one.by_id, "somebody"),
            link=f"/walk-arounds/{one.walk_around_id}/summary",
        )


def _decisions(walks: list[WalkAround]) -> Iterator[Entry]:
    groups: dict[object, list[Decision]] = defaultdict(list)
    for one in Decision.objects.filter(walk_around__in=walks).select_related("by"):
        groups[one.uuid].append(one)
    by_id = {one.pk: one for one in walks}
    for group in groups.values():
        first = group[0]
        check = rule_books.opened(by_id[first.walk_around_id].rule_book_id).family.checks.get(first.check_key)
        where = positions.in_words(one.position_key for one in group)
        because = ", ".join(filter(None, [first.until, first.reason]))
        yield Entry(
            first.at,
            "decision",
            f"{check.name if check else first.check_key}{f', {where}' if where else ''}: {first.get_choice_display().lower()}",
            because,
            by=serializers.full_name(first.by),
            link=f"/walk-arounds/{first.walk_around_id}/findings",
        )


def _photos(machine: Machine, walks: list[WalkAround], names: dict[int, str]) -> Iterator[Entry]:
    by_id = {one.pk: one for one in walks}
    for one in Photo.objects.filter(walk_around__in=walks, taken_back_at=None).defer("image"):
        book = rule_books.opened(by_id[one.walk_around_id].rule_book_id)
        check = book.family.checks.get(one.check_key)
        if check is None or not own(machine, one.check_key):
            continue
        yield Entry(
            one.at,
            "photo",
            f"{check.name}, {positions.find(one.position_key).label.lower()}",
            one.caption,
            station=book.station_of[check.key].name,
            by=names.get(one.by_id, "somebody"),
            photos=[f"/api/walk-arounds/{one.walk_around_id}/photos/{one.uuid}"],
        )


def _taken_back(one: TakenBack, names: dict[int, str], after: str = "") -> str:
    """Who took it back and when; empty while it counts."""
    if one.taken_back_at is None:
        return ""
    return f"{after}taken back by {names.get(one.taken_back_by_id or 0, 'somebody')}, {one.taken_back_at:%-d %b %Y}"


def _parts(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    family = rule_books.shipped().families[machine.model.family]
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
            + _taken_back(group[0], names, "; "),
            by=names.get(group[0].by_id, "somebody"),
            counter=f"{plain(total, 0)} {counters.unit_of(machine)}" if total is not None else "",
        )


def _services(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
    known = {one.key: one.name for one in rule_books.shipped().services}
    for one in ServiceDone.objects.filter(machine=machine):
        at = one.at if one.day == one.at.date() else dt.datetime.combine(one.day, dt.time(12), tzinfo=dt.UTC)
        counter = f"{plain(one.counter, 0)} {counters.unit_of(machine)}" if one.counter is not None else ""
        title = f"{'Taken back: ' if one.taken_back_at else ''}{known.get(one.key, one.key)}"
        yield Entry(
            at,
            "service",
            title,
            one.note + _taken_back(one, names, ". " if one.note else ""),
            by=names.get(one.by_id, "somebody"),
            counter=counter,
        )


def _counters(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
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


def _notes(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
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
            else (_taken_back(one, names) or "Open until its cause is found."),
            station=shown.get(one.station_key, ""),
            by=serializers.full_name(one.by),
            photos=[f"/api/machines/{machine.pk}/notes/{one.uuid}/photos/{photo.uuid}" for photo in pictures[one.pk]],
        )


def _bench(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
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


def _put_away(machine: Machine, names: dict[int, str]) -> Iterator[Entry]:
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
