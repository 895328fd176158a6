"""What `season_schedule` takes and gives: hands, places, machines, jobs; a plan, what makes it late and what would cure that.

Times are on the shop's own clock, ``2026-03-05T08:20``.
"""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from ...bounds import AtMost, Over, Within
from ...calculators.common import NotNegative, Positive
from ..shortest import RouteMove

PlaceKind = Literal["bay", "outside", "bench", "field"]
Cause = Literal["parts", "hands", "bay", "weather", "season_date", "none"]
FixKind = Literal["one_day", "one_hand", "rush_part"]
MOST_MACHINES, MOST_JOBS = 60, 700
LONGEST_S = 60.0


@dataclass(frozen=True)
class Span:
    start: str
    end: str


@dataclass(frozen=True)
class Technician:
    """shifts: when somebody works, days off left out. skills: what they may do; a job without a skill anybody may do."""

    name: str
    shifts: Annotated[list[Span], AtMost(400)]
    skills: Annotated[list[str], AtMost(40)] = field(default_factory=list)


@dataclass(frozen=True)
class Place:
    """door_width_mm, door_height_mm: what passes; None where nothing is in the way. capacity: machines that stand there at
    once."""

    name: str
    kind: PlaceKind
    door_width_mm: Positive | None = None
    door_height_mm: Positive | None = None
    capacity: Annotated[int, Within(1, 60)] = 1


@dataclass(frozen=True)
class SeasonMachine:
    """season_date: the day it must be ready for; None: any day will do. width_mm, height_mm: folded, None where not known.

    posture: what it stands in now; None: whatever is wanted first. max_hands: people who can work on it at once.
    """

    name: str
    season_date: str | None = None
    priority: Annotated[float, Over(0), Within(0, 100)] = 1
    width_mm: Positive | None = None
    height_mm: Positive | None = None
    posture: str | None = None
    max_hands: Annotated[int, Within(1, 12)] = 2


@dataclass(frozen=True)
class Awaited:
    """A part a job waits for. arrives: a moment, a day alone being its first minute; None: nobody knows when."""

    id: str
    arrives: str | None


@dataclass(frozen=True)
class JobPin:
    """What was chosen by hand: when it begins, and, where they are named, who does it and where."""

    start: str
    technicians: Annotated[list[str], AtMost(2)] = field(default_factory=list)
    place: str | None = None


@dataclass(frozen=True)
class SeasonJob:
    """posture: None where any will do. skill: None where anybody may. splittable: it may be left at the end of a shift, and
    goes on with the same people. after: jobs that must be done before. name: for sentences, else its id."""

    id: str
    machine: str
    minutes: Annotated[float, Over(0), Within(0, 60000)]
    hands: Annotated[int, Within(1, 2)] = 1
    skill: str | None = None
    posture: str | None = None
    place_kind: PlaceKind = "bay"
    lift: bool = False
    weather_bound: bool = False
    parts: Annotated[list[Awaited], AtMost(100)] = field(default_factory=list)
    after: Annotated[list[str], AtMost(100)] = field(default_factory=list)
    splittable: bool = True
    pin: JobPin | None = None
    name: str = ""


@dataclass(frozen=True)
class Before:
    """Where a job stood in the plan before."""

    id: str
    start: str
    technicians: Annotated[list[str], AtMost(2)]
    place: str | None = None


@dataclass(frozen=True)
class SeasonGiven:
    """now: nothing begins before. moves: minutes from one posture to another. lifts: how many there are. dry: dry spells.

    freeze_h: what began or begins so soon in the previous plan stays. causes: whether to ask what makes a machine late.
    """

    now: str
    horizon_days: Annotated[int, Within(1, 120)]
    technicians: Annotated[list[Technician], AtMost(12)]
    places: Annotated[list[Place], AtMost(20)]
    machines: Annotated[list[SeasonMachine], AtMost(MOST_MACHINES)]
    jobs: Annotated[list[SeasonJob], AtMost(MOST_JOBS)]
    slot_min: Annotated[int, Within(5, 60)] = 15
    lifts: Annotated[int, Within(0, 20)] = 0
    moves: Annotated[list[RouteMove], AtMost(2000)] = field(default_factory=list)
    shunt_min: NotNegative = 20
    dry: Annotated[list[Span], AtMost(400)] = field(default_factory=list)
    previous: Annotated[list[Before], AtMost(MOST_JOBS)] = field(default_factory=list)
    freeze_h: NotNegative = 0
    causes: bool = True
    time_limit_s: Annotated[float, Over(0), Within(0, LONGEST_S)] = 10


@dataclass(frozen=True)
class PlannedJob:
    """parts: the stretches it is worked on. place: None at the bench."""

    id: str
    parts: list[Span]
    technicians: list[str]
    place: str | None
    posture: str | None


@dataclass(frozen=True)
class PostureMove:
    """From one posture to another; begins when the last work in the old one is done."""

    machine: str
    start: str
    from_: str
    to: str
    minutes: float


@dataclass(frozen=True)
class Fix:
    """What would make a machine ready sooner, and by how much, with no other machine later than it is."""

    kind: FixKind
    what: str
    gain_h: float


@dataclass(frozen=True)
class MachineReady:
    """ready: the end of its last job; None where one of them has no place in the plan. due: the end of the last shift before
    its season date. late_h: by the clock, to the end of the plan where it is not ready in it; 0 where nothing is to do."""

    name: str
    ready: str | None
    due: str | None
    late_h: float
    cause: Cause
    fixes: list[Fix]


@dataclass(frozen=True)
class Unplaced:
    id: str
    reason: str


@dataclass(frozen=True)
class PinConflict:
    """What a pin contradicts. It stays; `with_` is the other job, where there is one."""

    id: str
    rule: Literal["start", "hands", "skill", "parts", "weather", "after", "posture", "place", "lift"]
    with_: str | None
    words: str


@dataclass(frozen=True)
class Objective:
    """late_h: priority times late hours, summed. late_bound_h: no plan has less. moved: jobs that begin at another time or with
    other people than before. last_finish: None where there is no job."""

    late_h: float
    late_bound_h: float
    moved: int
    posture_moves: int
    last_finish: str | None


@dataclass(frozen=True)
class SeasonPlan:
    """optimal: no plan is better, in the order of the objective. gap_pct: how far late_h may be above the least there is."""

    jobs: list[PlannedJob]
    posture_moves: list[PostureMove]
    machines: list[MachineReady]
    unplaced: list[Unplaced]
    conflicts: list[PinConflict]
    objective: Objective
    optimal: bool
    gap_pct: float
