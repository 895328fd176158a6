"""Endpoints of orders, receiving and fitting."""

from uuid import UUID

from django.http import HttpRequest
from ninja import File, Form, Router, UploadedFile

from lumvek_core.errors import BadInput
from shops.access import member_of, only
from shops.models import Member
from tabular import sheets

from . import mail
from .actions import fitting, orders, supplier_replies
from .api import BUYERS, buyer, plan_or_nothing, reader
from .models import StockItem
from .queries import serializers, serializers_orders
from .schemas import NeedsOut, PartsTableOut
from .schemas_orders import DropRestIn, FitIn, MailOut, OrderKindIn, OrdersOut, ReceivedOut, ReceiveIn

ordering = Router(tags=["orders"])


@ordering.get("/orders", response=OrdersOut)
def listed(request: HttpRequest) -> OrdersOut:
    """Every order, the newest first."""
    return serializers_orders.all_orders(reader(request))


@ordering.post("/plans/{uuid:plan_id}/orders", response=OrdersOut)
def place(request: HttpRequest, plan_id: UUID, new: OrderKindIn) -> OrdersOut:
    """Order what a plan says. Pressed twice, or by two people, it is ordered once."""
    member = member_of(request)
    plan_or_nothing(member, plan_id)
    only(member, BUYERS, "order")
    for order in orders.make(member, plan_id, new.kind):
        if orders.send(member, order.uuid).unanswered:
            break  # the desk is away: the others stay unsent, and nobody waits for each of them in turn
    return serializers_orders.all_orders(member)


@ordering.post("/orders/{uuid:order_id}/send", response=OrdersOut)
def send(request: HttpRequest, order_id: UUID) -> OrdersOut:
    """Ask the desk again about an order that nobody has confirmed."""
    member = _of(request, order_id, "order")
    orders.send(member, order_id)
    return serializers_orders.all_orders(member)


@ordering.post("/orders/{uuid:order_id}/by-hand", response=OrdersOut)
def by_hand(request: HttpRequest, order_id: UUID) -> OrdersOut:
    """Say that an order went out by telephone."""
    member = _of(request, order_id, "order")
    orders.sent_by_hand(member, order_id)
    return serializers_orders.all_orders(member)


@ordering.post("/orders/{uuid:order_id}/take-back", response=OrdersOut)
def take_back_order(request: HttpRequest, order_id: UUID) -> OrdersOut:
    """Take back an order that has not been sent."""
    member = _of(request, order_id, "order")
    orders.cancel(member, order_id)
    return serializers_orders.all_orders(member)


@ordering.get("/orders/{uuid:order_id}/mail", response=MailOut)
def order_text(request: HttpRequest, order_id: UUID) -> MailOut:
    """The text of an order."""
    member = _of(request, order_id)
    return MailOut.model_validate(vars(mail.letter(member, orders.order_of(member, order_id))))


@ordering.post("/orders/{uuid:order_id}/mail", response=MailOut)
def send_mail(request: HttpRequest, order_id: UUID) -> MailOut:
    """Send the text of an order by e-mail; what nobody has confirmed counts as sent by hand then."""
    member = _of(request, order_id, "order")
    order = orders.order_of(member, order_id)
    if order.state == order.State.TO_SEND:
        orders.sent_by_hand(member, order_id)
    return MailOut.model_validate(vars(mail.send(member, order)))


@ordering.post("/orders/{uuid:order_id}/drop-rest", response=OrdersOut)
def drop_rest(request: HttpRequest, order_id: UUID, new: DropRestIn) -> OrdersOut:
    """Do not wait for what would follow: it goes back on the list."""
    member = _of(request, order_id, "order")
    orders.drop_rest(member, order_id, new.number)
    return serializers_orders.all_orders(member)


def _of(request: HttpRequest, order_id: UUID, doing: str = "") -> Member:
    member = member_of(request)
    orders.order_of(member, order_id)
    return buyer(request, doing) if doing else reader(request)


@ordering.post("/orders/{uuid:order_id}/answer-file", response=PartsTableOut)
def answer_file(request: HttpRequest, order_id: UUID, file: File[UploadedFile], dry: Form[bool] = True) -> PartsTableOut:
    """What a supplier has put aside, promises and charges, from CSV or XLSX. dry: only say what each line would do."""
    member = _of(request, order_id, "order")
    text = sheets.text_of(file.name or "", file.read(sheets.LARGEST + 1))
    return serializers.table(supplier_replies.read(member, order_id, text, dry=dry), dry)


@ordering.post("/receive", response=ReceivedOut)
def receive(request: HttpRequest, new: ReceiveIn) -> ReceivedOut:
    """Put on the shelf what came in, by its number. The same UUID twice is received once."""
    member = reader(request, "receive parts")
    quantity = new.quantity if new.quantity is not None else orders.expected(member, new.number)
    line = orders.receive(member, new.uuid, new.number, quantity)
    kept = StockItem.objects.filter(shop=member.shop_id, number=line.number).first()
    return ReceivedOut(
        uuid=new.uuid,
        number=line.number,
        name=line.name,
        received=quantity,
        to_come=orders.expected(member, line.number),
        bin=kept.bin if kept else "",
        orders=serializers_orders.all_orders(member),
    )


@ordering.post("/fit", response=NeedsOut)
def fit(request: HttpRequest, new: FitIn) -> NeedsOut:
    """Fit pieces: they leave the shelf, and the wear history of their positions starts anew."""
    member = reader(request, "fit parts")
    if not new.positions:
        raise BadInput("positions", "say where")
    fitting.fit(member, new.uuid, new.walk_around, new.slot, new.positions, new.counter, new.place)
    return serializers.needs(member)
