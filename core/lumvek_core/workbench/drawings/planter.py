"""Drawings of the planter and its seed."""

from dataclasses import dataclass, field
from typing import Literal


@dataclass(frozen=True)
class ContactBand:
    """The wanted band by another feeler."""

    name: str
    low: float
    high: float


@dataclass(frozen=True)
class ContactDrawing:
    """Two opener discs where their rims come together. Without a diameter nothing has been read yet."""

    kind: Literal["contact"] = "contact"
    diameter: float | None = None
    overlap: float = 0.0
    equivalent: float = 0.0
    shown: str = ""
    by: str = ""
    low: float = 0.0
    high: float = 0.0
    band_shown: str = ""
    bands: list[ContactBand] = field(default_factory=list)


@dataclass(frozen=True)
class BarDrawing:
    """The planter's bar over ground. pitch: degrees, nose down above zero."""

    pitch: float
    shown: str
    front_shown: str
    rear_shown: str
    kind: Literal["bar"] = "bar"


@dataclass(frozen=True)
class DugRow:
    name: str
    digs: list[float]
    shown: str
    track: bool
    off: bool


@dataclass(frozen=True)
class FurrowDrawing:
    """The seeds of every row that was dug, at their depth."""

    rows: list[DugRow]
    target: float
    tolerance: float
    target_shown: str
    kind: Literal["furrow"] = "furrow"


@dataclass(frozen=True)
class StripDrawing:
    """Seeds along a row, and how their spacings are spread."""

    spacings: list[float]
    nominal: float
    nominal_shown: str
    half_shown: str
    more_shown: str
    kind: Literal["strip"] = "strip"


@dataclass(frozen=True)
class RingDrawing:
    """A seed disc of a hundred cells with its skips and doubles."""

    skip_pct: float
    double_pct: float
    shown: str
    skip_shown: str
    double_shown: str
    kind: Literal["ring"] = "ring"


@dataclass(frozen=True)
class RowMetreDrawing:
    """A metre of a row with its seeds, and the disc that lays them."""

    spacing: float
    cells: int
    shown: str
    disc_shown: str
    kind: Literal["row-metre"] = "row-metre"


@dataclass(frozen=True)
class Cell:
    name: str
    size: float
    shown: str


@dataclass(frozen=True)
class CellsDrawing:
    """The cells of plates against the largest seed. chosen: the plate that fits, None where none does."""

    cells: list[Cell]
    largest: float
    needed: float
    chosen: str | None
    largest_shown: str
    needed_shown: str
    kind: Literal["cells"] = "cells"
