"""Settings and calibrations of the combine: reel, sieves, moisture, yield."""

import math
from dataclasses import dataclass
from statistics import fmean
from typing import Annotated, Literal

from ..bounds import AtMost, AtMostNamed
from ..compare import below, exceeds
from ..registry import calculator
from ..units import show_mm
from .common import NotNegative, Percent, Positive, some


@dataclass(frozen=True)
class ReelGiven:
    ground_km_h: NotNegative
    reel_diameter_mm: Positive
    index: Positive = 1.15


@dataclass(frozen=True)
class Reel:
    rpm: float


@calculator
def reel_speed(given: ReelGiven) -> Reel:
    """Reel speed for a ground speed: rpm = index · (ground / 3.6) / (π · diameter / 1000) · 60, diameter over the tine tips,
    mm."""
    return Reel(given.index * (given.ground_km_h / 3.6) / (math.pi * given.reel_diameter_mm / 1000) * 60)


@dataclass(frozen=True)
class Halves:
    left: NotNegative
    right: NotNegative


@dataclass(frozen=True)
class SieveGiven:
    shown_mm: NotNegative
    gap_mm: Halves
    gap_tolerance_mm: NotNegative
    zero_tolerance_mm: NotNegative
    feeler_mm: Positive = 6


@dataclass(frozen=True)
class SievesGiven:
    sieves: Annotated[dict[str, SieveGiven], AtMostNamed(20)]


@dataclass(frozen=True)
class SieveFound:
    offset_mm: float
    left_right_mm: float
    sides: Literal["even", "uneven"]
    zero: Literal["right", "off"]
    words: str


@dataclass(frozen=True)
class SievesFound:
    sieves: dict[str, SieveFound]


@calculator
def sieve_zero(given: SievesGiven) -> SievesFound:
    """Whether a sieve's display tells the opening, and whether both sides open alike.

    Closed, then opened until the display reads `shown_mm`; the gap is what feelers find at each side (aimed at the feeler
    named). left_right = left − right, uneven above its tolerance: cure the linkage first. offset = mean gap − shown: add it to
    the display. The chaffer and the sieve each stand for themselves. mm.
    """
    some(given.sieves, "sieves", "sieve")
    return SievesFound({name: _sieve(sieve) for name, sieve in given.sieves.items()})


def _sieve(given: SieveGiven) -> SieveFound:
    offset = (given.gap_mm.left + given.gap_mm.right) / 2 - given.shown_mm
    apart = given.gap_mm.left - given.gap_mm.right
    sides: Literal["even", "uneven"] = "uneven" if exceeds(abs(apart), given.gap_tolerance_mm) else "even"
    zero: Literal["right", "off"] = "off" if exceeds(abs(offset), given.zero_tolerance_mm) else "right"
    if sides == "uneven":
        wider = "left" if apart > 0 else "right"
        words = f"The {wider} side opens {show_mm(abs(apart))} more: cure the linkage first, then zero."
    elif zero == "off":
        words = f"{'Add' if offset > 0 else 'Take'} {show_mm(abs(offset))} {'to' if offset > 0 else 'off'} the display."
    else:
        words = "Both sides open alike and the display is right."
    return SieveFound(offset, apart, sides, zero, words)


@dataclass(frozen=True)
class MoisturePair:
    shown_pct: Percent
    reference_pct: Percent


@dataclass(frozen=True)
class MoistureGiven:
    stored_pct: float
    pairs: Annotated[list[MoisturePair], AtMost(200)]


@dataclass(frozen=True)
class Moisture:
    offset_pct: float
    spread_pct: float
    n: int
    steady: bool | None


@calculator
def moisture_offset(given: MoistureGiven) -> Moisture:
    """The moisture offset to store. What the machine shows contains the stored offset already: offset = stored + mean(reference
    − shown).

    spread of the differences: steady up to 1.0 per cent, unknown (null) with one pair. Per cent moisture throughout.
    """
    some(given.pairs, "pairs", "pair")
    differences = [pair.reference_pct - pair.shown_pct for pair in given.pairs]
    spread = max(differences) - min(differences)
    steady = None if len(differences) == 1 else not exceeds(spread, 1.0 + 1e-9)
    return Moisture(given.stored_pct + fmean(differences), spread, len(differences), steady)


@dataclass(frozen=True)
class Load:
    machine_kg: Positive
    scale_kg: Positive
    flow: Literal["normal", "low"] = "normal"


@dataclass(frozen=True)
class YieldGiven:
    loads: Annotated[list[Load], AtMost(200)]
    min_load_kg: NotNegative = 1360


@dataclass(frozen=True)
class Rejected:
    index: int
    reason: str


@dataclass(frozen=True)
class Yield:
    factor: float | None
    low_flow_factor: float | None
    per_load_error_pct: list[float]
    rejected: list[Rejected]
    spread_pct: float | None


@calculator
def yield_factor(given: YieldGiven) -> Yield:
    """What to multiply the yield factor in force by, from loads weighed on a scale.

    Σ scale / Σ machine of the accepted loads of that flow, null where there are none; accepted from `min_load_kg` on the scale.
    per_load_error_pct = 100·(machine − scale) / scale of the accepted loads in their order; spread = largest − smallest of
    them.
    """
    some(given.loads, "loads", "load")
    accepted = [load for load in given.loads if not below(load.scale_kg, given.min_load_kg)]
    rejected = [
        Rejected(i, f"under {given.min_load_kg:g} kg: too small to tell")
        for i, load in enumerate(given.loads)
        if below(load.scale_kg, given.min_load_kg)
    ]
    errors = [100 * (load.machine_kg - load.scale_kg) / load.scale_kg for load in accepted]
    return Yield(
        factor=_factor([load for load in accepted if load.flow == "normal"]),
        low_flow_factor=_factor([load for load in accepted if load.flow == "low"]),
        per_load_error_pct=errors,
        rejected=rejected,
        spread_pct=max(errors) - min(errors) if errors else None,
    )


def _factor(loads: list[Load]) -> float | None:
    if not loads:
        return None
    return math.fsum(load.scale_kg for load in loads) / math.fsum(load.machine_kg for load in loads)
