"""How a machine stands, place by place: as the newest answer says, whichever walk-around it was given in."""

from collections.abc import Hashable, Iterable
from dataclasses import dataclass
from typing import Any, Generic, Literal, TypeVar

P = TypeVar("P", bound=Hashable)
R = TypeVar("R")
Said = Literal["answer", "question", "nothing"]
"""What came of looking at a place: an answer, a question that waits for one, or nothing, for it was passed over."""

SAFETY_WEIGHS = 3
"""A safety check weighs as much as so many others, when it is reckoned how much of a machine was looked at."""


@dataclass(frozen=True)
class Look(Generic[P, R]):
    """One look at a place. at: by what looks are put in order. what: whatever the caller knows of it."""

    place: P
    at: Any
    said: Said
    what: R


@dataclass
class Stands(Generic[R]):
    """How a place stands. answer: the newest there is. asked: a question waits since. passed_over: it was not seen since."""

    answer: R | None = None
    asked: bool = False
    passed_over: bool = False


def by_place(looks: Iterable[Look[P, R]]) -> dict[P, Stands[R]]:
    """How each place stands by all looks at it. What is not answered takes nothing away of what was."""
    found: dict[P, Stands[R]] = {}
    for look in sorted(looks, key=lambda one: one.at):
        place = found.setdefault(look.place, Stands())
        place.asked, place.passed_over = look.said == "question", look.said == "nothing"
        if look.said == "answer":
            place.answer = look.what
    return found


@dataclass(frozen=True)
class LookedAt:
    """Of one check: how many places there are to look at, and how many of them were seen."""

    places: int
    seen: int
    safety: bool = False


def weighed(checks: Iterable[LookedAt]) -> tuple[float, float]:
    """(seen, in all) by weight. A check weighs the same however many places it has, a safety check three times as much."""
    seen = whole = 0.0
    for check in checks:
        if check.places:
            weight = SAFETY_WEIGHS if check.safety else 1
            seen, whole = seen + weight * check.seen / check.places, whole + weight
    return seen, whole


def share_pct(parts: Iterable[tuple[float, float]]) -> float | None:
    """Percent of what is to be looked at, of one or several machines as `weighed`; None where there is nothing to look at."""
    seen, whole = (sum(column) for column in zip(*parts, strict=True)) if (parts := list(parts)) else (0.0, 0.0)
    return min(100.0, 100 * seen / whole) if whole else None
