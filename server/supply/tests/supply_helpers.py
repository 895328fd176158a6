"""Planning and ordering as a person does it."""

import uuid

from supply.actions import orders
from supply.models import Plan
from supply.queries import sourcing


def make_plan(member, pins=()):
    plan = uuid.uuid4()
    steps = list(sourcing.stream(member, plan, pins))
    assert '"done": true' in steps[-1], steps
    return Plan.objects.get(uuid=plan)


def place(member, plan, kind="cheapest"):
    """Order a plan and ask the desk about each order."""
    return [orders.send(member, order.uuid) for order in orders.make(member, plan.uuid, kind)]
