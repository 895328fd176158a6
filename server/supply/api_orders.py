"""Endpoints of orders, receiving and fitting."""

from uuid import UUID

from django.http import HttpRequest
from ninja import File, Form, Query, Router, UploadedFile

from shops.access import member_of
from shops.endpoints import allowed
from tabular import sheets
from tabular.schemas import TableReportOut

from . import mail
from .actions import fitting, ordering, sending, supplier_replies
from .api import SEE_ALL
from .queries import orders, serializers, serializers_orders
from .schemas import NeedsAsked, NeedsOut
from .schemas_orders import (
    ByWordIn,
    DropRestIn,
    FitIn,
    MailOut,
    OrderKindIn,
    OrderOut,
    OrdersAsked,
    OrdersOut,
    ReceivedOut,
    ReceiveIn,
)

router = Router(tags=["orders"])


@router.get("/orders", response=OrdersOut, **allowed(SEE_ALL))
def listed(request: HttpRequest, asked: Query[OrdersAsked]) -> OrdersOut:
    """A page of the orders, those that want something done first."""
    return serializers_orders.listed(member_of(request), asked)


@router.get("/orders/{uuid:order_id}", response=OrderOut, **allowed(SEE_ALL))
def one_order(request: HttpRequest, order_id: UUID) -> OrderOut:
    """One order with its lines."""
    return serializers_orders.order(orders.order_of(member_of(request), order_id))


@router.post("/plans/{uuid:plan_id}/orders", response=OrdersOut, **allowed(sending.place))
def place(request: HttpRequest, plan_id: UUID, new: OrderKindIn) -> OrdersOut:
    """Order what a plan says. Pressed twice, or by two people, it is ordered once."""
    sending.place(member_of(request), plan_id, new.kind)
    return serializers_orders.listed(member_of(request), OrdersAsked(order="newest"))


@router.post("/orders/{uuid:order_id}/send", response=OrderOut, **allowed(sending.send))
def send(request: HttpRequest, order_id: UUID) -> OrderOut:
    """Ask the desk again about an order that nobody has confirmed."""
    sending.send(member_of(request), order_id)
    return one_order(request, order_id)


@router.post("/orders/{uuid:order_id}/by-hand", response=OrderOut, **allowed(sending.sent_by_hand))
def by_hand(request: HttpRequest, order_id: UUID) -> OrderOut:
    """Say that an order went out by telephone."""
    sending.sent_by_hand(member_of(request), order_id)
    return one_order(request, order_id)


@router.post("/orders/{uuid:order_id}/take-back", response=OrderOut, **allowed(ordering.cancel))
def take_back_order(request: HttpRequest, order_id: UUID) -> OrderOut:
    """Take back an order that has not been sent."""
    ordering.cancel(member_of(request), order_id)
    return one_order(request, order_id)


@router.get("/orders/{uuid:order_id}/mail", response=MailOut, **allowed(SEE_ALL))
def order_text(request: HttpRequest, order_id: UUID) -> MailOut:
    """The text of an order."""
    member = member_of(request)
    return MailOut.model_validate(vars(mail.letter(member, orders.order_of(member, order_id))))


@router.post("/orders/{uuid:order_id}/mail", response=OrderOut, **allowed(sending.send_by_mail))
def send_mail(request: HttpRequest, order_id: UUID) -> OrderOut:
    """Send the text of an order by e-mail. It is under way then; what nobody has confirmed counts as sent by hand once the mail
    server has taken it."""
    sending.send_by_mail(member_of(request), order_id)
    return one_order(request, order_id)


@router.post("/orders/{uuid:order_id}/drop-rest", response=OrderOut, **allowed(ordering.drop_rest))
def drop_rest(request: HttpRequest, order_id: UUID, new: DropRestIn) -> OrderOut:
    """Do not wait for what would follow: it goes back on the list."""
    ordering.drop_rest(member_of(request), order_id, new.number)
    return one_order(request, order_id)


@router.post("/orders/{uuid:order_id}/answer-file", response=TableReportOut, **allowed(supplier_replies.read_file))
def answer_file(request: HttpRequest, order_id: UUID, file: File[UploadedFile], dry: Form[bool] = True) -> TableReportOut:
    """What a supplier has put aside, promises and charges, from CSV or XLSX. dry: only say what each line would do."""
    text = sheets.uploaded(file)
    return TableReportOut.of(supplier_replies.read_file(member_of(request), order_id, text, dry=dry), dry=dry)


@router.post("/by-word", response=NeedsOut, **allowed(ordering.by_word))
def by_word(request: HttpRequest, new: ByWordIn, asked: Query[NeedsAsked]) -> NeedsOut:
    """Keep an order that somebody gave by word, or what was bought over the counter. The same UUID twice is one order."""
    member = member_of(request)
    said = ordering.ByWord(new.number, new.supplier, new.way, new.quantity, new.price, new.promised, new.here)
    ordering.by_word(member, new.uuid, said)
    return serializers.needs(member, asked)


@router.post("/receive", response=ReceivedOut, **allowed(ordering.receive))
def receive(request: HttpRequest, new: ReceiveIn) -> ReceivedOut:
    """Put on the shelf what came in, by its number. The same UUID twice is received once."""
    member = member_of(request)
    quantity = new.quantity if new.quantity is not None else orders.expected(member, new.number)
    return serializers_orders.received(member, new.uuid, ordering.receive(member, new.uuid, new.number, quantity), quantity)


@router.post("/fit", response=NeedsOut, **allowed(fitting.fit))
def fit(request: HttpRequest, new: FitIn) -> NeedsOut:
    """Fit pieces: they leave the shelf, and the wear history of their positions starts anew."""
    member = member_of(request)
    fitting.fit(member, new.uuid, new.walk_around, new.slot, new.positions, new.counter, new.place)
    return serializers.needs(member, NeedsAsked(whole=True))
