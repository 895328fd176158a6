"""Deciding, confirming postures, handing over, notes; beginning is in `starting`, readings in `recording`, the end in
`closing`.

Every write can be repeated: the client's UUID makes the second one a no-op. A UUID that belongs elsewhere is refused.
"""

import datetime as dt
import uuid
from collections.abc import Collection, Iterable, Sequence
from typing import Any, cast

from django.db import transaction
from django.db.models import QuerySet
from django.utils import timezone

from fleet.models import Machine
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.catalogue.station_guess import guess_station
from lumvek_core.errors import BadInput
from lumvek_core.judgement.companions import Called, parts_for
from lumvek_core.rules.verdict import Action
from parts import actions as parts_services
from shops.access import INSPECTORS, Conflict, NotFoundHere
from shops.models import Member
from shops.taken_back import take_back

from ..models import Decision, HandOver, OperatorNote, PostureHold, Verdict, WalkAround
from ..queries import rule_books

CALLING = ("watch", "due", "stop")
"""Severities that may call for parts: of what is watched, what somebody decided to renew before it reaches its limit."""


def lock(member: Member, walk_around_id: uuid.UUID) -> WalkAround:
    """The walk-around with its machine, held until the transaction ends, so that two people writing wait for each other."""
    held = WalkAround.objects.select_for_update().select_related("machine").defer("plan")
    walk_around = held.filter(pk=walk_around_id, shop=member.shop_id).first()
    if walk_around is None:
        raise NotFoundHere("There is no such walk-around.")
    return walk_around


def running(walk_around: WalkAround) -> None:
    """Raise Conflict unless something may still be recorded in this walk-around."""
    if walk_around.discarded_at:
        raise Conflict("This walk-around was discarded.")
    if walk_around.finished_at:
        raise Conflict("This walk-around is finished; what is read now belongs to a new one.")


def known(rows: QuerySet[Any], walk_around: WalkAround) -> bool:
    """Whether what has this UUID is on record already. Raises BadInput where it is on record for another walk-around."""
    owners = set(rows.values_list("walk_around_id", flat=True))
    if owners - {walk_around.pk}:
        raise BadInput("uuid", "belongs to another walk-around")
    return bool(owners)


def refresh_parts(walk_around: WalkAround, book: CoreBook) -> None:
    """Bring the parts lines in step with findings and decisions."""
    parts_services.refresh(walk_around.pk, parts_for(book, called(walk_around)))


def called(walk_around: WalkAround) -> list[Called]:
    """Findings that call for parts: due or stop, and neither declined nor put off; worn parts that are renewed before they are
    due."""
    checks = rule_books.opened(walk_around.rule_book_id).family.checks
    decided = decisions_in_force(walk_around.decisions.values_list("check_key", "position_key", "choice"))
    rows = (
        Verdict.objects.filter(walk_around=walk_around, severity__in=CALLING, ask="")
        .order_by("reading_id")
        .values_list("check_key", "position_key", "severity", "action", "reading__value", "reading__kind")
    )
    found = []
    for check, position, severity, action, value, kind in rows:
        choice = decided.get((check, position), "open")
        early = severity == "watch" and choice == "do" and checks[check].wears is not None
        if early or (severity != "watch" and choice in ("do", "open")):
            wanted = cast(Action, checks[check].action if early else action)
            found.append(Called(check, position, wanted, value.get("choice", ""), _counted(kind, value)))
    return found


def decided_to_do(walk_around: WalkAround, places: Collection[tuple[str, str]]) -> bool:
    """Whether somebody decided to renew at one of these (check, position)."""
    if not places:
        return False
    decisions = walk_around.decisions.filter(
        check_key__in={check for check, _ in places}, position_key__in={place for _, place in places}
    )
    in_force = decisions_in_force(decisions.values_list("check_key", "position_key", "choice"))
    return any(in_force.get(place) == Decision.Choice.DO for place in places)


def _counted(kind: str, value: dict[str, Any]) -> int:
    """How many were found faulty where they were counted; 1 everywhere else."""
    return max(1, int(value["numbers"][0])) if kind == "count" and value.get("numbers") else 1


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
    if known(Decision.objects.filter(uuid=decision_uuid), walk_around):
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
    refresh_parts(walk_around, rule_books.opened(walk_around.rule_book_id))


@transaction.atomic
def decline_companion(member: Member, walk_around_id: uuid.UUID, slot: str, at: Sequence[str], reason: str) -> None:
    """Decline companions with a reason; an empty reason takes that back."""
    walk_around = lock(member, walk_around_id)
    parts_services.decline(walk_around.pk, slot, at, reason.strip(), member.name)


@transaction.atomic
def confirm_posture(
    member: Member, walk_around_id: uuid.UUID, hold_uuid: uuid.UUID, posture: str, at: dt.datetime | None = None
) -> None:
    """Record that the machine stands in a posture with its locks set. Whatever it stood in before has ended with that.

    A part on the bench ends nothing: the machine stays as it is. Raises BadInput, NotFoundHere, Conflict.
    """
    walk_around = lock(member, walk_around_id)
    if known(PostureHold.objects.filter(uuid=hold_uuid), walk_around):
        return
    running(walk_around)
    postures = rule_books.opened(walk_around.rule_book_id).postures
    if posture not in postures:
        raise BadInput("posture", "does not occur on this machine")
    at = at or timezone.now()
    if not postures[posture].off_machine:
        PostureHold.objects.filter(walk_around=walk_around, ended_at=None).update(ended_at=at)
    PostureHold.objects.create(uuid=hold_uuid, walk_around=walk_around, posture=posture, by=member.user, at=at)


@transaction.atomic
def hand_over(member: Member, walk_around_id: uuid.UUID, hand_over_uuid: uuid.UUID, to: int, note: str = "") -> None:
    """Pass a walk-around on; what was confirmed about its posture must be confirmed again by the next one."""
    walk_around = lock(member, walk_around_id)
    if known(HandOver.objects.filter(uuid=hand_over_uuid), walk_around):
        return
    running(walk_around)
    taker = Member.objects.select_related("user").filter(shop=member.shop_id, pk=to, role__in=INSPECTORS).first()
    if taker is None or taker.pk == member.pk:
        raise BadInput("to", "must be another technician of this shop")
    HandOver.objects.create(
        uuid=hand_over_uuid, walk_around=walk_around, giver=member.user, taker=taker.user, note=note.strip()
    )
    PostureHold.objects.filter(walk_around=walk_around, ended_at=None).update(ended_at=timezone.now())
    walk_around.people.add(taker)


def note(member: Member, machine: Machine, note_uuid: uuid.UUID, text: str, station: str = "") -> None:
    """Keep what the operator noticed, for a station; where none is named, for the one whose words it uses, if there is one."""
    there = OperatorNote.objects.filter(uuid=note_uuid).values_list("machine_id", flat=True).first()
    if there == machine.pk:
        return
    if there is not None:
        raise BadInput("uuid", "belongs to another machine")
    if not text.strip():
        raise BadInput("text", "say what was noticed")
    family = rule_books.shipped().families[machine.model.family]
    if station and station not in {one.key for one in family.stations}:
        raise BadInput("station", "is no station of this machine")
    OperatorNote.objects.create(
        uuid=note_uuid,
        machine=machine,
        text=text.strip(),
        station_key=station or guess_station(family, text),
        by=member.user,
    )


def close_note(member: Member, machine: Machine, note_uuid: uuid.UUID, cause: str) -> None:
    """Close an operator's note with its cause. Raises BadInput, NotFoundHere."""
    if not cause.strip():
        raise BadInput("cause", "say what it was")
    _note_of(machine, note_uuid).filter(closed_at=None).update(
        cause=cause.strip(), closed_by=member.user, closed_at=timezone.now()
    )


def open_note(machine: Machine, note_uuid: uuid.UUID) -> None:
    """Open a closed note again: that was not the cause. Raises NotFoundHere."""
    _note_of(machine, note_uuid).update(cause="", closed_by=None, closed_at=None)


def take_back_note(member: Member, machine: Machine, note_uuid: uuid.UUID) -> None:
    """Take back a note that should not have been written; it stays in the logbook. Raises NotFoundHere."""
    take_back(member, _note_of(machine, note_uuid))


def _note_of(machine: Machine, note_uuid: uuid.UUID) -> QuerySet[OperatorNote]:
    found = OperatorNote.objects.filter(machine=machine, uuid=note_uuid)
    if not found.exists():
        raise NotFoundHere("There is no such note.")
    return found
