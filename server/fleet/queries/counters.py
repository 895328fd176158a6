"""Counters of machines: what was read, by whom and from where, and what the machine has done in all."""

import datetime as dt
from collections.abc import Collection

from lumvek_core.counters import Count

from ..models import CounterReading, Machine


def unit_of(machine: Machine) -> str:
    """What a machine's use is counted in: hours where it has an hour meter, else hectares."""
    return "h" if machine.hours is not None else "ha"


def now_of(machine: Machine, unit: str = "") -> float | None:
    """What it has done in all, by the newest count; in what its use is counted in, or in another unit."""
    return machine.hours if (unit or unit_of(machine)) == "h" else machine.area_ha


def counts_of(machines: Collection[int], unit: str = "") -> dict[int, list[Count]]:
    """The counts of each machine, oldest first, in what its use is counted in or in another unit. One query."""
    found: dict[int, list[Count]] = {pk: [] for pk in machines}
    rows = CounterReading.objects.filter(machine__in=list(machines), withdrawn=False).order_by("at", "id")
    for machine, at, total, counted, hours in rows.values_list("machine", "at", "total", "unit", "machine__hours"):
        if counted == (unit or ("ha" if hours is None else "h")):
            found[machine].append(Count(at, total))
    return found


def offset_at(machine: Machine, unit: str, at: dt.datetime) -> float:
    """What older meters had counted before the one in use at a moment."""
    meter = CounterReading.objects.filter(machine=machine, unit=unit, exchanged=True, withdrawn=False, at__lte=at).last()
    return meter.total - meter.shown if meter else 0.0
