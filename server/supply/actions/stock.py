"""What lies on shelf and truck: levels are sums of movements, movements are appended once."""

import uuid
from collections.abc import Iterable

from django.db import transaction
from django.db.models import Sum

from lumvek_core import registry
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member

from ..models import Movement, StockItem, StockLocation, Terms

Levels = dict[str, dict[str, int]]
"""number → place → pieces."""


def levels(shop_id: int, numbers: Iterable[str] | None = None) -> Levels:
    """What lies where. One query."""
    moved = Movement.objects.filter(shop=shop_id)
    if numbers is not None:
        moved = moved.filter(number__in=list(numbers))
    found: Levels = {}
    for row in moved.order_by().values("number", "place").annotate(level=Sum("change")):
        found.setdefault(row["number"], {"shelf": 0, "truck": 0})[row["place"]] = row["level"]
    return found


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
    return Terms.objects.select_for_update().get(shop=member.shop_id)


@transaction.atomic
def count(member: Member, movement: uuid.UUID, number: str, place: str, counted: int, note: str = "") -> None:
    """Say how many lie there; the difference is the movement."""
    lock_supply(member)
    item(member, number)
    if place not in StockLocation.values:
        raise BadInput("place", "must be shelf or truck")
    there = levels(member.shop_id, [number]).get(number, {}).get(place, 0)
    move(member, movement, number, place, counted - there, Movement.Reason.COUNTED, note)


@transaction.atomic
def load_truck(member: Member, movement: uuid.UUID, number: str, quantity: int) -> None:
    """From the shelf to the truck, or back with a quantity below 0. Two movements, one thing."""
    lock_supply(member)
    if quantity == 0:
        raise BadInput("quantity", "say how many")
    first, second = (StockLocation.SHELF, StockLocation.TRUCK) if quantity > 0 else (StockLocation.TRUCK, StockLocation.SHELF)
    move(member, movement, number, first, -abs(quantity), Movement.Reason.MOVED)
    move(member, uuid.uuid5(movement, "there"), number, second, abs(quantity), Movement.Reason.MOVED)


@transaction.atomic
def give_back(member: Member, movement: uuid.UUID, number: str, quantity: int, note: str) -> None:
    """Send pieces back to a supplier."""
    lock_supply(member)
    if quantity <= 0:
        raise BadInput("quantity", "must be greater than 0")
    if not note.strip():
        raise BadInput("note", "say why it goes back, and to whom")
    move(member, movement, number, StockLocation.SHELF, -quantity, Movement.Reason.RETURNED, note.strip())


def item(member: Member, number: str) -> StockItem:
    """What the shop keeps under a number. Raises NotFoundHere."""
    found = StockItem.objects.filter(shop=member.shop_id, number=number).first()
    if found is None:
        raise NotFoundHere("There is no such part in stock.")
    return found


def keep(member: Member, number: str, name: str) -> StockItem:
    """The shop's entry for a number, made the first time it comes in."""
    found, _ = StockItem.objects.get_or_create(shop_id=member.shop_id, number=number, defaults={"name": name[:80]})
    return found


def advised(one: StockItem, fitted: int, service: float) -> dict[str, float]:
    """How many to carry: `carry` and `expected` of the core's truck_stock, with what was fitted since added to what was
    before.
    """
    found: dict[str, float] = registry.find("truck_stock").run(
        {
            "events": one.past_events + fitted,
            "hours": one.past_hours,
            "hours_ahead": one.hours_ahead,
            "service": service,
            "prior_hours": one.prior_hours,
        }
    )
    return found
