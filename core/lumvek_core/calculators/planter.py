"""The planter in the field: the bar's pitch, and the depth that is dug up."""

import math
from dataclasses import dataclass, field
from statistics import fmean, median, stdev
from typing import Annotated, Literal

from ..bounds import AtMost, AtMostNamed
from ..compare import exceeds
from ..errors import BadInput
from ..registry import calculator
from .common import NotNegative, Positive, some


@dataclass(frozen=True)
class BarGiven:
    """Heights over ground at two points of the bar or its tongue, `base` apart along the direction of travel."""

    front_mm: NotNegative
    rear_mm: NotNegative
    base_mm: Positive
    hitch_lever_mm: Positive
    reading_mm: NotNegative = 3
    nose_up_max_deg: NotNegative = 2
    nose_down_max_deg: NotNegative = 0


@dataclass(frozen=True)
class Bar:
    pitch_deg: float
    plus_minus_deg: float
    state: Literal["nose_down", "level", "nose_up"]
    raise_hitch_mm: float


@calculator
def bar_level(given: BarGiven) -> Bar:
    """Pitch of the planter's bar in work, and how far to raise the hitch.

    pitch = atan((rear − front) / base), positive nose down; plus_minus = atan(√2·reading / base) for two heights read to
    `reading_mm`. Out only if it is out by more than that. raise_hitch = (rear − front) / base · lever brings it dead level
    (negative: lower), lever from the hitch point to the wheels it tips about. Measured moving, in the ground: standing it looks
    level. mm and degrees.
    """
    slope = (given.rear_mm - given.front_mm) / given.base_mm
    pitch = math.degrees(math.atan(slope))
    plus_minus = math.degrees(math.atan(math.sqrt(2) * given.reading_mm / given.base_mm))
    state: Literal["nose_down", "level", "nose_up"] = "level"
    if exceeds(pitch - plus_minus, given.nose_down_max_deg):
        state = "nose_down"
    elif exceeds(-(pitch + plus_minus), given.nose_up_max_deg):
        state = "nose_up"
    return Bar(pitch, plus_minus, state, slope * given.hitch_lever_mm)


@dataclass(frozen=True)
class DepthGiven:
    """Depths dug up by row, mm; track_rows run behind wheels."""

    rows: Annotated[dict[str, Annotated[list[NotNegative], AtMost(200)]], AtMostNamed(100)]
    target_mm: Positive
    tolerance_mm: Positive
    track_rows: Annotated[list[str | int], AtMost(100)] = field(default_factory=list)


@dataclass(frozen=True)
class RowDepth:
    n: int
    mean: float
    sd: float | None


DepthCause = Literal["none", "whole_planter", "rows", "track_rows", "mixed"]


@dataclass(frozen=True)
class Depths:
    rows: dict[str, RowDepth]
    planter_median_mm: float
    offset_mm: float
    pooled_sd_mm: float | None
    flagged: list[str]
    unsure: list[str]
    uneven: list[str]
    track_difference_mm: float | None
    cause: DepthCause
    digs_needed: int | None


@calculator
def depth_check(given: DepthGiven) -> Depths:
    """Which rows plant off depth, whether the whole planter does, and whether it is the rows behind the wheels.

    planter median = median of row means; offset = it − target, positive too deep. A row is over the line when it is off the
    median by more than the larger of the tolerance and 3·1.4826·MAD of the row means; flagged if by more than 2·pooled sd/√n as
    well, else unsure (so is every row over the line where no row has two digs). uneven: sd within the row over the tolerance.
    track difference = median of the track rows − median of the others, null unless there are both; it is the cause where it
    exceeds the tolerance and nothing but track rows is flagged. digs_needed = max(3, ⌈(1.96·pooled sd/tolerance)²⌉). mm.
    """
    some(given.rows, "rows", "row")
    for name, digs in given.rows.items():
        some(digs, f"rows.{name}", "depth")
    track = [str(name) for name in given.track_rows]
    for i, name in enumerate(track):
        if name not in given.rows:
            raise BadInput(f"track_rows.{i}", f"row {name} has no depths")
    found = {
        name: RowDepth(len(digs), fmean(digs), stdev(digs) if len(digs) > 1 else None) for name, digs in given.rows.items()
    }
    middle = median(row.mean for row in found.values())
    pooled = _pooled(list(found.values()))
    line = max(given.tolerance_mm, 3 * 1.4826 * median(abs(row.mean - middle) for row in found.values()))
    over = [name for name, row in found.items() if exceeds(abs(row.mean - middle), line)]
    flagged = [
        name
        for name in over
        if pooled is not None and exceeds(abs(found[name].mean - middle), 2 * pooled / math.sqrt(found[name].n))
    ]
    behind = [row.mean for name, row in found.items() if name in track]
    beside = [row.mean for name, row in found.items() if name not in track]
    difference = median(behind) - median(beside) if behind and beside else None
    offset = middle - given.target_mm
    return Depths(
        rows=found,
        planter_median_mm=middle,
        offset_mm=offset,
        pooled_sd_mm=pooled,
        flagged=flagged,
        unsure=[name for name in over if name not in flagged],
        uneven=[name for name, row in found.items() if row.sd is not None and exceeds(row.sd, given.tolerance_mm)],
        track_difference_mm=difference,
        cause=_cause(given.tolerance_mm, offset, difference, flagged, track),
        digs_needed=None if pooled is None else max(3, math.ceil((1.96 * pooled / given.tolerance_mm) ** 2)),
    )


def _pooled(rows: list[RowDepth]) -> float | None:
    more = [(row.n - 1, row.sd) for row in rows if row.sd is not None]
    if not more:
        return None
    return math.sqrt(math.fsum(weight * sd**2 for weight, sd in more) / sum(weight for weight, _ in more))


def _cause(tolerance: float, offset: float, difference: float | None, flagged: list[str], track: list[str]) -> DepthCause:
    whole = exceeds(abs(offset), tolerance)
    wheels = difference is not None and exceeds(abs(difference), tolerance) and set(flagged) <= set(track)
    single = bool(flagged) and not wheels
    if whole and (wheels or single):
        return "mixed"
    return "whole_planter" if whole else "track_rows" if wheels else "rows" if single else "none"
