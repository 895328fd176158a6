"""Drawings of reel, sieves, moisture and yield."""

from dataclasses import dataclass
from typing import Literal


@dataclass(frozen=True)
class ReelDrawing:
    """The way of a tine tip over the ground."""

    index: float
    shown: str
    index_shown: str
    kind: Literal["reel"] = "reel"


@dataclass(frozen=True)
class HalvedSieve:
    name: str
    left: float
    right: float
    left_shown: str
    right_shown: str
    shown: str
    even: bool


@dataclass(frozen=True)
class SievesDrawing:
    """Sieves with the gap at both sides, beside what the display shows."""

    sieves: list[HalvedSieve]
    kind: Literal["sieves"] = "sieves"


@dataclass(frozen=True)
class MoisturePair:
    shown: float
    reference: float


@dataclass(frozen=True)
class MoistureDrawing:
    """What the machine showed against what the grain store says, load by load, per cent."""

    pairs: list[MoisturePair]
    offset_shown: str
    stored_shown: str
    kind: Literal["moisture"] = "moisture"


@dataclass(frozen=True)
class Load:
    machine: float
    scale: float
    counts: bool


@dataclass(frozen=True)
class LoadsDrawing:
    """Loads as the machine counted and the scale weighed them, kg. least: from which they count."""

    loads: list[Load]
    least: float
    shown: str
    kind: Literal["loads"] = "loads"
