"""Everything that happened to a machine, in order, from wherever it is kept. The number of queries does not grow with its
years."""

import uuid
from collections import Counter, defaultdict
from collections.abc import Callable, Iterable, Iterator, Sequence
from dataclasses import replace
from typing import Any

from django.db.models import Q

from fleet.models import Machine
from fleet.queries import counters
from inspection.models import Decision, Photo, SetAside, Verdict, WalkAround, WalkAroundEvent
from inspection.queries import rule_books, serializers, walk_arounds
from inspection.queries.coupled import own
from inspection.queries.values import read_value
from lumvek_core import counters as core_counters
from lumvek_core import positions
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.counters import Count
from lumvek_core.judgement import describe
from lumvek_core.units import plain
from shops.models import Member
from tabular.paging import holds

from .timeline_field import calibration_entries, fault_entries, field_entries
from .timeline_upkeep import (
    KINDS,
    Entry,
    bench_entries,
    counters_entries,
    notes_entries,
    parts_entries,
    put_away,
    services_entries,
)


def entries(
    member: Member, machine: Machine, kinds: Iterable[str] = (), words: Sequence[str] = (), station: str = ""
) -> list[Entry]:
    """What happened to a machine, the newest first; of these kinds only, of a station, and holding these words."""
    wanted = set(kinds) & set(KINDS) or set(KINDS)
    names = walk_arounds.names_in(member.shop_id)
    walks = _walk_arounds(member, machine)
    sources: dict[str, Callable[[], Iterator[Entry]]] = {
        "walk-around": lambda: _walked(walks),
        "reading": lambda: _readings(member, machine, walks, names),
        "set-aside": lambda: _set_aside(member, machine, walks, names),
        "decision": lambda: _decisions(walks),
        "photo": lambda: _photos(machine, walks, names),
        "part": lambda: parts_entries(machine, names),
        "service": lambda: services_entries(machine, names),
        "counter": lambda: counters_entries(machine, names),
        "note": lambda: notes_entries(machine, names),
        "bench": lambda: bench_entries(machine, names),
        "put-away": lambda: put_away(machine, names),
        "calibration": lambda: calibration_entries(member, machine, names),
        "field": lambda: field_entries(member, machine, names),
        "fault": lambda: fault_entries(machine, names),
    }
    found = [entry for kind, source in sources.items() if kind in wanted for entry in source()]
    found = [one for one in found if (not station or one.station == station) and holds(words, one.whole)]
    counts, unit = counters.counts_of([machine.pk])[machine.pk], counters.unit_of(machine)
    found.sort(key=lambda one: (one.at, list(KINDS).index(one.kind)), reverse=True)
    return [_with_counter(one, counts, unit) for one in found]


def _with_counter(entry: Entry, counts: list[Count], unit: str) -> Entry:
    total = core_counters.total_at(counts, entry.at)
    return entry if entry.counter or total is None else replace(entry, counter=f"{plain(total, 0)} {unit}")


def _walk_arounds(member: Member, machine: Machine) -> list[WalkAround]:
    """The machine's own, and those a header was coupled in; an owner does not see somebody else's combine."""
    mine = Q(machine=machine) if member.sees_own_only else Q(machine=machine) | Q(headers=machine)
    found = WalkAround.objects.in_shop(member.shop_id).filter(mine).distinct().defer("plan", "layout")
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
