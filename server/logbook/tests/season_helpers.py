"""A planter with three seasons behind it, made by hand."""

import datetime as dt
import uuid

from fleet.models import CounterReading, Fitment
from inspection.actions import closing, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import WalkAround
from inspection.queries import preparing

USED = (250, 230, 240)
WORN = {1: 0.0075, 2: 0.008, 3: 0.0165, 4: 0.017, 5: 0.0078, 6: 0.0082}
"""mm a hectare by row; rows 3 and 4 run behind the wheels."""


def count(yard, at, total):
    CounterReading.objects.create(
        uuid=uuid.uuid4(), machine=yard.machine, at=at, shown=total, total=total, source="typed", unit="ha", by=yard.lead.user
    )


def fitted(yard, position, counter, at, number="D12-4001", slot="opener-disc"):
    Fitment.objects.filter(machine=yard.machine, slot=slot, position_key=position, until_at=None).update(until_at=at)
    return Fitment.objects.create(
        uuid=uuid.uuid4(), machine=yard.machine, slot=slot, position_key=position, number=number, counter=counter, fitted_at=at,
        by=yard.technician.user,
    )  # fmt: skip


def size(row, since, side):
    """What a disc measures after so many hectares, with a tape's error that is the same every time."""
    return f"{400 - WORN[row] * since + ((row * 5 + int(since) // 10 + (side == 'R')) % 5 - 2) / 10:.1f}"


def winter(yard, years, other=None):
    """A finished walk-around of the discs, so many years ago."""
    at = yard.now - dt.timedelta(days=365 * years - 4)
    found = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
    WalkAround.objects.filter(pk=found.pk).update(started_at=at)
    since = sum(USED[: 3 - years])
    readings = [
        NewReading(
            uuid.uuid4(), "opener-disc-diameter", f"{row}{side}", raw=[(other or {}).get(f"{row}{side}", size(row, since, side))],
            taken_at=at, confirmed=True,
        )
        for row in WORN
        for side in "LR"
    ]  # fmt: skip
    recording.record_readings(yard.technician, found.pk, readings)
    closing.finish(yard.technician, found.pk, uuid.uuid4())
    return found
