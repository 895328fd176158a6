"""Orders: made once from a plan, taken back before they leave the house, received piece by piece. Sending is in `sending`.

Two people cannot order the same: whoever makes orders holds the shop's terms, and what is needed is counted again under that
hold. An order is on record before it is sent, under the key the desk knows it by: it may be sent again at any time.
"""

import datetime as dt
import uuid
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from math import ceil
from typing import Any

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from lumvek_core.errors import BadInput
from shops.access import Conflict, kept_already
from shops.models import Member
from shops.rights import action
from tabular.tables import amount_in

from .. import desk
from ..models import Movement, Order, OrderLine, Plan, StockLocation, Supplier
from ..queries import net_requirements, sourcing
from ..queries.orders import _waiting, called, order_of, to_come
from . import stocking


@action("order")
def make(member: Member, plan_uuid: uuid.UUID, kind: str) -> list[Order]:
    """Orders of a plan, one a supplier and way. Pressed twice, they are made once. Raises NotFoundHere, BadInput, Conflict.

    Conflict where somebody ordered part of it meanwhile, or a finding was taken back: then it must be planned again.
    """
    stocking.lock_supply(member)
    plan = sourcing.plan_of(member, plan_uuid)
    if plan.ordered_kind:
        return list(plan.orders.all())
    chosen = next((one for one in plan.answer["plans"] if one["kind"] == kind), None)
    if chosen is None:
        raise BadInput("kind", "must be cheapest, surest or quickest")
    if not chosen["lines"]:
        raise BadInput("kind", "there is nothing in this plan to order")
    now_needed = {line.number: line for line in net_requirements.build(member, timezone.now()).lines if line.number}
    for one in chosen["lines"]:
        asked = next(line["qty"] for line in plan.asked["lines"] if line["id"] == one["id"])
        line = now_needed.get(one["id"])
        if line is None or line.net < asked:
            left = line.net if line else 0
            raise Conflict(
                f"{line.name if line else one['id']}: {left} needed now, and the plan has {asked:g}. It was ordered or "
                "taken back meanwhile; plan again."
            )
    made = [_order(member, plan, run, chosen["lines"], now_needed) for run in _runs(chosen)]
    plan.ordered_kind = kind
    plan.save(update_fields=["ordered_kind"])
    return made


def _runs(chosen: dict[str, Any]) -> list[tuple[str, str, str, float, list[str]]]:
    """Supplier, way, day it is here, cost and lines of every trip and delivery."""
    trips = [(trip["supplier"], "fetch", trip["date"], trip["cost"], trip["lines"]) for trip in chosen["trips"]]
    return trips + [(one["supplier"], one["way"], one["arrives"], one["cost"], one["lines"]) for one in chosen["deliveries"]]


def _order(
    member: Member,
    plan: Plan,
    run: tuple[str, str, str, float, list[str]],
    lines: Sequence[dict[str, Any]],
    listed: dict[str, net_requirements.Line],
) -> Order:
    supplier_name, way, day, cost, ids = run
    supplier = Supplier.objects.of(member).filter(name=supplier_name).first()
    if supplier is None:
        raise Conflict(f"{supplier_name} is no longer among the suppliers; plan again.")
    order = Order.objects.create(
        # Made from the plan, so that it is the same however often it is asked for.
        uuid=uuid.uuid5(plan.uuid, f"{supplier_name}:{way}:{day}"),
        shop_id=member.shop_id,
        supplier=supplier,
        plan=plan,
        way=way,
        run_date=dt.date.fromisoformat(day),
        run_cost=Decimal(str(round(cost, 2))),
        by=member.user,
    )
    # The prices the plan was chosen by, whatever the supplier has said since.
    prices = {one["part"]: Decimal(str(one["unit_price"])) for one in plan.asked["offers"] if one["supplier"] == supplier_name}
    OrderLine.objects.bulk_create(
        OrderLine(
            order=order,
            number=one["id"],
            name=called(listed[one["id"]]),
            quantity=ceil(one["quantity"]),
            unit_price=prices[one["id"]],
            serves=listed[one["id"]].serves(),
        )
        for one in lines
        if one["id"] in ids
    )
    return order


@dataclass(frozen=True)
class ByWord:
    """What was ordered by word. supplier: its name, known or new; way: one of `Order.BY_WORD`; price: of one piece, as typed,
    empty where nobody knows; promised: None: no day was named. here: it was bought and is here."""

    number: str
    supplier: str
    way: str
    quantity: int
    price: str = ""
    promised: dt.date | None = None
    here: bool = False


@action("order")
def by_word(member: Member, order_uuid: uuid.UUID, new: ByWord) -> None:
    """Keep an order that somebody gave by telephone, at the counter or on the supplier's site, with what was said of price and
    day; what is here already is put on the shelf. The same UUID twice is ordered once. Raises BadInput (``number``,
    ``supplier``, ``price``).
    """
    stocking.lock_supply(member)
    if kept_already(member, Order, order_uuid):
        return
    number = new.number.strip()
    line = next((one for one in net_requirements.build(member, timezone.now()).lines if one.number == number), None)
    if line is None:
        raise BadInput("number", "is on no machine's list")
    name = new.supplier.strip()
    if not name:
        raise BadInput("supplier", "say where it was ordered")
    price = amount_in(new.price, "price") if new.price.strip() else None
    supplier = Supplier.objects.of(member).filter(name__iexact=name).first()
    supplier = supplier or Supplier.objects.create(shop_id=member.shop_id, name=name)
    order = Order.objects.create(
        uuid=order_uuid,
        shop_id=member.shop_id,
        supplier=supplier,
        way=new.way,
        run_date=new.promised or timezone.localdate(),
        state=Order.State.BY_HAND,
        by=member.user,
    )
    OrderLine.objects.create(
        order=order,
        number=number,
        name=called(line),
        quantity=new.quantity,
        unit_price=price,
        promised=new.promised,
        serves=line.serves(),
    )
    if new.here:
        receive(member, uuid.uuid5(order_uuid, "here"), number, new.quantity, order)


@action("order")
def cancel(member: Member, order_uuid: uuid.UUID) -> None:
    """Take back an order that has not been sent, or that was given by word: its parts are needed again. Raises Conflict once
    it may have left the house, or something of it has come.
    """
    stocking.lock_supply(member)
    order = Order.objects.select_for_update().get(pk=order_of(member, order_uuid).pk)
    if order.state == Order.State.CANCELLED:
        return
    if not order.may_drop:
        raise Conflict("This order has been sent: call the supplier to take it back.")
    unsent = " before it was sent" if order.unsent else ""
    order.state = Order.State.CANCELLED
    order.answered_at = timezone.now()
    order.trouble = f"Taken back by {member.name}{unsent}."[:200]
    order.save(update_fields=["state", "answered_at", "trouble"])


@action("order", atomic=False)
def drop_rest(member: Member, order_uuid: uuid.UUID, number: str) -> None:
    """Do not wait for what would follow of one number: it is needed again, and can be had elsewhere. Raises BadInput,
    Conflict.
    """
    order = order_of(member, order_uuid)
    line = order.lines.filter(number=number).first()
    if line is None:
        raise BadInput("number", "is not in this order")
    if order.supplier.desk:
        try:
            desk.drop_rest(order.uuid, number)
        except desk.DeskAway as problem:
            raise Conflict(f"{problem} Nothing was changed; try again when it does.") from None
        except desk.DeskSaysNo as problem:
            raise Conflict(str(problem)) from None
    with transaction.atomic():
        stocking.lock_supply(member)
        held = OrderLine.objects.select_for_update().get(pk=line.pk)
        # Pieces that came in as the rest stay received.
        held.follows = max(0, held.received - held.accepted)
        held.follows_on = None
        held.save(update_fields=["follows", "follows_on"])


@action("receive parts")
def receive(member: Member, movement: uuid.UUID, number: str, quantity: int, order: Order | None = None) -> OrderLine:
    """Put what came in on the shelf, against the oldest order that waits for it, or against this one. Returns the line it was
    received for.

    The same UUID twice is received once. Raises BadInput with field ``number`` or ``quantity``.
    """
    stocking.lock_supply(member)
    lines = [line for line in _waiting(member, number) if order is None or line.order_id == order.pk]
    if not lines:
        raise BadInput("number", f"nothing called {number.strip() or 'that'} is on order")
    if Movement.objects.of(member).filter(uuid=movement).exists():
        return lines[0]
    left = sum(to_come(line, line.order.state) for line in lines)
    if not 0 < quantity <= left:
        raise BadInput("quantity", f"{left} still to come" if left else "all of it has been received")
    rest, of = quantity, []
    for line in lines:
        if took := min(rest, to_come(line, line.order.state)):
            OrderLine.objects.filter(pk=line.pk).update(received=F("received") + took)
            rest -= took
            of.append(line.order.reference or str(line.order.uuid)[:8])
    stocking.keep(member, lines[0].number, lines[0].name)
    note = f"order {', '.join(of)}"
    stocking.move(member, movement, lines[0].number, StockLocation.SHELF, quantity, Movement.Reason.RECEIVED, note)
    return lines[0]


def send_away(member: Member, number: str, quantity: int) -> None:
    """What was received by mistake is still to come: off the newest orders that have received any.

    Call inside a transaction that holds the shop's terms.
    """
    received = OrderLine.objects.of(member).filter(number=number, received__gt=0).order_by("-order__id")
    for line in received:
        took = min(quantity, line.received)
        OrderLine.objects.filter(pk=line.pk).update(received=F("received") - took)
        quantity -= took
