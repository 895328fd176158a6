"""What adding and changing machines takes and gives."""

import datetime as dt
import uuid
from typing import Literal

from pydantic import BaseModel as Schema
from pydantic import Field

from lumvek_core.catalogue.model import Drawing
from tabular.lengths import Figure, Key
from tabular.moments import Day

from .schemas import MachineOut
from .schemas_plan import FigureOut


class OptionPictureOut(Schema):
    """motif, state: a drawing of what good looks like; sign: of the station, where there is none."""

    motif: str
    state: str
    sign: str


class HasOut(Schema):
    """An option of a family, asked with yes or no. checks: how many checks it brings or takes away."""

    key: str
    name: str
    checks: int
    picture: OptionPictureOut


class CountedOut(Schema):
    thing: str
    name: str
    many: str
    count: int


class SizeOut(Schema):
    """A size or limit that a model has of its own. value: what stands there unless it is said; unit: of a bare figure."""

    check: str
    figure: str
    check_name: str
    name: str
    station: str
    shown: str
    unit: str


class DrawnOut(Schema):
    """A check whose sizes are asked, with what its drawing needs. own: those of its limits that are asked."""

    check: str
    name: str
    station: str
    how: str
    drawing: Drawing | Literal[""]
    limits: dict[str, float]
    figures: list[FigureOut]
    sizes: list[SizeOut]


class ModelBriefOut(Schema):
    id: int
    maker: str
    name: str
    counts: list[CountedOut]


class KindOut(Schema):
    """A family as it is asked about when a machine is added."""

    family: str
    name: str
    flow: str
    sign: str
    is_header: bool
    takes_headers: bool
    has_rows: bool
    rows: int
    counter: Literal["h", "ha"]
    options: list[HasOut]
    counts: list[CountedOut]
    sizes: list[DrawnOut]
    models: list[ModelBriefOut]


class NamedOut(Schema):
    id: int
    name: str


class KindsOut(Schema):
    """owners: who may own a machine; combines: those that headers are coupled to."""

    kinds: list[KindOut]
    owners: list[NamedOut]
    combines: list[NamedOut]


class SizeIn(Schema):
    check: Key
    figure: Key
    text: Figure
    source: Literal["manual", "shop"] = "manual"


class ModelIn(Schema):
    """A model of the shop (id), or a new one."""

    id: int | None = None
    family: Key = ""
    maker: str = Field("", max_length=60)
    name: str = Field("", max_length=60)
    counts: dict[str, int] = {}
    sizes: list[SizeIn] = []


class ParticularsIn(Schema):
    """Of a machine, as typed: lengths with or without their unit. priority: how many times as bad it is when it is late."""

    name: str = Field(max_length=80)
    serial: str = Field("", max_length=60)
    rows: int = 0
    track_rows: list[int] = []
    options: list[Key] = []
    season_date: Day | None = None
    priority: Literal[1, 2, 4] = 1
    row_spacing: Figure = ""
    folded_width: Figure = ""
    folded_height: Figure = ""
    owners: list[int] = []
    goes_with: list[int] = []


class NewMachineIn(Schema):
    """counter: what its meter shows now. arrival: it came new (every part is as old as it), used, or was here before."""

    uuid: uuid.UUID
    model: ModelIn
    machine: ParticularsIn
    counter: Figure = ""
    arrival: Literal["", "new", "used"] = ""


class MachinePictureOut(Schema):
    """what: the machine or its plate."""

    uuid: uuid.UUID
    what: Literal["machine", "plate"]
    path: str
    by: str
    at: dt.datetime


class ParticularsOut(ParticularsIn):
    """As it stands, lengths as its reader types them. gone: sold or scrapped, with the day. asked: what it may have."""

    machine: MachineOut
    model: ModelBriefOut
    family: str
    gone: str
    gone_on: dt.date | None
    may_change: bool
    asked: list[HasOut]
    pictures: list[MachinePictureOut]


class OpenWorkOut(Schema):
    """A walk-around that somebody is at."""

    id: uuid.UUID
    machine: str
    phase: str
    started_at: dt.datetime


class GoneIn(Schema):
    """why: sold or scrapped."""

    why: Literal["sold", "scrapped"]
    on: Day | None = None
