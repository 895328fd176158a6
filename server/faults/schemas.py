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


class FaultsOut(Schema):
    """Before a trace: the symptoms that words and signs lead to, best first; what the operator said; traces under way
    and past."""

    machine: MachineOut
    header: str
    stations: list[StationNameOut]
    symptoms: list[SymptomOut]
    notes: list[NoteOut]
    traces: list[TraceBriefOut]
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


class TraceOut(Schema):
    """looks: not made yet, best first. looked: made, in order. sure: the cause that is nearly certain. loosens: what shaking
    may have loosened, by name."""

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
    loosens: list[str]
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
