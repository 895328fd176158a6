"""Orders and stock as the API gives them."""

import uuid
from decimal import Decimal

from django.utils import timezone

from fleet.models import Fitment
from inspection.queries.serializers import full_name
from shops.models import Member
from tabular.paging import page_of_query

from ..models import Movement, Order, OrderLine, StockItem, Supplier
from ..schemas_orders import (
    MovementOut,
    OrderLineOut,
    OrderOut,
    OrdersAsked,
    OrdersOut,
    OrderSupplierOut,
    ReceivedOut,
    StockLineOut,
    StockOut,
)
from . import costs, movements, orders, stock
from .needs import terms_of
from .serializers import money

PAGE = 20
MOVES = 40
"""Movements shown, the newest first."""
ANSWERED = (Order.State.ACCEPTED, Order.State.SHORT, Order.State.REFUSED)


def listed(member: Member, asked: OrdersAsked) -> OrdersOut:
    """A page of orders. The number of queries does not grow with them."""
    found, page = page_of_query(orders.asked_for(member, asked), asked.page, PAGE)
    suppliers = Supplier.objects.of(member).filter(orders__isnull=False).distinct()
    return OrdersOut(
        currency=terms_of(member).currency,
        suppliers=[OrderSupplierOut(id=one.pk, name=one.name) for one in suppliers],
        states={"open": "Something to come"} | {key: str(name) for key, name in Order.State.choices},
        page=page,
        orders=[order(one) for one in found],
    )


def order(order: Order) -> OrderOut:
    now = timezone.now()
    # What needs somebody stands first: what follows or is refused, then what is still to come.
    lines = sorted((order_line(order, line) for line in order.lines.all()), key=_pressing)
    received = bool(lines) and not any(line.to_come for line in lines) and any(line.received for line in lines)
    return OrderOut(
        uuid=order.uuid,
        supplier=order.supplier.name,
        email=order.supplier.email,
        desk=bool(order.supplier.desk),
        way=order.way,
        run_date=order.run_date,
        run_cost=money(order.run_cost),
        state=order.state,
        state_name="Received" if received else Order.State(order.state).label,
        received=received,
        answered=order.state in ANSWERED,
        reference=order.reference,
        trouble=order.trouble,
        tries=order.tries,
        unsent=order.unsent,
        may_drop=order.may_drop,
        under_way=order.under_way(now),
        mail=order.mail_now(now),  # type: ignore[arg-type]
        mail_at=order.mail_at,
        mail_trouble=order.mail_trouble,
        by=full_name(order.by),
        at=order.at,
        parts=_parts(order),
        lines=lines,
        to_come=sum(line.to_come for line in lines),
    )


def _parts(order: Order) -> str:
    """What its parts cost; empty where nobody knows it of one of them."""
    prices = [(line.quantity, line.unit_price) for line in order.lines.all()]
    known = [quantity * price for quantity, price in prices if price is not None]
    return money(sum(known, Decimal(0))) if len(known) == len(prices) else ""


def _pressing(line: OrderLineOut) -> tuple[bool, bool]:
    return not (line.follows or line.refused), not line.to_come


def order_line(order: Order, line: OrderLine) -> OrderLineOut:
    answered = order.state in ANSWERED
    return OrderLineOut(
        number=line.number,
        name=line.name,
        quantity=line.quantity,
        unit_price=money(line.unit_price),
        accepted=line.accepted,
        follows=line.follows,
        refused=line.quantity - line.accepted - line.follows if answered else 0,
        received=line.received,
        to_come=orders.to_come(line, order.state),
        promised=line.promised or (None if answered or order.way in Order.BY_WORD else order.run_date),
        follows_on=line.follows_on,
        serves=line.serves,
    )


def stocked(member: Member) -> StockOut:
    found = terms_of(member)
    levels, prices = stock.levels(member.shop_id), costs.price_list(member.shop_id)
    fitted: dict[str, int] = {}
    for number, quantity in Fitment.objects.of(member).filter(taken_back_at=None).values_list("number", "quantity"):
        fitted[number] = fitted.get(number, 0) + quantity
    items = []
    for one in StockItem.objects.of(member):
        advised = stock.advised(one, fitted.get(one.number, 0), found.service)
        there = levels.get(one.number, {})
        items.append(
            StockLineOut(
                number=one.number,
                name=one.name,
                bin=one.bin,
                shelf=there.get("shelf", 0),
                truck=there.get("truck", 0),
                carry=one.carry,
                advised=int(advised["carry"]),
                expected=advised["expected"],
                events=one.past_events + fitted.get(one.number, 0),
                past_events=one.past_events,
                hours=one.past_hours,
                hours_ahead=one.hours_ahead,
                prior_hours=one.prior_hours,
                price=money(prices.get(one.number)),
            )
        )
    moved = Movement.objects.of(member).select_related("by", "undone_by")[:MOVES]
    return StockOut(
        service=found.service,
        currency=found.currency,
        items=items,
        movements=[movement(one) for one in moved],
    )


def movement(movement: Movement) -> MovementOut:
    return MovementOut(
        uuid=movement.uuid,
        may_take_back=movements.may(movement),
        number=movement.number,
        place=movement.place,
        change=movement.change,
        reason=Movement.Reason(movement.reason).label,
        note=movement.note,
        by=full_name(movement.by),
        at=movement.at,
    )


def received(member: Member, movement: uuid.UUID, line: OrderLine, quantity: int) -> ReceivedOut:
    """What came in just now, where it is kept, and what is still to come of it."""
    kept = StockItem.objects.of(member).filter(number=line.number).first()
    return ReceivedOut(
        uuid=movement,
        number=line.number,
        name=line.name,
        received=quantity,
        to_come=orders.expected(member, line.number),
        bin=kept.bin if kept else "",
    )
