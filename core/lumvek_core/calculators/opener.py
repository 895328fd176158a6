"""Opener discs: how far a pair touches, whatever feeler it was measured with."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import AtMost, Over, Within
from ..compare import below, exceeds
from ..errors import BadInput
from ..registry import calculator

FEELERS_MM = {"paper": 0.10, "folded paper": 0.20, "card": 0.30}
"""Starting values; the shop measures its own card."""


@dataclass(frozen=True)
class ContactReading:
    span_mm: Annotated[float, Within(0)]
    feeler_mm: Annotated[float, Over(0)]


@dataclass(frozen=True)
class ContactBand:
    low_mm: Annotated[float, Within(0)]
    high_mm: float
    feeler_mm: Annotated[float, Over(0)]


@dataclass(frozen=True)
class ContactGiven:
    readings: Annotated[list[ContactReading], AtMost(400)]
    disc_diameter_mm: Annotated[float, Over(0)]
    band: ContactBand
    included_angle_deg: Annotated[float, Within(2, 40)] = 14


@dataclass(frozen=True)
class BandSeen:
    feeler_mm: float
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class Contact:
    overlap_mm: float
    overlap_is_upper_bound: bool
    true_contact_mm: float
    equivalent_span_mm: float
    spread_mm: float
    state: Literal["low", "in_band", "high"]
    band_equivalents: list[BandSeen]


class _Pair:
    """Two discs of radius R leaning together: gap and span turned into each other."""

    def __init__(self, diameter_mm: float, angle_deg: float) -> None:
        self.radius = diameter_mm / 2
        self.opening = 2 * math.sin(math.radians(angle_deg) / 2)

    def drawn_back(self, span: float, field: str) -> float:
        """How far the rim has drawn back at half the span from the middle of the chord, mm."""
        if span >= 2 * self.radius:
            raise BadInput(field, "must be less than the disc's diameter")
        half = span / 2
        return half * half / (self.radius + math.sqrt(self.radius**2 - half**2))  # R − √(R² − h²) without cancellation

    def overlap(self, span: float, feeler: float, field: str) -> float:
        """Overlap beyond just touching, mm; negative when the rims stand apart."""
        return self.drawn_back(span, field) - feeler / self.opening

    def span(self, overlap: float, feeler: float, field: str) -> float:
        """What a feeler would show at this overlap, mm; 0 when it passes right through."""
        back = overlap + feeler / self.opening
        if back > self.radius:
            raise BadInput(field, "is too thick for discs of this size and angle")
        return 0.0 if back <= 0 else 2 * math.sqrt(back * (2 * self.radius - back))


@calculator
def opener_contact(given: ContactGiven) -> Contact:
    """Opener contact of one pair of discs, from spans between two feelers, comparable over feelers of different thickness.

    Geometric approximation: two flat discs of today's diameter (mean of the pair) lean together at the included angle and meet
    along a chord. A feeler of thickness t stops where the gap is t, so the overlap h = R − √(R² − (L/2)²) − t / (2 sin(β/2)).
    equivalent_span_mm is what the band's own feeler would show at the mean overlap, true_contact_mm what steel on steel does
    (0 is possible inside a band: touching by feeler, not by steel), spread_mm the largest less the smallest single equivalent
    (a bent disc or hub). band_equivalents: the band as paper, folded paper and card show it. A span of 0 means the feeler
    passes right through: the state is then low whatever the other places show, and the overlap only an upper bound.

    All in mm and degrees. Refuses an angle outside 2…40, feelers of 0, spans of a diameter or more, impossible geometry.
    """
    if not given.readings:
        raise BadInput("readings", "needs at least one span")
    band = given.band
    if band.low_mm > band.high_mm:
        raise BadInput("band.high_mm", "must not be below low_mm")
    pair = _Pair(given.disc_diameter_mm, given.included_angle_deg)
    overlaps = [
        pair.overlap(reading.span_mm, reading.feeler_mm, f"readings.{i}.span_mm") for i, reading in enumerate(given.readings)
    ]
    overlap = math.fsum(overlaps) / len(overlaps)
    singles = [pair.span(h, band.feeler_mm, "band.feeler_mm") for h in overlaps]
    passes_through = any(reading.span_mm == 0 for reading in given.readings)
    equivalent = pair.span(overlap, band.feeler_mm, "band.feeler_mm")
    state: Literal["low", "in_band", "high"] = "in_band"
    if passes_through or below(equivalent, band.low_mm):
        state = "low"
    elif exceeds(equivalent, band.high_mm):
        state = "high"
    return Contact(
        overlap_mm=overlap,
        overlap_is_upper_bound=passes_through,
        true_contact_mm=pair.span(overlap, 0.0, ""),
        equivalent_span_mm=equivalent,
        spread_mm=max(singles) - min(singles),
        state=state,
        band_equivalents=[_band_seen(pair, band, feeler) for feeler in sorted(FEELERS_MM.values())],
    )


def _band_seen(pair: _Pair, band: ContactBand, feeler: float) -> BandSeen:
    """The band as a feeler of another thickness shows it."""
    low = pair.overlap(band.low_mm, band.feeler_mm, "band.low_mm")
    high = pair.overlap(band.high_mm, band.feeler_mm, "band.high_mm")
    return BandSeen(feeler, pair.span(low, feeler, "band.feeler_mm"), pair.span(high, feeler, "band.feeler_mm"))
