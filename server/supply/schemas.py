"""What the supply API takes and gives. Money is text with two decimals, in the currency that goes with it."""

import datetime as dt
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from lumvek_core.planning.sourcing_model import Pin, Sourced, SourceLine
from tabular.lengths import Figure, Key
from tabular.moments import Day, Moment
from tabular.paging import ListAsked, PageOut


class NeededPiece(Schema):
    """One part at one position. open: what it waits for; empty once it is fitted."""

    walk_around: UUID
    slot: str
    machine: int
    machine_name: str
    position: str
    label: str
    quantity: int
    origin: Literal["finding", "companion", "apart"]
    because: str
    severity: str
    why: str
    posture: str
    fitted: str
    fitting: UUID | None


class NeededLine(Schema):
    """One line of the list. net: pieces still missing; order: the same in packs; surplus: on order and no longer needed."""

    key: str
    number: str
    name: str
    side: str
    unit: str
    pack: int
    status: str
    note: str
    consumable: bool
    model: int
    slot: str
    side_key: str
    hand_open: bool
    severity: str
    to_run: bool
    needed: int
    fitted: int
    shelf: int
    truck: int
    coming: int
    net: int
    order: int
    surplus: int
    bin: str
    need_by: dt.date | None
    promised: dt.date | None
    state: Literal["number", "order", "coming", "here", "fitted"]
    price: str
    serves: list[str]
    pieces: list[NeededPiece]
    alternatives: list["AlternativeOut"]


class AlternativeOut(Schema):
    number: str
    kind: str
    kind_name: str
    life: float
    note: str
    price: str
    chosen: bool


class MachineNeedOut(Schema):
    id: int
    name: str
    pieces: int
    fitted: int
    need_by: dt.date | None
    season_date: dt.date | None
    counter: float | None
    counter_unit: str


class TermsOut(Schema):
    currency: str
    labour_rate: str
    km_cost: str
    downtime_rate: str
    late_cost_per_day: str
    days_before: int
    now: dt.datetime | None


class NeedsAsked(ListAsked):
    """machine: what is needed for it alone. order: what wants something done first, or by name, number or day. whole: all at
    once, for who fits or plans."""

    state: Literal["", "number", "order", "coming", "here", "fitted"] = ""
    machine: int | None = None
    order: Literal["pressing", "name", "number", "day"] = "pressing"
    whole: bool = False


class NeedsOut(Schema):
    """A page of the parts list. states: lines of the whole list in each state; machines: of the whole list."""

    terms: TermsOut
    today: dt.date
    page: PageOut
    states: dict[str, int]
    lines: list[NeededLine]
    machines: list[MachineNeedOut]
    may_change_terms: bool


class NumberIn(Schema):
    model: int
    slot: Key
    side: Literal["", "L", "R"] = ""
    number: str = Field(max_length=40)
    pack: int = Field(default=1, ge=1, le=1000)


class ChooseIn(Schema):
    model: int
    slot: Key
    side: Literal["", "L", "R"] = ""
    number: Key


class HandIn(Schema):
    """Which hand a part is that fits left or right, where its place does not tell."""

    walk_around: UUID
    slot: Key
    positions: list[Key]
    side: Literal["L", "R"]


class NeedDateIn(Schema):
    machine: int
    day: Day | None


class TermsIn(Schema):
    currency: Figure = Field(pattern="^[A-Z]{3}$")
    labour_rate: Figure
    km_cost: Figure
    downtime_rate: Figure
    late_cost_per_day: Figure
    days_before: int = Field(ge=0, le=90)
    now: Moment | None = None


class PinIn(Schema):
    line: Key
    supplier: Key
    way: Key
    date: Day | None = None


class SourcingIn(Schema):
    uuid: UUID
    pinned: list[PinIn] = []


class DeliveryIn(Schema):
    name: str = Field(min_length=1, max_length=20)
    lead_days: int = Field(ge=0, le=60)
    working: bool = True
    cutoff: Figure | None = Field(default=None, pattern=r"^([01]\d|2[0-3]):[0-5]\d$")
    price: float = Field(default=0, ge=0, le=10_000)


class SupplierIn(Schema):
    """id: 0 for a new one, which is entered under its uuid. hours: ``Mon–Fri 07:30–17:00, Sat 08:00–12:00``; closed: days, with
    commas between."""

    id: int = 0
    uuid: UUID | None = None
    name: str = Field(min_length=1, max_length=60)
    email: str = Field(default="", max_length=120)
    distance_km: float = Field(default=0, ge=0, le=5000)
    travel_min: float = Field(default=0, ge=0, le=700)
    counter_min: float = Field(default=15, ge=0, le=240)
    call_min: float | None = Field(default=None, ge=0, le=60)
    hours: str = Field(default="", max_length=300)
    closed: str = Field(default="", max_length=600)
    deliveries: list[DeliveryIn] = []


class SupplierOut(Schema):
    id: int
    name: str
    email: str
    distance_km: float
    travel_min: float
    counter_min: float
    call_min: float | None
    hours: str
    closed: str
    deliveries: list[DeliveryIn]
    ways: list[str]
    desk: bool


class OfferOut(Schema):
    supplier: str
    number: str
    unit_price: str
    stock: int
    p_stock: float
    pack: int
    restock_days: int | None
    status: str


class PlanAskedOut(Schema):
    """Of what a plan was asked, what its reader needs. start: now, on the shop's clock."""

    start: str
    lines: list[SourceLine]
    pinned: list[Pin]


class SourcingOut(Schema):
    """A plan with what it was asked and what it answers, as the core's source_parts gives them. stale: what changed since."""

    uuid: UUID
    at: dt.datetime
    by: str
    ordered_kind: str
    currency: str
    names: dict[str, str]
    serves: dict[str, list[str]]
    asked: PlanAskedOut
    answer: Sourced
    why: list[str]
    offers: list[OfferOut]
    suppliers: list[SupplierOut]
    stale: list[str]


class BookLineOut(Schema):
    slot: str
    name: str
    side: str
    number: str
    pack: int
    kind: str
    chosen: bool
    status: str
    life: float
    replaced_by: str
    mark: str
    note: str


class BookModelOut(Schema):
    id: int
    name: str
    numbers: int
    slots: int


class BookOut(Schema):
    models: list[BookModelOut]
    model: int
    name: str
    lines: list[BookLineOut]
    may_change: bool


class DeskOut(Schema):
    """connected: a desk is set up; answers: it does; simulated: its behaviour can be switched."""

    connected: bool
    answers: bool
    simulated: bool


class DeskIn(Schema):
    mode: Literal["normal", "slow", "deaf", "down"]
