"""What the endpoints of traced faults take and give."""

import datetime as dt
from typing import Annotated, Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from inspection.schemas_notes import NoteOut
from tabular.lengths import Key

from .schemas_swapping import SwapBriefOut

Outcome = Literal["", "found", "not-found", "watched"]
Gone = Literal["", "put-right", "other-speed"]
Said = Annotated[str, Field(max_length=300)]


class KeyNameOut(Schema):
    """Something that is named by a key, as one says it."""

    key: str
    name: str


class MachineDrawnOut(Schema):
    """A machine, or what hangs on it, with the stations where a symptom shows."""

    family: str
    of: str
    stations: list[KeyNameOut]


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
    and past. swap_slots: parts of its rows that can be swapped."""

    machine: MachineOut
    header: str
    drawn: list[MachineDrawnOut]
    symptoms: list[SymptomOut]
    notes: list[NoteOut]
    traces: list[TraceBriefOut]
    swaps: list[SwapBriefOut]
    swap_slots: list[KeyNameOut]
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
    machine, until it was found. may_add: what it was, for the next time."""

    uuid: UUID
    machine: MachineOut
    header: str
    symptom: str
    symptom_key: str
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
    may_add: bool


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
