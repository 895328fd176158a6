"""Suppliers, what they said of prices and stock, and asking their desks."""

import uuid
from collections.abc import Iterator, Mapping, Sequence
from decimal import Decimal
from functools import partial
from typing import Any

from django.conf import settings
from django.db import transaction
from django.utils import timezone

from lumvek_core import opening_hours
from lumvek_core.counted import counted
from lumvek_core.errors import BadInput
from outside import inquiries
from outside.mails import is_address
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action
from tabular.streamed import Step
from tabular.tables import Table, TableLine, amount_in, number_in, table_rows, whole_in

from .. import desk
from ..models import Offer, Supplier
from ..queries import net_requirements
from .parts_log import log_columns, log_parts

BATCH = 1000
"""Lines that are stored at once."""
LONGEST_NUMBER = 40
SAID = ("number", "unit_price", "pack", "stock", "p_stock", "restock_days", "status")
"""What is kept of what a supplier says of a number."""


@action("take prices", atomic=False)
def read_offers(member: Member, supplier: Supplier, text: str, *, dry: bool) -> Iterator[Step | Table]:
    """Take a supplier's prices, stock and chances from a table, telling how far it is. Nothing is taken unless every line can
    be; what is taken is stored a batch at a time, and the same file again goes on where one broke off.
    """
    rows = list(table_rows(text, ("number", "unit_price")))
    found, offers = Table(), []
    for done, (at, row) in enumerate(rows):
        if done % BATCH == 0:
            yield Step("Reading", done, len(rows))
        if not row.get("number") or not row.get("unit_price"):
            continue
        try:
            offers.append(_offer(row))
            found.lines.append(TableLine(at, "taken", f"{row['number']} at {offers[-1]['unit_price']}"))
        except BadInput as problem:
            found.lines.append(TableLine(at, "refused", f"{problem.field}: {problem.message}"))
    if not dry and not found.count("refused"):
        for first in range(0, len(offers), BATCH):
            yield Step("Taking", first, len(offers))
            keep_offers(supplier, offers[first : first + BATCH], "file")
        log_parts(member, f"Supplier {supplier.name}", "", f"{counted(len(offers), 'price')} from a file")
    yield found


def _offer(row: dict[str, str]) -> dict[str, Any]:
    restock = row.get("restock_days", "")
    if len(row["number"]) > LONGEST_NUMBER:
        raise BadInput("number", f"is longer than {LONGEST_NUMBER} characters")
    return {
        "number": row["number"],
        "unit_price": amount_in(row["unit_price"], "unit_price"),
        "pack": whole_in(row.get("pack") or "1", "pack", 1, 1000),
        "stock": whole_in(row.get("stock") or "0", "stock", 0, 1_000_000),
        "p_stock": number_in(row.get("chance") or "1", "chance", 0, 1),
        "restock_days": whole_in(restock, "restock_days", 0, 365) if restock else None,
        "status": "scarce" if row.get("status") == "scarce" else "supported",
    }


@action("ask suppliers", atomic=False)
def ask_desks(member: Member, inquiry: uuid.UUID) -> None:
    """Ask every supplier with a desk for price and stock of the whole list, and keep what it says; nobody waits for them."""
    inquiries.ask(member.pk, inquiry, partial(_ask_desks, member))


def _ask_desks(member: Member) -> list[inquiries.Told]:
    numbers = [line.number for line in net_requirements.build(member, timezone.now()).lines if line.number]
    answers = []
    silent = ""
    for supplier in Supplier.objects.of(member).exclude(desk=""):
        try:
            if silent:
                raise desk.DeskAway(silent)  # it is one desk: nobody waits for it once for each supplier
            offers = [one.model_dump() for one in desk.quote(supplier.desk, numbers)]
        except desk.DeskSaysNo as problem:
            answers.append(inquiries.Told(supplier.name, trouble=str(problem)))
            continue
        except desk.DeskAway as problem:
            silent = "" if isinstance(problem, desk.DeskOdd) else str(problem)
            answers.append(inquiries.Told(supplier.name, trouble=str(problem)))
            continue
        keep_offers(supplier, offers, "desk", numbers)
        answers.append(inquiries.Told(supplier.name, f"has {len(offers)} of the list"))
    return answers


@transaction.atomic
def keep_offers(supplier: Supplier, offers: Sequence[dict[str, Any]], source: str, asked: Sequence[str] = ()) -> None:
    """Keep what a supplier said; numbers that were asked for and that it does not have are forgotten."""
    said = {offer["number"] for offer in offers}
    supplier.offers.filter(number__in=[number for number in asked if number not in said]).delete()
    now = timezone.now()
    rows = [
        Offer(supplier=supplier, source=source, at=now, **{**offer, "unit_price": Decimal(str(offer["unit_price"]))})
        for offer in offers
    ]
    Offer.objects.bulk_create(rows, update_conflicts=True, update_fields=[*SAID[1:], "source", "at"])


@action("change suppliers")
def set_supplier(member: Member, supplier_id: int | None, key: uuid.UUID | None, values: Mapping[str, Any]) -> None:
    """Enter a supplier under a UUID, or change one. The same UUID twice is one supplier.

    Raises BadInput with the field, NotFoundHere.
    """
    if values["email"] and not is_address(values["email"]):
        raise BadInput("email", "is no e-mail address")
    names = [way["name"] for way in values["deliveries"]]
    if "fetch" in names or len(set(names)) < len(names):
        raise BadInput("deliveries", "each delivery needs a name of its own, and none is called fetch")
    mine = Supplier.objects.of(member)
    there = mine.filter(pk=supplier_id).first() if supplier_id else mine.filter(uuid=key, uuid__isnull=False).first()
    if supplier_id and there is None:
        raise NotFoundHere("There is no such supplier.")
    if mine.filter(name=values["name"]).exclude(pk=there.pk if there else 0).exists():
        raise BadInput("name", "there is a supplier of that name")
    if there is None and Supplier.objects.filter(uuid=key, uuid__isnull=False).exists():
        raise BadInput("uuid", "belongs to another supplier")
    before = _columns(there) if there else {}
    kept = there or Supplier(shop_id=member.shop_id, uuid=key)
    for column, value in values.items():
        setattr(kept, column, value)
    kept.save()
    if there is None:
        return log_parts(member, f"Supplier {kept.name}", "", "entered")
    log_columns(member, f"Supplier {before['name']}", before, _columns(kept))


def _columns(supplier: Supplier) -> dict[str, object]:
    ways = (
        f"{way['name']} in {way['lead_days']} {'working d' if way['working'] else 'd'}"
        f"{' if ordered by ' + way['cutoff'] if way['cutoff'] else ''} for {way['price']:g}"
        for way in supplier.deliveries
    )
    return {
        "name": supplier.name,
        "e-mail": supplier.email,
        "distance, km": supplier.distance_km,
        "travel, min": supplier.travel_min,
        "at the counter, min": supplier.counter_min,
        "a call, min": supplier.call_min,
        "open": opening_hours.shown(supplier.openings),
        "closed on": ", ".join(supplier.closed),
        "sends by": "; ".join(ways),
    }


@action("switch the simulated desk", atomic=False)
def switch_desk(member: Member, mode: str) -> None:
    """Make the simulated desk slow, deaf or silent. There is no such switch where the product serves. Raises NotFoundHere."""
    if settings.MODE == "serve" or not settings.DESK_URL:
        raise NotFoundHere("There is no simulated desk here.")
    desk.behave(mode)
