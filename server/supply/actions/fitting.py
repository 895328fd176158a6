"""Fitting a part: it leaves the shelf, and the wear history of its position starts anew."""

import uuid
from collections.abc import Sequence

from django.utils import timezone

from fleet.actions import counting, fitments
from fleet.models import CounterReading, Fitment
from lumvek_core.errors import BadInput
from shops.access import Conflict
from shops.models import Member
from shops.rights import action

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
    at_places = [(piece.position, piece.quantity) for piece in pieces]
    made = fitments.put_in(member, fitting, machine, pieces[0].slot, number.ordered_as, at_places)
    quantity = sum(piece.quantity for piece in pieces)
    stocking.move(member, fitting, number.ordered_as, place, -quantity, Movement.Reason.FITTED, machine.name)
    return made


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
