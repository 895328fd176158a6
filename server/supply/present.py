"""From what supply knows to what its API gives."""

import datetime as dt
from collections.abc import Iterable
from decimal import Decimal
from typing import Literal

from django.utils import timezone

from fleet.models import Fitment
from inspection.present import full_name
from lumvek_core.units import plain
from parts.models import PartNumber
from shops.models import Member, Role

from . import apart, costs, listing, opening_hours, orders, sourcing, stock, why
from .book import Table
from .models import Movement, Offer, Order, OrderLine, Plan, StockItem, Supplier, Terms
from .needs import terms_of
from .schemas import (
    AlternativeOut,
    ApartGroupOut,
    ApartOut,
    ApartPartOut,
    ApprovalOut,
    CostLineOut,
    CostShareOut,
    CostsOut,
    MachineCostOut,
    MachineNeedOut,
    MovementOut,
    NeededLine,
    NeededPiece,
    NeedsOut,
    OfferOut,
    OrderLineOut,
    OrderOut,
    OrdersOut,
    OwnerOut,
    PartsTableLineOut,
    PartsTableOut,
    SourcingOut,
    StockLineOut,
    StockOut,
    SupplierOut,
    TermsOut,
)

State = Literal["number", "order", "coming", "here", "fitted"]
ANSWERED = (Order.State.ACCEPTED, Order.State.SHORT, Order.State.REFUSED)
MOVES = 40
"""Movements shown, the newest first."""


def money(amount: Decimal | float | None) -> str:
    """Two decimals; empty where there is no figure."""
    return "" if amount is None else f"{Decimal(str(amount)).quantize(costs.CENT):f}"


def needs(member: Member) -> NeedsOut:
    parts = listing.build(member, timezone.now())
    prices = costs.price_list(member.shop_id)
    others = _alternatives(parts.lines, prices)
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
    return NeedsOut(
        terms=terms(parts.terms),
        today=sourcing.clock(parts.terms).date(),
        lines=[_line(line, prices, others) for line in parts.lines],
        machines=sorted(machines.values(), key=lambda one: (one.need_by or dt.date.max, one.name)),
        may_change_terms=member.role in (Role.LEAD, Role.PARTS),
    )


def terms(found: Terms) -> TermsOut:
    return TermsOut(
        currency=found.currency,
        labour_rate=money(found.labour_rate),
        km_cost=money(found.km_cost),
        downtime_rate=money(found.downtime_rate),
        late_cost_per_day=money(found.late_cost_per_day),
        days_before=found.days_before,
        now=found.now,
    )


Alternatives = dict[tuple[int, str, str], list[AlternativeOut]]


def _alternatives(lines: Iterable[listing.Line], prices: dict[str, Decimal]) -> Alternatives:
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


def _line(line: listing.Line, prices: dict[str, Decimal], others: Alternatives) -> NeededLine:
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
            )
            for piece in line.pieces
        ],
        alternatives=[one.model_copy(update={"chosen": one.number == line.number}) for one in alternatives],
    )


def _state(line: listing.Line) -> State:
    if line.fitted == line.needed:
        return "fitted"
    if not line.number:
        return "number"
    if line.net:
        return "order"
    return "here" if line.needed - line.fitted <= line.shelf + line.truck else "coming"


def supplier(one: Supplier) -> SupplierOut:
    return SupplierOut(
        id=one.pk,
        name=one.name,
        email=one.email,
        distance_km=one.distance_km,
        travel_min=one.travel_min,
        counter_min=one.counter_min,
        call_min=one.call_min,
        hours=opening_hours.shown(one.openings),
        closed=", ".join(one.closed),
        deliveries=one.deliveries,
        ways=[str(way["name"]) for way in one.deliveries],
        desk=bool(one.desk),
    )


def plan(member: Member, found: Plan) -> SourcingOut:
    numbers = [line["id"] for line in found.asked["lines"]]
    currency = terms_of(member).currency
    lines = {line.number: line for line in listing.build(member, timezone.now()).lines if line.number}
    named = dict(PartNumber.objects.filter(model__shop=member.shop_id, number__in=numbers).values_list("number", "slot"))
    return SourcingOut(
        uuid=found.uuid,
        at=found.at,
        by=full_name(found.by),
        ordered_kind=found.ordered_kind,
        currency=currency,
        names={n: orders.called(lines[n]) if n in lines else named.get(n, n).replace("-", " ") for n in numbers},
        serves={n: lines[n].serves() if n in lines else [] for n in numbers},
        asked=found.asked,
        answer=found.answer,
        why=why.sentences(found.answer, currency),
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
            for offer in Offer.objects.filter(supplier__shop=member.shop_id, number__in=numbers).select_related("supplier")
        ],
        suppliers=[supplier(one) for one in Supplier.objects.filter(shop=member.shop_id)],
        stale=[] if found.ordered_kind else sourcing.changed_since(member, found),
    )


def all_orders(member: Member) -> OrdersOut:
    found = Order.objects.filter(shop=member.shop_id).select_related("supplier", "by").prefetch_related("lines")
    return OrdersOut(currency=terms_of(member).currency, orders=[order(one) for one in found])


def order(one: Order) -> OrderOut:
    # What needs somebody stands first: what follows or is refused, then what is still to come.
    lines = sorted((order_line(one, line) for line in one.lines.all()), key=_pressing)
    return OrderOut(
        uuid=one.uuid,
        supplier=one.supplier.name,
        email=one.supplier.email,
        desk=bool(one.supplier.desk),
        way=one.way,
        run_date=one.run_date,
        run_cost=money(one.run_cost),
        state=one.state,
        state_name=Order.State(one.state).label,
        answered=one.state in ANSWERED,
        reference=one.reference,
        trouble=one.trouble,
        tries=one.tries,
        by=full_name(one.by),
        at=one.at,
        parts=money(sum((line.quantity * line.unit_price for line in one.lines.all()), Decimal(0))),
        lines=lines,
        to_come=sum(line.to_come for line in lines),
    )


def _pressing(line: OrderLineOut) -> tuple[bool, bool]:
    return not (line.follows or line.refused), not line.to_come


def order_line(one: Order, line: OrderLine) -> OrderLineOut:
    answered = one.state in ANSWERED
    return OrderLineOut(
        number=line.number,
        name=line.name,
        quantity=line.quantity,
        unit_price=money(line.unit_price),
        accepted=line.accepted,
        follows=line.follows,
        refused=line.quantity - line.accepted - line.follows if answered else 0,
        received=line.received,
        to_come=orders.to_come(line, one.state),
        promised=line.promised or (None if answered else one.run_date),
        follows_on=line.follows_on,
        serves=line.serves,
    )


def stocked(member: Member) -> StockOut:
    found = terms_of(member)
    levels, prices = stock.levels(member.shop_id), costs.price_list(member.shop_id)
    fitted: dict[str, int] = {}
    for number, quantity in Fitment.objects.filter(machine__shop=member.shop_id).values_list("number", "quantity"):
        fitted[number] = fitted.get(number, 0) + quantity
    items = []
    for one in StockItem.objects.filter(shop=member.shop_id):
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
                hours=one.past_hours,
                hours_ahead=one.hours_ahead,
                prior_hours=one.prior_hours,
                price=money(prices.get(one.number)),
            )
        )
    moved = Movement.objects.filter(shop=member.shop_id).select_related("by")[:MOVES]
    return StockOut(
        service=found.service,
        currency=found.currency,
        items=items,
        movements=[
            MovementOut(
                number=one.number,
                place=one.place,
                change=one.change,
                reason=Movement.Reason(one.reason).label,
                note=one.note,
                by=full_name(one.by),
                at=one.at,
            )
            for one in moved
        ],
    )


def cost(member: Member) -> CostsOut:
    found, machines = costs.estimates(member)
    owners: dict[str, Decimal] = {}
    for one in machines:
        for name, _, amount in one.shares:
            owners[name] = owners.get(name, Decimal(0)) + amount
    is_owner = member.role == Role.OWNER
    mine = {member.name} if is_owner else set(owners)
    return CostsOut(
        currency=found.currency,
        labour_rate=money(found.labour_rate),
        machines=[_machine_cost(one, mine) for one in machines],
        owners=[CostShareOut(name=name, percent="", amount=money(owners[name])) for name in sorted(owners) if name in mine],
        is_owner=is_owner,
        may_record=not is_owner,
    )


def _machine_cost(one: costs.Estimate, named: set[str]) -> MachineCostOut:
    return MachineCostOut(
        machine=one.machine.pk,
        name=one.machine.name,
        parts=money(one.parts),
        hours=plain(float(one.hours), 1),
        labour=money(one.labour),
        total=money(one.total),
        unpriced=one.unpriced,
        without_hours=one.without_hours,
        strip_downs=one.strip_downs,
        lines=[
            CostLineOut(
                number=line.number,
                name=line.name,
                quantity=line.quantity,
                unit=line.unit,
                price=money(line.price),
                amount=money(line.amount) if line.price is not None else "",
            )
            for line in sorted(one.lines, key=lambda line: (line.price is not None, -line.amount, line.name))
        ],
        shares=[
            CostShareOut(name=name, percent=plain(float(percent), 2), amount=money(amount))
            for name, percent, amount in one.shares
            if name in named
        ],
        may_bear=[OwnerOut(id=owner.pk, name=owner.name) for owner in one.owners],
        approvals=[
            ApprovalOut(amount=money(a.amount), currency=a.currency, how=a.how, by=full_name(a.by), at=a.at)
            for a in one.approvals
        ],
    )


def table(found: Table, dry: bool) -> PartsTableOut:
    """What a file from outside does, line by line."""
    return PartsTableOut(
        dry=dry,
        taken=found.count("taken"),
        there=found.count("there"),
        refused=found.count("refused"),
        lines=[PartsTableLineOut.model_validate(vars(line)) for line in found.lines],
    )


def lies_open(member: Member, groups: Iterable[apart.Opened], may_take: bool) -> ApartOut:
    found = terms_of(member)
    return ApartOut(
        currency=found.currency,
        labour_rate=money(found.labour_rate),
        downtime_rate=money(found.downtime_rate),
        groups=[
            ApartGroupOut(
                key=f"{group.key}:{group.opened_by}",
                name=group.name,
                opened_by=group.opened_by,
                hours=group.hours,
                downtime_h=group.downtime_h,
                source=group.source,
                parts=[
                    ApartPartOut(
                        slot=part.slot,
                        name=part.name,
                        position=part.position,
                        label=part.label,
                        state=part.state,
                        price=money(part.price),
                        p_fail=part.p_fail,
                        remaining=part.remaining,
                        cost_now=money(part.cost_now),
                        cost_later=money(part.cost_later),
                        saving=part.saving,
                        break_even=part.break_even,
                        advice=part.advice,
                        taken=part.taken,
                    )
                    for part in group.parts
                ],
            )
            for group in groups
        ],
        may_take=may_take,
    )
