"""Orders and what is still to come of them."""

import uuid

from shops.access import NotFoundHere
from shops.models import Member

from ..models import Order, OrderLine
from . import net_requirements

OPEN = (Order.State.TO_SEND, Order.State.ACCEPTED, Order.State.SHORT, Order.State.BY_HAND)


def order_of(member: Member, order: uuid.UUID) -> Order:
    """One order of the member's shop. Raises NotFoundHere."""
    found = Order.objects.select_related("supplier", "by").of(member).filter(uuid=order).first()
    if found is None:
        raise NotFoundHere("There is no such order.")
    return found


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
