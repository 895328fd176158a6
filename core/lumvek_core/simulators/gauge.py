"""A simulated gauge: a plausible figure for what is being measured, in the characters a gauge with a keyboard plug would type."""

import random
from typing import Literal

from ..catalogue.model import Check
from ..judgement import rules

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


def span_of(check: Check) -> tuple[float, float]:
    """Where readings of a check usually lie, in its unit: most sound, some at their limit, a few beyond."""
    rule = check.rule
    match rule:
        case rules.WearRule():
            return (rule.new, rule.limit + 0.1 * (rule.limit - rule.new)) if rule.new < rule.limit else (
                rule.limit - 0.1 * (rule.new - rule.limit), rule.new)  # fmt: skip
        case rules.WindowRule() | rules.ContactRule():
            room = (rule.high - rule.low) * 0.25
            low, high = rule.low - room, rule.high + room
            # By the thinnest usual feeler a pair shows about half of what the card does.
            return (low / 2, high / 2) if isinstance(rule, rules.ContactRule) else (low, high)
        case rules.StretchRule():
            new = rule.pitch * rule.pitches
            return new, new * (1 + 1.1 * rule.limit_pct / 100)
        case rules.SteppedRule():
            return rule.limit * 0.5, rule.limit * 1.2
        case rules.RegisterRule():
            return 0.0, 1.5 * max(rule.tolerance, 1.0)
        case rules.DepthRule():
            return rule.target - 1.3 * rule.tolerance, rule.target + 1.3 * rule.tolerance
        case rules.BarRule():
            return 530.0, 560.0
        case rules.EvenRule():
            middle = sum(check.plausible) / 2 if check.plausible else 30.0
            return middle - rule.tolerance, middle + rule.tolerance
        case _:
            low, high = (check.plausible[0], check.plausible[1]) if check.plausible else (10.0, 60.0)
            third = (high - low) / 3
            return low + third, high - third


def read(check: Check, gauge: Gauge, seed: int) -> str:
    """What a gauge types for one figure of a check."""
    return figure(*span_of(check), gauge, seed)
