"""Keeping parts lines in step with what was found and decided. Each is called inside an action of whoever decided."""

import uuid
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from lumvek_core.judgement.companions import PartNeed

from .models import PartNumber, PartsLine


def refresh(walk_around_id: uuid.UUID, needs: Sequence[PartNeed]) -> None:
    """Make the lines of a walk-around what `needs` says. A declined line that is still needed stays declined."""
    had = {(line.slot, line.position_key): line for line in PartsLine.objects.filter(walk_around_id=walk_around_id)}
    wanted = {(need.slot, need.position): need for need in needs}
    # What a person takes along stays while what opens it is renewed; findings and companions follow what was found.
    opened = {need.slot for need in needs}
    gone = [
        line.pk for key, line in had.items() if key not in wanted and not (line.origin == "apart" and line.because in opened)
    ]
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
    columns = _columns(need)
    if not need.side:
        columns.pop("side")  # a person may have looked which hand it is
    before = [getattr(line, name) for name in columns]
    for name, value in columns.items():
        setattr(line, name, value)
    return before != [getattr(line, name) for name in columns]


def decline(walk_around_id: uuid.UUID, slot: str, positions: Sequence[str], reason: str, by: str) -> int:
    """Decline companions with a reason, or with an empty reason take that back. Returns how many lines it touched."""
    lines = PartsLine.objects.filter(walk_around_id=walk_around_id, slot=slot, position_key__in=list(positions)).exclude(
        origin="finding"
    )
    return lines.update(declined_reason=reason, declined_by=by if reason else "")


@dataclass(frozen=True)
class Along:
    """A part taken along at a position because `because` (a slot) is renewed there. why: in words."""

    position: str
    side: str
    because: str
    why: str


def take_along(walk_around_id: uuid.UUID, slot: str, along: Sequence[Along], *, taken: bool) -> None:
    """Put a part on the list because it lies open anyway, or take it off again."""
    mine = PartsLine.objects.filter(walk_around_id=walk_around_id, slot=slot, position_key__in=[one.position for one in along])
    if not taken:
        mine.filter(origin="apart").delete()
        return
    there = set(mine.values_list("position_key", flat=True))
    PartsLine.objects.bulk_create(
        PartsLine(
            walk_around_id=walk_around_id,
            slot=slot,
            position_key=one.position,
            side=one.side,
            quantity=1,
            origin="apart",
            because=one.because,
            why=one.why,
        )
        for one in along
        if one.position not in there
    )


def set_hand(walk_around_id: uuid.UUID, slot: str, positions: Sequence[str], side: str) -> int:
    """Say which hand a handed part is where its place does not tell. Returns how many lines it touched."""
    lines = PartsLine.objects.filter(walk_around_id=walk_around_id, slot=slot, position_key__in=list(positions))
    return lines.update(side=side)


def forget(walk_around_id: uuid.UUID) -> None:
    """A walk-around that was discarded needs no parts."""
    PartsLine.objects.filter(walk_around_id=walk_around_id).delete()


def keep_number(model_id: int, slot: str, side: str, number: str, values: Mapping[str, Any]) -> PartNumber | None:
    """Enter a number in the parts book of a model, or change it. Returns it as it was, None for a new one."""
    part_number = PartNumber.objects.filter(model=model_id, slot=slot, side=side, number=number).first()
    if part_number is None or any(getattr(part_number, name) != value for name, value in values.items()):
        PartNumber.objects.update_or_create(model_id=model_id, slot=slot, side=side, number=number, defaults=dict(values))
    return part_number


def choose(model_id: int, slot: str, side: str, number: str) -> bool:
    """Fit this one of the alternatives. False where it is not in the book."""
    mine = PartNumber.objects.filter(model=model_id, slot=slot, side=side)
    if not mine.filter(number=number).exists():
        return False
    mine.exclude(number=number).update(chosen=False)
    mine.filter(number=number).update(chosen=True)
    return True
