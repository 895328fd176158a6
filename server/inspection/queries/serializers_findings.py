"""Findings and parts, from rows and core objects to what the endpoints give."""

import uuid
from collections.abc import Iterable
from dataclasses import replace

from django.utils import timezone

from lumvek_core import positions
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement.companions import tasks_for
from parts.models import PartsLine
from shops.models import Member
from shops.rights import may
from tabular.paging import holds, page_of

from ..models import WalkAround
from ..schemas import PhotoOut, PlaceOut
from ..schemas_findings import (
    BeforeOut,
    DecidedOut,
    FindingGroupOut,
    FindingOut,
    FindingsAsked,
    FindingsOut,
    FindingsSum,
    FoundAtOut,
    NotSeenOut,
    PartsOut,
    TaskOut,
)
from . import decisions, pictures, standing, walk_arounds
from .serializers import brief, machine_out, parts, photo

PAGE = 30
"""Kinds of findings on a page."""


def findings(walk_around: WalkAround, book: CoreBook, member: Member, asked: FindingsAsked | None = None) -> FindingsOut:
    """Findings with their pictures and the parts they call for: a page as it is asked for, or all of them, worst first."""
    whole, asked = asked is None, asked or FindingsAsked()
    every = walk_arounds.findings(walk_around, book, member)
    found = [group for one in every if (group := _wanted(one, asked, book))]
    if asked.order == "station":
        places = list(book.family.checks)
        found.sort(key=lambda group: places.index(group.check.key))
    shown, page = page_of(found, asked.page, max(1, len(found)) if whole else PAGE)
    stations = walk_arounds.station_states(walk_around)
    newest = _newest(walk_around)
    at = {book.station_of[group.check.key].key for group in every}
    return FindingsOut(
        foreseen=[walk_around.machine_id, *walk_around.headers.values_list("pk", flat=True)] if newest else [],
        walk_around=brief(walk_around),
        machine=machine_out(walk_around.machine),
        sum=_sum(every),
        page=page,
        found_at=[FoundAtOut(key=one.key, name=one.name) for one in book.family.stations if one.key in at],
        groups=_groups(walk_around, book, shown),
        before=before(walk_around, member) if newest else [],
        not_seen=not_seen(walk_around, book, member),
        stations=stations,
        seen=sum(one.sound + one.watch + one.due + one.stop for one in stations),
        places=sum(one.total for one in stations),
        may_decide=may(member, "decide findings"),
    )


def _newest(walk_around: WalkAround) -> bool:
    later = WalkAround.objects.filter(
        machine=walk_around.machine_id, started_at__gt=walk_around.started_at, discarded_at=None
    )  # fmt: skip
    return not later.exists()


def before(walk_around: WalkAround, member: Member) -> list[BeforeOut]:
    """Earlier walk-arounds of the same machine and its headers of which findings still stand, the newest first."""
    machines = [walk_around.machine_id, *walk_around.headers.values_list("pk", flat=True)]
    read = standing.read(machines, timezone.now())
    found: dict[uuid.UUID, list[str]] = {}
    for place in read.places.values():
        answer = place.answer
        if answer and answer.walk != walk_around.pk and answer.severity in decisions.CALLING and not answer.renewed:
            found.setdefault(answer.walk, []).append(answer.severity)
    walks = WalkAround.objects.of(member).filter(pk__in=found).select_related("started_by")
    return [
        BeforeOut(walk_around=brief(walk), findings=len(found[walk.pk]), stops=found[walk.pk].count("stop")) for walk in walks
    ]


def decided(walk_around: WalkAround, book: CoreBook, member: Member, check: str) -> DecidedOut:
    """What stands now at a kind of finding that somebody decided about."""
    every = walk_arounds.findings(walk_around, book, member)
    groups = _groups(walk_around, book, [one for one in every if one.check.key == check])
    return DecidedOut(group=groups[0] if groups else None, sum=_sum(every))


def _sum(groups: Iterable[walk_arounds.FindingGroup]) -> FindingsSum:
    choices = [finding.decision for group in groups for finding in group.findings]
    return FindingsSum(all=len(choices), open=choices.count("open"))


def _wanted(group: walk_arounds.FindingGroup, asked: FindingsAsked, book: CoreBook) -> walk_arounds.FindingGroup | None:
    """A kind of finding with those of its places that are asked for; None where there is none."""
    if asked.station and book.station_of[group.check.key].key != asked.station:
        return None
    listed = [
        one
        for one in group.findings
        if (not asked.severity or one.place.severity == asked.severity)
        and (not asked.decision or (one.decision == "open") == (asked.decision == "open"))
        and holds(asked.words(), f"{group.check.name} {group.station} {_said(one.place)}")
    ]
    return replace(group, findings=listed) if listed else None


def _said(place: PlaceOut) -> str:
    return f"{positions.find(place.position).label} {place.reason} {place.note}"


def _groups(walk_around: WalkAround, book: CoreBook, groups: Iterable[walk_arounds.FindingGroup]) -> list[FindingGroupOut]:
    shown: dict[tuple[str, str], list[PhotoOut]] = {}
    for one in pictures.of(walk_around):
        shown.setdefault((one.check_key, one.position_key), []).append(photo(one))
    called: dict[tuple[str, str], set[str]] = {}
    for need in proposed_for(walk_around):
        called.setdefault((need.because, need.position_key), set()).add(book.family.slots[need.slot].name)
    return [
        FindingGroupOut(
            check=group.check.key,
            name=group.check.name,
            station=group.station,
            severity=group.severity,  # type: ignore[arg-type]
            safety=group.check.safety,
            why=group.check.why,
            findings=[
                FindingOut(
                    place=finding.place,
                    name=group.check.name,
                    label=positions.find(finding.place.position).label,
                    parts=sorted(_called_at(called, finding.place, finding.decision)),
                    photos=shown.get((finding.place.check, finding.place.position), []),
                    decision=finding.decision,  # type: ignore[arg-type]
                    until=finding.until,
                    decision_reason=finding.decision_reason,
                    decided_by=finding.decided_by,
                )
                for finding in group.findings
            ],
        )
        for group in groups
    ]


def _called_at(called: dict[tuple[str, str], set[str]], place: PlaceOut, decision: str) -> set[str]:
    """Parts that a finding calls for: at its own position, once for the row, or as a set for the machine."""
    if place.severity not in decisions.CALLING or (place.severity == "watch" and decision != "do"):
        return set()
    position = positions.find(place.position)
    keys = {position.key, position.whole_row.key, positions.WHOLE.key}
    return set().union(*(called.get((place.check, key), set()) for key in keys))


def proposed_for(walk_around: WalkAround) -> list[PartsLine]:
    """The parts lines that a finding itself calls for."""
    lines = PartsLine.objects.filter(walk_around=walk_around, origin="finding").only("slot", "because", "position_key")
    return list(lines)


def not_seen(walk_around: WalkAround, book: CoreBook, member: Member) -> list[NotSeenOut]:
    """What was passed over, with the reason given."""
    return [
        NotSeenOut(
            check=book.family.checks[place.check].name,
            label=positions.find(place.position).label,
            reason=place.because,
            by=place.by,
        )
        for place in walk_arounds.places(walk_around, book, member)
        if place.severity == "not-seen"
    ]


def parts_page(walk_around: WalkAround, book: CoreBook, member: Member) -> PartsOut:
    needs = decisions.needs_of(walk_around, book)
    listed = parts(walk_around, book)
    declined = {(part.slot, piece.position) for part in listed for piece in part.pieces if piece.declined_reason}
    tasks = tasks_for(book, [need for need in needs if (need.slot, need.position) not in declined])
    return PartsOut(
        walk_around=brief(walk_around),
        machine=machine_out(walk_around.machine),
        parts=listed,
        before=before(walk_around, member) if _newest(walk_around) else [],
        tasks=[TaskOut(label=positions.find(task.position).label, text=task.text, why=task.why) for task in tasks],
        may_decide=may(member, "decide findings"),
    )
