"""What each drawing is told: one dataclass a drawing, told apart by `kind`. Lengths in mm; texts are in the reader's units.

The front end draws each with a component of its own (`web/src/design/drawings/registry.ts`); its types come from here.
"""

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


@dataclass(frozen=True)
class ChainDrawing:
    """A chain against its length when new and at its limit. used, plus_minus: shares of the stretch allowed."""

    used: float
    shown: str
    fresh_shown: str
    limit_shown: str
    plus_minus: float = 0.0
    kind: Literal["chain"] = "chain"


@dataclass(frozen=True)
class SlotDrawing:
    """The take-up bolt in its slot, and where it would be with half a link out."""

    used: float
    total: float
    used_shown: str
    total_shown: str
    after: float | None = None
    after_shown: str = ""
    kind: Literal["slot"] = "slot"


@dataclass(frozen=True)
class SheaveDrawing:
    """The belt between the halves of a sheave, from outside to outside."""

    reading: float
    low: float
    high: float
    shown: str
    low_shown: str
    high_shown: str
    kind: Literal["sheave"] = "sheave"


@dataclass(frozen=True)
class RegisterDrawing:
    """A knife section at both ends of its stroke: short of a guard's middle, below zero past it."""

    left: float
    right: float
    tolerance: float
    left_shown: str
    right_shown: str
    kind: Literal["register"] = "register"


@dataclass(frozen=True)
class Clearance:
    """measured: where it was; else only felt."""

    name: str
    state: Literal["right", "too-tight", "too-wide"]
    measured: float | None = None


@dataclass(frozen=True)
class ClearancesDrawing:
    """Clearances between a low and a high feeler. card: thickness of the shop's own."""

    clearances: list[Clearance]
    low: float
    high: float
    low_shown: str
    high_shown: str
    card: float | None = None
    kind: Literal["clearances"] = "clearances"


@dataclass(frozen=True)
class Blade:
    name: str
    angle: float
    mass: float
    bad: bool


@dataclass(frozen=True)
class Residual:
    """What is left out of balance. angle: where it pulls to, None nowhere; share: of what is allowed."""

    name: str
    angle: float | None
    share: float
    shown: str


@dataclass(frozen=True)
class RotorDrawing:
    """A rotor from its end with its knives, and what each way of renewing leaves. recommended: the name of one of them."""

    blades: list[Blade]
    residuals: list[Residual]
    allowed_shown: str
    recommended: str = ""
    kind: Literal["rotor"] = "rotor"


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


@dataclass(frozen=True)
class FanReading:
    use: float
    value: float


@dataclass(frozen=True)
class FanDrawing:
    """Readings over use, and where the part will stand. suspect: readings that do not fit, by number from 0; rate: of its value."""

    readings: list[FanReading]
    suspect: list[int]
    fresh: float
    limit: float
    at: float
    value: float
    low: float
    high: float
    rate: float
    kind: Literal["fan"] = "fan"


@dataclass(frozen=True)
class PartCost:
    name: str
    now: float
    later: float
    advice: Literal["renew", "leave", "either"]


@dataclass(frozen=True)
class CostsDrawing:
    """What parts cost renewed now and later."""

    parts: list[PartCost]
    kind: Literal["costs"] = "costs"


@dataclass(frozen=True)
class TrayDrawing:
    """Pieces on the truck, and how many are expected to fail."""

    carry: int
    expected: float
    kind: Literal["tray"] = "tray"


@dataclass(frozen=True)
class ServiceMark:
    name: str
    state: str
    days: float | None
    hours: float | None


@dataclass(frozen=True)
class ServicesDrawing:
    """Services on a line of days. soon: from how many days on one is called soon."""

    services: list[ServiceMark]
    soon: float
    kind: Literal["services"] = "services"


Drawing = (
    ContactDrawing
    | BarDrawing
    | FurrowDrawing
    | StripDrawing
    | RingDrawing
    | RowMetreDrawing
    | CellsDrawing
    | ChainDrawing
    | SlotDrawing
    | SheaveDrawing
    | RegisterDrawing
    | ClearancesDrawing
    | RotorDrawing
    | ReelDrawing
    | SievesDrawing
    | MoistureDrawing
    | LoadsDrawing
    | DiscDrawing
    | ScaleDrawing
    | GapDrawing
    | EvenDrawing
    | RulerDrawing
    | FanDrawing
    | CostsDrawing
    | TrayDrawing
    | ServicesDrawing
)
