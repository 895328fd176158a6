"""Whether a first field is to be looked at, and what was found in the field the last time."""

import datetime as dt
from collections import defaultdict
from collections.abc import Sequence

from django.utils import timezone

from fleet.models import Machine
from inspection.models import WalkAround
from inspection.queries import seen_in_field
from inspection.queries.serializers import system_of
from lumvek_core.planning.look_again import SEASON_DAYS, LookAgain, look_again
from shops.models import Member

from ..models import SetInField
from ..schemas import FirstFieldOut, SeenOut


def of(machines: Sequence[Machine]) -> dict[int, LookAgain]:
    """When each machine's first field is looked at again, by id. Two queries."""
    now, since = timezone.now(), timezone.now() - dt.timedelta(days=SEASON_DAYS)
    looked: dict[int, list[dt.datetime]] = defaultdict(list)
    walks = WalkAround.objects.filter(machine__in=machines, phase="first-field", discarded_at=None, finished_at__gt=since)
    for machine, at in walks.order_by("finished_at").values_list("machine", "finished_at"):
        if at:
            looked[machine].append(at)
    ground: dict[int, list[tuple[dt.datetime, str]]] = defaultdict(list)
    rows = SetInField.objects.filter(machine__in=machines, at__gt=since, taken_back_at=None)
    known: dict[int, tuple[str, str]] = defaultdict(lambda: ("", ""))
    for row in rows.order_by("at", "id"):
        place, condition = known[row.machine_id]
        known[row.machine_id] = row.place or place, row.condition or condition  # what nobody says is as it was
        ground[row.machine_id].append((row.at, ", ".join(filter(None, known[row.machine_id]))))
    return {one.pk: look_again(looked[one.pk], ground[one.pk], now) for one in machines}


def out(found: LookAgain) -> FirstFieldOut:
    """For a screen."""
    return FirstFieldOut(state=found.state, words=found.words, at=found.at)


def now(machine: Machine) -> FirstFieldOut:
    """Of one machine. Two queries."""
    return out(of([machine])[machine.pk])


def seen(member: Member, machine: Machine) -> list[SeenOut]:
    """The last walk-around in the field of each kind, with what was not right there."""
    found = []
    for phase in seen_in_field.FIELD_ROUNDS:
        walks = machine.walk_arounds.filter(phase=phase, discarded_at=None)
        walk = walks.order_by("-started_at").first()
        if walk:
            told = seen_in_field.not_right(walk, system_of(member))
            found.append(
                SeenOut(
                    walk_around=walk.pk,
                    phase=phase,
                    at=walk.finished_at or walk.started_at,
                    running=walk.finished_at is None,
                    found=[one.text for one in told],
                )
            )
    return found
