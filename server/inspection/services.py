"""Starting, deciding and finishing; readings are in `recording`. Every write can be repeated: the client's UUID makes the
second one a no-op."""

import uuid
from collections.abc import Iterable, Sequence
from typing import cast

from django.db import transaction
from django.utils import timezone

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.errors import BadInput
from lumvek_core.judgement import rules
from lumvek_core.judgement.companions import Called, parts_for
from parts import services as parts_services
from shops.access import Conflict, NotFoundHere
from shops.models import Member

from . import books
from .models import Decision, Verdict, WalkAround

CALLING = ("due", "stop")
"""Severities that call for parts."""


@transaction.atomic
def start(member: Member, machine: Machine, walk_around_id: uuid.UUID, phase: str) -> WalkAround:
    """Begin a walk-around, or return it if this UUID has begun one already."""
    existing = WalkAround.objects.filter(pk=walk_around_id).first()
    if existing:
        if existing.shop_id != member.shop_id or existing.machine_id != machine.pk:
            raise NotFoundHere("There is no such walk-around.")
        return existing
    if machine.model.family not in books.shipped().families:
        raise Conflict("There is no route for this kind of machine yet.")
    stored = books.current(machine, member.shop)
    book = books.opened(stored.pk)
    return WalkAround.objects.create(
        id=walk_around_id,
        shop=member.shop,
        machine=machine,
        rule_book=stored,
        phase=phase,
        rows=machine.rows,
        options=machine.options,
        stations=_stations(book, machine),
        started_at=timezone.now(),
        started_by=member.user,
    )


def _stations(book: CoreBook, machine: Machine) -> list[dict[str, object]]:
    """Stations this machine has, with the number of places to look at and the checks that may be left out."""
    applicable = in_force.applicable(book, machine.options)
    found: list[dict[str, object]] = []
    for station in book.family.stations:
        checks = [check for check in applicable if check in station.checks]
        if checks:
            total = sum(len(positions.expand(check.per, machine.rows)) for check in checks if not check.optional)
            optional = [check.key for check in checks if check.optional]
            found.append({"key": station.key, "name": station.name, "total": total, "optional": optional})
    return found


def lock(member: Member, walk_around_id: uuid.UUID) -> WalkAround:
    """The walk-around, held until the transaction ends, so that two people writing wait for each other."""
    walk_around = WalkAround.objects.select_for_update().filter(pk=walk_around_id, shop=member.shop_id).first()
    if walk_around is None:
        raise NotFoundHere("There is no such walk-around.")
    return walk_around


def refresh_parts(walk_around: WalkAround, book: CoreBook) -> None:
    """Bring the parts lines in step with findings and decisions."""
    parts_services.refresh(walk_around.pk, parts_for(book, called(walk_around)))


def called(walk_around: WalkAround) -> list[Called]:
    """Findings that call for parts: due or stop, and neither declined nor put off."""
    decided = decisions_in_force(walk_around.decisions.values_list("check_key", "position_key", "choice"))
    rows = (
        Verdict.objects.filter(walk_around=walk_around, severity__in=CALLING, ask="")
        .order_by("reading_id")
        .values_list("check_key", "position_key", "action", "reading__value")
    )
    return [
        Called(check, position, cast(rules.Action, action), value.get("choice", ""))
        for check, position, action, value in rows
        if decided.get((check, position), "do") in ("do", "open")
    ]


def decisions_in_force(decisions: Iterable[tuple[str, str, str]]) -> dict[tuple[str, str], str]:
    """The newest choice for each place, from (check, position, choice) in the order they were made."""
    return {(check, position): choice for check, position, choice in decisions}


@transaction.atomic
def decide(
    member: Member,
    walk_around_id: uuid.UUID,
    decision_uuid: uuid.UUID,
    check: str,
    at: Sequence[str],
    choice: str,
    until: str = "",
    reason: str = "",
) -> None:
    """Append a decision for a finding at one or several positions, and bring the parts in step.

    Waiting needs `until`, declining needs a `reason`. Raises BadInput, NotFoundHere.
    """
    walk_around = lock(member, walk_around_id)
    if Decision.objects.filter(uuid=decision_uuid, walk_around=walk_around).exists():
        return
    if choice == Decision.Choice.DECLINE and not reason.strip():
        raise BadInput("reason", "say why it is declined")
    if choice == Decision.Choice.WAIT and not until.strip():
        raise BadInput("until", "say until when or what it waits")
    findings = Verdict.objects.filter(
        walk_around=walk_around, check_key=check, position_key__in=list(at), severity__in=("watch", "due", "stop")
    )
    found = set(findings.values_list("position_key", flat=True))
    missing = [place for place in at if place not in found]
    if missing or not at:
        raise BadInput("positions", f"no finding stands at {', '.join(missing) or 'no position'}")
    stops = findings.filter(severity="stop").exists()
    if stops and choice in (Decision.Choice.WAIT, Decision.Choice.DECLINE):
        raise BadInput("choice", "a stop finding cannot wait or be declined; put it right and read again")
    Decision.objects.bulk_create(
        Decision(
            uuid=decision_uuid,
            walk_around=walk_around,
            check_key=check,
            position_key=place,
            choice=choice,
            until=until.strip(),
            reason=reason.strip(),
            by=member.user,
        )
        for place in dict.fromkeys(at)
    )
    refresh_parts(walk_around, books.opened(walk_around.rule_book_id))


@transaction.atomic
def decline_companion(member: Member, walk_around_id: uuid.UUID, slot: str, at: Sequence[str], reason: str) -> None:
    """Decline companions with a reason; an empty reason takes that back."""
    walk_around = lock(member, walk_around_id)
    parts_services.decline(walk_around.pk, slot, at, reason.strip(), member.name)


@transaction.atomic
def finish(member: Member, walk_around_id: uuid.UUID) -> None:
    """Close a walk-around. What was not seen stays named in it; finishing twice is the same as once."""
    walk_around = lock(member, walk_around_id)
    if walk_around.finished_at:
        return
    asked = Verdict.objects.filter(walk_around=walk_around).exclude(ask="").count()
    if asked:
        raise Conflict(f"{asked} {'reading waits' if asked == 1 else 'readings wait'} for an answer before it can be finished.")
    walk_around.finished_at = timezone.now()
    walk_around.finished_by = member.user
    walk_around.save(update_fields=["finished_at", "finished_by"])
