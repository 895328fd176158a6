"""Drawings of what comes: wear ahead, costs, stock, services."""

from dataclasses import dataclass
from typing import Literal


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
