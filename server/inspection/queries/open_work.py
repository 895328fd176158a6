"""What somebody is at, to be handed over before they are let go."""

from django.db.models import Q

from shops.models import Member
from shops.queries.people import member_here

from ..models import WalkAround
from ..schemas_machines import OpenWorkOut


def open_work(member: Member, whose: int) -> list[OpenWorkOut]:
    """The walk-arounds under way that somebody began or belongs to. Raises NotFoundHere for somebody of another shop."""
    other = member_here(member, whose)
    at_it = Q(started_by=other.user_id) | Q(people=other)
    running = WalkAround.objects.of(member).filter(at_it, finished_at=None, discarded_at=None).distinct()
    return [
        OpenWorkOut(id=one.pk, machine=one.machine.name, phase=one.phase, started_at=one.started_at)
        for one in running.select_related("machine").order_by("started_at")
    ]
