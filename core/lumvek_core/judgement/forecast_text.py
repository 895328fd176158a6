"""What a forecast adds to a verdict: whether a part is watched, and what is said of it."""

from dataclasses import dataclass

from ..compare import reached
from ..rules.verdict import Severity
from .context import Expected
from .words import Words, percent


def watched(expected: Expected, watch_chance: float) -> Severity:
    """Sound or to be watched, of a part that is not at its limit: by the chance to reach it before the season ends."""
    return "watch" if reached(expected.chance, watch_chance) else "sound"


def in_words(expected: Expected, value: str, low: str, high: str) -> str:
    """``expected 366 mm (364.2 to 367.8) by the end of the season; possible (24 %) that it reaches its limit``."""
    chance = "under 1 %" if expected.chance < 0.005 else percent(expected.chance)
    return f"expected {value} ({low} to {high}) by the end of the season; {expected.word} ({chance}) that it reaches its limit"


def at_the_end(expected: Expected, say: Words) -> str:
    """``381.5 mm (380.1 to 382.9) by the end of the season``, of a part at its limit."""
    value, low, high = say.figure(max(expected.value, 0.0)), say.bare(expected.low), say.bare(expected.high)
    return f"{value} ({low} to {high}) by the end of the season"


@dataclass(frozen=True)
class Ahead:
    """For whoever shows it: today's true value, the season's end with its range, and the chance to reach the limit before
    it.
    """

    now: float
    expected: float
    low: float
    high: float
    chance: float


def ahead(expected: Expected | None) -> Ahead | None:
    """What is to be shown of a forecast, where there is one."""
    if expected is None:
        return None
    return Ahead(expected.now, expected.value, expected.low, expected.high, expected.chance)


def why(watch_chance: float) -> str:
    """How watching is decided, for whoever asks."""
    return (
        "From this machine's own readings, and where there are few of them from how such parts usually wear. "
        f"Watched from a chance of {percent(watch_chance)}."
    )
