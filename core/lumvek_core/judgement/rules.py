"""The rules a check can be judged by, as they are written in the catalogue.

Figures are in the unit of the check (lengths in mm). `figures` of a rule are the limits a model or a shop may replace.
"""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from ..structure import Over, Within

Severity = Literal["sound", "watch", "due", "stop"]
Action = Literal["none", "clean", "lubricate", "adjust", "turn", "repair", "replace", "recheck", "investigate"]
ACTION_WORDS: dict[str, str] = {
    "replace": "renew",
    "recheck": "look again",
    "investigate": "look for the cause",
    "lubricate": "grease",
}
"""As one says them, where it is not the key itself."""
SEVERITIES: tuple[Severity, ...] = ("sound", "watch", "due", "stop")


@dataclass(frozen=True)
class WearRule:
    """Wears from a size when new to a limit, shrinking or growing.

    Watched from a share of its wear, or where there is a forecast from a chance (watch_chance) to reach the limit in the coming
    season.
    """

    kind: Literal["wear"]
    new: float
    limit: float
    watch_from: Annotated[float, Over(0), Within(0, 1)] = 0.75
    watch_chance: Annotated[float, Over(0), Within(0, 1)] = 0.10


@dataclass(frozen=True)
class WindowRule:
    """Must lie between low and high. `if_low` and `if_high` say in words what cures a miss."""

    kind: Literal["window"]
    low: float
    high: float
    target: float | None = None
    per_turn: float | None = None
    if_low: str = ""
    if_high: str = ""


@dataclass(frozen=True)
class EvenRule:
    """All positions alike within a tolerance. per_turn: how far one clockwise turn of the adjuster moves it."""

    kind: Literal["even"]
    tolerance: Annotated[float, Within(0)]
    target: float | Literal["median", "mean"] = "median"
    per_turn: float | None = None


@dataclass(frozen=True)
class ContactRule:
    """Opener contact between two feelers, several places a row, held against a band stated for one feeler.

    washers_from: the check in which spacing washers are counted; washer: their thickness, for trials of one thickness are not
    trials of another.
    """

    kind: Literal["contact"]
    low: Annotated[float, Within(0)]
    high: float
    feeler: Annotated[float, Over(0)]
    angle_deg: Annotated[float, Within(2, 40)]
    spread: Annotated[float, Over(0)]
    diameter_from: str
    if_low: str = ""
    if_high: str = ""
    washers_from: str = ""
    washer: Annotated[float, Over(0)] = 1


@dataclass(frozen=True)
class GaugeRule:
    """Go and no-go: the low feeler must pass and the high one must not."""

    kind: Literal["gauge"]
    go: float
    no_go: float


@dataclass(frozen=True)
class Option:
    """One named state, with what follows from it."""

    key: str
    name: str
    severity: Severity = "sound"
    action: Action = "none"


@dataclass(frozen=True)
class ChoiceRule:
    """One of named states, worst last."""

    kind: Literal["choice"]
    options: list[Option]


@dataclass(frozen=True)
class CountRule:
    """k of n found faulty. 0 is sound; above `set_share` of n the whole set is due."""

    kind: Literal["count"]
    of: Annotated[int, Over(0)]
    action: Action = "replace"
    set_share: Annotated[float, Within(0, 1)] = 0.30


@dataclass(frozen=True)
class BearingRule:
    """What the fingers feel: smooth, dry, rough, loose or noisy."""

    kind: Literal["bearing"]


@dataclass(frozen=True)
class YesNoRule:
    """A question with one right answer."""

    kind: Literal["yes-no"]
    right: Literal["yes", "no"] = "yes"
    severity: Severity = "due"
    action: Action = "repair"


@dataclass(frozen=True)
class LevelRule:
    """Oil or coolant at its mark: right, low, high or milky. grade: what the maker names, to be shown beside it."""

    kind: Literal["level"]
    grade: str = ""


@dataclass(frozen=True)
class IntervalRule:
    """Done again after so many hours of the machine's counter or so many days, whichever comes first."""

    kind: Literal["interval"]
    every_h: Annotated[float, Over(0)] | None = None
    every_days: Annotated[float, Over(0)] | None = None


@dataclass(frozen=True)
class StretchRule:
    """Length over a number of chain pitches under tension, held against the stretch at which it is retired, in per cent.

    watch_chance: as for wear.
    """

    kind: Literal["stretch"]
    pitch: Annotated[float, Over(0)]
    pitches: Annotated[float, Over(0)]
    limit_pct: Annotated[float, Over(0)] = 3
    watch_chance: Annotated[float, Over(0), Within(0, 1)] = 0.10


@dataclass(frozen=True)
class TravelRule:
    """How much of a chain's take-up is used: two figures, used and total, in the unit of the check.

    With the pitch of the chain it is worked out whether a half link comes out or the chain is retired: wear_per_h, season_h: how
    fast the take-up is used and for how long; stretch_from, half_links_from: checks in which stretch is measured and half links
    (fitted, out already) are counted.
    """

    kind: Literal["travel"]
    watch_from: Annotated[float, Over(0), Within(0, 1)] = 0.75
    pitch: Annotated[float, Over(0)] | None = None
    wear_per_h: Annotated[float, Within(0)] | None = None
    season_h: Annotated[float, Within(0)] | None = None
    stretch_from: str = ""
    half_links_from: str = ""


@dataclass(frozen=True)
class SteppedRule:
    """A figure that is brought back in steps: the figure and the steps taken so far. After the last step one looks elsewhere."""

    kind: Literal["stepped"]
    limit: float
    steps: Annotated[int, Over(0)]
    step: str


@dataclass(frozen=True)
class RegisterRule:
    """Where the knife section stops at the left and at the right end of its stroke: short of a guard's middle, or past it."""

    kind: Literal["register"]
    tolerance: Annotated[float, Within(0)]
    overtravel: Annotated[float, Within(0)] = 0


@dataclass(frozen=True)
class BarRule:
    """Height of the planter's bar over ground at a front and a rear point, while it works."""

    kind: Literal["bar"]
    base: Annotated[float, Over(0)]
    lever: Annotated[float, Over(0)]
    nose_up: Annotated[float, Within(0)] = 2
    nose_down: Annotated[float, Within(0)] = 0


@dataclass(frozen=True)
class DepthRule:
    """Several seeds dug up in each row, held against the wanted depth, the other rows and the rows behind wheels."""

    kind: Literal["depth"]
    target: Annotated[float, Over(0)]
    tolerance: Annotated[float, Over(0)]


@dataclass(frozen=True)
class KnivesRule:
    """The state of each knife of a rotor, and what renewing them leaves out of balance.

    left: share of a worn knife's mass that is left in a state, 1 where it is not named. Knives are numbered round the rotor,
    `around` to a turn. Lengths in mm, masses in g, the rotor's in kg.
    """

    kind: Literal["knives"]
    options: list[Option]
    left: dict[str, Annotated[float, Within(0, 1)]]
    around: Annotated[int, Over(0)] = 4
    radius: Annotated[float, Over(0)] = 260
    mass: Annotated[float, Over(0)] = 410
    new_mass: Annotated[float, Over(0)] = 460
    rotor_mass: Annotated[float, Over(0)] = 96
    speed: Annotated[float, Over(0)] = 2900
    grade: Annotated[float, Over(0)] = 16


@dataclass(frozen=True)
class RecordRule:
    """Written down for the next time, not judged."""

    kind: Literal["record"]


Rule = (
    WearRule
    | WindowRule
    | EvenRule
    | ContactRule
    | GaugeRule
    | ChoiceRule
    | CountRule
    | BearingRule
    | YesNoRule
    | LevelRule
    | IntervalRule
    | StretchRule
    | TravelRule
    | SteppedRule
    | RegisterRule
    | BarRule
    | DepthRule
    | KnivesRule
    | RecordRule
)

LEVEL = [
    Option("right", "At its mark"),
    Option("low", "Low", "due", "lubricate"),
    Option("high", "High", "due", "investigate"),
    Option("milky", "Milky", "due", "investigate"),
]

BEARING = [
    Option("smooth", "Smooth"),
    Option("dry", "Dry", "due", "lubricate"),
    Option("rough", "Rough", "due", "replace"),
    Option("loose", "Loose", "due", "replace"),
    Option("noisy", "Noisy", "due", "replace"),
]

_FIGURES: dict[str, tuple[str, ...]] = {
    "wear": ("new", "limit", "watch_from", "watch_chance"),
    "window": ("low", "high", "target"),
    "even": ("tolerance", "per_turn"),
    "contact": ("low", "high", "feeler", "angle_deg", "spread", "washer"),
    "gauge": ("go", "no_go"),
    "count": ("of", "set_share"),
    "interval": ("every_h", "every_days"),
    "stretch": ("pitch", "pitches", "limit_pct", "watch_chance"),
    "travel": ("watch_from", "pitch", "wear_per_h", "season_h"),
    "stepped": ("limit", "steps"),
    "register": ("tolerance", "overtravel"),
    "bar": ("base", "lever", "nose_up", "nose_down"),
    "depth": ("target", "tolerance"),
    "knives": ("around", "radius", "mass", "new_mass", "rotor_mass", "speed", "grade"),
}


def figures(rule: Rule) -> tuple[str, ...]:
    """Names of the limits in this rule that a model or a shop may replace."""
    return _FIGURES.get(rule.kind, ())


def options(rule: Rule) -> list[Option]:
    """The states to choose from, empty where something is measured or counted."""
    match rule:
        case ChoiceRule() | KnivesRule():
            return rule.options
        case BearingRule():
            return BEARING
        case LevelRule():
            return LEVEL
        case GaugeRule():
            return [
                Option("right", "Low passes, high does not"),
                Option("too-tight", "Low does not pass: too tight", "due", "adjust"),
                Option("too-wide", "High passes: too wide", "due", "adjust"),
            ]
        case YesNoRule():
            fault = ("due" if rule.severity == "sound" else rule.severity, rule.action)
            sound, wrong = ("yes", "no") if rule.right == "yes" else ("no", "yes")
            answers = [Option(sound, sound.capitalize()), Option(wrong, wrong.capitalize(), *fault)]
            return answers
        case _:
            return []


@dataclass(frozen=True)
class Row:
    """One line of a small table beside a verdict. mark: a severity, or nothing."""

    name: str
    shown: str
    mark: Severity | Literal[""] = ""


@dataclass(frozen=True)
class Then:
    """What is recorded when somebody has done as advised: at `position` of `check`, these figures."""

    check: str
    position: str
    raw: list[str]


@dataclass(frozen=True)
class Advice:
    """What to do, worked out: rows side by side, and what can be recorded once it is done (`done` says so on a button)."""

    rows: list[Row] = field(default_factory=list)
    done: str = ""
    then: list[Then] = field(default_factory=list)


@dataclass(frozen=True)
class Verdict:
    """What the rules say of one reading.

    reason: one sentence with the figures. why: the arithmetic in words, for whoever asks. ask: a question to the technician
    when the reading cannot be right, `instead` the text that was probably meant, `split` the figures as they would be if two of them
    ran together. facts: numbers for the drawing, in the check's
    unit. used: share of the wear used up.
    """

    severity: Severity
    action: Action
    reason: str
    why: list[str] = field(default_factory=list)
    facts: dict[str, float] = field(default_factory=dict)
    used: float | None = None
    ask: str = ""
    instead: str = ""
    split: list[str] = field(default_factory=list)
    advice: Advice | None = None
