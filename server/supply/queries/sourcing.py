"""Asking suppliers for prices, and working out from whom to get the list."""

import datetime as dt
import uuid
from collections.abc import Sequence
from typing import Any

from django.utils import timezone

from lumvek_core import structure
from lumvek_core.planning.sourcing_model import Pin, SourceGiven
from shops.access import NotFoundHere
from shops.models import Member

from ..models import Offer, Plan, Supplier, Terms
from . import net_requirements

TIME_LIMIT_S = 5.0
LARGE, LARGE_LIMIT_S = 150, 15.0
"""Lines above which looking for the best may take longer; the cheapest plan stands there long before."""


def clock(terms: Terms) -> dt.datetime:
    """Now, on the shop's clock: the day and time it chose to plan from, else the real one."""
    return timezone.localtime(terms.now or timezone.now()).replace(tzinfo=None, second=0, microsecond=0)


def question(member: Member, pins: Sequence[Pin] = ()) -> SourceGiven:
    """The list as the core's source_parts takes it: what must be ordered, of whom, at which prices. Line ids are the
    numbers.
    """
    parts = net_requirements.build(member, timezone.now())
    terms = parts.terms
    wanted = [line for line in parts.lines if line.number and line.net > 0]
    ids = {line.number for line in wanted}
    suppliers = list(Supplier.objects.of(member))
    offers = Offer.objects.filter(supplier__in=suppliers, number__in=ids).select_related("supplier")
    start = clock(terms)
    raw = {
        "start": start.isoformat(timespec="minutes"),
        "labour_rate": float(terms.labour_rate),
        "km_cost": float(terms.km_cost),
        "time_limit_s": TIME_LIMIT_S if len(wanted) <= LARGE else LARGE_LIMIT_S,
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


def _supplier(supplier: Supplier) -> dict[str, Any]:
    return {
        "name": supplier.name,
        "distance_km": supplier.distance_km,
        "travel_min": supplier.travel_min,
        "counter_min": supplier.counter_min,
        "call_min": supplier.call_min,
        "open": supplier.openings,
        "closed": supplier.closed,
        "deliveries": supplier.deliveries,
    }


def plan_of(member: Member, plan: uuid.UUID) -> Plan:
    """A plan of the member's shop. Raises NotFoundHere."""
    found = Plan.objects.select_related("by").of(member).filter(uuid=plan).first()
    if found is None:
        raise NotFoundHere("There is no such plan.")
    return found


def last_plan(member: Member) -> Plan | None:
    """The newest plan of the shop."""
    return Plan.objects.select_related("by").of(member).first()


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
