"""What speaks for a cause before anything is looked at: findings, age, changes, words, and what the shop has found before."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Literal

from ..catalogue.symptoms import Season

FINDING = {"stop": 6.0, "due": 4.0, "watch": 2.0}
"""How much likelier a cause is whose check has such an open finding."""
WORN_OUT, NEARLY = 2.5, 1.6
"""Of a part that is past its limit by the forecast, or uses the last fifth of it."""
CHANGED, NOTED, HEARD = 2.0, 1.5, 5.0
"""Of what was renewed or set otherwise lately, what the operator's words are about, and what a recording names."""
SEASONAL = 1.5
"""Of what is usual at this time of the season."""
LATELY_DAYS = 30
BEGINS_DAYS, RUNS_DAYS = (-60, 14), (15, 150)
"""Days from a machine's date on: its season begins, from when it is made ready; it has run for weeks, until it stands again."""
USUAL: dict[Season, str] = {"begin": "usual when the season begins", "run": "usual when it has run for weeks"}
OWN = 2.0
"""What one fault that the shop has found weighs, beside the starting weights."""


@dataclass(frozen=True)
class Signals:
    """What is known of one look's place. finding: the worst that is open there. used: share of the wear that the limit allows,
    today. changed_days: since it was renewed or set otherwise; what: in words. noted: the operator's words.
    heard: what a recording names, in words. season: it is usual at this time of it."""

    finding: Literal["stop", "due", "watch", ""] = ""
    used: float | None = None
    changed_days: int | None = None
    changed: str = ""
    noted: str = ""
    heard: str = ""
    season: Season = ""


@dataclass(frozen=True)
class Suspicion:
    """weight: with everything that speaks for it. because: in words, the strongest first."""

    weight: float
    because: list[str] = field(default_factory=list)


def suspect(weight: float, signals: Signals, found_here: int = 0, found_in_all: int = 0) -> Suspicion:
    """A cause's weight, raised by what is known.

    found_here: how often the shop found this cause of this symptom, of found_in_all times that it found one.
    """
    raised: list[tuple[float, str]] = []
    if signals.finding:
        raised.append((FINDING[signals.finding], f"open finding: {signals.finding}"))
    if signals.used is not None and signals.used >= 0.8:
        past = signals.used >= 1
        raised.append(
            (WORN_OUT if past else NEARLY, "worn past its limit" if past else f"{signals.used * 100:.0f} % of its wear used")
        )
    if signals.changed_days is not None and signals.changed_days <= LATELY_DAYS:
        raised.append((CHANGED, f"{signals.changed}, {_ago(signals.changed_days)}"))
    if signals.heard:
        raised.append((HEARD, signals.heard))
    if signals.noted:
        raised.append((NOTED, f"the operator: {signals.noted}"))
    if signals.season:
        raised.append((SEASONAL, USUAL[signals.season]))
    weight += OWN * found_here
    for factor, _ in raised:
        weight *= factor
    because = [words for _, words in sorted(raised, key=lambda one: -one[0])]
    if found_here:
        because.append(f"found here {found_here} of {found_in_all} times")
    return Suspicion(weight, because)


def season_now(date: dt.date | None, today: dt.date) -> Season:
    """Where a machine is in its season. date: the day it is to be ready for."""
    days = (today - date).days if date else None
    if days is None:
        return ""
    if BEGINS_DAYS[0] <= days <= BEGINS_DAYS[1]:
        return "begin"
    return "run" if RUNS_DAYS[0] <= days <= RUNS_DAYS[1] else ""


def something_else(weights: Sequence[float]) -> float:
    """Weight of what nobody has listed: a tenth of all."""
    return sum(weights) / 9 if weights else 1.0


def _ago(days: int) -> str:
    return "today" if days == 0 else "yesterday" if days == 1 else f"{days} days ago"
