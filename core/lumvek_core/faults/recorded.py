"""A recording held against the machine's drive line: its spectrum to be drawn, what matches, and what follows the engine."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from ..catalogue.shafts import FIXED, DriveLine, DrivenShaft, RollingBearing
from .bearings import BearingGiven, bearing_tones
from .vibration import Peak, Shaft, VibrationGiven, VibrationMatch, vibration_match

POINTS = 700
"""Points of a drawn spectrum: of those between, the highest is kept."""
SAME = 0.02
"""Share by which two peaks may differ and be the same."""
APART = 0.04
"""Share by which two speeds of the engine must differ to tell what follows it."""
HEARD = 0.1
"""Share of the highest peak below which a peak is not compared."""


Follows = Literal["engine", "not", "same", "only"]


@dataclass(frozen=True)
class Turning:
    """A shaft as it turned in a recording. ranged: in which range."""

    key: str
    name: str
    station: str
    rpm: float
    orders: dict[str, str]
    follows: bool
    ranged: str


@dataclass(frozen=True)
class Analysed:
    """hz, amplitude: of the spectrum, thinned for drawing. level: root mean square of the samples."""

    hz: list[float]
    amplitude: list[float]
    level: float
    match: VibrationMatch


@dataclass(frozen=True)
class Compared:
    """A peak of the first recording beside the second's. follows: engine – same order at both engine speeds; not – same Hz at
    both; same – there at one and the same speed, which tells neither; only – the second does not have it. order: Hz over the
    engine's turns. times: amplitude in the second over that in the first."""

    hz: float
    other_hz: float | None
    order: float
    follows: Follows
    times: float | None


def turning(
    line: DriveLine, engine_rpm: float, ranges: Mapping[str, str], typed: Mapping[str, float] | None = None
) -> list[Turning]:
    """How each shaft turned. ranges: shaft → range; typed: shaft → rpm that somebody read off the display."""
    return [_turning(line, one, engine_rpm, ranges.get(one.key, ""), (typed or {}).get(one.key)) for one in line.shafts]


def _turning(line: DriveLine, one: DrivenShaft, engine_rpm: float, ranged: str, typed: float | None) -> Turning:
    chosen = ranged if ranged in one.speeds else list(one.speeds)[-1]
    rated = one.speeds[chosen]
    rpm = typed or (rated * engine_rpm / line.engine_rpm if line.follows(one) else rated)
    orders = one.orders | {order: what for bearing in one.bearings for order, what in tones_of(bearing).items()}
    return Turning(one.key, one.name, one.station, rpm, orders, line.follows(one), "" if chosen == FIXED else chosen)


def tones_of(bearing: RollingBearing) -> dict[str, str]:
    """The tones of a bearing as orders of its shaft, its inner ring turning: rings, cage, and a ball, which strikes twice."""
    size = BearingGiven(bearing.balls, bearing.ball_mm, bearing.pitch_mm, bearing.angle_deg, 60)
    tones = bearing_tones(size)
    named = {"outer ring": tones.bpfo, "inner ring": tones.bpfi, "a ball": 2 * tones.bsf, "cage": tones.ftf}
    return {f"{order:.4f}": f"{what} of {bearing.name}" for what, order in named.items()}


def analysed(samples: Sequence[float], sample_hz: float, shafts: Sequence[Turning]) -> Analysed:
    """Its spectrum, its peaks and the shafts they are. Raises BadInput."""
    from ..solvers.spectrum import peaks, spectrum  # NumPy and SciPy are read only by whoever has a recording

    found = spectrum(samples, sample_hz)
    listed = [Peak(hz, height) for hz, height in peaks(found)]
    told = [Shaft(one.name, one.rpm, [float(order) for order in one.orders]) for one in shafts]
    match = vibration_match(VibrationGiven(sample_hz, told, peaks=listed, bin_hz=found.bin_hz))
    every = max(1, len(found.hz) // POINTS)
    heights = found.amplitude[: len(found.hz) // every * every].reshape(-1, every).max(axis=1)
    level = (sum(value * value for value in samples) / len(samples)) ** 0.5
    hz = [round(float(one), 3) for one in found.hz[: len(heights) * every : every]]
    return Analysed(hz, [round(float(one), 5) for one in heights], level, match)


def compared(first: VibrationMatch, engine_a: float, second: VibrationMatch, engine_b: float) -> list[Compared]:
    """The peaks of one recording beside those of another, at the same or another speed of the engine: what follows it and what
    does not. At one speed only what grew or went can be told."""
    loud = max((peak.amplitude for peak in first.peaks), default=0.0)
    found = []
    for peak in first.peaks:
        if peak.amplitude < HEARD * loud:
            continue
        ratio = engine_b / engine_a
        by_order = _near(second, peak.hz * ratio)
        by_hz = _near(second, peak.hz)
        follows: Follows = "only"
        other = None
        if by_order is not None:
            follows, other = "engine" if abs(ratio - 1) > APART else "same", by_order
        elif by_hz is not None:
            follows, other = "not", by_hz
        found.append(
            Compared(
                hz=peak.hz,
                other_hz=other.hz if other else None,
                order=peak.hz / (engine_a / 60),
                follows=follows,
                times=other.amplitude / peak.amplitude if other else None,
            )
        )
    return found


def _near(match: VibrationMatch, hz: float) -> Peak | None:
    listed = [Peak(one.hz, one.amplitude) for one in match.peaks if abs(one.hz - hz) <= SAME * hz]
    return max(listed, key=lambda one: one.amplitude, default=None)
