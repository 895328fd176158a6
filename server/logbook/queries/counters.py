"""What the meters of a machine showed, as the API gives it."""

from django.conf import settings

from fleet.models import CounterReading, Machine
from fleet.queries import counters
from inspection.queries.serializers import full_name

from ..schemas_upkeep import CounterOut, CountersOut

LISTED = 60


def shown(machine: Machine) -> CountersOut:
    """What stands now, and what was read, the newest first."""
    rows = CounterReading.objects.filter(machine=machine).select_related("by").order_by("-at", "-id")[:LISTED]
    return CountersOut(
        unit=counters.unit_of(machine),
        now=counters.now_of(machine),
        two=counters.unit_of(machine) == "h",
        also=machine.area_ha if counters.unit_of(machine) == "h" else None,
        telematics=bool(settings.TELEMATICS_URL and machine.serial),
        readings=[
            CounterOut(
                uuid=one.uuid,
                at=one.at,
                shown=one.shown,
                total=one.total,
                unit=one.unit,
                source=one.source,
                exchanged=one.exchanged,
                confirmed=one.confirmed,
                withdrawn=one.withdrawn,
                by=full_name(one.by),
            )
            for one in rows
        ],
    )
