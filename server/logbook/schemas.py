"""What the endpoints of wear and logbook take and give. Figures of wear are in the reader's unit of that check, rates per 100
hours or hectares."""

import datetime as dt
from typing import Literal

from ninja import Schema

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
