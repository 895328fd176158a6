"""Chains: how far they have stretched."""

import math
from dataclasses import dataclass

from ..errors import BadInput
from ..registry import calculator
from .common import Count, NotNegative, Positive
from .wear import WearState, wear_state


@dataclass(frozen=True)
class OverPitches:
    """A length over a number of pitches, chain under tension."""

    pitch_mm: Positive
    pitches: Positive
    measured_mm: Positive
    limit_pct: Positive = 3
    tape_mm: NotNegative = 1


@dataclass(frozen=True)
class PushPull:
    """The same marked length pushed together and pulled apart."""

    pushed_mm: Positive
    pulled_mm: Positive
    new_slack_pct: NotNegative = 0
    limit_pct: Positive = 3
    tape_mm: NotNegative = 1


@dataclass(frozen=True)
class FromTakeUp:
    """From the take-up used, counting half links already removed; loop_pitches as the chain hangs today."""

    pitch_mm: Positive
    loop_pitches: Positive
    take_up_used_mm: NotNegative
    half_links_removed: Count
    used_when_new_mm: NotNegative = 0
    limit_pct: Positive = 3
    tape_mm: NotNegative = 1


@dataclass(frozen=True)
class Stretch:
    stretch_pct: float
    plus_minus_pct: float
    used: float
    state: WearState


@calculator
def chain_stretch(given: OverPitches | PushPull | FromTakeUp) -> Stretch:
    """Stretch of a chain in per cent of its length when new, measured in one of three ways that are never mixed.

    Over pitches: 100·(measured / (pitch·pitches) − 1). Pushed and pulled: 100·(pulled − pushed) / pushed, less the same test on
    a new chain. From the take-up: 100·(2·(used − used when new) + removed·pitch) / (pitch·loop pitches). plus_minus_pct is what
    the tape's own error makes of it; used = stretch / limit. Lengths in mm. A chain measured shorter than new gives a negative
    stretch, not an error; pulled shorter than pushed cannot be (field ``pulled_mm``).
    """
    if isinstance(given, OverPitches):
        nominal = given.pitch_mm * given.pitches
        stretch = 100 * (given.measured_mm / nominal - 1)
        plus_minus = 100 * given.tape_mm / nominal
    elif isinstance(given, PushPull):
        if given.pulled_mm < given.pushed_mm:
            raise BadInput("pulled_mm", "must not be less than pushed_mm")
        stretch = 100 * (given.pulled_mm - given.pushed_mm) / given.pushed_mm - given.new_slack_pct
        plus_minus = 100 * math.sqrt(2) * given.tape_mm / given.pushed_mm
    else:
        nominal = given.pitch_mm * given.loop_pitches
        gone = 2 * (given.take_up_used_mm - given.used_when_new_mm) + given.half_links_removed * given.pitch_mm
        stretch = 100 * gone / nominal
        plus_minus = 200 * given.tape_mm / nominal
    used = stretch / given.limit_pct
    return Stretch(stretch, plus_minus, used, wear_state(used))
