"""Drawings of chains, belts and what cuts."""

from dataclasses import dataclass
from typing import Literal


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
