"""What the API of orders, receiving, fitting and stock takes and gives."""

import datetime as dt
from typing import Literal
from uuid import UUID

from ninja import Schema
from pydantic import Field

from tabular.lengths import Figure, Key
from tabular.moments import Day
from tabular.paging import ListAsked, PageOut


class OrderKindIn(Schema):
    kind: Literal["cheapest", "surest", "quickest"]


class OrderLineOut(Schema):
    number: str
    name: str
    quantity: int
    unit_price: str
    accepted: int
    follows: int
    refused: int
    received: int
    to_come: int
    promised: dt.date | None
    follows_on: dt.date | None
    serves: list[str]


class OrderOut(Schema):
    """under_way: the desk or the mail server is being asked at this moment. mail: what became of the letter."""

    uuid: UUID
    supplier: str
    email: str
    desk: bool
    way: str
    run_date: dt.date
    run_cost: str
    state: str
    state_name: str
    answered: bool
    reference: str
    trouble: str
    tries: int
    unsent: bool
    may_drop: bool
    received: bool
    under_way: bool
    mail: Literal["", "going", "sent", "failed", "unsure"]
    mail_at: dt.datetime | None
    mail_trouble: str
    by: str
    at: dt.datetime
    parts: str
    lines: list[OrderLineOut]
    to_come: int


class OrdersAsked(ListAsked):
    """state: of an order, or ``open`` for what something is still to come of. order: the most pressing first, or by the day it
    is here."""

    state: Literal["", "open", "to-send", "accepted", "short", "refused", "by-hand", "dropped"] = ""
    supplier: int | None = None
    order: Literal["pressing", "newest", "day"] = "pressing"


class OrderSupplierOut(Schema):
    id: int
    name: str


class OrdersOut(Schema):
    """A page of orders. suppliers: those that anything was ever ordered from; states: what may be asked for, in words."""

    currency: str
    suppliers: list[OrderSupplierOut]
    states: dict[str, str]
    page: PageOut
    orders: list[OrderOut]


class DropRestIn(Schema):
    number: Key


class ByWordIn(Schema):
    """What somebody ordered by word, or bought over the counter. supplier: its name, known or new. price: of one piece, as
    typed; empty: not known. promised: None: no day was named. here: it is here already."""

    uuid: UUID
    number: Key
    supplier: str = Field(max_length=60)
    way: Literal["telephone", "counter", "site"]
    quantity: int = Field(ge=1, le=100_000)
    price: Figure = ""
    promised: Day | None = None
    here: bool = False


class ReceiveIn(Schema):
    """quantity: None takes all that is still to come."""

    uuid: UUID
    number: str = Field(max_length=40)
    quantity: int | None = None


class ReceivedOut(Schema):
    number: str
    name: str
    uuid: UUID
    received: int
    to_come: int
    bin: str


class MailOut(Schema):
    to: str
    subject: str
    text: str


class FitIn(Schema):
    uuid: UUID
    walk_around: UUID
    slot: Key
    positions: list[Key]
    counter: float | None = None
    place: Literal["shelf", "truck"] = "shelf"


class StockLineOut(Schema):
    number: str
    name: str
    bin: str
    shelf: int
    truck: int
    carry: int
    advised: int
    expected: float
    events: int
    past_events: int
    hours: float
    hours_ahead: float
    prior_hours: float
    price: str


class MovementOut(Schema):
    """may_take_back: it counts, and is not itself a taking back."""

    uuid: UUID
    may_take_back: bool
    number: str
    place: str
    change: int
    reason: str
    note: str
    by: str
    at: dt.datetime


class StockOut(Schema):
    service: float
    currency: str
    items: list[StockLineOut]
    movements: list[MovementOut]


class StockCountIn(Schema):
    uuid: UUID
    number: Key
    place: Literal["shelf", "truck"]
    counted: int = Field(ge=0, le=100_000)


class LoadIn(Schema):
    uuid: UUID
    number: Key
    quantity: int


class GiveBackIn(Schema):
    uuid: UUID
    number: Key
    quantity: int
    note: str = Field(max_length=200)


class StockItemIn(Schema):
    number: str = Field(min_length=1, max_length=40)
    name: str = Field(min_length=1, max_length=80)
    bin: str = Field(default="", max_length=20)
    carry: int = Field(default=0, ge=0, le=1000)
    past_events: int = Field(default=0, ge=0, le=100_000)
    past_hours: float = Field(default=0, ge=0, le=1e7)
    prior_hours: float = Field(default=200, ge=1, le=1e6)
    hours_ahead: float = Field(default=0, ge=0, le=1e6)
