"""Settings that must lie in a window, and settings that must be alike."""

from dataclasses import dataclass
from statistics import fmean, median
from typing import Annotated, Literal

from ..bounds import AtMostNamed, Within
from ..compare import SLACK, below, exceeds
from ..errors import BadInput
from ..registry import calculator


@dataclass(frozen=True)
class WindowGiven:
    reading: float
    low: float
    high: float
    target: float | None = None
    per_turn: float | None = None


@dataclass(frozen=True)
class WindowResult:
    state: Literal["low", "in_window", "high"]
    miss: float
    turns: float | None


@calculator
def window(given: WindowGiven) -> WindowResult:
    """Hold a reading against a window and say how far it misses and how many turns put it right.

    miss is 0 inside, reading − low (negative) or reading − high outside, in the unit given; the ends are inside. turns =
    (target − reading) / per_turn, clockwise positive, null without per_turn; the target is the middle unless given, and must
    lie in the window. A window of no width is allowed: it wants one exact value.
    """
    if given.low > given.high:
        raise BadInput("high", "must not be below low")
    target = (given.low + given.high) / 2 if given.target is None else given.target
    if below(target, given.low) or exceeds(target, given.high):
        raise BadInput("target", "must lie between low and high")
    turns = _turns(target - given.reading, given.per_turn)
    if below(given.reading, given.low):
        return WindowResult("low", given.reading - given.low, turns)
    if exceeds(given.reading, given.high):
        return WindowResult("high", given.reading - given.high, turns)
    return WindowResult("in_window", 0.0, turns)


def _turns(change: float, per_turn: float | None) -> float | None:
    if per_turn == 0:
        raise BadInput("per_turn", "must not be 0")
    return None if per_turn is None else change / per_turn


@dataclass(frozen=True)
class EvenGiven:
    readings: Annotated[dict[str, float], AtMostNamed(200)]
    tolerance: Annotated[float, Within(0)]
    target: float | Literal["median", "mean"] = "median"
    targets: Annotated[dict[str, float], AtMostNamed(200)] | None = None
    per_turn: float | None = None


@dataclass(frozen=True)
class EvenResult:
    spread: float
    target: float | None
    state: Literal["even", "uneven", "off_target"]
    worst: list[str]
    corrections: dict[str, float]
    turns: dict[str, float] | None


@calculator
def even(given: EvenGiven) -> EvenResult:
    """Compare several positions that should be alike (or each on its own target) and give the correction of each.

    deviation = reading − its target; spread = largest − smallest deviation; correction = −deviation; turns = correction /
    per_turn. Uneven above the tolerance; with number targets also off_target when the spread passes but a deviation does not.
    worst: the positions with the largest deviation, ties together, none when all are 0. `targets` must name every reading and
    nothing else; target is then null. Needs two readings.
    """
    readings = given.readings
    if len(readings) < 2:
        raise BadInput("readings", "needs at least two positions to compare")
    common, targets = _targets(given)
    deviations = {name: value - targets[name] for name, value in readings.items()}
    spread = max(deviations.values()) - min(deviations.values())
    largest = max(abs(deviation) for deviation in deviations.values())
    # Below the last digits of the readings themselves a deviation is rounding, not a difference.
    rounding = SLACK * max(abs(value) for value in (*readings.values(), *targets.values()))
    worst = [
        name for name, d in deviations.items() if largest > rounding and abs(d) >= largest - max(rounding, SLACK * largest)
    ]
    corrections = {name: -deviation for name, deviation in deviations.items()}
    turns = None
    if given.per_turn is not None:
        turns = {name: _turns(change, given.per_turn) or 0.0 for name, change in corrections.items()}
    state: Literal["even", "uneven", "off_target"] = "even"
    if exceeds(spread, given.tolerance + rounding):
        state = "uneven"
    elif (given.targets is not None or not isinstance(given.target, str)) and exceeds(largest, given.tolerance + rounding):
        state = "off_target"
    return EvenResult(spread, common, state, worst, corrections, turns)


def _targets(given: EvenGiven) -> tuple[float | None, dict[str, float]]:
    """(the common target or None, the target of each reading)."""
    if given.targets is not None:
        for name in given.targets:
            if name not in given.readings:
                raise BadInput(f"targets.{name}", "has no reading")
        for name in given.readings:
            if name not in given.targets:
                raise BadInput(f"targets.{name}", "is missing")
        return None, given.targets
    values = given.readings.values()
    common = given.target
    if common == "median":
        common = median(values)
    elif common == "mean":
        common = fmean(values)
    return float(common), dict.fromkeys(given.readings, float(common))
