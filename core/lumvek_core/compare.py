"""Comparisons with limits, bands and tolerances.

Figures come from decimal text and pass through binary floats, so a reading typed as exactly the limit may differ from it in the
last digit. Every comparison therefore allows 1e-9 relative, in favour of "reached" for wear and of "inside" for windows.
"""

SLACK = 1e-9


def _slack(a: float, b: float) -> float:
    return SLACK * max(abs(a), abs(b))


def reached(value: float, threshold: float) -> bool:
    """True if `value` is at or above `threshold`, near enough counting as reached."""
    return value >= threshold - _slack(value, threshold)


def exceeds(value: float, tolerance: float) -> bool:
    """True if `value` is above `tolerance` by more than the slack: on the line is inside."""
    return value > tolerance + _slack(value, tolerance)


def below(value: float, low: float) -> bool:
    """True if `value` is under `low` by more than the slack: on the line is inside."""
    return value < low - _slack(value, low)
