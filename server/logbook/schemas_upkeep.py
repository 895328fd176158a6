"""What the endpoints of counters, logbook, services and the put-away list take and give."""

import datetime as dt
import uuid
from typing import Annotated, Literal

from ninja import Field, Schema

from tabular.lengths import Key
from tabular.moments import Day, Moment
from tabular.paging import ListAsked, PageOut


class CounterIn(Schema):
    """shown: as it stands on the meter, in `unit` (empty: what its use is counted in). exchanged: a new meter, or set back;
    old_shown: the old one's last figure, if known."""

    uuid: uuid.UUID
    shown: float
    unit: Literal["", "h", "ha"] = ""
    at: Moment | None = None
    confirmed: bool = False
    exchanged: bool = False
    old_shown: float | None = None


class CounterOut(Schema):
    uuid: uuid.UUID
    at: dt.datetime
    shown: float
    total: float
    unit: str
    source: str
    exchanged: bool
    confirmed: bool
    withdrawn: bool
    by: str


class CountersOut(Schema):
    """unit: what its use is counted in; also: the other meter's stand, where it has two."""

    unit: str
    now: float | None
    two: bool
    also: float | None
    telematics: bool
    readings: list[CounterOut]


class NextUseIn(Schema):
    """use: of the coming season from now on; None: as the last seasons were."""

    use: float | None = None


class EntryOut(Schema):
    """One thing that happened. link: where it is told in full; photo: address of a picture."""

    at: dt.datetime
    kind: str
    title: str
    text: str
    station: str
    counter: str
    by: str
    link: str
    photos: list[str]


class LogbookStationOut(Schema):
    key: str
    name: str


class LogbookAsked(ListAsked):
    """kind: of entries; none is all. station: its name."""

    kind: Annotated[list[str], Field(max_length=20)] = []
    station: Annotated[str, Field(max_length=80)] = ""
    order: Literal["newest", "oldest"] = "newest"


class LogbookOut(Schema):
    """A page of the logbook. stations: where a note may belong."""

    machine: str
    stations: list[LogbookStationOut]
    kinds: dict[str, str]
    entries: list[EntryOut]
    page: PageOut


class ServiceDueOut(Schema):
    """record: of the logbook that it was last done, where that is what tells; it can be taken back."""

    key: str
    name: str
    how: str
    source: str
    state: Literal["overdue", "due", "soon", "later", "unknown"]
    interval: str
    last: str
    due: str
    left: str
    record: uuid.UUID | None


class ServicesOut(Schema):
    unit: str
    counter: float | None
    services: list[ServiceDueOut]
    may_record: bool


class ServiceDoneIn(Schema):
    uuid: uuid.UUID
    key: Key
    day: Day | None = None
    counter: float | None = None
    note: str = Field(default="", max_length=300)


class PutAwayItemOut(Schema):
    key: str
    text: str
    how: str
    why: str
    done: bool
    by: str
    at: dt.datetime | None


class PutAwayOut(Schema):
    season: int
    seasons: list[int]
    items: list[PutAwayItemOut]
    done: int
    may_record: bool


class TickIn(Schema):
    uuid: uuid.UUID
    key: Key
    season: int
    done: bool
