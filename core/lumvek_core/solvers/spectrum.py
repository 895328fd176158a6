"""From a recording of a shaking machine to its spectrum and the peaks in it."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray
from scipy.ndimage import median_filter
from scipy.signal import welch

SEGMENT_S = 8.0
ROUND, TIMES, LOWEST_HZ, MOST = 41, 6.0, 1.0, 20
"""A peak stands so many times over the median of so many bins round it, above 1 Hz; at most 20, the highest."""


@dataclass(frozen=True)
class Spectrum:
    """hz, amplitude: of each bin, the amplitude of a sine there, in the unit of the recording."""

    hz: NDArray[np.float64]
    amplitude: NDArray[np.float64]

    @property
    def bin_hz(self) -> float:
        return float(self.hz[1] - self.hz[0])


def spectrum(samples: Sequence[float] | NDArray[np.float64], sample_hz: float) -> Spectrum:
    """By Welch: Hann windows of 8 s, or of all of it, half overlapping, the mean taken off."""
    values = np.asarray(samples, dtype=np.float64)
    length = min(len(values), max(2, round(SEGMENT_S * sample_hz)))
    hz, power = welch(values - values.mean(), sample_hz, "hann", length, length // 2, scaling="spectrum")
    return Spectrum(hz, np.sqrt(2 * power))


def peaks(found: Spectrum) -> list[tuple[float, float]]:
    """(Hz, amplitude), the highest first; between bins where the neighbours say so."""
    height = found.amplitude
    floor = median_filter(height, size=min(ROUND, len(height)), mode="nearest")
    inner = np.arange(1, len(height) - 1)
    stands = (
        (height[inner] > height[inner - 1])
        & (height[inner] >= height[inner + 1])
        & (height[inner] > TIMES * floor[inner])
        & (found.hz[inner] > LOWEST_HZ)
    )
    at = inner[stands]
    at = at[np.argsort(-height[at], kind="stable")][:MOST]
    return [(_between(found, int(i)), float(height[i])) for i in at]


def _between(found: Spectrum, i: int) -> float:
    """Where the top of a parabola through the logarithms of three bins lies."""
    low, top, high = (float(np.log(max(value, 1e-300))) for value in found.amplitude[i - 1 : i + 2])
    bend = low - 2 * top + high
    off = 0.5 * (low - high) / bend if bend < 0 else 0.0
    return float(found.hz[i]) + max(-0.5, min(0.5, off)) * found.bin_hz
