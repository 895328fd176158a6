"""Planning and ordering as a person does it."""

import uuid

from supply.actions import ordering, plans, sending
from supply.models import Plan


def make_plan(member, pins=()):
    plan = uuid.uuid4()
    steps = list(plans.stream(member, plan, pins))
    assert steps[-1]["done"], steps
    return Plan.objects.get(uuid=plan)


def place(member, plan, kind="cheapest"):
    """Order a plan and ask the desk about each order."""
    return [sending.send(member, order.uuid) for order in ordering.make(member, plan.uuid, kind)]
