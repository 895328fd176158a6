"""Which header is on a machine, as somebody says. Called inside the action of whoever says so."""

import datetime as dt
import uuid

from shops.models import Member

from ..models import Coupling, Machine


def couple(member: Member, machine: Machine, uuid_: uuid.UUID, header: Machine | None, at: dt.datetime) -> Coupling:
    """Keep that a header was coupled then; None: that the machine stood without one."""
    made: Coupling = Coupling.objects.create(uuid=uuid_, machine=machine, header=header, at=at, by=member.user)
    return made
