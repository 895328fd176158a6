"""Wear from new to a limit."""

from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..compare import below, reached
from ..errors import BadInput
from ..registry import calculator

WearState = Literal["sound", "watch", "due"]


@dataclass(frozen=True)
class WearGiven:
    new: float
    limit: float
    reading: float
    watch_from: Annotated[float, Over(0), Within(0, 1)] = 0.75


@dataclass(frozen=True)
class WearUsed:
    used: float
    remaining: float
    state: WearState
    beyond_new: bool


def wear_state(used: float, watch_from: float = 0.75) -> WearState:
    """Severity word of a used share; the limit itself counts as reached."""
    if reached(used, 1.0):
        return "due"
    return "watch" if reached(used, watch_from) else "sound"


@calculator
def wear_used(given: WearGiven) -> WearUsed:
    """Share of a part's wear that is used up, for parts that shrink and for gaps that grow.

    used = (new − reading) / (new − limit), in any one unit; remaining = 1 − used; beyond_new when the reading is better than
    new by more than 5 % of the wear allowed. `watch_from` lies above 0 and at most at 1. new = limit leaves no wear to share
    out and is refused (field ``limit``).
    """
    allowance = given.new - given.limit
    if allowance == 0:
        raise BadInput("limit", "must differ from the size when new")
    used = (given.new - given.reading) / allowance
    return WearUsed(used, 1 - used, wear_state(used, given.watch_from), below(used, -0.05))
