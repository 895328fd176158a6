"""Where on the machine a check is made: once, on both sides, or at each of several like things (rows, runners, knives,
corners).

How often a check is made is written as `per`: ``machine``, ``side``, the name of a thing (``row``, ``hold-down``, ``corner``)
or a thing with two sides (``row-side``). In a composed rule book a header's things carry its prefix (``draper.runner``);
positions do not, for a position belongs to a check.
"""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal

from .coupled import short

Side = Literal["L", "R"]
SIDE_NAMES = {"L": "left", "R": "right"}
BOTH: tuple[Side, Side] = ("L", "R")

Layout = Mapping[str, int | Sequence[str]]
"""How many there are of each thing on one machine, or the names of its places: ``{"row": 12, "draper.corner": ["front-left",
…]}``."""

_NUMBERED = re.compile(r"(?:([a-z][a-z-]*)-)?(\d+)([LR]?)")


@dataclass(frozen=True)
class Position:
    """One of several like places. key: ``all``, ``L``, ``7``, ``7L``, ``runner-3`` or ``front-left``; label: as it is called
    across the shed. thing: what is numbered, empty where nothing is.
    """

    key: str
    label: str
    thing: str = ""
    number: int | None = None
    side: Side | None = None

    @property
    def row(self) -> int | None:
        """The row's number where rows are numbered."""
        return self.number if self.thing == "row" else None

    @property
    def across(self) -> "Position":
        """The same place on the other side; itself where there is none."""
        if self.side is None:
            return self
        other: Side = "R" if self.side == "L" else "L"
        return one_side(other) if self.number is None else numbered(self.thing, self.number, other)

    @property
    def whole_row(self) -> "Position":
        """The place without its side: the row of a disc, the machine of a left-hand belt."""
        if self.side is None:
            return self
        return WHOLE if self.number is None else numbered(self.thing, self.number)


WHOLE = Position("all", "Whole machine")


def one_side(side: Side) -> Position:
    return Position(side, SIDE_NAMES[side].capitalize(), side=side)


def numbered(thing: str, number: int, side: Side | None = None) -> Position:
    """``runner-3``; rows carry no name in their key, for they are what is typed and printed most."""
    key = f"{'' if thing == 'row' else thing + '-'}{number}{side or ''}"
    label = f"{spoken(thing)} {number}{' ' + SIDE_NAMES[side] if side else ''}"
    return Position(key, label.capitalize(), thing, number, side)


def named(name: str) -> Position:
    """A place with a name of its own: ``front-left``."""
    return Position(name, spoken(name).capitalize())


def row(number: int) -> Position:
    return numbered("row", number)


def row_side(number: int, side: Side) -> Position:
    return numbered("row", number, side)


def of_row(number: int) -> tuple[str, str, str]:
    """The keys of a row and its two sides."""
    return numbered("row", number).key, row_side(number, "L").key, row_side(number, "R").key


def thing_of(per: str) -> str:
    """The thing that `per` counts, with its header's prefix; empty for machine and side."""
    return "" if per in ("machine", "side") else per.removesuffix("-side")


def expand(per: str, layout: Layout) -> list[Position]:
    """All positions of a check in the order one walks them: down one side, and snake back on the other.

    Raises KeyError for a thing that the layout does not know.
    """
    if per == "machine":
        return [WHOLE]
    if per == "side":
        return [one_side(side) for side in BOTH]
    full = thing_of(per)
    places, thing = layout[full], short(full)
    if not isinstance(places, int):
        return [named(place) for place in places]
    numbers = range(1, places + 1)
    if not per.endswith("-side"):
        return [numbered(thing, n) for n in numbers]
    return [numbered(thing, n, "L") for n in numbers] + [numbered(thing, n, "R") for n in reversed(numbers)]


def reading_order(key: str) -> tuple[str, int, str, str]:
    """Sorts positions as lists show them: by number, left before right, names after."""
    position = find(key)
    return position.thing, position.number or 0, position.side or "", position.key


def in_words(keys: Iterable[str]) -> str:
    """Positions as one says them: ``rows 3, 5–8 left, row 2 right``, ``left``, ``upper, lower``; empty for none."""
    groups: dict[tuple[str, str], list[int]] = {}
    named_ones: list[str] = []
    for position in sorted(map(find, keys), key=lambda p: (p.thing, p.side or "", p.number or 0, p.key)):
        if position.number is None:
            named_ones.append(position.label.lower())
        else:
            groups.setdefault((position.thing, SIDE_NAMES[position.side] if position.side else ""), []).append(position.number)
    said = [
        f"{spoken(thing) if len(numbers) == 1 else plural(thing)} {_ranges(numbers)} {side}".rstrip()
        for (thing, side), numbers in groups.items()
    ]
    return ", ".join(named_ones + said)


def spoken(thing: str) -> str:
    """``hold-down`` stays whole, ``gear-case`` is two words."""
    return thing if thing == "hold-down" else thing.replace("-", " ")


def plural(thing: str) -> str:
    word = spoken(thing)
    return word[:-2] + "ves" if word.endswith("fe") else word + "s"


def _ranges(numbers: list[int]) -> str:
    """``3, 5–8``: runs of three and more are drawn together."""
    runs: list[list[int]] = []
    for number in numbers:
        if runs and number == runs[-1][-1] + 1:
            runs[-1].append(number)
        else:
            runs.append([number])
    return ", ".join(f"{run[0]}–{run[-1]}" if len(run) > 2 else ", ".join(map(str, run)) for run in runs)


def find(key: str) -> Position:
    """The position a key stands for. Raises ValueError if it cannot stand for one."""
    if key == WHOLE.key:
        return WHOLE
    if key == "L" or key == "R":
        return one_side("L" if key == "L" else "R")
    if match := _NUMBERED.fullmatch(key):
        side: Side | None = "L" if match[3] == "L" else "R" if match[3] == "R" else None
        return numbered(match[1] or "row", int(match[2]), side)
    if not re.fullmatch(r"[a-z][a-z-]*", key):
        raise ValueError(f"no position is called {key!r}")
    return named(key)
