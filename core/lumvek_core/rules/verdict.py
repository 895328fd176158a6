"""What comes out of a rule: a verdict, and the advice that may go with it."""

from dataclasses import dataclass, field
from typing import ClassVar, Literal

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
FAR_REACHING: tuple[Action, ...] = (
    "none",
    "recheck",
    "investigate",
    "clean",
    "lubricate",
    "turn",
    "adjust",
    "repair",
    "replace",
)
"""What is renewed need not be adjusted first, what is adjusted need not be looked at again."""


def weight(severity: Severity, action: Action) -> int:
    """Which of several verdicts on one thing speaks for all: the gravest, then the one that reaches farthest. 0: sound."""
    return SEVERITIES.index(severity) * len(FAR_REACHING) + FAR_REACHING.index(action)


@dataclass(frozen=True)
class Facts:
    """What a drawing or a screen needs of a verdict, in the check's unit; texts are in the units of its reader.

    Every kind of rule has its own, told apart by `kind`. compared: the figure that is held against like places; worked_out: the
    one that several typed figures come to. Both name a field, or nothing.
    """

    kind: str = ""
    compared: ClassVar[str] = ""
    worked_out: ClassVar[str] = ""


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
    when the reading cannot be right, `instead` the text that was probably meant, `split` the figures as they would be if two of
    them ran together. facts: for the drawing. used: share of the wear used up.
    """

    severity: Severity
    action: Action
    reason: str
    why: list[str] = field(default_factory=list)
    facts: Facts | None = None
    used: float | None = None
    ask: str = ""
    instead: str = ""
    split: list[str] = field(default_factory=list)
    advice: Advice | None = None
