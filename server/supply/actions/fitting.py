"""Fitting a part: it leaves the shelf, and the wear history of its position starts anew."""

import uuid
from collections.abc import Sequence

from django.utils import timezone

from fleet.actions import counting
from fleet.actions.history import history_changed
from fleet.models import CounterReading, Fitment
from fleet.queries import counters
from lumvek_core.errors import BadInput
from lumvek_core.positions import in_words
from shops.access import Conflict
from shops.models import Member
from shops.rights import action
from shops.taken_back import take_back

from ..models import Movement, StockLocation
from ..queries import needs
from ..queries.needs import Piece
from . import stocking


@action("fit parts")
def fit(
    member: Member, fitting: uuid.UUID, walk_around: uuid.UUID, slot: str, at: Sequence[str], counter: float | None, place: str
) -> list[Fitment]:
    """Fit the pieces of one slot of a walk-around at these positions, from shelf or truck. The same UUID twice is once.

    counter: of the machine now, hours or hectares; where it is given it becomes the machine's. Raises BadInput, Conflict.
    """
    stocking.lock_supply(member)
    had = list(Fitment.objects.of(member).filter(uuid__in=[uuid.uuid5(fitting, key) for key in at]))
    if had:
        return had
    if not at:
        raise BadInput("positions", "say where")
    if place not in StockLocation.values:
        raise BadInput("place", "must be shelf or truck")
    pieces = _pieces(member, walk_around, slot, at)
    machine, number = pieces[0].machine, pieces[0].number
    if number is None:
        raise BadInput("number", "find its part number first")
    _set_counter(member, fitting, pieces[0], counter)
    total = counters.now_of(machine)
    now, made = timezone.now(), []
    Fitment.objects.filter(
        machine=machine, slot=pieces[0].slot, position_key__in=[piece.position for piece in pieces], until_at=None
    ).update(until_at=now)
    for piece in pieces:
        made.append(
            Fitment.objects.create(
                uuid=uuid.uuid5(fitting, piece.position),
                fitting=fitting,
                machine=machine,
                slot=piece.slot,
                position_key=piece.position,
                number=number.ordered_as,
                quantity=piece.quantity,
                counter=total,
                fitted_at=now,
                by=member.user,
            )
        )
    history_changed([machine.pk])
    quantity = sum(piece.quantity for piece in pieces)
    stocking.move(member, fitting, number.ordered_as, place, -quantity, Movement.Reason.FITTED, machine.name)
    return made


def take_off(member: Member, fitting: uuid.UUID) -> None:
    """What was fitted by mistake is not fitted: what stood there before stands there again. The counter as read stays.

    Call inside a transaction that holds the shop's terms. Raises Conflict where a newer part has taken its place.
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


def _pieces(member: Member, walk_around: uuid.UUID, slot: str, at: Sequence[str]) -> list[Piece]:
    read = needs.read(member, timezone.now())
    mine = {piece.position: piece for piece in read.pieces if piece.walk_around == walk_around and piece.walk_slot == slot}
    missing = [key for key in at if key not in mine]
    if missing or not at:
        raise BadInput("positions", f"nothing is needed at {', '.join(missing) or 'no position'}")
    if fitted := [mine[key].label for key in at if mine[key].fitted]:
        raise Conflict(f"{', '.join(fitted)}: fitted already.")
    pieces = [mine[key] for key in at]
    if len({piece.number.ordered_as if piece.number else "" for piece in pieces}) > 1:
        raise BadInput("positions", "left and right are different parts: fit them one after the other")
    return pieces


def _set_counter(member: Member, fitting: uuid.UUID, piece: Piece, shown: float | None) -> None:
    """The machine's counter as read at fitting. Raises BadInput with field ``counter`` for one that runs back or cannot be."""
    if shown is None:
        return
    reading = uuid.uuid5(fitting, "counter")
    try:
        counting.record(member, piece.machine, reading, shown, timezone.now(), CounterReading.Source.FITTING)
    except BadInput as problem:
        raise BadInput("counter", problem.message) from None
