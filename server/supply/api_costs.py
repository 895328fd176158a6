"""Endpoints of cost, and of what lies open while something is apart."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from fleet.queries.machines import machine_for
from inspection.queries.walk_arounds import walk_around_for
from shops.access import member_of
from shops.endpoints import allowed

from .actions import cost_sharing, strip_downs
from .queries import serializers_costs
from .schemas_costs import ApartOut, ApproveIn, CostsOut, ShareIn, TakeIn

router = Router(tags=["cost"])


@router.get("/costs", response=CostsOut)
def cost(request: HttpRequest) -> CostsOut:
    """What each machine costs and who bears it; an owner sees own machines only."""
    return serializers_costs.cost(member_of(request))


@router.post("/costs/{int:machine_id}/approve", response=CostsOut, **allowed(cost_sharing.approve))
def approve(request: HttpRequest, machine_id: int, new: ApproveIn) -> CostsOut:
    """Agree to the estimate of a machine, as its owner or on the owner's word."""
    cost_sharing.approve(member_of(request), machine_id, new.uuid, new.amount, new.how)
    return cost(request)


@router.post(
    "/costs/{int:machine_id}/approvals/{uuid:approval}/take-back",
    response=CostsOut,
    **allowed(cost_sharing.take_back_approval),
)
def take_back_approval(request: HttpRequest, machine_id: int, approval: UUID) -> CostsOut:
    """Take back what was agreed to."""
    cost_sharing.take_back_approval(member_of(request), machine_id, approval)
    return cost(request)


@router.post("/costs/{int:machine_id}/shares", response=CostsOut, **allowed(cost_sharing.set_share))
def set_share(request: HttpRequest, machine_id: int, new: ShareIn) -> CostsOut:
    """How much of a machine's cost one of its owners bears."""
    member = member_of(request)
    cost_sharing.set_share(member, machine_for(member, machine_id), new.owner, new.percent)
    return cost(request)


@router.get("/walk-arounds/{uuid:walk_around_id}/apart", response=ApartOut)
def while_apart(request: HttpRequest, walk_around_id: UUID) -> ApartOut:
    """What else lies open behind the parts of a walk-around, now against later."""
    member = member_of(request)
    return serializers_costs.lies_open(member, walk_around_for(member, walk_around_id))


@router.post("/walk-arounds/{uuid:walk_around_id}/apart", response=ApartOut, **allowed(strip_downs.take))
def take_along(request: HttpRequest, walk_around_id: UUID, new: TakeIn) -> ApartOut:
    """Put what lies open on the list, or take it off."""
    member = member_of(request)
    walk_around = strip_downs.take(member, walk_around_id, new.slot, new.positions, new.taken)
    return serializers_costs.lies_open(member, walk_around)
