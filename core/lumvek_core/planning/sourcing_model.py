"""What `source_parts` takes and gives: lines, suppliers, offers; plans. Money is in the shop's own currency."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from ..bounds import AtMost, Over, Within
from ..calculators.common import Chance, NotNegative, Positive

FETCH = "fetch"
Days = Annotated[int, Within(0, 365)]
Kind = Literal["cheapest", "surest", "quickest"]


@dataclass(frozen=True)
class SourceLine:
    """qty: pieces (or litres). need_by: the day its job needs it; None where any day will do. needed: to run, or only while
    apart."""

    id: str
    part: str
    qty: Positive
    need_by: str | None = None
    late_cost_per_day: NotNegative = 0
    needed: Literal["run", "apart"] = "run"


@dataclass(frozen=True)
class Opening:
    """weekday: 0 Monday to 6 Sunday. Times as ``07:30``."""

    weekday: Annotated[int, Within(0, 6)]
    from_: str
    to: str


@dataclass(frozen=True)
class Delivery:
    """lead_days after the day it goes out; working: Monday to Friday only. cutoff: what is ordered later goes out a day
    later.
    """

    name: str
    lead_days: Days
    working: bool = True
    cutoff: str | None = None
    price: NotNegative = 0


@dataclass(frozen=True)
class SourceSupplier:
    """call_min: minutes of a telephone call; None where nobody answers."""

    name: str
    distance_km: NotNegative = 0
    travel_min: NotNegative = 0
    counter_min: NotNegative = 15
    open: Annotated[list[Opening], AtMost(40)] = field(default_factory=list)
    closed: Annotated[list[str], AtMost(400)] = field(default_factory=list)
    call_min: NotNegative | None = None
    deliveries: Annotated[list[Delivery], AtMost(20)] = field(default_factory=list)


@dataclass(frozen=True)
class SourceOffer:
    """unit_price: of one piece. stock: pieces said to be there, p_stock: chance that they are. restock_days: until there are
    more."""

    supplier: str
    part: str
    unit_price: NotNegative
    pack: Positive = 1
    stock: NotNegative = 0
    p_stock: Chance = 1
    restock_days: Days | None = None
    status: Literal["supported", "scarce"] = "supported"


@dataclass(frozen=True)
class Pin:
    """A choice made by hand. way: ``fetch`` or a delivery's name. date: the day of the trip or of ordering; None: the first
    there is."""

    line: str
    supplier: str
    way: str
    date: str | None = None


MOST_LINES = 1500
LONGEST_S = 20.0
"""Of solving; reading and putting into words come to it."""


@dataclass(frozen=True)
class SourceGiven:
    """start: now, on the shop's clock. cheapest_only: without the other plans and without reasons."""

    start: str
    lines: Annotated[list[SourceLine], AtMost(MOST_LINES)]
    suppliers: Annotated[list[SourceSupplier], AtMost(30)]
    offers: Annotated[list[SourceOffer], AtMost(20_000)]
    labour_rate: NotNegative
    horizon_days: Annotated[int, Within(1, 120)] = 21
    km_cost: NotNegative = 0
    pinned: Annotated[list[Pin], AtMost(MOST_LINES)] = field(default_factory=list)
    time_limit_s: Annotated[float, Over(0), Within(0, LONGEST_S)] = 5
    cheapest_only: bool = False


@dataclass(frozen=True)
class PlanCost:
    """risk: what a piece that turns out not to be there is expected to cost. late: of lines that come too late in any case."""

    parts: float
    trips: float
    delivery: float
    risk: float
    late: float
    total: float


@dataclass(frozen=True)
class Trip:
    """Out and back to one supplier. call_at: the call before it. only_if_there: driven only if the call says yes."""

    supplier: str
    date: str
    call_at: str | None
    leave: str
    back: str
    only_if_there: bool
    cost: float
    lines: list[str]


@dataclass(frozen=True)
class Sending:
    """One delivery of one supplier. ordered, goes_out, arrives: days."""

    supplier: str
    way: str
    ordered: str
    goes_out: str
    arrives: str
    cost: float
    lines: list[str]


@dataclass(frozen=True)
class Fallback:
    """What is done for a line if the piece is not there, and when it is here then."""

    supplier: str
    way: str
    arrives: str
    extra_cost: float


@dataclass(frozen=True)
class PlanLine:
    """quantity: pieces that are bought, in full packs. p_in_time: chance to be here by the day it is needed, fallback
    included.
    """

    id: str
    supplier: str
    way: str
    date: str
    arrives: str
    quantity: float
    cost: float
    p_there: float
    p_in_time: float
    late_days: int
    status: Literal["supported", "scarce"]
    if_missing: Fallback | None


@dataclass(frozen=True)
class Plan:
    """last_arrival: None for a plan without lines. bound: no plan of this kind costs less; gap_pct: how far this one may be
    above it."""

    kind: Kind
    cost: PlanCost
    p_all_in_time: float
    last_arrival: str | None
    trips: list[Trip]
    deliveries: list[Sending]
    lines: list[PlanLine]
    optimal: bool
    bound: float
    gap_pct: float


@dataclass(frozen=True)
class Impossible:
    """A line that cannot be here in time. earliest: the first day it can be; None where nobody has it."""

    id: str
    earliest: str | None
    reason: str


@dataclass(frozen=True)
class OneDayEarlier:
    last_arrival: str
    extra_cost: float


@dataclass(frozen=True)
class Surer:
    extra_cost: float
    extra_p: float


@dataclass(frozen=True)
class DriveReason:
    """Why the cheapest plan drives to a supplier, or not: what doing the opposite would cost more. None: it cannot be done."""

    supplier: str
    date: str
    drives: bool
    extra_cost: float | None
    more_late: int


@dataclass(frozen=True)
class Sourced:
    """able: suppliers that have every line that is needed to run."""

    plans: list[Plan]
    impossible: list[Impossible]
    one_day_earlier: OneDayEarlier | None
    surer: Surer | None
    able: list[str]
    reasons: list[DriveReason]
