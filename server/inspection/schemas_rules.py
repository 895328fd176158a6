"""What the endpoints of rules take and give: models, limits, schools, feelers."""

import datetime as dt
from uuid import UUID

from pydantic import BaseModel as Schema
from pydantic import Field

from tabular.lengths import Key


class RuleFigureOut(Schema):
    """A limit in force for a model: the figure as a number in `unit`, where it comes from, and what was shipped.

    typed: as it is typed again.
    """

    figure: str
    name: str
    value: float
    shown: str
    typed: str
    unit: str
    source: str
    note: str
    shipped: str
    own: bool


class RuleCheckOut(Schema):
    check: str
    name: str
    station: str
    figures: list[RuleFigureOut]


class ModelOut(Schema):
    id: int
    name: str
    kind: str


class CountOut(Schema):
    thing: str
    many: str
    count: int
    shipped: int


class ModelNumberOut(Schema):
    """A part number of a model; side: left, right or neither; remarks: its kind, what came after it, notes."""

    part: str
    side: str
    number: str
    pack: int
    chosen: bool
    remarks: str


class ModelRulesOut(Schema):
    """Everything of a model. machines: those there are of it; own: checks that were made for it alone; to_find: parts without
    a number."""

    model: ModelOut
    machines: list[str]
    checks: list[RuleCheckOut]
    counts: list[CountOut]
    numbers: list[ModelNumberOut]
    to_find: int
    own: list[str]


class SchoolChoiceOut(Schema):
    key: str
    name: str
    why: str


class SchoolOut(Schema):
    subject: str
    name: str
    chosen: str
    default: str
    why_default: str
    choices: list[SchoolChoiceOut]


class FeelerOut(Schema):
    id: int
    name: str
    thickness_mm: float


class ChangeOut(Schema):
    at: dt.datetime
    by: str
    what: str
    before: str
    after: str


class RulesOut(Schema):
    """What a shop has decided: schools, feelers, and the log of changes. models: those whose limits can be looked at."""

    models: list[ModelOut]
    schools: list[SchoolOut]
    feelers: list[FeelerOut]
    changes: list[ChangeOut]
    may_change: bool


class CopyIn(Schema):
    """A model like another, under its own name."""

    uuid: UUID
    maker: str = Field(max_length=60)
    name: str = Field(max_length=60)


class LimitIn(Schema):
    """A limit as it was typed; empty text takes the shop's or the manual's own figure away again."""

    check: str = Field(max_length=60)
    figure: str = Field(max_length=30)
    text: str = Field(default="", max_length=30)
    source: Key = Field(default="shop", pattern="^(shop|manual)$")
    note: str = Field(default="", max_length=200)


class CountIn(Schema):
    thing: str = Field(max_length=40)
    count: int = Field(ge=0, le=400)


class SchoolIn(Schema):
    subject: str = Field(max_length=60)
    choice: str = Field(max_length=60)


class FeelerIn(Schema):
    """Empty thickness takes the feeler away."""

    name: str = Field(min_length=1, max_length=30)
    thickness: str = Field(default="", max_length=20)
