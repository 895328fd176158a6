"""What the season's endpoints take and give. Times without a zone are on the shop's clock."""

import datetime as dt
import uuid
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from lumvek_core.planning.season.model import MOST_MACHINES
from tabular.lengths import Line
from tabular.moments import Day, LocalMoment, Moment

Kind = Literal["work", "strip", "refit", "look", "put-away", "service", "changeover", "calibrate", "own"]
PlaceName = Literal["bay", "outside", "bench", "field"]
Minutes = Annotated[float, Field(ge=5, le=6000)]
Key = Annotated[str, Field(min_length=1, max_length=120)]


class StretchOut(Schema):
    start: str
    end: str


class AwaitedOut(Schema):
    """by: an order, or the plan to buy it; empty where nobody knows."""

    id: str
    words: str
    arrives: str | None
    by: str
    bin: str


class JobSaidOut(Schema):
    """What somebody said of a job: that they moved, began or did it."""

    at: dt.datetime
    by: str
    words: str


class SeasonJobOut(Schema):
    """stretches: when it is worked on; empty where it has no place in the plan, and `without` says why. low, high: half of the
    times it was timed lie between. against: what its pin contradicts; pin_trouble: why it
    cannot be done where it was set. begun: who is at it, since when."""

    key: str
    name: str
    kind: Kind
    machine: str
    machine_id: int
    minutes: float
    timed: int
    low: float | None
    high: float | None
    hands: int
    skill: str
    posture: str
    place_kind: PlaceName
    place: str
    stretches: list[StretchOut]
    technicians: list[str]
    pinned: bool
    against: list[str]
    pin_trouble: str
    without: str
    moved: bool
    parts: list[AwaitedOut]
    after: list[str]
    tools: list[str]
    cautions: list[str]
    begun_by: str
    begun_at: dt.datetime | None
    done: bool
    cannot: str
    said: list[JobSaidOut]


class SeasonFixOut(Schema):
    kind: Literal["one_day", "one_hand", "rush_part"]
    what: str
    words: str
    gain_h: float


class SeasonMachineOut(Schema):
    """words: in one sentence what makes it late, and what would cure it; empty for one that is ready in time."""

    id: int
    name: str
    season_date: dt.date | None
    due: str | None
    ready: str | None
    late_h: float
    cause: str
    words: str
    fixes: list[SeasonFixOut]


class SeasonPersonOut(Schema):
    name: str
    member: int
    shifts: list[StretchOut]


class SeasonPlaceOut(Schema):
    name: str
    kind: PlaceName


class PostureMoveOut(Schema):
    machine: str
    start: str
    to: str
    minutes: float


class LaterOut(Schema):
    """A machine that is not planned to the hour. hours: of people's work. begins, ready: days, roughly; none where `without`
    says why."""

    id: int
    name: str
    season_date: dt.date | None
    jobs: int
    hours: float
    begins: dt.date | None
    ready: dt.date | None
    late_days: int | None
    without: str


class SeasonPlanOut(Schema):
    """late_h, late_bound_h: weighted late hours, and what no plan is under. moved: jobs that stand otherwise than in the plan
    before, in words. later: machines that there was no room for, the season's nearest first. chosen: machines that somebody
    wanted planned instead of the season's nearest."""

    uuid: uuid.UUID
    at: dt.datetime
    by: str
    words: str
    taken: bool
    now: str
    ends: str
    people: list[SeasonPersonOut]
    places: list[SeasonPlaceOut]
    machines: list[SeasonMachineOut]
    jobs: list[SeasonJobOut]
    posture_moves: list[PostureMoveOut]
    dry: list[StretchOut]
    late_h: float
    late_bound_h: float
    gap_pct: float
    optimal: bool
    moved: list[str]
    later: list[LaterOut]
    chosen: list[int]


class SeasonPlanBrief(Schema):
    uuid: uuid.UUID
    at: dt.datetime
    by: str
    words: str
    taken: bool


class SeasonWorkOut(Schema):
    """plan: the one people work by. stale: what is otherwise since it was made, in words. under_way: another one is being
    worked out."""

    plan: SeasonPlanOut | None
    stale: list[str]
    under_way: bool
    may_plan: bool
    may_work: bool


class SeasonPlanIn(Schema):
    """uuid: of the plan to be made. day: a day on which everybody works beside; hand: one more pair of hands; rush: a part that
    is here at once; machine, season_date: another date for one machine. anew: whatever moves against the plan there is.
    machines: in a shop that has more than can be planned to the hour, those that come first."""

    uuid: uuid.UUID
    anew: bool = False
    day: Day | None = None
    hand: bool = False
    rush: Annotated[str, Field(max_length=120)] = ""
    machine: int | None = None
    season_date: Day | None = None
    machines: Annotated[list[int], Field(max_length=MOST_MACHINES)] = []


class JobPinIn(Schema):
    start: LocalMoment
    technicians: Annotated[list[Line], Field(max_length=2)] = []
    place: Annotated[str, Field(max_length=60)] = ""


class JobMarkIn(Schema):
    """kind: ``pin`` with a pin or without one to let it move again; ``done`` with the minutes it took, where they are known;
    ``cannot`` with a reason, and a day from which it may go on."""

    uuid: uuid.UUID
    key: Key
    kind: Literal["pin", "start", "stop", "done", "cannot"]
    pin: JobPinIn | None = None
    minutes: Minutes | None = None
    reason: Annotated[str, Field(max_length=200)] = ""
    not_before: Day | None = None
    at: Moment | None = None


class OwnJobTyped(Schema):
    machine: int
    name: Annotated[str, Field(min_length=1, max_length=120)]
    minutes: Minutes
    hands: Annotated[int, Field(ge=1, le=2)] = 1
    skill: Annotated[str, Field(max_length=40)] = ""
    place: PlaceName = "bay"
    lift: bool = False


class OwnJobIn(OwnJobTyped):
    uuid: uuid.UUID


class AwayIn(Schema):
    uuid: uuid.UUID
    first: Day
    last: Day
    note: Annotated[str, Field(max_length=120)] = ""


class AwayOut(Schema):
    uuid: uuid.UUID
    first: dt.date
    last: dt.date
    note: str


class HandsIn(Schema):
    """hours: as people write them; empty for the shop's. skills: separated by commas."""

    planned: bool
    hours: Annotated[str, Field(max_length=300)] = ""
    skills: Annotated[str, Field(max_length=300)] = ""


class HandsOut(Schema):
    member: int
    name: str
    planned: bool
    hours: str
    usual_hours: bool
    skills: list[str]
    away: list[AwayOut]


class DrySpellIn(Schema):
    uuid: uuid.UUID
    start: LocalMoment
    end: LocalMoment


class DrySpellOut(Schema):
    uuid: uuid.UUID
    start: str
    end: str
    source: str


class SeasonHandsOut(Schema):
    """skills: those that somebody has, or that work may want. forecast: whether one is connected."""

    forecast: bool
    people: list[HandsOut]
    dry: list[DrySpellOut]
    skills: list[str]


class ReadinessAsked(Schema):
    """machine: of this one alone. plan: by this plan, and not the one that people work by."""

    machine: int | None = None
    plan: uuid.UUID | None = None


class ReadinessOut(Schema):
    """Of one machine, those headers included that it was walked around with last: the one judgement that every screen shows.

    said, short: the judgement in a few words, and in two or three. because: what is in the way, in words; empty only where it
    is ready. stops: those of them that nobody may run it with. pins: jobs set by hand to where they cannot be done, in words.
    looked_pct: of what is to be looked at, by weight; None where nobody knows. if_ordered: when it would be ready if what is
    not ordered were ordered now, where ready_on is not known. first, last: days between which it will mostly be ready, where
    the work decides it. may_be_late: in time as planned, but not for sure. words: what makes it late by the plan, and what
    would cure it. hours_left: of people's work.
    """

    machine: int
    name: str
    state: Literal["not_fit", "not_known", "not_looked_at", "ready_after", "ready"]
    said: str
    short: str
    ready_on: dt.date | None
    if_ordered: dt.date | None
    late_days: int | None
    because: list[str]
    stops: list[str]
    pins: list[str]
    looked_pct: float | None
    season_date: dt.date | None
    first: dt.date | None
    last: dt.date | None
    may_be_late: bool
    words: str
    hours_left: float
    jobs_left: int
    parts_out: int


class FeedIn(Schema):
    uuid: uuid.UUID


class FeedOut(Schema):
    """path: the address, shown once when it was made. made_at: None where there is none. used_at: None: nobody read it."""

    path: str
    made_at: dt.datetime | None
    ends_at: dt.datetime | None
    used_at: dt.datetime | None
