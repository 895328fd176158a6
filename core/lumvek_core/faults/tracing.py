"""Which check to make next, and what its answer leaves of the causes."""

import math
from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import AtMost, Over, Within
from ..errors import BadInput
from ..registry import calculator

HALF = 0.5
"""Chance that a check which proves a cause, without being able to clear it, shows it."""


@dataclass(frozen=True)
class Cause:
    """weight: how common it is beside the others."""

    name: str
    weight: Annotated[float, Over(0), Within(0, 1e6)]


@dataclass(frozen=True)
class TracingCheck:
    """proves: causes a bad result speaks for. clears: those of them that a good result rules out. posture_minutes: of the way
    to the posture it is made in."""

    name: str
    minutes: Annotated[float, Over(0), Within(0, 10_000)]
    proves: Annotated[list[str], AtMost(200)]
    clears: Annotated[list[str], AtMost(200)] = field(default_factory=list)
    posture_minutes: Annotated[float, Within(0, 10_000)] = 0


@dataclass(frozen=True)
class TracingGiven:
    candidates: Annotated[list[Cause], AtMost(200)]
    checks: Annotated[list[TracingCheck], AtMost(400)]


@dataclass(frozen=True)
class Worth:
    """p_bad: the chance of a bad result. gain_bits: uncertainty that it is expected to take away."""

    name: str
    p_bad: float
    gain_bits: float
    gain_per_minute: float


@dataclass(frozen=True)
class NextCheck:
    """checks: best first. entropy_bits: uncertainty there is."""

    entropy_bits: float
    checks: list[Worth]


@calculator
def next_check(given: TracingGiven) -> NextCheck:
    """The checks by how much uncertainty about the cause each is expected to take away per minute, best first.

    One cause at a time; whoever asks puts “something else” among the candidates. A bad result leaves the causes the check
    proves, a good one those it does not clear. The chance of a bad result is 1 where the cause is one it clears, ½ where it
    only proves it, 0 otherwise; gain = H − P(bad)·H(bad) − P(good)·H(good), in bits, over minutes and those of the way. On a
    tie the order given holds. Bad input: no candidates, a name twice, unknown causes, a cause cleared that is not proved.
    """
    weights = {one.name: one.weight for one in given.candidates}
    _named("candidates", [one.name for one in given.candidates])
    _named("checks", [one.name for one in given.checks])
    if not weights:
        raise BadInput("candidates", "there is nothing it could be")
    for i, check in enumerate(given.checks):
        _known(check, i, weights)
    before = entropy(weights.values())
    found = [_worth(check, weights, before) for check in given.checks]
    return NextCheck(before, sorted(found, key=lambda one: -one.gain_per_minute))


def entropy(weights: Iterable[float]) -> float:
    """In bits, of causes with these weights."""
    listed = [weight for weight in weights if weight > 0]
    total = math.fsum(listed)
    return -math.fsum(weight / total * math.log2(weight / total) for weight in listed) if total else 0.0


def chance_bad(check: TracingCheck, cause: str) -> float:
    """Of a bad result where this is the cause."""
    return 1.0 if cause in check.clears else HALF if cause in check.proves else 0.0


def left_after(weights: Mapping[str, float], check: TracingCheck, bad: bool) -> dict[str, float]:
    """Weights of the causes when a check has been answered; those that are ruled out have none."""
    return {
        cause: weight * (chance_bad(check, cause) if bad else 1 - chance_bad(check, cause)) for cause, weight in weights.items()
    }


def shares(weights: Mapping[str, float]) -> dict[str, float]:
    """The probability of each cause; all 0 where everything is ruled out."""
    total = math.fsum(weights.values())
    return {cause: weight / total if total else 0.0 for cause, weight in weights.items()}


def _worth(check: TracingCheck, weights: Mapping[str, float], before: float) -> Worth:
    total = math.fsum(weights.values())
    p_bad = math.fsum(weight * chance_bad(check, cause) for cause, weight in weights.items()) / total
    bad, good = (entropy(left_after(weights, check, answer).values()) for answer in (True, False))
    gain = max(0.0, before - p_bad * bad - (1 - p_bad) * good)
    return Worth(check.name, p_bad, gain, gain / (check.minutes + check.posture_minutes))


def _named(where: str, names: Sequence[str]) -> None:
    for name, times in Counter(names).items():
        if times > 1:
            raise BadInput(where, f"{name} stands there twice")


def _known(check: TracingCheck, i: int, weights: Mapping[str, float]) -> None:
    for where, names in (("proves", check.proves), ("clears", check.clears)):
        for k, name in enumerate(names):
            if name not in weights:
                raise BadInput(f"checks.{i}.{where}.{k}", f"there is no candidate {name}")
    for k, name in enumerate(check.clears):
        if name not in check.proves:
            raise BadInput(f"checks.{i}.clears.{k}", f"{name} is cleared by it, and not proved")
