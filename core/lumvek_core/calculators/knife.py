"""The cutterbar's knife: where its sections stop."""

from dataclasses import dataclass
from typing import Annotated, Literal

from ..compare import exceeds
from ..registry import calculator
from ..shapes import Within
from ..units import show_mm


@dataclass(frozen=True)
class RegisterGiven:
    """How far a section's middle stops short (+) of or runs past (−) the guard's middle at each end of the stroke."""

    short_left_mm: float
    short_right_mm: float
    tolerance_mm: Annotated[float, Within(0)]
    overtravel_mm: Annotated[float, Within(0)] = 0


@dataclass(frozen=True)
class Registered:
    centring_mm: float
    stroke_error_mm: float
    state: Literal["registered", "off_centre", "stroke", "both"]
    words: str


@calculator
def knife_register(given: RegisterGiven) -> Registered:
    """Whether the knife stops at a guard's middle at both ends of its stroke, and what puts it right.

    centring_mm = (left − right) / 2: move the head that far to the left, negative to the right. stroke_error_mm = left + right +
    2·overtravel: not cured by moving the head; look at the drive. Either is a fault when it exceeds the tolerance.
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
