"""What the endpoints of swap tests take and give."""

import datetime as dt
from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from tabular.lengths import Key

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


class SwapBriefOut(Schema):
    """A swap test in a line."""

    uuid: UUID
    rows: list[str]
    words: str
    begun_at: dt.datetime
    ended_at: dt.datetime | None
    by: str
