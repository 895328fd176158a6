"""Drawings for any part: a limit, a window, several alike, a length."""

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class DiscDrawing:
    """A disc between its size when new and its limit."""

    fresh: float
    limit: float
    fresh_shown: str
    limit_shown: str
    reading: float | None = None
    shown: str = ""
    kind: Literal["disc"] = "disc"


@dataclass(frozen=True)
class ScaleMark:
    value: float
    text: str
    kind: Literal["new", "limit", "edge"]


@dataclass(frozen=True)
class ScaleDrawing:
    """A reading on a scale with marks."""

    marks: list[ScaleMark]
    reading: float | None = None
    shown: str = ""
    kind: Literal["scale"] = "scale"


@dataclass(frozen=True)
class GapDrawing:
    """The gap between gauge wheel and disc, which are to touch."""

    reading: float | None = None
    shown: str = ""
    kind: Literal["gap"] = "gap"


@dataclass(frozen=True)
class EvenPlace:
    name: str
    value: float
    shown: str
    correction: str
    worst: bool


@dataclass(frozen=True)
class EvenDrawing:
    """Like places against what all are to stand at."""

    positions: list[EvenPlace]
    target: float
    tolerance: float
    target_shown: str = ""
    kind: Literal["even"] = "even"


@dataclass(frozen=True)
class RulerDrawing:
    """A length on a ruler with both divisions."""

    value: float
    mm_shown: str
    in_shown: str
    kind: Literal["ruler"] = "ruler"
