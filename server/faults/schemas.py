"""What the endpoints of faults take and give."""

import datetime as dt
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from inspection.schemas_notes import NoteOut
from tabular.lengths import Key

Outcome = Literal["", "found", "not-found", "watched"]
Gone = Literal["", "put-right", "other-speed"]
Said = Annotated[str, Field(max_length=300)]


class StationNameOut(Schema):
    key: str
    name: str


class MachineDrawnOut(Schema):
    """A machine, or what hangs on it, with the stations where a symptom shows."""

    family: str
    of: str
    stations: list[StationNameOut]


class SymptomOut(Schema):
    """hits: words that led to it. of: the machine or header whose symptom it is."""

    key: str
    name: str
    also: list[str]
    of: str
    causes: int
    hits: list[str]
    swap: bool


class TraceBriefOut(Schema):
    """was: what it was in the end, in words."""

    uuid: UUID
    symptom: str
    words: str
    outcome: Outcome
    was: str
    begun_at: dt.datetime
    ended_at: dt.datetime | None
    by: str
    taken_back: bool


class SwapBriefOut(Schema):
    """A swap test in a line."""

    uuid: UUID
    rows: list[str]
    words: str
    begun_at: dt.datetime
    ended_at: dt.datetime | None
    by: str


class FaultsOut(Schema):
    """Before a trace: the symptoms that words and signs lead to, best first; what the operator said; traces under way
    and past. swaps_here: parts of its rows can be swapped."""

    machine: MachineOut
    header: str
    drawn: list[MachineDrawnOut]
    symptoms: list[SymptomOut]
    notes: list[NoteOut]
    traces: list[TraceBriefOut]
    swaps: list[SwapBriefOut]
    swaps_here: bool
    may_trace: bool


class CauseOut(Schema):
    """share: of the probability, now; begun: before anything was looked at. because: what speaks for it. look: that proves
    it."""

    key: str
    name: str
    share: float
    begun: float
    because: list[str]
    look: str
    ruled_out: bool


class FaultLookOut(Schema):
    """check: full key in the walk-around, where it is a check of the catalogue. why: what its answer would tell."""

    key: str
    name: str
    how: str
    check: str
    posture: str
    lock: str
    cautions: list[str]
    minutes: float
    way_minutes: float
    p_bad: float
    gain_bits: float
    why: str


class LookedOut(Schema):
    """uuid: of an answer that can be taken back; none for a check, whose reading says it. words: what was seen."""

    uuid: UUID | None
    look: str
    name: str
    check: str
    bad: bool
    words: str
    at: dt.datetime | None
    by: str


class HeardOut(Schema):
    """The newest recording of the machine. names: shafts that it names, in words; none where it names none of them."""

    recording: UUID
    at: dt.datetime
    names: list[str]


class TraceOut(Schema):
    """looks: not made yet, best first. looked: made, in order. sure: the cause that is nearly certain. turns: a recording
    could tell some of the causes apart; heard: what the newest one says. loosens: what shaking
    may have loosened, by name. minutes: that the looks took; plain_minutes: looking along the
    machine, until it was found."""

    uuid: UUID
    machine: MachineOut
    header: str
    symptom: str
    words: str
    by: str
    begun_at: dt.datetime
    walk_around: UUID | None
    stands_in: str
    causes: list[CauseOut]
    looks: list[FaultLookOut]
    looked: list[LookedOut]
    entropy_bits: float
    sure: str
    all_clear: bool
    swap: bool
    turns: bool
    heard: HeardOut | None
    loosens: list[str]
    minutes: float
    plain_minutes: float
    outcome: Outcome
    cause: str
    otherwise: str
    gone: Gone
    ended_at: dt.datetime | None
    ended_by: str
    may_trace: bool


class TraceIn(Schema):
    """words: as somebody said it. note: of the operator, that it begins with."""

    uuid: UUID
    symptom: Key
    words: Said = ""
    note: UUID | None = None


class LookAnswerIn(Schema):
    """locked: whoever looked confirmed the posture's lock."""

    uuid: UUID
    look: Key
    bad: bool
    locked: bool = False
    words: Annotated[str, Field(max_length=200)] = ""


class TraceEndIn(Schema):
    """cause: of the symptom, where it was found; otherwise: what it was, where it is none of them."""

    outcome: Literal["found", "not-found", "watched"]
    cause: Annotated[str, Field(max_length=40)] = ""
    otherwise: Annotated[str, Field(max_length=200)] = ""
    gone: Gone = ""


Row = Annotated[str, Field(min_length=1, max_length=4)]
PartSerial = Annotated[str, Field(max_length=40)]


class SwapSlotOut(Schema):
    """minutes: to swap it between two rows."""

    slot: str
    name: str
    minutes: float


class SwapRunOut(Schema):
    """swapped: names of what was exchanged before it. sat: row → slot → number of the part that sat there."""

    uuid: UUID
    swapped: list[str]
    row_a: str
    row_b: str
    faults: dict[str, bool]
    sat: dict[str, dict[str, str]]
    at: dt.datetime
    by: str


class NextSwapOut(Schema):
    slots: list[str]
    names: list[str]
    row_a: str
    row_b: str
    minutes: float


class SwapTestOut(Schema):
    """seats: who sits where now. suspects, cleared: parts as ``name: number``. next_swap: what to exchange; none at the
    beginning and in the end. proven_slot, proven_row: of the proven part and where it sits now."""

    uuid: UUID
    machine: MachineOut
    rows: list[str]
    slots: list[SwapSlotOut]
    seats: dict[str, dict[str, str]]
    runs: list[SwapRunOut]
    suspects: list[str]
    cleared: list[str]
    proven: str
    proven_slot: str
    proven_row: str
    words: str
    next_swap: NextSwapOut | None
    ended_at: dt.datetime | None
    fitted: bool
    by: str
    begun_at: dt.datetime
    may_trace: bool


class SwapTestIn(Schema):
    """rows: that take part, the one with the fault first. parts: row → slot → number, of those that somebody knows."""

    uuid: UUID
    rows: Annotated[list[Row], Field(min_length=2, max_length=12)]
    parts: Annotated[dict[str, Annotated[dict[str, PartSerial], Field(max_length=10)]], Field(max_length=12)] = {}


class SwapRunIn(Schema):
    """swapped: slots that were exchanged between row_a and row_b before this run; none: as it stood. faults: of every row."""

    uuid: UUID
    swapped: Annotated[list[Key], Field(max_length=10)] = []
    row_a: Annotated[str, Field(max_length=4)] = ""
    row_b: Annotated[str, Field(max_length=4)] = ""
    faults: Annotated[dict[str, bool], Field(max_length=12)]


class SwapEndIn(Schema):
    """renewed: a new part took the place of the proven one."""

    uuid: UUID
    renewed: bool = False


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
    own: as the model's manual has it; source: which."""

    key: str
    name: str
    station: str
    drives: str
    follows: bool
    speeds: dict[str, float]
    orders: dict[str, str]
    bearings: list[BearingOut]
    own: bool
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

    key: Key
    speeds: Annotated[dict[ShaftKey, Rpm], Field(min_length=1, max_length=6)]
    orders: Annotated[dict[Annotated[str, Field(max_length=8)], Annotated[str, Field(max_length=60)]], Field(max_length=20)]
    bearings: Annotated[list[BearingIn], Field(max_length=4)] = []
    source: Annotated[str, Field(max_length=120)] = ""
