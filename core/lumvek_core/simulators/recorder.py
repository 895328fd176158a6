"""A stand-in for a phone laid on a shield while the machine runs: the acceleration it would record."""

import math
import random
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

SAMPLE_HZ = 400.0
LONGEST_S = 120


@dataclass(frozen=True)
class Tone:
    """Something that shakes. hz: how often; amplitude: m/s² at its middle speed."""

    hz: float
    amplitude: float


@dataclass(frozen=True)
class Speeds:
    """rpm of each shaft at the speed of the engine that was set."""

    engine_rpm: float
    rpm: Mapping[str, float]


def recorded(
    tones: Sequence[Tone], seconds: float, seed: int, noise: float = 0.35, sample_hz: float = SAMPLE_HZ
) -> list[float]:
    """What a phone would record, m/s²: the tones, wandering by a thousandth as governors do, under noise.

    The same seed gives the same recording.
    """
    drawn = random.Random(seed)  # noqa: S311  (a stand-in, not a secret)
    phases = [drawn.uniform(0, 2 * math.pi) for _ in tones]
    slow = drawn.uniform(0, 2 * math.pi)
    count = round(min(seconds, LONGEST_S) * sample_hz)
    found = []
    for i in range(count):
        at = i / sample_hz
        wander = 0.001 / 0.4 * math.sin(0.4 * at + slow)
        value = drawn.gauss(0, noise)
        for tone, phase in zip(tones, phases, strict=True):
            value += tone.amplitude * math.sin(2 * math.pi * tone.hz * (at + wander) + phase)
        found.append(value)
    return found


def tones_of(speeds: Speeds, shaking: Mapping[str, Mapping[float, float]], other: Mapping[float, float]) -> list[Tone]:
    """shaking: shaft → order → amplitude; other: Hz → amplitude of what does not follow the engine."""
    of_shafts = [
        Tone(speeds.rpm[shaft] / 60 * order, height) for shaft, orders in shaking.items() for order, height in orders.items()
    ]
    return [*of_shafts, *(Tone(hz, height) for hz, height in other.items())]
