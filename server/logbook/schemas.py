"""What the endpoints of wear and logbook take and give. Figures of wear are in the reader's unit of that check, rates per 100
hours or hectares."""

import datetime as dt
import uuid
from typing import Literal

from ninja import Field, Schema

State = Literal["sound", "watch", "due"]


class PlaceAheadOut(Schema):
    """One wearing place. p: chance to reach the limit before the season ends; advice and money only where they are known.

    rests_on: in words. marked: what was noticed in its history, in words.
    """

    position: str
    label: str
    state: State
    n: int
    last: float | None
    now: float
    value: float
    low: float
    high: float
    p: float
    chance: str
    rate: float
    rate_sd: float
    used: float
    faster: bool
    stands_out: bool
    rests_on: str
    marked: list[str]
    fitted: str
    number: str
    price: float | None
    cost_wait: float | None
    cost_now: float | None
    break_even: float | None
    advice: str


class CheckAheadOut(Schema):
    """The places of one check. unit: of the figures; decimals: worth showing; new, limit: in that unit."""

    check: str
    name: str
    station: str
    unit: str
    decimals: int
    new: float
    limit: float
    safety: bool
    watch_chance: float
    season_share: float
    seasons: int
    places: list[PlaceAheadOut]


class TipOut(Schema):
    """A place that tips over when the machine does more than it was asked about."""

    check: str
    name: str
    position: str
    label: str
    before: State
    after: State
    chance_before: float
    chance_after: float


class NextUseOut(Schema):
    """The coming season: use from now to its end, and where that comes from."""

    unit: str
    counter: float | None
    usual: float | None
    asked: float | None
    use: float | None
    end: float | None
    source: str
    seasons: list[float]


class MachineAheadOut(Schema):
    machine_id: int
    machine: str
    currency: str
    next_use: NextUseOut
    more: float
    checks: list[CheckAheadOut]
    tips: list[TipOut]
    may_change: bool


class FleetLineOut(Schema):
    """One part that may not last the season. count: places of it on this machine that are as this one."""

    machine_id: int
    machine: str
    model: str
    check: str
    name: str
    position: str
    label: str
    unit: str
    decimals: int
    now: float
    value: float
    low: float
    high: float
    limit: float
    p: float
    chance: str
    state: State
    cost_wait: float | None
    cost_now: float | None
    break_even: float | None
    advice: str


class FleetAheadOut(Schema):
    """All parts of all machines that may not last, the dearest to wait with first. quiet: parts that will."""

    currency: str
    lines: list[FleetLineOut]
    quiet: int
    machines: int
    without: list[str]


class PointOut(Schema):
    counter: float
    value: float
    low: float
    high: float


class ReadOut(Schema):
    """A reading as a point. doubted: it does not fit; past: of a part that is no longer in."""

    counter: float | None
    value: float
    raw: str
    at: dt.datetime
    by: str
    doubted: bool
    past: bool


class FittedOut(Schema):
    counter: float | None
    at: dt.datetime
    number: str


class SeasonCellOut(Schema):
    """Wear in one season, per 100; None where nothing was read at both ends."""

    position: str
    rate: float | None


class SeasonOut(Schema):
    start: float
    end: float
    cells: list[SeasonCellOut]


class PlaceWearOut(Schema):
    position: str
    label: str
    row: int | None
    side: str
    wheels: bool
    path: list[PointOut]
    readings: list[ReadOut]
    fitments: list[FittedOut]


class AgainstOut(Schema):
    """Mean wear per 100 as a share of what is allowed, beside others: a machine of this shop, or how such parts usually
    wear.
    """

    name: str
    share: float
    places: int
    mine: bool


class WearOut(Schema):
    ahead: CheckAheadOut
    unit: str
    now: float
    end: float
    places: list[PlaceWearOut]
    seasons: list[SeasonOut]
    against: list[AgainstOut]


class CounterIn(Schema):
    """shown: as it stands on the meter, in `unit` (empty: what its use is counted in). exchanged: a new meter, or set back;
    old_shown: the old one's last figure, if known."""

    uuid: uuid.UUID
    shown: float
    unit: Literal["", "h", "ha"] = ""
    at: dt.datetime | None = None
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


class LogbookOut(Schema):
    """stations: where a note may belong."""

    machine: str
    stations: list[LogbookStationOut]
    kinds: dict[str, str]
    entries: list[EntryOut]
    total: int


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
    key: str
    day: dt.date | None = None
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
    key: str
    season: int
    done: bool
