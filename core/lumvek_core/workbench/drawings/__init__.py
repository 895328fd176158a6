"""What each drawing is told: one dataclass a drawing, told apart by `kind`. Lengths in mm; texts are in the reader's units.

The front end draws each with a component of its own (`web/src/design/drawings/registry.ts`); its types come from here.
"""

from .any_part import DiscDrawing, EvenDrawing, EvenPlace, GapDrawing, RulerDrawing, ScaleDrawing, ScaleMark
from .combine import HalvedSieve, Load, LoadsDrawing, MoistureDrawing, MoisturePair, ReelDrawing, SievesDrawing
from .cutting import (
    Blade,
    ChainDrawing,
    Clearance,
    ClearancesDrawing,
    RegisterDrawing,
    Residual,
    RotorDrawing,
    SheaveDrawing,
    SlotDrawing,
)
from .planter import (
    BarDrawing,
    Cell,
    CellsDrawing,
    ContactBand,
    ContactDrawing,
    DugRow,
    FurrowDrawing,
    RingDrawing,
    RowMetreDrawing,
    StripDrawing,
)
from .upkeep import CostsDrawing, FanDrawing, FanReading, PartCost, ServiceMark, ServicesDrawing, TrayDrawing

__all__ = [
    "BarDrawing",
    "Blade",
    "Cell",
    "CellsDrawing",
    "ChainDrawing",
    "Clearance",
    "ClearancesDrawing",
    "ContactBand",
    "ContactDrawing",
    "CostsDrawing",
    "DiscDrawing",
    "Drawing",
    "DugRow",
    "EvenDrawing",
    "EvenPlace",
    "FanDrawing",
    "FanReading",
    "FurrowDrawing",
    "GapDrawing",
    "HalvedSieve",
    "Load",
    "LoadsDrawing",
    "MoistureDrawing",
    "MoisturePair",
    "PartCost",
    "ReelDrawing",
    "RegisterDrawing",
    "Residual",
    "RingDrawing",
    "RotorDrawing",
    "RowMetreDrawing",
    "RulerDrawing",
    "ScaleDrawing",
    "ScaleMark",
    "ServiceMark",
    "ServicesDrawing",
    "SheaveDrawing",
    "SievesDrawing",
    "SlotDrawing",
    "StripDrawing",
    "TrayDrawing",
]

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
