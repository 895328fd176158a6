"""What turns in a machine and how fast: the file ``shafts.yaml``."""

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import Over, Within
from ..coupled import short
from ..errors import nearest
from .model import Family

FIXED = "fixed"
"""The range of a shaft that has one only."""
Rpm = Annotated[float, Over(0), Within(0, 20_000)]


@dataclass(frozen=True)
class RollingBearing:
    """Of known size, so that its tones are known. pitch_mm: diameter of the circle the balls' centres run on."""

    name: str
    balls: Annotated[int, Within(2, 100)]
    ball_mm: Annotated[float, Over(0), Within(0, 1000)]
    pitch_mm: Annotated[float, Over(0), Within(0, 2000)]
    angle_deg: Annotated[float, Within(0, 60)] = 0


@dataclass(frozen=True)
class DrivenShaft:
    """speeds: range → rpm at the engine's rated speed. orders: how many times a turn → what gives it. drives: the shaft that
    drives it; empty: a motor of its own, or the engine itself. bearings: those whose size is known."""

    key: str
    name: str
    station: str
    speeds: dict[str, Rpm]
    orders: dict[str, str]
    drives: str = ""
    bearings: list[RollingBearing] = field(default_factory=list)

    @property
    def multiples(self) -> list[float]:
        return [float(order) for order in self.orders]


@dataclass(frozen=True)
class DriveLine:
    """engine_rpm: rated, at which the speeds are told."""

    engine_rpm: Rpm
    shafts: list[DrivenShaft]

    def follows(self, shaft: DrivenShaft) -> bool:
        """Whether its speed follows the engine's."""
        return bool(shaft.drives) or shaft.key == self.shafts[0].key


@dataclass(frozen=True)
class Shafts:
    """families: the drive line of each kind of machine that has one; its first shaft is the engine."""

    families: dict[str, DriveLine]


def complaints(shafts: Shafts, families: Mapping[str, Family]) -> Iterator[tuple[str, str]]:
    """(dotted path, what is wrong there)."""
    for name, line in shafts.families.items():
        family = families.get(name)
        if family is None:
            yield f"families.{name}", f"there is no family {name}{nearest(name, families)}"
            continue
        keys = [one.key for one in line.shafts]
        stations = [short(station.key) for station in family.stations]
        for i, one in enumerate(line.shafts):
            where = f"families.{name}.shafts.{i}"
            if keys.count(one.key) > 1:
                yield where, f"{one.key} stands there twice"
            if one.station not in stations:
                yield where, f"{one.key}: there is no station {one.station}{nearest(one.station, stations)}"
            if one.drives and one.drives not in keys[:i]:
                yield where, f"{one.key}: nothing before it is called {one.drives}{nearest(one.drives, keys[:i])}"
            if not one.speeds:
                yield where, f"{one.key} needs a speed"
            for bearing in one.bearings:
                if bearing.balls * bearing.ball_mm >= math.pi * bearing.pitch_mm:
                    yield where, f"{one.key}: so many balls do not fit into {bearing.name}"
            for order in one.orders:
                if not order.replace(".", "", 1).isdigit() or float(order) <= 0:
                    yield where, f"{one.key}: {order} is no number of times a turn"
