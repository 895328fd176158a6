"""Reading inspections, always from a member's shop."""

import uuid
from collections.abc import Collection, Iterable, Mapping
from dataclasses import dataclass, field
from typing import Any, cast

from django.db.models import F, Max, Q, QuerySet, Window
from django.db.models.functions import RowNumber

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rounds import CHANGEOVER, FAULT, OF_A_FEW
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement import describe
from lumvek_core.judgement.words import unit_of
from lumvek_core.rules import kinds
from lumvek_core.rules.verdict import ACTION_WORDS, SEVERITIES, Action, Severity, weight
from lumvek_core.units import System, show_length
from shops.access import NotFoundHere
from shops.models import Member

from ..models import Decision, Reading, Verdict, WalkAround
from ..schemas import AdviceOut, OvertakenOut, PlaceOut, StationOut
from ..schemas_plan import SeverityName
from . import parts_fitted_since
from .values import value_of


def walk_around_for(member: Member, walk_around_id: uuid.UUID) -> WalkAround:
    """One walk-around with its machine and people. Raises NotFoundHere."""
    related = ("machine", "machine__model", "started_by", "finished_by")
    walk_around = WalkAround.objects.of(member).select_related(*related).filter(pk=walk_around_id).first()
    if walk_around is None:
        raise NotFoundHere("There is no such walk-around.")
    return walk_around


def last_reading(walk_around: WalkAround) -> int:
    """Number of the newest reading of a walk-around; 0 where there is none."""
    newest: int | None = Reading.objects.filter(walk_around=walk_around).aggregate(last=Max("id"))["last"]
    return newest or 0


def read_since(walk_around: WalkAround, after: int) -> set[tuple[str, str]]:
    """The places that were read after a reading of this number."""
    return set(Reading.objects.filter(walk_around=walk_around, id__gt=after).values_list("check_key", "position_key"))


def previous(walk_around: WalkAround) -> WalkAround | None:
    """The finished walk-around of the same machine before this one: last season's, to hold this one against."""
    return (
        WalkAround.objects.filter(
            machine=walk_around.machine_id, finished_at__isnull=False, started_at__lt=walk_around.started_at, discarded_at=None
        )
        .exclude(phase__in=("daily", *OF_A_FEW))
        .first()
    )


def station_states(walk_around: WalkAround, only: Collection[str] | None = None) -> list[StationOut]:
    """The stations of a walk-around with how their places stand, in working order; with `only`, those of these keys."""
    return [
        station_state(station, walk_around.tallies.get(station["key"], {}))
        for station in walk_around.stations
        if only is None or station["key"] in only
    ]


STATES = (*SEVERITIES, "not_seen", "does_not_apply", "asked")


def station_state(station: dict[str, Any], count: Mapping[str, int]) -> StationOut:
    counts = {state: count.get(state, 0) for state in STATES}
    left = max(0, station["total"] - sum(counts.values()))
    return StationOut(key=station["key"], name=station["name"], total=station["total"], open=left, **counts)


def ranked(rows: QuerySet[Any], by: F, started: str, many: int = 1) -> QuerySet[Any]:
    """The newest for each machine, whatever there are."""
    order = Window(RowNumber(), partition_by=by, order_by=F(started).desc())
    ranked: QuerySet[Any] = rows.annotate(rank=order).filter(rank__lte=many).order_by("rank")
    return ranked


TELLING = ~Q(phase=CHANGEOVER, finished_at__isnull=False) & ~Q(phase=FAULT)
"""A changeover that is done says nothing more of the machine as a whole, the looks of a fault never do."""
UNREAD = ("plan", "layout", "left_out", "options", "header_families", "stations", "tallies")
"""What of a walk-around no board shows."""


def worst_of(machines: QuerySet[Machine], most: int) -> list[tuple[uuid.UUID, str]]:
    """The newest walk-arounds of machines in which something was found, with the machine's name: most to stop for first. One
    query."""
    walks = WalkAround.objects.filter(TELLING, machine__in=machines, discarded_at=None)
    newest = ranked(walks, F("machine_id"), "started_at")
    found = []
    for key, name, tallies in newest.values_list("pk", "machine__name", "tallies"):
        stop, due = (sum(station.get(state, 0) for station in tallies.values()) for state in ("stop", "due"))
        if stop or due:
            found.append((-stop, -due, name, key))
    return [(key, name) for _, _, name, key in sorted(found)[:most]]


EARLIER = 12


def of_machine(member: Member, machine: Machine) -> list[WalkAround]:
    """The newest walk-arounds of a machine, those it was coupled in as well. One query."""
    mine = Q(machine=machine) if member.sees_own_only else Q(machine=machine) | Q(headers=machine)
    found = WalkAround.objects.filter(mine, discarded_at=None).distinct().order_by("-started_at")
    return list(found.select_related("started_by", "finished_by").defer(*UNREAD)[:EARLIER])


def places(
    walk_around: WalkAround, book: CoreBook, member: Member, only: Iterable[tuple[str, str]] | None = None
) -> list[PlaceOut]:
    """The positions that have a verdict; with `only`, those of the pairs that still have one. Four queries."""
    rows = Verdict.objects.filter(walk_around=walk_around).select_related("reading", "overtaken")
    names, new = names_in(member.shop_id), parts_fitted_since.of(walk_around)
    if only is not None:
        wanted = set(only)
        rows = rows.filter(check_key__in={check for check, _ in wanted}, position_key__in={place for _, place in wanted})
        return [place_out(row, book, member, names, new) for row in rows if (row.check_key, row.position_key) in wanted]
    return [place_out(row, book, member, names, new) for row in rows]


def names_in(shop_id: int) -> dict[int, str]:
    """What the people of a shop are called, by user."""
    people = Member.objects.in_shop(shop_id).values_list("user_id", "user__first_name", "user__last_name", "user__username")
    return {user: f"{first} {last}".strip() or username for user, first, last, username in people}


def place_out(
    row: Verdict, book: CoreBook, member: Member, names: Mapping[int, str], new: parts_fitted_since.Renewed
) -> PlaceOut:
    """A verdict with its reading, as this member reads it."""
    check, reading = book.family.checks[row.check_key], row.reading
    seen = reading.state == Reading.State.SEEN
    value = value_of(reading)
    fitment = new.at(check, row.position_key, reading.taken_at)
    mine: System = "in" if member.units == "in" else "mm"
    other: System = "mm" if mine == "in" else "in"
    words = in_units(row, mine)
    worked_out = kinds.figure(words["facts"], "worked_out")
    contact = show_length(worked_out, mine) if seen and worked_out is not None else ""
    return PlaceOut(
        check=row.check_key,
        position=row.position_key,
        state=reading.state,
        severity=cast(SeverityName, row.severity),
        weight=_weight(row),
        action=ACTION_WORDS.get(row.action, row.action),
        reason=words["reason"],
        because=reading.reason,
        remedy="" if row.ask else describe.remedy(check, row.severity),
        why=words["why"],
        facts=words["facts"] if words["facts"].get("kind") in kinds.facts() else None,
        used=0.0 if fitment else row.used,
        fitted=parts_fitted_since.in_words(fitment) if fitment else "",
        ask=words["ask"],
        instead=words["instead"],
        split=row.split,
        advice=AdviceOut.model_validate(words["advice"]) if words["advice"] else None,
        raw=reading.raw,
        feeler=reading.feeler,
        units=reading.units,
        # Three spans, or three seeds dug up, do not fit a cell; what they come to does, and is what is compared.
        short=contact.removesuffix(" mm").removesuffix(" in") or (describe.short(check, value, mine) if seen else ""),
        shown=describe.full(check, value, mine) if seen else "",
        shown_other=describe.full(check, value, other) if seen and unit_of(check, mine) != unit_of(check, other) else "",
        contact_shown=contact,
        choice=value.choice,
        note=reading.note,
        confirmed=reading.confirmed,
        bulk=reading.bulk,
        posture=reading.posture,
        by=names.get(reading.by_id, "somebody"),
        at=reading.taken_at.isoformat(),
        overtaken=_overtaken(row.overtaken, check, mine, names) if row.overtaken else None,
    )


def _weight(row: Verdict) -> int | None:
    judged = row.severity in SEVERITIES and not row.ask
    return weight(cast(Severity, row.severity), cast(Action, row.action)) if judged else None


WORDS = ("reason", "why", "ask", "instead", "advice", "facts")


def in_units(row: Verdict, system: System) -> dict[str, Any]:
    """The words of a verdict for a reader of these units."""
    own = {name: getattr(row, name) for name in WORDS}
    return own if (row.reading.units == "in") == (system == "in") else own | row.elsewhere


def _overtaken(reading: Reading, check: Check, system: System, names: Mapping[int, str]) -> OvertakenOut:
    shown = (
        describe.full(check, value_of(reading), system) if reading.state == Reading.State.SEEN else reading.get_state_display()
    )
    return OvertakenOut(shown=shown, by=names.get(reading.by_id, "somebody"), at=reading.taken_at.isoformat())


@dataclass
class Finding:
    """A verdict that needs something done, with the decision beside it."""

    place: PlaceOut
    decision: str = "open"
    until: str = ""
    decision_reason: str = ""
    decided_by: str = ""


@dataclass
class FindingGroup:
    """The findings of one check, worst first, then by row."""

    check: Check
    station: str
    severity: str
    findings: list[Finding] = field(default_factory=list)


def findings(walk_around: WalkAround, book: CoreBook, member: Member) -> list[FindingGroup]:
    """What needs something done, worst first. Two queries."""
    decided: dict[tuple[str, str], Decision] = {}
    for decision in walk_around.decisions.select_related("by"):
        decided[decision.check_key, decision.position_key] = decision
    groups: dict[str, FindingGroup] = {}
    for place in places(walk_around, book, member):
        if place.severity not in SEVERITIES[1:] or place.ask:
            continue
        check = book.family.checks[place.check]
        group = groups.setdefault(place.check, FindingGroup(check, book.station_of[place.check].name, place.severity))
        group.severity = max(group.severity, place.severity, key=SEVERITIES.index)
        group.findings.append(_finding(place, decided.get((place.check, place.position))))
    order = list(book.family.checks)
    for group in groups.values():
        group.findings.sort(
            key=lambda finding: (-SEVERITIES.index(finding.place.severity), positions.reading_order(finding.place.position))
        )
    return sorted(groups.values(), key=lambda group: (-SEVERITIES.index(group.severity), order.index(group.check.key)))


def _finding(place: PlaceOut, decision: Decision | None) -> Finding:
    if decision is None:
        return Finding(place)
    by = decision.by.get_full_name() or decision.by.get_username()
    return Finding(place, decision.choice, decision.until, decision.reason, by)
