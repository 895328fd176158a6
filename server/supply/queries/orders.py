"""Orders and what is still to come of them."""

import uuid

from django.db.models import Case, Exists, F, OuterRef, Q, QuerySet, Value, When

from shops.access import NotFoundHere
from shops.models import Member

from ..models import Order, OrderLine
from ..schemas_orders import OrdersAsked
from . import net_requirements

OPEN = (Order.State.TO_SEND, Order.State.ACCEPTED, Order.State.SHORT, Order.State.BY_HAND)


def order_of(member: Member, order: uuid.UUID) -> Order:
    """One order of the member's shop. Raises NotFoundHere."""
    found = Order.objects.select_related("supplier", "by").of(member).filter(uuid=order).first()
    if found is None:
        raise NotFoundHere("There is no such order.")
    return found


def asked_for(member: Member, asked: OrdersAsked) -> "QuerySet[Order]":
    """Orders as they are asked for: what nobody has confirmed stands first, then what is short, then what is to come."""
    lines = OrderLine.objects.filter(order=OuterRef("pk"))
    unconfirmed = Q(state__in=(Order.State.TO_SEND, Order.State.BY_HAND))
    found = (
        Order.objects.of(member)
        .select_related("supplier", "by")
        .prefetch_related("lines")
        .annotate(
            waits=Case(
                When(state=Order.State.CANCELLED, then=Value(False)),
                When(unconfirmed, then=Exists(lines.filter(quantity__gt=F("received")))),
                default=Exists(lines.filter(received__lt=F("accepted") + F("follows"))),
            ),
            pressing=Case(
                When(state=Order.State.TO_SEND, then=0),
                When(Q(waits=True) & Exists(lines.filter(follows__gt=0)), then=1),
                When(waits=True, then=2),
                default=3,
            ),
        )
    )
    if asked.state:
        found = found.filter(waits=True) if asked.state == "open" else found.filter(state=asked.state)
    if asked.supplier is not None:
        found = found.filter(supplier=asked.supplier)
    for word in asked.words():
        part = lines.filter(Q(number__icontains=word) | Q(name__icontains=word))
        found = found.filter(Q(supplier__name__icontains=word) | Q(reference__icontains=word) | Exists(part))
    return found.order_by(*{"pressing": ("pressing", "-id"), "newest": ("-id",), "day": ("run_date", "-id")}[asked.order])


def called(line: net_requirements.Line) -> str:
    """A part with its hand."""
    return f"{line.name}, {line.side}" if line.side else line.name


def _waiting(member: Member, number: str) -> list[OrderLine]:
    """Lines of open orders for a number, the oldest first."""
    lines = OrderLine.objects.of(member).filter(order__state__in=OPEN, number__iexact=number.strip())
    return list(lines.select_related("order").order_by("order__id"))


def expected(member: Member, number: str) -> int:
    """Pieces of a number that are still to come."""
    return sum(to_come(line, line.order.state) for line in _waiting(member, number))


def to_come(line: OrderLine, state: str) -> int:
    """Pieces of an order's line that are still expected."""
    if state == Order.State.CANCELLED:
        return 0
    expected = line.quantity if state in (Order.State.TO_SEND, Order.State.BY_HAND) else line.accepted + line.follows
    return max(0, expected - line.received)
