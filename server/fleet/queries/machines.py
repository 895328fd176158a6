"""Reading machines, always from a member's shop."""

from collections.abc import Collection

from django.db.models import QuerySet

from lumvek_core.catalogue.rule_book import LimitOverride as CoreOverride
from shops.access import NotFoundHere
from shops.models import Member

from ..models import Fitment, Machine, MachineModel


def machines_for(member: Member) -> QuerySet[Machine]:
    """The machines in use that this member may see, with their models."""
    return every_machine(member).filter(gone="")


def every_machine(member: Member) -> QuerySet[Machine]:
    """Those that were sold or scrapped as well."""
    return Machine.objects.of(member).select_related("model")


def machine_for(member: Member, machine_id: int) -> Machine:
    """One machine, in use or gone. Raises NotFoundHere."""
    machine = every_machine(member).filter(pk=machine_id).first()
    if machine is None:
        raise NotFoundHere("There is no such machine.")
    return machine


def overrides_of(model: MachineModel) -> list[CoreOverride]:
    """The model's own limits as the core takes them, the manual's before the shop's."""
    return [
        CoreOverride(override.check_key, override.figure, override.value, override.source, override.note, override.stated)
        for override in model.overrides.all()
    ]


def fitments_of(machines: Collection[int]) -> dict[tuple[int, str, str], Fitment]:
    """The part in place, by machine, slot and position, where its fitting is on record. One query."""
    found = Fitment.objects.filter(machine__in=list(machines), until_at=None)
    return {(one.machine_id, one.slot, one.position_key): one for one in found}
