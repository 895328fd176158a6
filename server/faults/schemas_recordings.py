"""What the endpoints of recordings and drive lines take and give."""

import datetime as dt
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from tabular.lengths import Key

Rpm = Annotated[float, Field(gt=0, le=20_000)]
ShaftKey = Annotated[str, Field(max_length=40)]


class BearingOut(Schema):
    name: str
    balls: int
    ball_mm: float
    pitch_mm: float
    angle_deg: float


class ShaftOut(Schema):
    """speeds: range → rpm at the engine's rated speed; ``fixed`` where there is one only. orders: times a turn → what gives it.
    own: that the shop wrote as the model's manual has it, by which it is taken back; source: which."""

    key: str
    name: str
    station: str
    drives: str
    follows: bool
    speeds: dict[str, float]
    orders: dict[str, str]
    bearings: list[BearingOut]
    own: UUID | None
    source: str


class RecordingBriefOut(Schema):
    """How it was made and how the machine ran."""

    uuid: UUID
    source: Literal["phone", "file", "simulated"]
    at: dt.datetime
    by: str
    engine_rpm: float
    station: str
    crop: str
    words: str
    seconds: float
    sample_hz: float
    ranges: dict[str, str]


class RecordingsOut(Schema):
    machine: MachineOut
    engine_rpm: float | None
    shafts: list[ShaftOut]
    recordings: list[RecordingBriefOut]
    crops: list[str]
    may_trace: bool
    may_change: bool


class ShaftOrderOut(Schema):
    """observable: under half the rate of the recording."""

    order: float
    hz: float
    what: str
    observable: bool


class TurningOut(Schema):
    """A shaft as it turned: rpm, in which range, and its orders in Hz."""

    key: str
    name: str
    station: str
    rpm: float
    ranged: str
    follows: bool
    orders: list[ShaftOrderOut]


class ShaftMatchOut(Schema):
    shaft: str
    order: float
    off_pct: float


class ShakePeakOut(Schema):
    hz: float
    amplitude: float
    matches: list[ShaftMatchOut]


class ShaftScoreOut(Schema):
    shaft: str
    score: float


class ShakeComparedOut(Schema):
    """follows: engine, not, same (at one speed nobody can tell), only (the other does not have it)."""

    hz: float
    other_hz: float | None
    order: float
    follows: Literal["engine", "not", "same", "only"]
    times: float | None


class SpectrumOut(Schema):
    hz: list[float]
    amplitude: list[float]
    level: float


class RecordingOut(RecordingBriefOut):
    """says: the shaft that it is, or “no match”. beside: another recording of the machine, with its spectrum."""

    machine: MachineOut
    spectrum: SpectrumOut
    shafts: list[TurningOut]
    peaks: list[ShakePeakOut]
    ranked: list[ShaftScoreOut]
    unmatched: list[float]
    says: str
    others: list[RecordingBriefOut]
    beside: RecordingBriefOut | None
    beside_spectrum: SpectrumOut | None
    compared: list[ShakeComparedOut]
    taken_back: bool
    may_trace: bool


class RecordingIn(Schema):
    """How the machine ran. ranges: shaft → range; rpm: shaft → as the display showed it."""

    uuid: UUID
    engine_rpm: Rpm
    ranges: Annotated[dict[ShaftKey, ShaftKey], Field(max_length=40)] = {}
    rpm: Annotated[dict[ShaftKey, Rpm], Field(max_length=40)] = {}
    station: Annotated[str, Field(max_length=60)] = ""
    crop: Annotated[str, Field(max_length=60)] = ""
    words: Annotated[str, Field(max_length=200)] = ""


class SimulatedIn(RecordingIn):
    """shaking: a chopper that has lost a knife."""

    shaking: bool = True


class BearingIn(Schema):
    """pitch_mm: diameter of the circle the balls' centres run on."""

    name: Annotated[str, Field(min_length=1, max_length=60)]
    balls: Annotated[int, Field(ge=2, le=100)]
    ball_mm: Annotated[float, Field(gt=0, le=1000)]
    pitch_mm: Annotated[float, Field(gt=0, le=2000)]
    angle_deg: Annotated[float, Field(ge=0, le=60)] = 0


class ShaftIn(Schema):
    """As the model's manual has it."""

    uuid: UUID
    key: Key
    speeds: Annotated[dict[ShaftKey, Rpm], Field(min_length=1, max_length=6)]
    orders: Annotated[dict[Annotated[str, Field(max_length=8)], Annotated[str, Field(max_length=60)]], Field(max_length=20)]
    bearings: Annotated[list[BearingIn], Field(max_length=4)] = []
    source: Annotated[str, Field(max_length=120)] = ""
