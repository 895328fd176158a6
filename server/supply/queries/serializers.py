"""The list, plans and suppliers as the API gives them. Orders and cost are in `present_orders` and `present_costs`."""

import datetime as dt
from collections import Counter
from collections.abc import Callable, Iterable
from decimal import Decimal
from typing import Any, Literal

from django.utils import timezone

from inspection.queries.serializers import full_name
from lumvek_core import opening_hours
from parts.models import PartNumber
from shops.models import Member
from shops.rights import may
from tabular.paging import holds, page_of

from ..models import Offer, Plan, Supplier, Terms
from ..schemas import (
    AlternativeOut,
    MachineNeedOut,
    NeededLine,
    NeededPiece,
    NeedsAsked,
    NeedsOut,
    OfferOut,
    PlanAskedOut,
    SourcingOut,
    SupplierOut,
    TermsOut,
)
from . import costs, net_requirements, orders, plan_explanation, sourcing
from .needs import terms_of

PAGE = 60
State = Literal["number", "order", "coming", "here", "fitted"]


def money(amount: Decimal | float | None) -> str:
    """Two decimals; empty where there is no figure."""
    return "" if amount is None else f"{Decimal(str(amount)).quantize(costs.CENT):f}"


def needs(member: Member, asked: NeedsAsked) -> NeedsOut:
    """The parts list as it is asked for."""
    parts = net_requirements.build(member, timezone.now())
    prices = costs.price_list(member.shop_id)
    found = sorted((line for line in parts.lines if _wanted(line, asked)), key=_ORDERS[asked.order])
    shown, page = page_of(found, asked.page, max(1, len(found)) if asked.whole else PAGE)
    others = _alternatives(shown, prices)
    return NeedsOut(
        terms=terms(parts.terms),
        today=sourcing.clock(parts.terms).date(),
        page=page,
        states=Counter(_state(line) for line in parts.lines),
        lines=[_line(line, prices, others) for line in shown],
        machines=_machines(parts),
        may_change_terms=may(member, "change rates"),
    )


_ORDERS: dict[str, Callable[[net_requirements.Line], Any]] = {
    "pressing": lambda line: line.severity != "stop",
    "name": lambda line: (line.name, line.side),
    "number": lambda line: (not line.number, line.number, line.name),
    "day": lambda line: (line.need_by or dt.date.max, line.name),
}


def _wanted(line: net_requirements.Line, asked: NeedsAsked) -> bool:
    return (
        (not asked.state or _state(line) == asked.state)
        and (asked.machine is None or any(piece.machine.pk == asked.machine for piece in line.pieces))
        and holds(asked.words(), " ".join([line.number, line.name, line.side, line.bin, line.note, *line.serves()]))
    )


def _machines(parts: net_requirements.PartsList) -> list[MachineNeedOut]:
    machines: dict[int, MachineNeedOut] = {}
    for line in parts.lines:
        for piece in line.pieces:
            machine = piece.machine
            one = machines.get(machine.pk)
            if one is None:
                hours = machine.hours is not None
                one = machines[machine.pk] = MachineNeedOut(
                    id=machine.pk,
                    name=machine.name,
                    pieces=0,
                    fitted=0,
                    need_by=parts.need_dates.get(machine.pk),
                    season_date=machine.season_date,
                    counter=machine.hours if hours else machine.area_ha,
                    counter_unit="h" if hours else "ha",
                )
            one.pieces += 1
            one.fitted += piece.fitted is not None
    return sorted(machines.values(), key=lambda one: (one.need_by or dt.date.max, one.name))


def terms(terms: Terms) -> TermsOut:
    return TermsOut(
        currency=terms.currency,
        labour_rate=money(terms.labour_rate),
        km_cost=money(terms.km_cost),
        downtime_rate=money(terms.downtime_rate),
        late_cost_per_day=money(terms.late_cost_per_day),
        days_before=terms.days_before,
        now=terms.now,
    )


Alternatives = dict[tuple[int, str, str], list[AlternativeOut]]


def _alternatives(lines: Iterable[net_requirements.Line], prices: dict[str, Decimal]) -> Alternatives:
    """What else could be fitted in the same place, where there is more than one."""
    models = {piece.machine.model_id for line in lines for piece in line.pieces}
    found: Alternatives = {}
    for one in PartNumber.objects.filter(model__in=models):
        found.setdefault((one.model_id, one.slot, one.side), []).append(
            AlternativeOut(
                number=one.number,
                kind=one.kind,
                kind_name=PartNumber.Kind(one.kind).label,
                life=one.life,
                note=one.note,
                price=money(prices.get(one.number)),
                chosen=False,
            )
        )
    return {key: several for key, several in found.items() if len(several) > 1}


def _line(line: net_requirements.Line, prices: dict[str, Decimal], others: Alternatives) -> NeededLine:
    first = line.pieces[0]
    side = first.side if not first.number or first.number.side else ""
    alternatives = others.get((first.machine.model_id, first.slot, side), [])
    return NeededLine(
        key=line.key,
        number=line.number,
        name=line.name,
        side=line.side,
        unit=line.unit,
        pack=line.pack,
        status=line.status,
        note=line.note,
        consumable=line.consumable,
        model=first.machine.model_id,
        slot=first.slot,
        side_key=side,
        hand_open=first.handed and not first.side,
        severity=line.severity,
        to_run=line.to_run,
        needed=line.needed,
        fitted=line.fitted,
        shelf=line.shelf,
        truck=line.truck,
        coming=line.coming,
        net=line.net,
        order=line.order,
        surplus=line.surplus,
        bin=line.bin,
        need_by=line.need_by,
        promised=line.promised,
        state=_state(line),
        price=money(prices.get(line.number)),
        serves=line.serves(),
        pieces=[
            NeededPiece(
                walk_around=piece.walk_around,
                slot=piece.walk_slot,
                machine=piece.machine.pk,
                machine_name=piece.machine.name,
                position=piece.position,
                label=piece.label,
                quantity=piece.quantity,
                origin=piece.origin,  # type: ignore[arg-type]
                because=piece.because,
                severity=piece.severity,
                why=piece.why,
                posture=piece.posture,
                fitted=piece.fitted.fitted_at.date().isoformat() if piece.fitted else "",
                fitting=piece.fitted.fitting if piece.fitted else None,
            )
            for piece in line.pieces
        ],
        alternatives=[one.model_copy(update={"chosen": one.number == line.number}) for one in alternatives],
    )


def _state(line: net_requirements.Line) -> State:
    if line.fitted == line.needed:
        return "fitted"
    if not line.number:
        return "number"
    if line.net:
        return "order"
    return "here" if line.needed - line.fitted <= line.shelf + line.truck else "coming"


def supplier(supplier: Supplier) -> SupplierOut:
    return SupplierOut(
        id=supplier.pk,
        name=supplier.name,
        email=supplier.email,
        distance_km=supplier.distance_km,
        travel_min=supplier.travel_min,
        counter_min=supplier.counter_min,
        call_min=supplier.call_min,
        hours=opening_hours.shown(supplier.openings),
        closed=", ".join(supplier.closed),
        deliveries=supplier.deliveries,
        ways=[str(way["name"]) for way in supplier.deliveries],
        desk=bool(supplier.desk),
    )


def plan(member: Member, plan: Plan) -> SourcingOut:
    numbers = [line["id"] for line in plan.asked["lines"]]
    currency = terms_of(member).currency
    lines = {line.number: line for line in net_requirements.build(member, timezone.now()).lines if line.number}
    named = dict(PartNumber.objects.of(member).filter(number__in=numbers).values_list("number", "slot"))
    return SourcingOut(
        uuid=plan.uuid,
        at=plan.at,
        by=full_name(plan.by),
        ordered_kind=plan.ordered_kind,
        currency=currency,
        names={n: orders.called(lines[n]) if n in lines else named.get(n, n).replace("-", " ") for n in numbers},
        serves={n: lines[n].serves() if n in lines else [] for n in numbers},
        asked=PlanAskedOut.model_validate(plan.asked),
        answer=plan.answer,
        why=plan_explanation.sentences(plan.answer, currency),
        offers=[
            OfferOut(
                supplier=offer.supplier.name,
                number=offer.number,
                unit_price=money(offer.unit_price),
                stock=offer.stock,
                p_stock=offer.p_stock,
                pack=offer.pack,
                restock_days=offer.restock_days,
                status=offer.status,
            )
            for offer in Offer.objects.of(member).filter(number__in=numbers).select_related("supplier")
        ],
        suppliers=[supplier(one) for one in Supplier.objects.of(member)],
        stale=[] if plan.ordered_kind else sourcing.changed_since(member, plan),
    )
