"""Moving what lies on shelf and truck: movements are appended once."""

import uuid
from collections.abc import Mapping
from typing import Any

from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action

from ..models import Movement, StockItem, StockLocation, Terms
from ..queries.stock import item, levels
from .parts_log import log_columns, log_parts


def move(member: Member, movement: uuid.UUID, number: str, place: str, change: int, reason: str, note: str = "") -> Movement:
    """Append a movement; the same UUID twice is one. Call inside a transaction that holds the shop's terms.

    Raises BadInput where a place would hold less than nothing.
    """
    had = Movement.objects.filter(uuid=movement).first()
    if had is not None:
        if had.shop_id != member.shop_id:
            raise NotFoundHere("There is no such movement.")
        return had
    there = levels(member.shop_id, [number]).get(number, {}).get(place, 0)
    if there + change < 0:
        raise BadInput("quantity", f"only {there} on the {place}: receive it first, or count the {place} again")
    return Movement.objects.create(
        uuid=movement,
        shop_id=member.shop_id,
        number=number,
        place=place,
        change=change,
        reason=reason,
        note=note,
        by=member.user,
    )


def lock_supply(member: Member) -> Terms:
    """The shop's terms, held until the transaction ends: whoever moves stock or orders waits for the other."""
    Terms.objects.get_or_create(shop_id=member.shop_id)
    return Terms.objects.select_for_update().of(member).get()


@action("move parts")
def count(member: Member, movement: uuid.UUID, number: str, place: str, counted: int, note: str = "") -> None:
    """Say how many lie there; the difference is the movement."""
    lock_supply(member)
    item(member, number)
    if place not in StockLocation.values:
        raise BadInput("place", "must be shelf or truck")
    there = levels(member.shop_id, [number]).get(number, {}).get(place, 0)
    move(member, movement, number, place, counted - there, Movement.Reason.COUNTED, note)


@action("move parts")
def load_truck(member: Member, movement: uuid.UUID, number: str, quantity: int) -> None:
    """From the shelf to the truck, or back with a quantity below 0. Two movements, one thing."""
    lock_supply(member)
    if quantity == 0:
        raise BadInput("quantity", "say how many")
    first, second = (StockLocation.SHELF, StockLocation.TRUCK) if quantity > 0 else (StockLocation.TRUCK, StockLocation.SHELF)
    move(member, movement, number, first, -abs(quantity), Movement.Reason.MOVED)
    move(member, uuid.uuid5(movement, "there"), number, second, abs(quantity), Movement.Reason.MOVED)


@action("move parts")
def give_back(member: Member, movement: uuid.UUID, number: str, quantity: int, note: str) -> None:
    """Send pieces back to a supplier."""
    lock_supply(member)
    if quantity <= 0:
        raise BadInput("quantity", "must be greater than 0")
    if not note.strip():
        raise BadInput("note", "say why it goes back, and to whom")
    move(member, movement, number, StockLocation.SHELF, -quantity, Movement.Reason.RETURNED, note.strip())


@action("move parts")
def keep_item(member: Member, number: str, values: Mapping[str, Any]) -> None:
    """Keep a part in stock, or change its name, bin and what the truck should carry."""
    there = StockItem.objects.of(member).filter(number=number.strip()).first()
    kept, _ = StockItem.objects.update_or_create(shop_id=member.shop_id, number=number.strip(), defaults=dict(values))
    if there is None:
        return log_parts(member, f"Stock of {kept.number}", "", f"kept: {kept.name}")
    log_columns(member, f"Stock of {kept.number}", _columns(there), _columns(kept))


def _columns(item: StockItem) -> dict[str, object]:
    return {
        "name": item.name,
        "bin": item.bin,
        "the truck carries": item.carry,
        "failed before": item.past_events,
        "in hours × places": item.past_hours,
        "hours × places ahead": item.hours_ahead,
        "hours × places that the guess counts for": item.prior_hours,
    }


def keep(member: Member, number: str, name: str) -> StockItem:
    """The shop's entry for a number, made the first time it comes in."""
    found, _ = StockItem.objects.get_or_create(shop_id=member.shop_id, number=number, defaults={"name": name[:80]})
    return found
