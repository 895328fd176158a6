"""A simulated gauge: a plausible figure for what is being measured, in the characters a gauge with a keyboard plug would
type.
"""

import random
from typing import Literal

from ..catalogue.model import Check

Gauge = Literal["caliper", "depth gauge", "tape", "feeler", "force gauge"]
GAUGES: tuple[Gauge, ...] = ("caliper", "depth gauge", "tape", "feeler", "force gauge")

STEPS_MM: dict[str, float] = {"caliper": 0.01, "depth gauge": 0.01, "tape": 1.0, "feeler": 0.05, "force gauge": 1.0}
"""What the gauge reads to, in mm (the force gauge in N)."""


def figure(low: float, high: float, gauge: Gauge, seed: int) -> str:
    """A figure between two ends as the gauge shows it. The same seed reads the same; the caliper sends its sign and zeros."""
    chance = random.Random(f"{seed}:{gauge}:{low:g}:{high:g}")  # noqa: S311 - a made-up reading, not a secret
    step = STEPS_MM[gauge]
    value = max(0.0, round(chance.uniform(low, high) / step) * step)
    if gauge == "caliper":
        return f"+{value:07.2f}"
    return f"{value:.2f}" if step < 0.1 else f"{value:.0f}"


def read(check: Check, gauge: Gauge, seed: int) -> str:
    """What a gauge types for one figure of a check."""
    return figure(*check.rule.usual_span(check), gauge, seed)
