"""A long strip-down: which parts behind it to renew while it is apart."""

from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import AtMost
from ..registry import calculator
from .common import Chance, NotNegative, different_names, some

EITHER = 0.20
"""Within this share of the break-even chance the figures do not decide."""

ApartAdvice = Literal["renew", "leave", "either"]


@dataclass(frozen=True)
class PartBehind:
    """p_fail: before this strip-down would be done again anyway. remaining: share of its life left."""

    name: str
    part_cost: NotNegative
    p_fail: Chance
    remaining: float
    extra_h: NotNegative = 0
    p_fail_new: Chance = 0
    secondary_cost: NotNegative = 0


@dataclass(frozen=True)
class ApartGiven:
    parts: Annotated[list[PartBehind], AtMost(200)]
    teardown_h: NotNegative
    labour_rate: NotNegative
    downtime_h: NotNegative
    downtime_rate: NotNegative


@dataclass(frozen=True)
class NowOrLater:
    name: str
    cost_now: float
    cost_later: float
    saving: float
    break_even: float | None
    advice: ApartAdvice


@dataclass(frozen=True)
class Apart:
    renew: list[str]
    parts: list[NowOrLater]


@calculator
def while_apart(given: ApartGiven) -> Apart:
    """Cost of renewing a part now, while it lies open, against the chance of stripping down again for it.

    C = teardown·labour rate + downtime·downtime rate + secondary; now = max(0, remaining)·part + extra hours·labour rate;
    later = max(0, p_fail − p_fail_new)·C; break-even chance = now / C + p_fail_new, null where failing costs nothing (then
    leave). Within ±20 % of the break-even the figures do not decide: either. In the shop's currency; never for safety items.
    """
    some(given.parts, "parts", "part")
    different_names([part.name for part in given.parts], "parts")
    parts = [_one(given, part) for part in given.parts]
    return Apart([part.name for part in parts if part.advice == "renew"], parts)


def _one(given: ApartGiven, part: PartBehind) -> NowOrLater:
    failing = given.teardown_h * given.labour_rate + given.downtime_h * given.downtime_rate + part.secondary_cost
    now = max(0.0, part.remaining) * part.part_cost + part.extra_h * given.labour_rate
    later = max(0.0, part.p_fail - part.p_fail_new) * failing
    if failing <= 0:
        return NowOrLater(part.name, now, later, later - now, None, "leave")
    even = now / failing + part.p_fail_new
    advice: ApartAdvice = "renew" if part.p_fail > even else "leave"
    if abs(part.p_fail - even) <= EITHER * even * (1 + 1e-9):
        advice = "either"
    return NowOrLater(part.name, now, later, later - now, even, advice)
