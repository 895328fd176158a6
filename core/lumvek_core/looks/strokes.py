"""Strokes of a small drawing, 64 × 48, ground at the lower edge."""

import math
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from typing import Literal

Role = Literal["body", "line", "thin", "gone", "fault", "dark", "oil", "milk", "grain"]
"""What a stroke is, for whoever gives it its colour: body (filled, with an outline), line, thin (beside the matter), gone
(dashed: what should be there), fault (where to look), dark (soot, rust, dirt), oil, milk, grain."""
Point = tuple[float, float]
WIDTH, HEIGHT = 64, 48


@dataclass(frozen=True)
class Stroke:
    d: str
    role: Role


def n(figure: float) -> str:
    """A coordinate with one decimal, none where it is whole."""
    shown = f"{figure:.1f}"
    return shown.removesuffix(".0")


def path(points: Sequence[Point], role: Role = "line", *, closed: bool = False) -> Stroke:
    d = "M" + "L".join(f"{n(x)} {n(y)}" for x, y in points)
    return Stroke(d + ("Z" if closed else ""), role)


def shape(points: Sequence[Point], role: Role = "body") -> Stroke:
    return path(points, role, closed=True)


def box(x: float, y: float, width: float, height: float, role: Role = "body") -> Stroke:
    return shape([(x, y), (x + width, y), (x + width, y + height), (x, y + height)], role)


def oval(x: float, y: float, rx: float, ry: float | None = None, role: Role = "body") -> Stroke:
    ry = rx if ry is None else ry
    arc = f"a{n(rx)} {n(ry)} 0 1 0"
    return Stroke(f"M{n(x - rx)} {n(y)}{arc} {n(2 * rx)} 0{arc} {n(-2 * rx)} 0Z", role)


def curve(points: Iterable[Point], role: Role = "line") -> Stroke:
    """A smooth line through the first and the last point, bent towards those between (pairs of control and end point)."""
    first, *rest = points
    pairs = zip(rest[::2], rest[1::2], strict=True)
    d = "".join(f"Q{n(cx)} {n(cy)} {n(x)} {n(y)}" for (cx, cy), (x, y) in pairs)
    return Stroke(f"M{n(first[0])} {n(first[1])}{d}", role)


def around(x: float, y: float, radius: float, degrees: float) -> Point:
    """A point on a circle; 0 is to the right, 90 up."""
    angle = math.radians(degrees)
    return x + radius * math.cos(angle), y - radius * math.sin(angle)


def crack(x: float, y: float, size: float = 12) -> Stroke:
    """A crack that runs down from here."""
    return path(
        [(x, y), (x + 0.2 * size, y + 0.3 * size), (x - 0.1 * size, y + 0.6 * size), (x + 0.15 * size, y + size)], "fault"
    )


def drops(x: float, y: float, count: int) -> list[Stroke]:
    """Oil that hangs and falls."""
    return [oval(x + 5 * (i % 2), y + 6 * i, 1.6, 2.4, "oil") for i in range(count)]


def specks(x: float, y: float, width: float, height: float, role: Role = "dark") -> list[Stroke]:
    """Dirt or rust over an area."""
    places = ((0.1, 0.3), (0.3, 0.75), (0.5, 0.2), (0.62, 0.6), (0.85, 0.35), (0.9, 0.8), (0.2, 0.55))
    return [oval(x + u * width, y + v * height, 1.5, 1.1, role) for u, v in places]


def shaken(x: float, y: float) -> list[Stroke]:
    """Marks beside something that moves and should not."""
    return [curve([(x, y - 5), (x + 4, y), (x, y + 5)], "fault"), curve([(x + 4, y - 7), (x + 9, y), (x + 4, y + 7)], "fault")]


def arrow(x: float, y: float, to_x: float, to_y: float, role: Role = "line") -> list[Stroke]:
    angle = math.atan2(to_y - y, to_x - x)
    ends = [(to_x - 5 * math.cos(angle + turn), to_y - 5 * math.sin(angle + turn)) for turn in (0.5, -0.5)]
    return [path([(x, y), (to_x, to_y)], role), path([ends[0], (to_x, to_y), ends[1]], role)]
