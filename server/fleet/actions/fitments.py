"""Fitments: a part takes the place of another, and may be taken off again. Called inside the action of whoever fits."""

import uuid
from collections.abc import Sequence

from django.utils import timezone

from lumvek_core.positions import in_words
from shops.access import Conflict
from shops.models import Member
from shops.taken_back import take_back

from ..models import Fitment, Machine
from ..queries.counters import now_of
from .history import history_changed


def put_in(
    member: Member, fitting: uuid.UUID, machine: Machine, slot: str, number: str, at: Sequence[tuple[str, int]]
) -> list[Fitment]:
    """One number at several positions, by one act of fitting. What stood there has ended with that.

    slot: without a header's prefix. at: (position, pieces).
    """
    now, total = timezone.now(), now_of(machine)
    there = Fitment.objects.filter(machine=machine, slot=slot, position_key__in=[position for position, _ in at], until_at=None)
    there.update(until_at=now)
    made = [
        Fitment.objects.create(
            uuid=uuid.uuid5(fitting, position),
            fitting=fitting,
            machine=machine,
            slot=slot,
            position_key=position,
            number=number,
            quantity=quantity,
            counter=total,
            fitted_at=now,
            by=member.user,
        )
        for position, quantity in at
    ]
    history_changed([machine.pk])
    return made


def take_off(member: Member, fitting: uuid.UUID) -> None:
    """What was fitted by mistake is not fitted: what stood there before stands there again. The counter as read stays.

    Raises Conflict where a newer part has taken its place.
    """
    mine = list(Fitment.objects.of(member).filter(fitting=fitting, taken_back_at=None))
    if newer := [one.position_key for one in mine if one.until_at is not None]:
        raise Conflict(f"A newer part was fitted at {in_words(newer)} since: take that back first.")
    for one in mine:
        Fitment.objects.filter(
            machine=one.machine_id, slot=one.slot, position_key=one.position_key, until_at=one.fitted_at, taken_back_at=None
        ).update(until_at=None)
    these = Fitment.objects.filter(pk__in=[one.pk for one in mine])
    take_back(member, these)
    these.update(until_at=timezone.now())
    history_changed({one.machine_id for one in mine})
