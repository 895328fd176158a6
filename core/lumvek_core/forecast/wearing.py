"""How a kind of part wears, what was read of it, and the season that is asked about: what every forecast is made from."""

import math
from dataclasses import dataclass

from ..catalogue.model import Check
from ..rules.wear import READING_ERROR

SEASON_SHARE = 0.2
"""How far one season's rate differs from the next, as a share of the rate, until the machine's own seasons say better."""
NEW_SD = 0.02
"""Spread between new parts, as a share of the wear allowed."""
FRESH = 0.25
"""A part that was renewed reads as good as new: no more than this share of its wear is used."""


@dataclass(frozen=True)
class Wearing:
    """How a kind of part wears. life: use from new to its limit, usually; spread: one standard deviation of its rate, as a
    share.

    Sizes and reading_sd in the reading's unit, use in hours or hectares.
    """

    new: float
    limit: float
    life: float
    reading_sd: float
    spread: float = 0.5

    @property
    def rate(self) -> float:
        return (self.limit - self.new) / self.life

    def used(self, value: float) -> float:
        """Share of the wear allowed that is used: 0 new, 1 at the limit."""
        return (self.new - value) / (self.new - self.limit)


def wearing_of(check: Check) -> Wearing | None:
    """How what a check measures wears, in the check's unit; None where the catalogue says nothing of it."""
    ends = check.rule.ends()
    if check.wears is None or ends is None:
        return None
    return Wearing(*ends, check.wears.life, check.reading_error or READING_ERROR, check.wears.spread)


@dataclass(frozen=True)
class Measured:
    """One reading. key: its own name. counter: of the machine. stands: a technician was asked, and stood by it.

    That holds until something newer says otherwise.
    """

    key: int
    counter: float
    value: float
    stands: bool = False


@dataclass(frozen=True)
class Coming:
    """The season asked about: counter now and at its end, and the use of a usual season.

    use_sd: how sure its length is, one standard deviation; it widens what is expected at its end.
    """

    now: float
    end: float
    season_use: float
    season_share: float = SEASON_SHARE
    use_sd: float = 0.0


def renewed_from(wearing: Wearing) -> float:
    """By how much of its wear a part must get better between two readings before it can only be another part."""
    return max(4 * math.sqrt(2) * wearing.reading_sd / abs(wearing.limit - wearing.new), FRESH)


def renewed_between(wearing: Wearing, before: float, after: float) -> bool:
    """Whether two readings, one after the other, are of two parts: the later as good as new, and far better than the
    earlier.
    """
    return wearing.used(after) <= FRESH and wearing.used(before) - wearing.used(after) > renewed_from(wearing)
