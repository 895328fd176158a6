"""Which shaft a recording of a shaking machine speaks of."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import AtMost, Over, Within
from ..compare import exceeds
from ..errors import BadInput
from ..registry import calculator

NO_MATCH = 0.05
"""A score below which nothing is named."""
BINS = 0.75
"""A peak may lie so many bins off in any case: nobody can read it finer."""
LEAST = 16


@dataclass(frozen=True)
class Peak:
    hz: Annotated[float, Over(0), Within(0, 1e6)]
    amplitude: Annotated[float, Over(0), Within(0, 1e9)]


@dataclass(frozen=True)
class Shaft:
    """rpm: at the time of the recording. multiples: what else it gives: blades, knives, tones of a bearing."""

    name: str
    rpm: Annotated[float, Over(0), Within(0, 1e6)]
    multiples: Annotated[list[Annotated[float, Over(0), Within(0, 10_000)]], AtMost(60)] = field(default_factory=lambda: [1.0])


@dataclass(frozen=True)
class VibrationGiven:
    """samples: acceleration in any unit; or the peaks of a spectrum that was made elsewhere, with the width of its bins."""

    sample_hz: Annotated[float, Over(0), Within(0, 1e6)]
    shafts: Annotated[list[Shaft], AtMost(100)]
    samples: Annotated[list[float], AtMost(200_000)] | None = None
    peaks: Annotated[list[Peak], AtMost(200)] | None = None
    tolerance_pct: Annotated[float, Over(0), Within(0, 20)] = 2
    bin_hz: Annotated[float, Within(0, 1000)] = 0


@dataclass(frozen=True)
class Match:
    """off_pct: of the peak from where the shaft would have it."""

    shaft: str
    order: float
    off_pct: float


@dataclass(frozen=True)
class MatchedPeak:
    hz: float
    amplitude: float
    matches: list[Match]


@dataclass(frozen=True)
class RankedShaft:
    shaft: str
    score: float


@dataclass(frozen=True)
class NotObservable:
    shaft: str
    order: float
    hz: float


@dataclass(frozen=True)
class VibrationMatch:
    """peaks: the highest first. ranked: shafts by score, those below 0.05 left out. unmatched: Hz of peaks that no shaft gives.
    not_observable: over half the sample rate. words: the shaft that it is, or “no match”."""

    peaks: list[MatchedPeak]
    ranked: list[RankedShaft]
    unmatched: list[float]
    not_observable: list[NotObservable]
    words: str


@calculator
def vibration_match(given: VibrationGiven) -> VibrationMatch:
    """The shafts of a machine by how much of what shakes each explains.

    Spectrum by Welch: Hann windows, half overlapping, of 8 s or of all of it. A peak is a local maximum over six times the
    median of the 41 bins round it, above 1 Hz, at most 20. A peak is a shaft's where it lies within max(tolerance·f, 0.75 bin)
    of one of its multiples f. Score = Σ amplitude²·(1 − |off|/tolerance) of its peaks over Σ amplitude² of all; below 0.05
    there is no match. Bad input: neither samples nor peaks, fewer than 16 samples, a shaft twice.
    """
    names = [shaft.name for shaft in given.shafts]
    if len(set(names)) < len(names):
        raise BadInput("shafts", "a shaft stands there twice")
    peaks, bin_hz = _peaks(given)
    highest = given.sample_hz / 2
    hidden = [
        NotObservable(shaft.name, order, shaft.rpm / 60 * order)
        for shaft in given.shafts
        for order in shaft.multiples
        if exceeds(shaft.rpm / 60 * order, highest)
    ]
    scores = dict.fromkeys(names, 0.0)
    whole = sum(peak.amplitude**2 for peak in peaks)
    found = []
    for peak in peaks:
        near = _matches(peak.hz, given, bin_hz, highest)
        for shaft, closeness in _closest(near).items():
            scores[shaft] += peak.amplitude**2 * closeness / whole
        found.append(MatchedPeak(peak.hz, peak.amplitude, [match for match, _ in near]))
    ranked = sorted((RankedShaft(name, score) for name, score in scores.items()), key=lambda one: -one.score)
    ranked = [one for one in ranked if not exceeds(NO_MATCH, one.score)]
    unmatched = [peak.hz for peak in found if not peak.matches]
    return VibrationMatch(found, ranked, unmatched, hidden, ranked[0].shaft if ranked else "no match")


def _peaks(given: VibrationGiven) -> tuple[Sequence[Peak], float]:
    """With the width of a bin in Hz."""
    if given.peaks is not None:
        return sorted(given.peaks, key=lambda one: -one.amplitude), given.bin_hz
    if given.samples is None:
        raise BadInput("samples", "give a recording, or the peaks of its spectrum")
    if len(given.samples) < LEAST:
        raise BadInput("samples", f"is too short: at least {LEAST} samples")
    from ..solvers import spectrum  # NumPy and SciPy are read only by whoever has a recording

    made = spectrum.spectrum(given.samples, given.sample_hz)
    return [Peak(hz, height) for hz, height in spectrum.peaks(made)], made.bin_hz


def _matches(hz: float, given: VibrationGiven, bin_hz: float, highest: float) -> list[tuple[Match, float]]:
    """What gives a peak, with how close it lies: 1 on the spot, 0 at the edge of the tolerance."""
    found = []
    for shaft in given.shafts:
        for order in shaft.multiples:
            at = shaft.rpm / 60 * order
            wide = max(given.tolerance_pct / 100 * at, BINS * bin_hz)
            off = hz - at
            if not exceeds(at, highest) and not exceeds(abs(off), wide):
                found.append((Match(shaft.name, order, 100 * off / at), max(0.0, 1 - abs(off) / wide)))
    return sorted(found, key=lambda one: -one[1])


def _closest(near: Sequence[tuple[Match, float]]) -> dict[str, float]:
    """Of each shaft the multiple that lies closest."""
    found: dict[str, float] = {}
    for match, closeness in near:
        found[match.shaft] = max(closeness, found.get(match.shaft, 0.0))
    return found
