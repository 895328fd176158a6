"""The lists beside the families, and the whole catalogue: what goes along, schools, safety, strip-downs, services."""

from collections.abc import Iterable
from dataclasses import dataclass, field
from typing import Annotated, Literal

from .. import coupled
from ..bounds import Over, Stated, Within
from .calibration import Calibrations
from .field_settings import FieldSettings
from .model import At, Family
from .shafts import Shafts
from .symptoms import Symptoms


@dataclass(frozen=True)
class SchoolCondition:
    subject: str
    choice: str


@dataclass(frozen=True)
class Reach:
    """A part that a strip-down lays open, at the same place, across the row, once for the row or machine, or at each place
    where its check is made.

    p_fail: chance in a season that a sound one would make the strip-down needed again; p_fail_watch: of one that is watched.
    p_fail_new: of a new one. extra_h: hours to renew it while it lies open. check: where its state is read.
    """

    slot: str
    check: str
    p_fail: Annotated[float, Within(0, 1)]
    p_fail_watch: Annotated[float, Within(0, 1)]
    at: At | Literal["each"] = "same"
    p_fail_new: Annotated[float, Within(0, 1)] = 0.01
    extra_h: Annotated[float, Within(0)] = 0.0


@dataclass(frozen=True)
class StripDown:
    """Work that takes long to get at: what opens it, how many hours, and what else lies open then. Never safety items.

    downtime_h: hours the machine stands when it must be done in the season. hands: people it takes. for_: slots whose renewal
    strips it down. source: where hours and chances come from.
    """

    key: str
    name: str
    for_: list[str]
    hours: Annotated[float, Over(0)]
    downtime_h: Annotated[float, Within(0)]
    reaches: list[Reach]
    hands: Annotated[int, Within(1, 2)] = 1
    source: str = "starting value"


@dataclass(frozen=True)
class Minutes:
    """Minutes at the first place, and at each further one of the same kind."""

    first: Annotated[float, Within(0)]
    each: Annotated[float, Within(0)]

    def of(self, places: int) -> float:
        return self.first + self.each * max(0, places - 1)


@dataclass(frozen=True)
class WorkPlace:
    """Where work in a posture is done, with how many hands, and whether it wants the lift or dry weather."""

    place: Literal["bay", "outside", "bench", "field"] = "bay"
    hands: Annotated[int, Within(1, 2)] = 1
    lift: bool = False
    weather_bound: bool = False


@dataclass(frozen=True)
class WorkTimes:
    """How long work takes, where it is done, and what one must be able to do for it.

    actions: by what a finding calls for. postures: those that are not worked in in the bay, with one pair of hands. skills: by
    hazard. looking: a walk-around, for each place. putting_away: for each item of the winter list. adjusting: for each place
    that a changeover sets; calibrating: for each calibration that is due. strip_share: of the hours of a strip-down, what
    stripping takes; the rest is refitting. strip_apart_h: hours from which stripping and refitting are jobs of their own.
    """

    actions: dict[str, Minutes]
    postures: dict[str, WorkPlace]
    skills: dict[str, str]
    looking: Minutes
    putting_away: Minutes
    service: Minutes
    adjusting: Minutes
    calibrating: Minutes
    strip_share: Annotated[float, Over(0), Within(0, 1)]
    strip_apart_h: Annotated[float, Within(0)]


@dataclass(frozen=True)
class Service:
    """Work that comes round by counter or calendar, whichever is first. families: kinds of machine that want it.

    When it was last done is known from the logbook, from `check` (an interval read at the machine) and from what was fitted in
    `slot`. touches: checks of what is undone or set with it, where the families have them. option: only where the machine has
    it; school: only where the shop follows it.
    """

    key: str
    name: str
    how: str
    families: list[str]
    every_h: Annotated[float, Over(0)] | None = None
    every_days: Annotated[float, Over(0)] | None = None
    check: str = ""
    slot: str = ""
    touches: list[str] = field(default_factory=list)
    option: str | None = None
    school: SchoolCondition | None = None
    source: str = "starting value, confirm in the manual"


@dataclass(frozen=True)
class SeenState:
    """What was read at one place of a check."""

    check: str
    place: str
    choices: list[str]


@dataclass(frozen=True)
class Companion:
    """When the part in slot `when` is replaced, also `slot` (a part) or `task` (something to do). seen: only where this was
    read."""

    when: str
    why: str
    slot: str | None = None
    at: At = "same"
    task: str = ""
    school: SchoolCondition | None = None
    seen: SeenState | None = None


@dataclass(frozen=True)
class SchoolChoice:
    """One accepted way. sets: check → limit → figure that this way brings; postures: check → posture it is made in; right:
    check → the option that is right by this way, where the check's own first one is not; read_by: check → what it is read by.

    All are written with the keys of the files and hold in every family that has the check.
    """

    key: str
    name: str
    why: str
    sets: dict[str, dict[str, Annotated[float, Stated()]]] = field(default_factory=dict)
    postures: dict[str, str] = field(default_factory=dict)
    right: dict[str, str] = field(default_factory=dict)
    read_by: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class School:
    """A subject where practitioners disagree. about: the checks (short keys) at which the chosen way is said."""

    subject: str
    name: str
    default: str
    why_default: str
    choices: list[SchoolChoice]
    about: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Posture:
    """The state a machine must be in, and what to be careful of there.

    lock: what must be set before hands go in. running: an engine or fan runs. off_machine: a part in the hand; the machine may
    stand in any posture meanwhile.
    """

    cautions: list[str]
    lock: str = ""
    running: bool = False
    off_machine: bool = False


@dataclass(frozen=True)
class Move:
    """Minutes from one posture to another. both: the way back takes as long."""

    from_: str
    to: str
    minutes: Annotated[float, Within(0)]
    both: bool = False


@dataclass(frozen=True)
class Safety:
    postures: dict[str, Posture]
    hazards: dict[str, str]
    notice: str
    moves: list[Move] = field(default_factory=list)


@dataclass(frozen=True)
class Renamed:
    """What is called otherwise since. checks: the old key → today's, both as the files write them; old readings follow."""

    checks: dict[str, str] = field(default_factory=dict)

    def today(self, key: str) -> str:
        """What a check is called now, a header's with its prefix."""
        return coupled.renamed(key, self.checks.get(coupled.short(key), coupled.short(key)))

    def ever(self, keys: Iterable[str]) -> dict[str, str]:
        """All keys that these checks ever had, each with today's."""
        found = {key: key for key in keys}
        for key in list(found):
            found |= {coupled.renamed(key, old): key for old, now in self.checks.items() if now == coupled.short(key)}
        return found


@dataclass(frozen=True)
class Catalogue:
    """Everything that is shipped."""

    families: dict[str, Family]
    companions: list[Companion]
    schools: dict[str, School]
    safety: Safety
    work: WorkTimes
    strip_downs: list[StripDown] = field(default_factory=list)
    services: list[Service] = field(default_factory=list)
    renamed: Renamed = field(default_factory=Renamed)
    calibrations: Calibrations = field(default_factory=lambda: Calibrations({}, []))
    field_settings: FieldSettings = field(default_factory=lambda: FieldSettings([], []))
    symptoms: Symptoms = field(default_factory=lambda: Symptoms({}, []))
    shafts: Shafts = field(default_factory=lambda: Shafts({}))
