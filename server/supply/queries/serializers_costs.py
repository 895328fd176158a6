"""Cost, and what lies open, as the API gives them."""

from decimal import Decimal

from inspection.models import WalkAround
from inspection.queries.serializers import full_name
from lumvek_core.units import plain
from shops.models import Member
from shops.rights import may

from ..schemas_costs import (
    ApartGroupOut,
    ApartOut,
    ApartPartOut,
    ApprovalOut,
    CostLineOut,
    CostShareOut,
    CostsOut,
    MachineCostOut,
    OwnerOut,
)
from . import costs, strip_down_offers
from .needs import terms_of
from .serializers import money


def cost(member: Member) -> CostsOut:
    found, machines = costs.estimates(member)
    owners: dict[str, Decimal] = {}
    for one in machines:
        for name, _, amount in one.shares:
            owners[name] = owners.get(name, Decimal(0)) + amount
    is_owner = member.sees_own_only
    mine = {member.name} if is_owner else set(owners)
    return CostsOut(
        currency=found.currency,
        labour_rate=money(found.labour_rate),
        machines=[_machine_cost(one, mine) for one in machines],
        owners=[CostShareOut(name=name, percent="", amount=money(owners[name])) for name in sorted(owners) if name in mine],
        is_owner=is_owner,
        may_record=not is_owner,
    )


def _machine_cost(estimate: costs.Estimate, named: set[str]) -> MachineCostOut:
    return MachineCostOut(
        machine=estimate.machine.pk,
        name=estimate.machine.name,
        parts=money(estimate.parts),
        hours=plain(float(estimate.hours), 1),
        labour=money(estimate.labour),
        total=money(estimate.total),
        unpriced=estimate.unpriced,
        without_hours=estimate.without_hours,
        strip_downs=estimate.strip_downs,
        lines=[
            CostLineOut(
                number=line.number,
                name=line.name,
                quantity=line.quantity,
                unit=line.unit,
                price=money(line.price),
                amount=money(line.amount) if line.price is not None else "",
            )
            for line in sorted(estimate.lines, key=lambda line: (line.price is not None, -line.amount, line.name))
        ],
        shares=[
            CostShareOut(name=name, percent=plain(float(percent), 2), amount=money(amount))
            for name, percent, amount in estimate.shares
            if name in named
        ],
        may_bear=[OwnerOut(id=owner.pk, name=owner.name) for owner in estimate.owners],
        approvals=[
            ApprovalOut(uuid=a.uuid, amount=money(a.amount), currency=a.currency, how=a.how, by=full_name(a.by), at=a.at)
            for a in estimate.approvals
        ],
    )


def lies_open(member: Member, walk_around: WalkAround) -> ApartOut:
    """What else lies open behind the parts of a walk-around."""
    found = terms_of(member)
    return ApartOut(
        currency=found.currency,
        labour_rate=money(found.labour_rate),
        downtime_rate=money(found.downtime_rate),
        groups=[
            ApartGroupOut(
                key=f"{group.key}:{group.opened_by}",
                strip_down=group.key,
                place=group.place,
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
                        by_school=part.by_school,
                        taken=part.taken,
                    )
                    for part in group.parts
                ],
            )
            for group in strip_down_offers.build(member, walk_around)
        ],
        may_picture=may(member, "add pictures"),
        may_take=may(member, "decide on parts"),
    )
