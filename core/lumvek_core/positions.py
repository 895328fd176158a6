"""Where on the machine a check is made: once, on every row, or on both sides of every row."""

from dataclasses import dataclass
from typing import Literal

Per = Literal["machine", "row", "row-side"]
Side = Literal["L", "R"]
SIDE_NAMES = {"L": "left", "R": "right"}


@dataclass(frozen=True)
class Position:
    """One of several like places. key: ``all``, ``7`` or ``7L``; label: as it is called across the shed."""

    key: str
    label: str
    row: int | None = None
    side: Side | None = None

    @property
    def across(self) -> "Position":
        """The same row's other side; itself where there is none."""
        if self.row is None or self.side is None:
            return self
        return row_side(self.row, "R" if self.side == "L" else "L")

    @property
    def whole_row(self) -> "Position":
        return self if self.row is None else row(self.row)


WHOLE = Position("all", "Whole machine")


def row(number: int) -> Position:
    return Position(str(number), f"Row {number}", number)


def row_side(number: int, side: Side) -> Position:
    return Position(f"{number}{side}", f"Row {number} {SIDE_NAMES[side]}", number, side)


def expand(per: Per, rows: int) -> list[Position]:
    """All positions of a check in the order one walks them: down one side, and snake back on the other."""
    if per == "machine":
        return [WHOLE]
    numbers = range(1, rows + 1)
    if per == "row":
        return [row(n) for n in numbers]
    return [row_side(n, "L") for n in numbers] + [row_side(n, "R") for n in reversed(numbers)]


def reading_order(key: str) -> tuple[int, str]:
    """Sorts positions as lists show them: by row, left before right."""
    position = find(key)
    return position.row or 0, position.side or ""


def find(key: str) -> Position:
    """The position a key stands for. Raises ValueError if it stands for none."""
    if key == WHOLE.key:
        return WHOLE
    if key[-1:] == "L":
        return row_side(int(key[:-1]), "L")
    if key[-1:] == "R":
        return row_side(int(key[:-1]), "R")
    return row(int(key))
