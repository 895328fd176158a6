"""Where on the machine a check is made: once, on every row, or on both sides of every row."""

from collections.abc import Iterable
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


def in_words(keys: Iterable[str]) -> str:
    """Positions as one says them: ``rows 3, 5–8 left, row 2 right``; empty for none."""
    by_side: dict[str, list[int]] = {}
    for position in sorted(map(find, keys), key=lambda p: (p.side or "", p.row or 0)):
        by_side.setdefault(SIDE_NAMES[position.side] if position.side else "", []).append(position.row or 0)
    said = []
    for side, rows in by_side.items():
        if rows == [0]:
            said.append("whole machine")
        else:
            said.append(f"{'row' if len(rows) == 1 else 'rows'} {_ranges(rows)} {side}".rstrip())
    return ", ".join(said)


def _ranges(rows: list[int]) -> str:
    """``3, 5–8``: runs of three and more are drawn together."""
    runs: list[list[int]] = []
    for number in rows:
        if runs and number == runs[-1][-1] + 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    return ", ".join(f"{run[0]}–{run[-1]}" if len(run) > 2 else ", ".join(map(str, run)) for run in runs)


def find(key: str) -> Position:
    """The position a key stands for. Raises ValueError if it stands for none."""
    if key == WHOLE.key:
        return WHOLE
    if key[-1:] == "L":
        return row_side(int(key[:-1]), "L")
    if key[-1:] == "R":
        return row_side(int(key[:-1]), "R")
    return row(int(key))
