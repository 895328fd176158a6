"""What a walk-around goes by: its checks, places, postures and visits, as the endpoints give them."""

import datetime as dt
import uuid
from typing import Literal

from pydantic import BaseModel as Schema

from lumvek_core.catalogue.model import Drawing

SeverityName = Literal["sound", "watch", "due", "stop", "not-seen", "does-not-apply"]


class OptionOut(Schema):
    """right: it is right without another word, by the crop that comes."""

    key: str
    name: str
    severity: SeverityName
    hint: str
    right: bool


class FigureOut(Schema):
    """A limit in force, in the reader's units, with where it comes from. brief: without the inches it was stated in."""

    key: str
    name: str
    shown: str
    brief: str
    source: str
    note: str


class LastOut(Schema):
    """How a place stood the last time."""

    position: str
    shown: str
    day: dt.date


class PinnedOut(Schema):
    """A picture of the shop's own beside a check: what a state looks like; path: where it lies."""

    photo: uuid.UUID
    uuid: uuid.UUID
    path: str
    state: str
    words: str


class CheckOut(Schema):
    """unit: of its limits and facts; unit_shown: what a bare figure is in, for this reader. more_than_figures: letters and
    signs may have to be typed."""

    key: str
    name: str
    station: str
    kind: str
    per: str
    unit: str
    unit_shown: str
    more_than_figures: bool
    values: list[str]
    how: str
    why: str
    ways: list[str]
    tools: list[str]
    hazards: list[str]
    drawing: Drawing | Literal[""]
    look: str
    together: str
    optional: bool
    often_missed: bool
    safety: bool
    bulk: bool
    posture: str
    thing: str
    grade: str
    options: list[OptionOut]
    feelers: list[str]
    figures: list[FigureOut]
    limits: dict[str, float]
    positions: list[str]
    last: list[LastOut]
    pinned: list[PinnedOut]


class PositionOut(Schema):
    key: str
    label: str
    thing: str
    number: int | None
    side: Literal["L", "R"] | None


class RouteStationOut(Schema):
    key: str
    name: str


class PostureOut(Schema):
    """A state of the machine: what must be locked, what to be careful of. asks: somebody has to confirm it once."""

    name: str
    lock: str
    cautions: list[str]
    running: bool
    off_machine: bool


class VisitOut(Schema):
    """One stay in a posture, with the checks made there in order."""

    posture: str
    via: list[str]
    minutes: float
    checks: list[str]


class PlanOut(Schema):
    visits: list[VisitOut]
    minutes: float
    minutes_station_order: float | None


class HoldOut(Schema):
    posture: str
    by: str
    at: dt.datetime
