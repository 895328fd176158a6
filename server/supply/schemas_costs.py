"""What the API of cost and of strip-downs takes and gives. Money is text with two decimals."""

import datetime as dt
from uuid import UUID

from ninja import Schema
from pydantic import Field

from tabular.lengths import Figure, Key


class CostLineOut(Schema):
    number: str
    name: str
    quantity: int
    unit: str
    price: str
    amount: str


class CostShareOut(Schema):
    name: str
    percent: str
    amount: str


class ApprovalOut(Schema):
    uuid: UUID
    amount: str
    currency: str
    how: str
    by: str
    at: dt.datetime


class ShareIn(Schema):
    """percent: of a machine's cost that this owner bears; empty for no share of its own."""

    owner: int
    percent: str = Field(max_length=8)


class OwnerOut(Schema):
    id: int
    name: str


class MachineCostOut(Schema):
    machine: int
    name: str
    parts: str
    hours: str
    labour: str
    total: str
    unpriced: int
    without_hours: int
    strip_downs: list[str]
    lines: list[CostLineOut]
    shares: list[CostShareOut]
    may_bear: list[OwnerOut]
    approvals: list[ApprovalOut]


class CostsOut(Schema):
    currency: str
    labour_rate: str
    machines: list[MachineCostOut]
    owners: list[CostShareOut]
    is_owner: bool
    may_record: bool


class ApproveIn(Schema):
    uuid: UUID
    amount: Figure
    how: str = Field(default="", max_length=120)


class ApartPartOut(Schema):
    slot: str
    name: str
    position: str
    label: str
    state: str
    price: str
    p_fail: float
    remaining: float
    cost_now: str
    cost_later: str
    saving: float | None
    break_even: float | None
    advice: str
    by_school: bool
    taken: bool


class ApartGroupOut(Schema):
    """strip_down, place: what its pictures are kept under."""

    key: str
    strip_down: str
    place: str
    name: str
    opened_by: str
    hours: float
    downtime_h: float
    source: str
    parts: list[ApartPartOut]


class ApartOut(Schema):
    currency: str
    labour_rate: str
    downtime_rate: str
    groups: list[ApartGroupOut]
    may_picture: bool
    may_take: bool


class TakeIn(Schema):
    slot: Key
    positions: list[Key]
    taken: bool = True
