"""Who bears how much of a machine's cost, and agreeing to it."""

import uuid
from decimal import Decimal

from fleet.models import Machine
from fleet.queries.machines import machine_for
from lumvek_core.errors import BadInput
from shops.access import Conflict, NotFoundHere
from shops.models import Member
from shops.rights import action
from shops.taken_back import take_back
from tabular.tables import amount_in

from ..models import Approval, Share
from ..queries.costs import estimates
from .parts_log import log_parts


@action("divide costs")
def set_share(member: Member, machine: Machine, owner: int, percent: str) -> None:
    """How much one of a machine's owners bears; empty for none of its own. All shares together are 100 % at most. Raises
    BadInput."""
    bearer = Member.objects.in_shop(machine.shop_id).filter(pk=owner, own_machines=machine).first()
    if bearer is None:
        raise BadInput("owner", "does not own this machine")
    there = Share.objects.filter(machine=machine, member=bearer).first()
    before = f"{float(there.percent):g} %" if there else "as the others"
    if not percent.strip():
        Share.objects.filter(machine=machine, member=bearer).delete()
        return log_parts(member, f"{machine.name}: share of {bearer.name}", before, "as the others")
    value = amount_in(percent, "percent", below=101)
    others = sum(Share.objects.filter(machine=machine).exclude(member=bearer).values_list("percent", flat=True), Decimal(0))
    if not 0 < value <= 100 - others:
        raise BadInput("percent", f"must be above 0, and at most {100 - others:f} with the others")
    Share.objects.update_or_create(machine=machine, member=bearer, defaults={"percent": value})
    log_parts(member, f"{machine.name}: share of {bearer.name}", before, f"{float(value):g} %")


@action("agree to costs")
def take_back_approval(member: Member, machine_id: int, approval: uuid.UUID) -> None:
    """What was agreed to is agreed to no more; it stays on record. An owner takes back what that owner agreed to.

    Raises NotFoundHere.
    """
    given = Approval.objects.filter(machine=machine_for(member, machine_id), uuid=approval)
    if member.sees_own_only:
        given = given.filter(by=member.user)
    if not given.exists():
        raise NotFoundHere("There is no such agreement.")
    take_back(member, given)


@action("agree to costs")
def approve(member: Member, machine_id: int, approval: uuid.UUID, amount: str, how: str) -> None:
    """Agree to a machine's estimate, as its owner or on the owner's word. What is agreed to is what is shown, to the cent.

    Raises BadInput, Conflict, NotFoundHere.
    """
    machine = machine_for(member, machine_id)
    known = Approval.objects.filter(uuid=approval).values_list("machine_id", flat=True).first()
    if known == machine.pk:
        return
    if known is not None:
        raise BadInput("uuid", "belongs to another machine")
    owner = member.sees_own_only
    if not owner and not how.strip():
        raise BadInput("how", "say who agreed, and how")
    terms, found = estimates(member)
    one = next((one for one in found if one.machine.pk == machine.pk), None)
    if one is None or str(one.total) != amount:
        raise Conflict(f"The estimate is now {one.total if one else 0} {terms.currency}. Look again before agreeing.")
    Approval.objects.create(
        uuid=approval,
        machine=machine,
        amount=one.total,
        currency=terms.currency,
        how="agreed here" if owner else how.strip(),
        by=member.user,
    )
