"""Keeping recordings, and a model's shafts as its manual has them. The same UUID twice is once."""

import math
import uuid
from array import array
from collections.abc import Sequence

from pydantic import ValidationError

from fleet.actions.holding import hold
from fleet.models import Machine
from lumvek_core import apart
from lumvek_core.catalogue.shafts import DrivenShaft
from lumvek_core.errors import BadInput
from lumvek_core.faults.recorded import turning
from lumvek_core.simulators.recorder import SAMPLE_HZ, Speeds, recorded, tones_of
from lumvek_core.solvers import recording as files
from shops import taken_back
from shops.access import kept_already, there
from shops.actions.log import log_change
from shops.models import Change, Member
from shops.rights import action

from ..models import ModelShaft, Recording
from ..queries import recordings
from ..schemas_recordings import RecordingIn, ShaftIn, SimulatedIn

RIGHT = recordings.RIGHT
SECONDS = 30.0
LARGEST = 6 * 1024 * 1024
"""Bytes of one file of a recording."""
BROKEN_KNIFE = {"chopper": {1.0: 2.4, 2.0: 0.6}, "rotor": {1.0: 0.15}}
"""Shaft → order → amplitude, m/s², of what the simulated recorder lies on; of a sound machine nothing stands out."""


def recording_for(member: Member, uuid_: uuid.UUID) -> Recording:
    """One of the shop's recordings. Raises NotFoundHere."""
    found: Recording = there(Recording.objects.of(member).filter(uuid=uuid_)).select_related("machine__model", "by").get()
    return found


def told_of(text: str) -> RecordingIn:
    """How the machine ran, of what came with a file. Raises BadInput at its field."""
    try:
        return RecordingIn.model_validate_json(text)
    except ValidationError as problem:
        first = problem.errors()[0]
        raise BadInput(".".join(map(str, first["loc"])) or "told", str(first["msg"]).removeprefix("Value error, ")) from None


@action(RIGHT)
def from_file(member: Member, machine: Machine, new: RecordingIn, source: str, name: str, content: bytes) -> Recording:
    """Keep a recording from a file, or from the phone's own sensor, which sends one. Raises BadInput with field ``file``."""
    if kept_already(member, Recording, new.uuid):
        return recording_for(member, new.uuid)
    _possible(machine, new)
    if len(content) > LARGEST:
        raise BadInput("file", f"is larger than {LARGEST // 1024 // 1024} MB: a minute or two of shaking is enough")
    try:
        found = apart.call(files.as_plain, name, content)
    except apart.TooMuch as problem:
        raise BadInput("file", problem.message) from None
    return _keep(member, machine, new, source, found["sample_hz"], found["samples"])


@action(RIGHT)
def simulate(member: Member, machine: Machine, new: SimulatedIn) -> Recording:
    """Keep what the simulated recorder would have recorded. Raises BadInput."""
    if kept_already(member, Recording, new.uuid):
        return recording_for(member, new.uuid)
    _possible(machine, new)
    line = recordings.drive_line(machine)
    assert line is not None  # noqa: S101  (_possible)
    rpm = {one.key: one.rpm for one in turning(line, new.engine_rpm, new.ranges, new.rpm)}
    shaking = {key: orders for key, orders in BROKEN_KNIFE.items() if new.shaking and key in rpm}
    tones = tones_of(Speeds(new.engine_rpm, rpm), shaking, {})
    samples = recorded(tones, SECONDS, new.uuid.int % 2**32)
    return _keep(member, machine, new, Recording.Source.SIMULATED, SAMPLE_HZ, samples)


@action(RIGHT)
def take_back(member: Member, uuid_: uuid.UUID) -> Recording:
    """It counts no more. Raises NotFoundHere."""
    taken_back.take_back(member, there(Recording.objects.of(member).filter(uuid=uuid_)))
    return recording_for(member, uuid_)


@action(recordings.CHANGE)
def write_shaft(member: Member, machine: Machine, new: ShaftIn) -> None:
    """A shaft as the manual of the machine's model has it; the same UUID twice is once. Raises BadInput with field ``key``,
    ``orders`` or ``bearings.<i>.balls``."""
    hold(machine)
    if kept_already(member, ModelShaft, new.uuid):
        return
    line = recordings.drive_line(machine)
    known = {one.key: one for one in line.shafts} if line else {}
    if new.key not in known:
        raise BadInput("key", "is no shaft of this machine")
    for order in new.orders:
        try:
            right = 0 < float(order) < 10_000
        except ValueError:
            right = False
        if not right:
            raise BadInput("orders", f"{order} is no number of times a turn")
    for i, bearing in enumerate(new.bearings):
        if bearing.balls * bearing.ball_mm >= math.pi * bearing.pitch_mm:
            raise BadInput(f"bearings.{i}.balls", "so many balls do not fit on a circle of this size")
    bearings = [bearing.model_dump() for bearing in new.bearings]
    ModelShaft.objects.create(
        uuid=new.uuid,
        model=machine.model,
        key=new.key,
        speeds=new.speeds,
        orders=new.orders,
        bearings=bearings,
        source=new.source.strip(),
        by=member.user,
    )
    _log_shaft(member, machine, known[new.key])


@action(recordings.CHANGE)
def take_shaft_back(member: Member, machine: Machine, uuid_: uuid.UUID) -> None:
    """As the manual had it before somebody wrote it so; the catalogue's where nobody had. Raises NotFoundHere."""
    rows = there(ModelShaft.objects.of(member).filter(uuid=uuid_, model=machine.model))
    line = recordings.drive_line(machine)
    if taken_back.take_back(member, rows) and line:
        _log_shaft(member, machine, next(one for one in line.shafts if one.key == rows.get().key))


def _log_shaft(member: Member, machine: Machine, before: DrivenShaft) -> None:
    line = recordings.drive_line(machine)
    now = next(one for one in line.shafts if one.key == before.key) if line else before
    log_change(member, Change.About.MODEL, f"{machine.model}: {before.name}", _shaft_words(before), _shaft_words(now))


def _shaft_words(shaft: DrivenShaft) -> str:
    speeds = ", ".join(f"{name} {rpm:g} rpm" for name, rpm in shaft.speeds.items())
    orders = ", ".join(f"{order} × {what}" for order, what in shaft.orders.items())
    bearings = ", ".join(f"{one.name}: {one.balls} × {one.ball_mm:g} mm" for one in shaft.bearings)
    return "; ".join(filter(None, (speeds, orders, bearings)))


def _possible(machine: Machine, new: RecordingIn) -> None:
    line = recordings.drive_line(machine)
    if line is None:
        raise BadInput("engine_rpm", "nobody has told what turns in this kind of machine")
    known = {one.key: one for one in line.shafts}
    for key, ranged in new.ranges.items():
        if key not in known or ranged not in known[key].speeds:
            raise BadInput(f"ranges.{key}", "is no range of this machine")
    for key in new.rpm:
        if key not in known:
            raise BadInput(f"rpm.{key}", "is no shaft of this machine")


def _keep(
    member: Member, machine: Machine, new: RecordingIn, source: str, sample_hz: float, samples: Sequence[float]
) -> Recording:
    hold(machine)  # only now: what came before took its time
    if kept_already(member, Recording, new.uuid):
        return recording_for(member, new.uuid)
    Recording.objects.create(
        uuid=new.uuid,
        machine=machine,
        source=source,
        sample_hz=sample_hz,
        samples=array("f", samples).tobytes(),
        engine_rpm=new.engine_rpm,
        ranges=new.ranges,
        rpm=new.rpm,
        station=new.station.strip(),
        crop=new.crop.strip(),
        words=new.words.strip(),
        by=member.user,
    )
    return recording_for(member, new.uuid)
