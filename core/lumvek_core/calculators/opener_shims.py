"""Opener discs: what the spacing washers on this machine do, and which to move."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import AtMost
from ..compare import SLACK, below, exceeds
from ..errors import BadInput
from ..registry import calculator
from .common import Count, NotNegative, Positive
from .opener import ContactBand


@dataclass(frozen=True)
class Moved:
    """One trial on this machine: washers moved from inside to outside (negative: back), contact before and after."""

    moved: int
    before_mm: NotNegative
    after_mm: NotNegative


@dataclass(frozen=True)
class GainGiven:
    pairs: Annotated[list[Moved], AtMost(200)]
    prior_mean_mm: float = 14
    prior_sd_mm: Positive = 10
    noise_sd_mm: Positive = 4


@dataclass(frozen=True)
class Gain:
    gain_mm: float
    gain_sd_mm: float


@calculator
def shim_gain(given: GainGiven) -> Gain:
    """How much contact one washer brings on this machine, learnt from its own before and after.

    precision = 1/prior_sd² + Σ moved²/noise², mean = (prior_mean/prior_sd² + Σ moved·(after − before)/noise²) / precision.
    Contacts are equivalents by the band's feeler, mm; pairs of one washer thickness only. Without pairs the prior comes back; a
    pair that moved nothing teaches nothing.
    """
    noise = given.noise_sd_mm**2
    precision = 1 / given.prior_sd_mm**2 + math.fsum(pair.moved**2 for pair in given.pairs) / noise
    learnt = math.fsum(pair.moved * (pair.after_mm - pair.before_mm) for pair in given.pairs) / noise
    return Gain((given.prior_mean_mm / given.prior_sd_mm**2 + learnt) / precision, 1 / math.sqrt(precision))


@dataclass(frozen=True)
class Washers:
    """Single washers on one side of each disc of the pair."""

    left: Count
    right: Count


@dataclass(frozen=True)
class ShimGiven:
    contact_mm: NotNegative
    band: ContactBand
    disc_diameter_mm: Positive
    disc_limit_mm: Positive
    inside: Washers
    outside: Washers
    gain_mm: float
    gain_sd_mm: NotNegative


ShimAdvice = Literal["none", "move", "replace_discs", "no_help"]


@dataclass(frozen=True)
class Shim:
    move: int
    left: int
    right: int
    predicted_mm: float
    predicted_sd_mm: float
    lands_in_band: bool
    advice: ShimAdvice


@calculator
def opener_shim(given: ShimGiven) -> Shim:
    """How many washers to move so that an opener pair comes nearest the middle of its contact band.

    move counts washers from inside to outside, negative from outside to inside; left and right share it out, alternating discs
    from the one whose donor side holds more (tie: left). A disc runs out: the rest comes from the other. In the band nothing is
    moved. predicted = contact + move·gain, not below 0; its error |move|·gain_sd. At or below the disc limit the discs are
    renewed whatever washers could do. A gain of 0 or less (too few trials, or mistaken ones) makes no move trustworthy:
    no_help.

    All in mm. Linear over one or two washers only; after moving, measure again.
    """
    band = given.band
    if band.low_mm > band.high_mm:
        raise BadInput("band.high_mm", "must not be below low_mm")
    if not exceeds(given.disc_diameter_mm, given.disc_limit_mm):
        return _shim(given, 0, "replace_discs")
    if _in_band(given.contact_mm, band):
        return _shim(given, 0, "none")
    move = _nearest(given)
    return _shim(given, move, "move" if move else "no_help")


def _in_band(contact: float, band: ContactBand) -> bool:
    return not below(contact, band.low_mm) and not exceeds(contact, band.high_mm)


def _predicted(given: ShimGiven, move: int) -> float:
    return max(0.0, given.contact_mm + move * given.gain_mm)


def _nearest(given: ShimGiven) -> int:
    """The possible move that predicts nearest the middle, 0 if none does better than standing still."""
    if given.gain_mm <= 0:
        return 0
    middle = (given.band.low_mm + given.band.high_mm) / 2
    up, down = given.inside.left + given.inside.right, given.outside.left + given.outside.right
    wanted = (middle - given.contact_mm) / given.gain_mm
    best, missed = 0, abs(middle - given.contact_mm)
    for move in sorted({max(-down, min(up, math.floor(wanted))), max(-down, min(up, math.ceil(wanted)))}, key=abs):
        miss = abs(middle - _predicted(given, move))
        if miss < missed - SLACK * max(1.0, middle, given.contact_mm):  # a billionth of a mm is nothing gained
            best, missed = move, miss
    return best


def _shim(given: ShimGiven, move: int, advice: ShimAdvice) -> Shim:
    donors = given.inside if move > 0 else given.outside
    many, sign = abs(move), 1 if move > 0 else -1
    second = min(donors.left, donors.right, many // 2)
    first = many - second
    left, right = (first, second) if donors.left >= donors.right else (second, first)
    predicted = _predicted(given, move)
    return Shim(move, sign * left, sign * right, predicted, many * given.gain_sd_mm, _in_band(predicted, given.band), advice)
