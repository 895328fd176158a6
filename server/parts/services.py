"""Keeping parts lines in step with what was found and decided."""

import uuid
from collections.abc import Sequence

from lumvek_core.judgement.companions import PartNeed

from .models import PartsLine


def refresh(walk_around_id: uuid.UUID, needs: Sequence[PartNeed]) -> None:
    """Make the lines of a walk-around what `needs` says. A declined line that is still needed stays declined."""
    had = {(line.slot, line.position_key): line for line in PartsLine.objects.filter(walk_around_id=walk_around_id)}
    wanted = {(need.slot, need.position): need for need in needs}
    gone = [line.pk for key, line in had.items() if key not in wanted]
    if gone:
        PartsLine.objects.filter(pk__in=gone).delete()
    changed = [line for key, line in had.items() if key in wanted and _follow(line, wanted[key])]
    if changed:
        PartsLine.objects.bulk_update(
            changed, ["side", "quantity", "origin", "because", "why", "declined_reason", "declined_by"]
        )
    new = [PartsLine(walk_around_id=walk_around_id, **_columns(need)) for key, need in wanted.items() if key not in had]
    if new:
        PartsLine.objects.bulk_create(new)


def _columns(need: PartNeed) -> dict[str, object]:
    return {
        "slot": need.slot,
        "position_key": need.position,
        "side": need.side,
        "quantity": need.quantity,
        "origin": need.origin,
        "because": need.because,
        "why": need.why,
    }


def _follow(line: PartsLine, need: PartNeed) -> bool:
    """Bring a line in step; True if anything changed."""
    if line.origin == "companion" and need.origin == "finding":
        # It was declined as a companion; now it is worn itself, and that is a new question.
        line.declined_reason = line.declined_by = ""
    before = [getattr(line, name) for name in _columns(need)]
    for name, value in _columns(need).items():
        setattr(line, name, value)
    return before != [getattr(line, name) for name in _columns(need)]


def decline(walk_around_id: uuid.UUID, slot: str, positions: Sequence[str], reason: str, by: str) -> int:
    """Decline companions with a reason, or with an empty reason take that back. Returns how many lines it touched."""
    lines = PartsLine.objects.filter(
        walk_around_id=walk_around_id, slot=slot, position_key__in=list(positions), origin="companion"
    )
    return lines.update(declined_reason=reason, declined_by=by if reason else "")
