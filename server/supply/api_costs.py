"""Endpoints of cost, and of what lies open while something is apart."""

from uuid import UUID

from django.http import HttpRequest
from ninja import Router

from fleet.queries.machines import machine_for
from inspection.queries.walk_arounds import walk_around_for
from shops.access import DECIDERS, member_of, only
from shops.models import Role

from .api import BUYERS
from .queries import costs, serializers_costs, strip_down_offers
from .schemas_costs import ApartOut, ApproveIn, CostsOut, ShareIn, TakeIn

costing = Router(tags=["cost"])


@costing.get("/costs", response=CostsOut)
def cost(request: HttpRequest) -> CostsOut:
    """What each machine costs and who bears it; an owner sees own machines only."""
    return serializers_costs.cost(member_of(request))


@costing.post("/costs/{int:machine_id}/approve", response=CostsOut)
def approve(request: HttpRequest, machine_id: int, new: ApproveIn) -> CostsOut:
    """Agree to the estimate of a machine, as its owner or on the owner's word."""
    member = member_of(request)
    machine_for(member, machine_id)
    only(member, BUYERS | {Role.OWNER}, "agree to costs")
    costs.approve(member, machine_id, new.uuid, new.amount, new.how)
    return serializers_costs.cost(member)


@costing.post("/costs/{int:machine_id}/approvals/{uuid:approval}/take-back", response=CostsOut)
def take_back_approval(request: HttpRequest, machine_id: int, approval: UUID) -> CostsOut:
    """Take back what was agreed to."""
    member = member_of(request)
    machine_for(member, machine_id)
    only(member, BUYERS | {Role.OWNER}, "agree to costs")
    costs.take_back_approval(member, machine_id, approval)
    return serializers_costs.cost(member)


@costing.post("/costs/{int:machine_id}/shares", response=CostsOut)
def set_share(request: HttpRequest, machine_id: int, new: ShareIn) -> CostsOut:
    """How much of a machine's cost one of its owners bears."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    only(member, BUYERS, "divide costs")
    costs.set_share(machine, new.owner, new.percent)
    return serializers_costs.cost(member)


@costing.get("/walk-arounds/{uuid:walk_around_id}/apart", response=ApartOut)
def while_apart(request: HttpRequest, walk_around_id: UUID) -> ApartOut:
    """What else lies open behind the parts of a walk-around, now against later."""
    member = member_of(request)
    found = walk_around_for(member, walk_around_id)
    return serializers_costs.lies_open(member, strip_down_offers.build(member, found), member.role in DECIDERS)


@costing.post("/walk-arounds/{uuid:walk_around_id}/apart", response=ApartOut)
def take_along(request: HttpRequest, walk_around_id: UUID, new: TakeIn) -> ApartOut:
    """Put what lies open on the list, or take it off."""
    member = member_of(request)
    walk_around_for(member, walk_around_id)
    only(member, DECIDERS, "decide on parts")
    found = strip_down_offers.take(member, walk_around_id, new.slot, new.positions, new.taken)
    return serializers_costs.lies_open(member, strip_down_offers.build(member, found), True)
