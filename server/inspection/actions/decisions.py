"""Deciding findings and companions. Repeating a decision under its UUID changes nothing twice."""

import uuid
from collections.abc import Sequence

from lumvek_core.errors import BadInput
from parts import actions as parts
from shops.models import Member
from shops.rights import action

from ..judging.tallies import changed
from ..models import Decision, Verdict
from ..queries import rule_books
from .locking import known, lock
from .parts_in_step import refresh_parts


@action("decide findings")
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
    changed(walk_around)
    refresh_parts(walk_around, rule_books.opened(walk_around.rule_book_id))


@action("decide on parts")
def decline_companion(member: Member, walk_around_id: uuid.UUID, slot: str, at: Sequence[str], reason: str) -> None:
    """Decline companions with a reason; an empty reason takes that back."""
    walk_around = lock(member, walk_around_id)
    parts.decline(walk_around.pk, slot, at, reason.strip(), member.name)
