"""A simulated meter test stand: the spacings of a run, for a good, a gummed and a worn meter."""

import itertools
import random
from typing import Literal

Meter = Literal["good", "gummed", "worn"]

BEHAVIOUR: dict[Meter, tuple[float, float, float]] = {
    "good": (0.008, 0.006, 0.07),
    "gummed": (0.06, 0.01, 0.13),
    "worn": (0.035, 0.06, 0.24),
}
"""Chance of a skip and of a double a cell, scatter of a seed in shares of the spacing."""


def run(meter: Meter, nominal_mm: float, cells: int, seed: int) -> list[float]:
    """Spacings in mm between the seeds of `cells` cells. The same seed runs the same.

    Each cell drops its seed a little early or late; a skipped cell drops none, a double two close together.
    """
    chance = random.Random(f"{seed}:{meter}")  # noqa: S311 - a made-up run, not a secret
    skip, double, scatter = BEHAVIOUR[meter]
    falls: list[float] = []
    for cell in range(cells):
        if chance.random() < skip:
            continue
        at = (cell + chance.gauss(0, scatter / 2**0.5)) * nominal_mm
        falls.append(at)
        if chance.random() < double:
            falls.append(at + chance.uniform(0.05, 0.35) * nominal_mm)
    falls.sort()
    return [round(after - before, 1) for before, after in itertools.pairwise(falls)]


def as_csv(spacings: list[float]) -> str:
    """The run as the stand's file: a header, one spacing a line."""
    return "seed,spacing_mm\n" + "".join(f"{i},{spacing:g}\n" for i, spacing in enumerate(spacings, 1))
