"""The cutterbar's knife: where its sections stop, and the clearance under its hold-downs."""

from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import AtMost
from ..compare import below, exceeds
from ..errors import BadInput
from ..registry import calculator
from ..units import show_mm
from .common import NotNegative, Positive, different_names, some


@dataclass(frozen=True)
class RegisterGiven:
    """How far a section's middle stops short (+) of or runs past (−) the guard's middle at each end of the stroke."""

    short_left_mm: float
    short_right_mm: float
    tolerance_mm: NotNegative
    overtravel_mm: NotNegative = 0


@dataclass(frozen=True)
class Registered:
    centring_mm: float
    stroke_error_mm: float
    state: Literal["registered", "off_centre", "stroke", "both"]
    words: str


@calculator
def knife_register(given: RegisterGiven) -> Registered:
    """Whether the knife stops at a guard's middle at both ends of its stroke, and what puts it right.

    centring_mm = (left − right) / 2: move the head that far to the left, negative to the right. stroke_error_mm = left + right
    + 2·overtravel: not cured by moving the head; look at the drive. Either is a fault when it exceeds the tolerance.
    """
    centring = (given.short_left_mm - given.short_right_mm) / 2
    stroke = given.short_left_mm + given.short_right_mm + 2 * given.overtravel_mm
    off = exceeds(abs(centring), given.tolerance_mm)
    wrong = exceeds(abs(stroke), given.tolerance_mm)
    move = f"Move the knife head {show_mm(abs(centring))} to the {'left' if centring > 0 else 'right'}."
    drive = f"Stroke {show_mm(abs(stroke))} too {'short' if stroke > 0 else 'long'}: look at the drive."
    if off and wrong:
        return Registered(centring, stroke, "both", f"{move} {drive}")
    if off:
        return Registered(centring, stroke, "off_centre", move)
    if wrong:
        return Registered(centring, stroke, "stroke", drive)
    return Registered(centring, stroke, "registered", "Stands at a guard's middle at both ends.")


@dataclass(frozen=True)
class Gauged:
    """go: the low feeler passes. no_go: the high feeler passes."""

    name: str
    go: bool
    no_go: bool


@dataclass(frozen=True)
class Measured:
    name: str
    measured_mm: NotNegative


@dataclass(frozen=True)
class HoldDownGiven:
    low_mm: NotNegative
    high_mm: Positive
    results: Annotated[list[Gauged | Measured], AtMost(400)]
    card_mm: Positive | None = None


@dataclass(frozen=True)
class HoldDownNames:
    too_tight: list[str]
    right: list[str]
    too_wide: list[str]


@dataclass(frozen=True)
class HoldDowns:
    too_tight: int
    right: int
    too_wide: int
    names: HoldDownNames
    state: Literal["sound", "due"]
    card_in_window: bool | None


@calculator
def hold_down(given: HoldDownGiven) -> HoldDowns:
    """Clearance under the knife's hold-downs, by go and no-go feeler or measured, and where the shop's own card lies.

    Right: the low feeler passes and the high one does not, or the measured clearance lies between them, ends included. The high
    feeler passing where the low one did not cannot be (field ``results.<n>.no_go``). Names must differ. mm.
    """
    if given.low_mm >= given.high_mm:
        raise BadInput("high_mm", "must be greater than low_mm")
    some(given.results, "results", "hold-down")
    different_names([result.name for result in given.results], "results")
    found: dict[str, list[str]] = {"too_tight": [], "right": [], "too_wide": []}
    for i, result in enumerate(given.results):
        if isinstance(result, Gauged) and result.no_go and not result.go:
            raise BadInput(f"results.{i}.no_go", "the high feeler cannot pass where the low one does not")
        found[_clearance(given, result)].append(result.name)
    tight, right, wide = (len(found[kind]) for kind in ("too_tight", "right", "too_wide"))
    in_window = None
    if given.card_mm is not None:
        in_window = not below(given.card_mm, given.low_mm) and not exceeds(given.card_mm, given.high_mm)
    return HoldDowns(tight, right, wide, HoldDownNames(**found), "due" if tight or wide else "sound", in_window)


def _clearance(given: HoldDownGiven, result: Gauged | Measured) -> str:
    if isinstance(result, Gauged):
        tight, wide = not result.go, result.no_go
    else:
        tight, wide = below(result.measured_mm, given.low_mm), exceeds(result.measured_mm, given.high_mm)
    return "too_tight" if tight else "too_wide" if wide else "right"
