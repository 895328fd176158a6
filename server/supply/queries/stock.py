"""What lies on shelf and truck: levels are sums of movements."""

from collections.abc import Iterable

from django.db.models import Sum

from lumvek_core import registry
from shops.access import NotFoundHere
from shops.models import Member

from ..models import Movement, StockItem

Levels = dict[str, dict[str, int]]
"""number → place → pieces."""


def levels(shop_id: int, numbers: Iterable[str] | None = None) -> Levels:
    """What lies where. One query."""
    moved = Movement.objects.in_shop(shop_id)
    if numbers is not None:
        moved = moved.filter(number__in=list(numbers))
    found: Levels = {}
    for row in moved.order_by().values("number", "place").annotate(level=Sum("change")):
        found.setdefault(row["number"], {"shelf": 0, "truck": 0})[row["place"]] = row["level"]
    return found


def item(member: Member, number: str) -> StockItem:
    """What the shop keeps under a number. Raises NotFoundHere."""
    stock_item = StockItem.objects.of(member).filter(number=number).first()
    if stock_item is None:
        raise NotFoundHere("There is no such part in stock.")
    return stock_item


def advised(stock_item: StockItem, fitted: int, service: float) -> dict[str, float]:
    """How many to carry: `carry` and `expected` of the core's truck_stock, with what was fitted since added to what was
    before.
    """
    found: dict[str, float] = registry.find("truck_stock").run(
        {
            "events": stock_item.past_events + fitted,
            "hours": stock_item.past_hours,
            "hours_ahead": stock_item.hours_ahead,
            "service": service,
            "prior_hours": stock_item.prior_hours,
        }
    )
    return found
