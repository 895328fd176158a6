"""Recordings of a machine that shakes, held against its drive line."""

from array import array
from collections.abc import Mapping
from dataclasses import replace

from fleet.models import Machine
from inspection.queries import rule_books, serializers
from lumvek_core.catalogue.shafts import DriveLine, DrivenShaft, RollingBearing
from lumvek_core.faults.recorded import Analysed, Turning, analysed, compared, turning
from shops.models import Member
from shops.rights import may

from ..models import ModelShaft, Recording
from ..schemas_recordings import (
    BearingOut,
    RecordingBriefOut,
    RecordingOut,
    RecordingsOut,
    ShaftMatchOut,
    ShaftOrderOut,
    ShaftOut,
    ShaftScoreOut,
    ShakeComparedOut,
    ShakePeakOut,
    SpectrumOut,
    TurningOut,
)

RIGHT, CHANGE = "trace faults", "change models"
NEWEST = 40


def drive_line(machine: Machine) -> DriveLine | None:
    """What turns in a machine: the catalogue's, each shaft as the model's manual has it where somebody wrote it. One query."""
    line = rule_books.shipped().shafts.families.get(machine.model.family)
    if line is None:
        return None
    own = own_shafts(machine)
    return replace(line, shafts=[_as_written(one, own) for one in line.shafts])


def own_shafts(machine: Machine) -> dict[str, ModelShaft]:
    """As the shop wrote them for the model last, by key. One query."""
    return {one.key: one for one in ModelShaft.objects.filter(model=machine.model_id, taken_back_at=None)}


def _as_written(shaft: DrivenShaft, own: Mapping[str, ModelShaft]) -> DrivenShaft:
    if shaft.key not in own:
        return shaft
    row = own[shaft.key]
    bearings = [RollingBearing(**bearing) for bearing in row.bearings]
    return replace(shaft, speeds=row.speeds, orders=row.orders, bearings=bearings)


def samples_of(row: Recording) -> list[float]:
    """As they were kept."""
    found = array("f")
    found.frombytes(bytes(row.samples))
    return found.tolist()


def brief(row: Recording) -> RecordingBriefOut:
    return RecordingBriefOut(
        uuid=row.uuid,
        source=row.source,  # type: ignore[arg-type]
        at=row.at,
        by=serializers.full_name(row.by),
        engine_rpm=row.engine_rpm,
        station=row.station,
        crop=row.crop,
        words=row.words,
        seconds=round(len(row.samples) / 4 / row.sample_hz, 1),
        sample_hz=row.sample_hz,
        ranges=row.ranges,
    )


def of_machine(member: Member, machine: Machine) -> RecordingsOut:
    """The recordings of a machine and its drive line. A constant number of queries."""
    line = drive_line(machine)
    own = own_shafts(machine)
    rows = Recording.objects.filter(machine=machine, taken_back_at=None).select_related("by").order_by("-at", "-id")
    return RecordingsOut(
        machine=serializers.machine_out(machine),
        engine_rpm=line.engine_rpm if line else None,
        shafts=[
            ShaftOut(
                key=one.key,
                name=one.name,
                station=one.station,
                drives=one.drives,
                follows=line.follows(one),
                speeds=one.speeds,
                orders=one.orders,
                bearings=[BearingOut(**vars(bearing)) for bearing in one.bearings],
                own=own[one.key].uuid if one.key in own else None,
                source=own[one.key].source if one.key in own else "starting value",
            )
            for one in line.shafts
        ]
        if line
        else [],
        recordings=[brief(row) for row in rows[:NEWEST]],
        crops=[one["name"] for one in member.shop.crops],
        may_trace=may(member, RIGHT),
        may_change=may(member, CHANGE),
    )


def page(member: Member, row: Recording, beside: Recording | None = None) -> RecordingOut:
    """One recording, analysed; with another one of the same machine beside it."""
    shafts, found = held(row)
    other = held(beside)[1] if beside else None
    rows = Recording.objects.filter(machine=row.machine, taken_back_at=None).exclude(pk=row.pk).select_related("by")
    hidden = {(one.shaft, one.order) for one in found.match.not_observable}
    return RecordingOut(
        **brief(row).model_dump(),
        machine=serializers.machine_out(row.machine),
        spectrum=_spectrum(found),
        shafts=[
            TurningOut(
                key=one.key,
                name=one.name,
                station=one.station,
                rpm=one.rpm,
                ranged=one.ranged,
                follows=one.follows,
                orders=[
                    ShaftOrderOut(
                        order=float(order),
                        hz=one.rpm / 60 * float(order),
                        what=what,
                        observable=(one.name, float(order)) not in hidden,
                    )
                    for order, what in one.orders.items()
                ],
            )
            for one in shafts
        ],
        peaks=[
            ShakePeakOut(
                hz=peak.hz,
                amplitude=peak.amplitude,
                matches=[ShaftMatchOut(shaft=one.shaft, order=one.order, off_pct=one.off_pct) for one in peak.matches],
            )
            for peak in found.match.peaks
        ],
        ranked=[ShaftScoreOut(shaft=one.shaft, score=one.score) for one in found.match.ranked],
        unmatched=found.match.unmatched,
        says=found.match.words,
        others=[brief(one) for one in rows.order_by("-at", "-id")[:NEWEST]],
        beside=brief(beside) if beside else None,
        beside_spectrum=_spectrum(other) if other else None,
        compared=[
            ShakeComparedOut(hz=one.hz, other_hz=one.other_hz, order=one.order, follows=one.follows, times=one.times)
            for one in compared(found.match, row.engine_rpm, other.match, beside.engine_rpm)
        ]
        if other and beside
        else [],
        taken_back=row.taken_back_at is not None,
        may_trace=may(member, RIGHT),
    )


def held(row: Recording) -> tuple[list[Turning], Analysed]:
    """A recording against the drive line, as it turned then."""
    line = drive_line(row.machine)
    shafts = turning(line, row.engine_rpm, row.ranges, row.rpm) if line else []
    return shafts, analysed(samples_of(row), row.sample_hz, shafts)


def _spectrum(found: Analysed) -> SpectrumOut:
    return SpectrumOut(hz=found.hz, amplitude=found.amplitude, level=found.level)
