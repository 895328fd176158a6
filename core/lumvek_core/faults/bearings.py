"""At which frequencies a rolling bearing speaks."""

import math
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..compare import exceeds
from ..errors import BadInput
from ..registry import calculator


@dataclass(frozen=True)
class BearingGiven:
    """balls: in one row. pitch_mm: diameter of the circle their centres run on. turning: the ring that turns."""

    balls: Annotated[int, Within(2, 100)]
    ball_mm: Annotated[float, Over(0)]
    pitch_mm: Annotated[float, Over(0)]
    angle_deg: Annotated[float, Within(0, 60)]
    rpm: Annotated[float, Over(0), Within(0, 100_000)]
    turning: Literal["inner", "outer"] = "inner"


@dataclass(frozen=True)
class BearingTones:
    """In Hz: a fault of the outer ring, of the inner ring, the spin of a ball (its fault shows at twice that), the cage."""

    bpfo: float
    bpfi: float
    bsf: float
    ftf: float


@calculator
def bearing_tones(given: BearingGiven) -> BearingTones:
    """The frequencies of a rolling bearing's rings, balls and cage.

    γ = ball/pitch·cos(angle), f = rpm/60: outer n/2·f(1−γ), inner n/2·f(1+γ), ball pitch/(2·ball)·f(1−γ²), cage f/2·(1−γ), or
    f/2·(1+γ) where the outer ring turns. Bad input: balls that do not fit on their circle.
    """
    if exceeds(given.balls * given.ball_mm, math.pi * given.pitch_mm) or not exceeds(
        math.pi * given.pitch_mm, given.balls * given.ball_mm
    ):
        raise BadInput("balls", "so many balls do not fit on a circle of this size")
    gamma = given.ball_mm / given.pitch_mm * math.cos(math.radians(given.angle_deg))
    f = given.rpm / 60
    return BearingTones(
        bpfo=given.balls / 2 * f * (1 - gamma),
        bpfi=given.balls / 2 * f * (1 + gamma),
        bsf=given.pitch_mm / (2 * given.ball_mm) * f * (1 - gamma**2),
        ftf=f / 2 * (1 - gamma if given.turning == "inner" else 1 + gamma),
    )
