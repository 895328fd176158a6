"""Asking suppliers for prices, and working out from whom to get the list."""

import datetime as dt
import json
import uuid
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from decimal import Decimal
from queue import SimpleQueue
from threading import Thread
from typing import Any

from django.db import transaction
from django.utils import timezone

from lumvek_core import structure
from lumvek_core.errors import BadInput
from lumvek_core.planning.sourcing import source
from lumvek_core.planning.sourcing_model import Pin, SourceGiven
from shops.models import Member

from .. import desk
from ..models import Offer, Plan, Supplier, Terms
from . import net_requirements

TIME_LIMIT_S = 5.0


def clock(terms: Terms) -> dt.datetime:
    """Now, on the shop's clock: the day and time it chose to plan from, else the real one."""
    return timezone.localtime(terms.now or timezone.now()).replace(tzinfo=None, second=0, microsecond=0)


@dataclass(frozen=True)
class Asked:
    """What came of asking one supplier. trouble: why it did not answer."""

    supplier: str
    offers: int
    trouble: str = ""


def ask_desks(member: Member) -> list[Asked]:
    """Ask every supplier with a desk for price and stock of the whole list, and keep what it says."""
    numbers = [line.number for line in net_requirements.build(member, timezone.now()).lines if line.number]
    answers = []
    for supplier in Supplier.objects.filter(shop=member.shop_id).exclude(desk=""):
        try:
            offers = desk.quote(supplier.desk, numbers)
        except (desk.DeskAway, desk.DeskSaysNo) as problem:
            answers.append(Asked(supplier.name, 0, str(problem)))
            continue
        keep_offers(supplier, offers, "desk", numbers)
        answers.append(Asked(supplier.name, len(offers)))
    return answers


@transaction.atomic
def keep_offers(supplier: Supplier, offers: Sequence[dict[str, Any]], source: str, asked: Sequence[str] = ()) -> None:
    """Keep what a supplier said; numbers that were asked for and that it does not have are forgotten."""
    said = {offer["number"] for offer in offers}
    supplier.offers.filter(number__in=[number for number in asked if number not in said]).delete()
    for offer in offers:
        values = {**offer, "unit_price": Decimal(str(offer["unit_price"])), "source": source, "at": timezone.now()}
        Offer.objects.update_or_create(supplier=supplier, number=values.pop("number"), defaults=values)


def question(member: Member, pins: Sequence[Pin] = ()) -> SourceGiven:
    """The list as the core's source_parts takes it: what must be ordered, of whom, at which prices. Line ids are the
    numbers.
    """
    parts = net_requirements.build(member, timezone.now())
    terms = parts.terms
    wanted = [line for line in parts.lines if line.number and line.net > 0]
    ids = {line.number for line in wanted}
    suppliers = list(Supplier.objects.filter(shop=member.shop_id))
    offers = Offer.objects.filter(supplier__in=suppliers, number__in=ids).select_related("supplier")
    start = clock(terms)
    raw = {
        "start": start.isoformat(timespec="minutes"),
        "labour_rate": float(terms.labour_rate),
        "km_cost": float(terms.km_cost),
        "time_limit_s": TIME_LIMIT_S,
        "lines": [
            {
                "id": line.number,
                "part": line.number,
                "qty": line.net,
                "need_by": max(line.need_by, start.date()).isoformat() if line.need_by and line.to_run else None,
                "late_cost_per_day": float(terms.late_cost_per_day) if line.to_run else 0,
                "needed": "run" if line.to_run else "apart",
            }
            for line in wanted
        ],
        "suppliers": [_supplier(one) for one in suppliers],
        "offers": [
            {
                "supplier": offer.supplier.name,
                "part": offer.number,
                "unit_price": float(offer.unit_price),
                "pack": offer.pack,
                "stock": offer.stock,
                "p_stock": offer.p_stock,
                "restock_days": offer.restock_days,
                "status": offer.status,
            }
            for offer in offers
        ],
        "pinned": [structure.write(pin) for pin in pins],
    }
    given: SourceGiven = structure.read(SourceGiven, raw)
    return given


def _supplier(one: Supplier) -> dict[str, Any]:
    return {
        "name": one.name,
        "distance_km": one.distance_km,
        "travel_min": one.travel_min,
        "counter_min": one.counter_min,
        "call_min": one.call_min,
        "open": one.openings,
        "closed": one.closed,
        "deliveries": one.deliveries,
    }


def stream(member: Member, plan: uuid.UUID, pins: Sequence[Pin]) -> Iterator[str]:
    """Work out a plan and keep it: a line of JSON for each step, then one with ``done``. The same UUID again gives what was
    kept.

    The work runs in a thread beside, so that each step is told while the next one is worked on.
    """
    had = Plan.objects.filter(uuid=plan, shop=member.shop_id).first()
    if had is not None:
        yield _said(done=True, steps=1, of=1, what="")
        return
    given = question(member, pins)
    if not given.lines:
        raise BadInput("lines", "there is nothing to order")
    told: SimpleQueue[tuple[str, int, int] | BaseException | dict[str, Any]] = SimpleQueue()

    def work() -> None:
        try:
            told.put(structure.write(source(given, lambda what, done, of: told.put((what, done, of)))))
        except BaseException as problem:  # told to whoever waits, who would wait for ever otherwise
            told.put(problem)

    Thread(target=work, daemon=True).start()
    while True:
        match told.get():
            case (what, done, of):
                yield _said(what=what, steps=done, of=of, done=False)
            case dict() as answer:
                Plan.objects.get_or_create(
                    uuid=plan,
                    shop_id=member.shop_id,
                    defaults={"asked": structure.write(given), "answer": answer, "by": member.user},
                )
                yield _said(done=True, steps=1, of=1, what="")
                return
            case BadInput() as problem:
                yield _said(error={"field": problem.field, "message": problem.message})
                return
            case problem:
                raise RuntimeError("the plan could not be worked out") from problem


def _said(**what: object) -> str:
    return json.dumps(what) + "\n"


def plan_of(member: Member, plan: uuid.UUID) -> Plan | None:
    """A plan of the member's shop."""
    return Plan.objects.select_related("by").filter(shop=member.shop_id, uuid=plan).first()


def last_plan(member: Member) -> Plan | None:
    """The newest plan of the shop."""
    return Plan.objects.select_related("by").filter(shop=member.shop_id).first()


def changed_since(member: Member, plan: Plan) -> list[str]:
    """What the list says otherwise than when the plan was made: numbers to order, or how many."""
    was = {line["id"]: line["qty"] for line in plan.asked["lines"]}
    lines = net_requirements.build(member, timezone.now()).lines
    now = {line.number: line.net for line in lines if line.number and line.net > 0}
    names = {line.number: line.name for line in lines}
    return [
        f"{names.get(number, number)}: {int(was.get(number, 0))} planned, {now.get(number, 0)} needed now"
        for number in sorted(was | now)
        if was.get(number, 0) != now.get(number, 0)
    ]
