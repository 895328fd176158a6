"""Seed: spacing in the furrow or on a test stand, singulation, rate, and the plate that fits."""

import math
from dataclasses import dataclass
from statistics import stdev
from typing import Annotated, Literal

from ..bounds import AtMost, Over
from ..compare import exceeds, reached
from ..errors import BadInput
from ..registry import calculator
from .common import Count, NotNegative, Percent, Positive, different_names, some

FEW_SPACINGS = 100
FEW_SEEDS = 30
Z95 = 1.959963984540054


@dataclass(frozen=True)
class SpacingGiven:
    spacings_mm: Annotated[list[NotNegative], AtMost(20000)]
    nominal_mm: Positive


@dataclass(frozen=True)
class Shares:
    multiples: float
    misses: float
    feed: float


@dataclass(frozen=True)
class Spacing:
    n: int
    multiples: float
    misses: float
    feed: float
    precision: float | None
    plus_minus_pct: Shares
    few: bool


@calculator
def seed_spacing(given: SpacingGiven) -> Spacing:
    """Multiples, misses and regular feed of a run of seed spacings, and how regular the rest is.

    Shares of all spacings (0…1): multiples up to 0.5 of the nominal, misses above 1.5, feed the rest. precision = sample
    standard deviation of the rest / nominal, null under two. plus_minus_pct: half the Wilson 95 % interval of each share, in
    per cent. few: under 100 spacings, from which no advice is drawn. mm.
    """
    some(given.spacings_mm, "spacings_mm", "spacing")
    n = len(given.spacings_mm)
    rest = [one for one in given.spacings_mm if _regular(one, given.nominal_mm)]
    misses = sum(exceeds(one, 1.5 * given.nominal_mm) for one in given.spacings_mm)
    counts = (n - misses - len(rest), misses, len(rest))
    multiples, missed, feed = (count / n for count in counts)
    return Spacing(
        n=n,
        multiples=multiples,
        misses=missed,
        feed=feed,
        precision=stdev(rest) / given.nominal_mm if len(rest) > 1 else None,
        plus_minus_pct=Shares(*(100 * _wilson(share, n) for share in (multiples, missed, feed))),
        few=n < FEW_SPACINGS,
    )


def _regular(spacing: float, nominal: float) -> bool:
    return exceeds(spacing, 0.5 * nominal) and not exceeds(spacing, 1.5 * nominal)


def _wilson(share: float, n: int) -> float:
    """Half the width of the Wilson 95 % interval."""
    return Z95 / (1 + Z95**2 / n) * math.sqrt(share * (1 - share) / n + Z95**2 / (4 * n * n))


@dataclass(frozen=True)
class StandGiven:
    expected: Annotated[int, Over(0)]
    skips: Count
    doubles: Count
    good_pct: Percent = 98


@dataclass(frozen=True)
class Stand:
    singulation_pct: float
    skip_pct: float
    double_pct: float
    advice: Literal["good", "skips", "doubles", "both"]


@calculator
def stand_run(given: StandGiven) -> Stand:
    """Singulation of a run on a meter test stand.

    singulation = 100·(1 − (skips + doubles) / expected). Below `good_pct` the advice names what takes more than half of the
    allowance (100 − good) by itself: skips, doubles or both. Faults cannot outnumber the cells expected.
    """
    if given.skips > given.expected:
        raise BadInput("skips", "cannot be more than expected")
    if given.skips + given.doubles > given.expected:
        raise BadInput("doubles", "skips and doubles together cannot be more than expected")
    skip, double = 100 * given.skips / given.expected, 100 * given.doubles / given.expected
    singulation = 100 * (1 - (given.skips + given.doubles) / given.expected)
    if reached(singulation, given.good_pct):
        return Stand(singulation, skip, double, "good")
    half = (100 - given.good_pct) / 2
    skips, doubles = exceeds(skip, half), exceeds(double, half)
    advice: Literal["skips", "doubles", "both"] = "both"
    if skips != doubles:
        advice = "skips" if skips else "doubles"
    return Stand(singulation, skip, double, advice)


@dataclass(frozen=True)
class RateGiven:
    population_per_ha: Positive
    row_spacing_m: Positive
    speed_km_h: NotNegative
    cells: Annotated[int, Over(0)]


@dataclass(frozen=True)
class Rate:
    spacing_mm: float
    seeds_per_s: float
    disc_rpm: float


@calculator
def seed_rate(given: RateGiven) -> Rate:
    """Seed spacing, seeds a second and speed of the seed disc for a population.

    spacing = 10⁷ / (population · row spacing), seeds a second = ground speed / spacing, disc rpm = 60 · seeds a second / cells.
    """
    spacing = 1e7 / (given.population_per_ha * given.row_spacing_m)
    seeds = given.speed_km_h / 3.6 * 1000 / spacing
    return Rate(spacing, seeds, 60 * seeds / given.cells)


@dataclass(frozen=True)
class Plate:
    name: str
    cell_mm: Positive


@dataclass(frozen=True)
class PlateGiven:
    seed_lengths_mm: Annotated[list[Positive], AtMost(2000)]
    plates: Annotated[list[Plate], AtMost(200)]
    clearance_mm: NotNegative


@dataclass(frozen=True)
class PlateFit:
    plate: str | None
    cell_mm: float | None
    largest_mm: float
    few: bool


@calculator
def plate_fit(given: PlateGiven) -> PlateFit:
    """The smallest plate whose cell takes the largest seed with its clearance (tie: name), null if none does.

    few: under 30 seeds, so that a larger one is likely still in the bag. mm.
    """
    some(given.seed_lengths_mm, "seed_lengths_mm", "seed")
    some(given.plates, "plates", "plate")
    different_names([plate.name for plate in given.plates], "plates")
    largest = max(given.seed_lengths_mm)
    fitting = [plate for plate in given.plates if reached(plate.cell_mm, largest + given.clearance_mm)]
    best = min(fitting, key=lambda plate: (plate.cell_mm, plate.name), default=None)
    name, cell = (best.name, best.cell_mm) if best else (None, None)
    return PlateFit(name, cell, largest, len(given.seed_lengths_mm) < FEW_SEEDS)
