"""Orders on their way to somebody outside. Their state changes when the desk or the mail server has taken them, and not before.

Nobody waits for the answer: what is asked of the desk or given to the mail server is done beside, and the order says that it is
under way. Whatever happens on the way, the order stays one order.
"""

import datetime as dt
import uuid
from collections.abc import Sequence
from functools import partial
from typing import Any

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from lumvek_core.errors import BadInput
from outside import background, mails
from shops.access import Conflict
from shops.models import Member
from shops.rights import action

from .. import desk, mail
from ..models import Order
from ..queries import needs, sourcing
from ..queries.orders import order_of
from . import stocking
from .ordering import make


@action("order", atomic=False)
def place(member: Member, plan_uuid: uuid.UUID, kind: str) -> None:
    """Make the orders of a plan, and ask the desks for them. Raises NotFoundHere, BadInput, Conflict."""
    orders = make(member, plan_uuid, kind)
    asked_on = sourcing.clock(needs.terms_of(member)).date()
    to_ask = [one.pk for one in orders if one.supplier.desk and one.unsent]
    # Only said to be under way: none counts as sent before its turn comes.
    Order.objects.filter(pk__in=to_ask, state=Order.State.TO_SEND).update(asking_since=timezone.now())
    background.later(partial(_in_turn, to_ask, asked_on))


def _in_turn(orders: Sequence[int], asked_on: dt.date) -> None:
    """One after the other. Where the desk is away the others stay unsent, and nobody waits for each of them in turn."""
    for one in orders:
        if not _claimed(one):
            continue
        if not _ask_desk(one, asked_on, pressed=False):
            Order.objects.filter(pk__in=orders).update(asking_since=None)
            return


@action("order", atomic=False)
def send(member: Member, order_uuid: uuid.UUID) -> Order:
    """Ask the desk for an order, again if need be, until it has answered. Raises NotFoundHere."""
    order = order_of(member, order_uuid)
    # Claimed before it is sent: whoever says it by telephone at this instant comes before or after, and is told.
    if order.supplier.desk and _claimed(order.pk):
        asked_on = sourcing.clock(needs.terms_of(member)).date()
        background.later(partial(_ask_desk, order.pk, asked_on, pressed=True))
    return order_of(member, order_uuid)


def _claimed(order: int) -> bool:
    """Count the try before it is made. False where nothing is to be asked any more."""
    now = timezone.now()
    open_ = Order.objects.filter(pk=order, state=Order.State.TO_SEND)
    return bool(open_.update(tries=F("tries") + 1, asking_since=now, trouble=""))


def _ask_desk(order_pk: int, asked_on: dt.date, *, pressed: bool) -> bool:
    """Whether the desk answered, with a yes or a no."""
    order = Order.objects.select_related("supplier").get(pk=order_pk)
    lines = list(order.lines.values_list("number", "quantity"))
    open_ = Order.objects.filter(pk=order_pk, state=Order.State.TO_SEND)
    try:
        answer = desk.place(order.supplier.desk, order.uuid, asked_on, order.run_date, order.way, lines, pressed=pressed)
    except desk.DeskAway as problem:
        open_.update(trouble=str(problem)[:200], asking_since=None)
        return False
    except desk.DeskSaysNo as problem:
        open_.update(state=Order.State.REFUSED, trouble=str(problem)[:200], answered_at=timezone.now(), asking_since=None)
        return True
    _answered(order_pk, answer)
    return True


@transaction.atomic
def _answered(order: int, answer: desk.Answer) -> None:
    """Write down what the desk said. The first answer counts; the desk gives the same one again."""
    held = Order.objects.select_for_update().get(pk=order)
    if held.state != Order.State.TO_SEND:
        return
    said = {line.number: line for line in answer.lines}
    for line in held.lines.all():
        one = said.get(line.number) or desk.AnswerLine(number=line.number)
        line.accepted, line.follows = one.accepted, one.follows
        line.promised, line.follows_on = one.promised, one.follows_on
        line.save(update_fields=["accepted", "follows", "promised", "follows_on"])
    held.state, held.reference, held.trouble = answer.state, answer.reference, ""
    held.answered_at, held.asking_since = timezone.now(), None
    held.save(update_fields=["state", "reference", "trouble", "answered_at", "asking_since"])


@action("order")
def sent_by_hand(member: Member, order_uuid: uuid.UUID) -> None:
    """Say that an order went out by e-mail or telephone. Raises Conflict where the desk may have it already."""
    order = _open(member, order_uuid)
    if order is None:
        return
    order.state = Order.State.BY_HAND
    order.answered_at = timezone.now()
    order.save(update_fields=["state", "answered_at"])


def _open(member: Member, order_uuid: uuid.UUID) -> Order | None:
    """An order that may go out some other way than over the desk, held; None where it went out so already. Raises Conflict."""
    stocking.lock_supply(member)
    order = Order.objects.select_for_update().select_related("supplier").get(pk=order_of(member, order_uuid).pk)
    if order.state == Order.State.BY_HAND:
        return None
    if order.state != Order.State.TO_SEND:
        raise Conflict("This order is answered already.")
    if order.under_way(timezone.now()):
        raise Conflict("It is being sent at this moment.")
    if order.supplier.desk and order.tries:
        raise Conflict("It may have reached the desk: ask the desk again before it is sent any other way.")
    return order


@action("order")
def send_by_mail(member: Member, order_uuid: uuid.UUID) -> Order:
    """Give the text of an order to the mail server; what nobody has confirmed counts as sent by hand once that has taken it.

    Raises BadInput, Conflict, NotFoundHere.
    """
    order = order_of(member, order_uuid)
    letter = mail.letter(member, order)
    if not letter.to:
        raise BadInput("email", "this supplier has no e-mail address")
    if not mails.is_address(letter.to):
        raise BadInput("email", f"{letter.to} is no e-mail address: correct it at the supplier")
    stocking.lock_supply(member)
    now = timezone.now()
    order = order_of(member, order_uuid)
    if order.mail_now(now) == Order.Mail.GOING:
        return order
    if order.state == Order.State.CANCELLED:
        raise Conflict("This order was taken back.")
    if order.state == Order.State.TO_SEND:
        _open(member, order_uuid)
    Order.objects.filter(pk=order.pk).update(mail=Order.Mail.GOING, mail_at=now, mail_trouble="")
    background.later(partial(_mail, order.pk, letter))
    return order_of(member, order_uuid)


def _mail(order: int, letter: mail.Letter) -> None:
    headers = {"X-Order": str(Order.objects.values_list("uuid", flat=True).get(pk=order))}
    result: dict[str, Any] = {"mail": Order.Mail.SENT}
    try:
        mails.send(letter.to, letter.subject, letter.text, headers, pressed=True)
    except mails.NotSent as problem:
        result = {"mail": Order.Mail.FAILED, "mail_trouble": str(problem)[:200]}
    except mails.Unsure as problem:
        result = {"mail": Order.Mail.UNSURE, "mail_trouble": str(problem)[:200]}
    with transaction.atomic():
        held = Order.objects.select_for_update().get(pk=order)
        if result["mail"] == Order.Mail.SENT and held.state == Order.State.TO_SEND:
            result |= {"state": Order.State.BY_HAND, "answered_at": timezone.now()}
        Order.objects.filter(pk=order).update(mail_at=timezone.now(), **result)
