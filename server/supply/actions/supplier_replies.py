"""What a supplier without a desk answers, read from the order's own sheet."""

import datetime as dt
import uuid
from typing import Any

from django.utils import timezone

from lumvek_core.errors import BadInput
from shops.access import Conflict
from shops.models import Member
from shops.rights import action
from tabular.tables import Table, TableLine, amount_in, table_rows, whole_in

from ..models import Order, OrderLine
from ..queries import orders
from . import stocking

MOST = 2000
"""Lines of one answer: they are taken all at once, or none."""


@action("order")
def read_file(member: Member, order_uuid: uuid.UUID, text: str, *, dry: bool) -> Table:
    """Take pieces put aside, days and prices into an order that went out by hand. Nothing is taken unless every line can be.

    Raises BadInput, Conflict, NotFoundHere.
    """
    stocking.lock_supply(member)
    order = Order.objects.select_for_update().get(pk=orders.order_of(member, order_uuid).pk)
    if order.state != Order.State.BY_HAND:
        raise Conflict("Only an order that went out by hand is answered by a file.")
    lines = {line.number: line for line in order.lines.all()}
    found, said = Table(), []
    for at, row in table_rows(text, ("number", "accepted"), MOST):
        if not row.get("number") or not row.get("accepted"):
            continue
        try:
            line = _line(lines, row)
            said.append(line)
            found.lines.append(TableLine(at, "taken", f"{line.number}: {line.accepted} put aside, {line.follows} follow"))
        except BadInput as problem:
            found.lines.append(TableLine(at, "refused", f"{problem.field}: {problem.message}"))
    if dry or found.count("refused") or not said:
        return found
    for line in said:
        line.save(update_fields=["accepted", "follows", "promised", "follows_on", "unit_price"])
    got, wanted = sum(line.accepted for line in lines.values()), sum(line.quantity for line in lines.values())
    order.state = Order.State.ACCEPTED if got == wanted else Order.State.SHORT
    order.answered_at = timezone.now()
    order.save(update_fields=["state", "answered_at"])
    return found


def _line(lines: dict[str, OrderLine], row: dict[str, Any]) -> OrderLine:
    line = lines.get(row["number"])
    if line is None:
        raise BadInput("number", f"{row['number']} is not in this order")
    line.accepted = whole_in(row["accepted"], "accepted", line.received, line.quantity)
    line.follows = whole_in(row.get("follows") or "0", "follows", 0, line.quantity - line.accepted)
    line.promised, line.follows_on = _day(row, "promised"), _day(row, "follows_on")
    if row.get("unit_price"):
        line.unit_price = amount_in(row["unit_price"], "unit_price")
    return line


def _day(row: dict[str, Any], name: str) -> dt.date | None:
    if not row.get(name):
        return None
    try:
        return dt.date.fromisoformat(row[name][:10])
    except ValueError:
        raise BadInput(name, "must be a day such as 2026-12-01") from None
