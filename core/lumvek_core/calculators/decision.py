"""Renew a worn part now, or run one more season and decide again."""

from dataclasses import dataclass
from typing import Literal

from ..compare import reached
from ..registry import calculator
from .common import Chance, NotNegative, Percent

EITHER = 0.20
"""Within this share of the break-even chance the figures do not decide."""

Advice = Literal["replace", "wait", "either"]


@dataclass(frozen=True)
class DecisionGiven:
    """p_cross: chance to cross the limit before the season ends. p_fail_if_crossed: chance that it then fails in the field.

    remaining: share of its life left; season_share: share of a life that one season takes. labour_h in the shop, field_labour_h
    in the field. yearly_rate_pct: what money tied up a year early costs.
    """

    p_cross: Chance
    remaining: float
    part_cost: NotNegative
    labour_h: NotNegative
    field_labour_h: NotNegative
    labour_rate: NotNegative
    downtime_h: NotNegative
    downtime_rate: NotNegative
    p_fail_if_crossed: Chance = 1
    p_fail_new: Chance = 0
    season_share: NotNegative = 1
    secondary_cost: NotNegative = 0
    yearly_rate_pct: Percent = 0


@dataclass(frozen=True)
class Decided:
    """break_even: the chance to cross at which both cost the same; None where failing costs nothing more."""

    p_fail: float
    cost_now: float
    cost_wait: float
    extra_if_fails: float
    break_even: float | None
    advice: Advice


def still_serves(remaining: float, season_share: float, p_fail_if_crossed: float) -> float:
    """Share of a life that a part will still give if it is not renewed now: what `remaining` is to a decision about one season.

    A part with less left than the season takes reaches its limit in it, and serves the season out unless it fails. remaining:
    up to the limit; nothing left stays nothing. On made-up machines it spares chains that are cheap to run a little past their
    limit, and changes nothing for parts that fail there.
    """
    if not 0 < remaining < season_share:
        return remaining
    return remaining + (1 - p_fail_if_crossed) * (season_share - remaining)


@calculator
def replace_decision(given: DecisionGiven) -> Decided:
    """Life thrown away by renewing now, against the chance and cost of failing in the field.

    K = (field labour − labour)·rate + downtime·its rate + secondary; p_fail = p_cross·p_fail_if_crossed; now =
    (min(max(remaining, 0), season_share) + yearly_rate/100)·(part + labour·rate); wait = max(0, p_fail − p_fail_new)·K;
    break-even in p_cross = (now/K + p_fail_new)/p_fail_if_crossed, null when K ≤ 0 or p_fail_if_crossed = 0 (then wait). either
    within ±20 % of it, ends included; remaining ≤ 0: replace. In the shop's currency. Never for safety items, and never for a
    verdict of stop.
    """
    extra = (
        (given.field_labour_h - given.labour_h) * given.labour_rate
        + given.downtime_h * given.downtime_rate
        + given.secondary_cost
    )
    p_fail = given.p_cross * given.p_fail_if_crossed
    whole = given.part_cost + given.labour_h * given.labour_rate
    now = (min(max(given.remaining, 0.0), given.season_share) + given.yearly_rate_pct / 100) * whole
    wait = max(0.0, p_fail - given.p_fail_new) * extra
    even = None
    if extra > 0 and given.p_fail_if_crossed > 0:
        even = (now / extra + given.p_fail_new) / given.p_fail_if_crossed
    return Decided(p_fail, now, wait, extra, even, _advice(given, even))


def _advice(given: DecisionGiven, even: float | None) -> Advice:
    if given.remaining <= 0:
        return "replace"
    if even is None:
        return "wait"
    if reached(EITHER * even, abs(given.p_cross - even)):
        return "either"
    return "replace" if given.p_cross > even else "wait"
