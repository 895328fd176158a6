"""Recording services and the put-away list. The same UUID twice is once."""

import datetime as dt
import uuid

from django.utils import timezone

from fleet.models import Machine
from fleet.queries import counters
from lumvek_core.errors import BadInput
from lumvek_core.units import plain
from shops import taken_back
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action

from ..models import PutAwayTick, ServiceDone
from ..queries.upkeep import put_away_items, season_of, services_of


@action("record services")
def record(
    member: Member, machine: Machine, done: uuid.UUID, key: str, day: dt.date | None, counter: float | None, note: str
) -> None:
    """Keep that a service was done; without a day today, without a counter as it stands. The same UUID twice is once."""
    if key not in {one.key for one in services_of(machine, member.shop.schools)}:
        raise BadInput("key", "is no service of this machine")
    today, now = timezone.localdate(), counters.now_of(machine)
    if day and day > today:
        raise BadInput("day", "is still to come")
    if counter is not None and (counter < 0 or (now is not None and counter > now)):
        raise BadInput("counter", f"the counter stands at {plain(now or 0, 0)}")
    service_done = ServiceDone.objects.filter(uuid=done).first()
    if service_done is not None:
        if service_done.machine_id != machine.pk:
            raise NotFoundHere("There is no such service.")
        return
    ServiceDone.objects.create(
        uuid=done,
        machine=machine,
        key=key,
        day=day or today,
        counter=counter if counter is not None else now if day in (None, today) else None,
        note=note.strip(),
        by=member.user,
    )


@action("record services")
def take_back(member: Member, machine: Machine, done: uuid.UUID) -> None:
    """Take back that a service was done; it stays in the logbook as taken back. Raises NotFoundHere."""
    found = ServiceDone.objects.filter(machine=machine, uuid=done)
    if not found.exists():
        raise NotFoundHere("There is no such service.")
    taken_back.take_back(member, found)


@action("put machines away")
def tick(member: Member, machine: Machine, tick_uuid: uuid.UUID, key: str, season: int, done: bool) -> None:
    """Tick a thing of the list, or take that back. The same UUID twice is once."""
    if key not in {one.key for one in put_away_items(machine)}:
        raise BadInput("key", "is not on this machine's list")
    if not 2000 <= season <= season_of(timezone.localdate()):
        raise BadInput("season", "has not ended yet")
    put_away_tick = PutAwayTick.objects.filter(uuid=tick_uuid).first()
    if put_away_tick is not None:
        if put_away_tick.machine_id != machine.pk:
            raise NotFoundHere("There is no such tick.")
        return
    PutAwayTick.objects.create(uuid=tick_uuid, machine=machine, key=key, season=season, done=done, by=member.user)
