"""Files of spacings and of dug depths, dropped in at the bench."""

from dataclasses import dataclass, field

from ..errors import BadInput
from ..units import parse_length, plain
from .tables import rows_of


@dataclass(frozen=True)
class Refused:
    line: int
    text: str
    why: str


@dataclass(frozen=True)
class Spacings:
    spacings_mm: list[float] = field(default_factory=list)
    refused: list[Refused] = field(default_factory=list)


@dataclass(frozen=True)
class Depths:
    rows: dict[str, list[float]] = field(default_factory=dict)
    refused: list[Refused] = field(default_factory=list)


def spacings(text: str) -> Spacings:
    """Spacings in mm from a CSV: the column called ``spacing…``, else the last one. Lines that are no length are named."""
    lines, titles = rows_of(text)
    column = _column(titles, "spacing")
    found = Spacings()
    for number, cells in lines:
        try:
            found.spacings_mm.append(parse_length(cells[column]))
        except (BadInput, IndexError) as problem:
            found.refused.append(Refused(number, ",".join(cells), _why(problem)))
    return found


def depths(text: str) -> Depths:
    """Depths in mm by row from a CSV: columns ``row`` and ``depth…``, else the first names the row and all others are
    depths.
    """
    lines, titles = rows_of(text)
    found = Depths()
    name = _column(titles, "row", 0)
    only = next((i for i, title in enumerate(titles) if title.startswith("depth")), None)
    for number, cells in lines:
        try:
            row = cells[name].strip()
            if not row:
                raise BadInput("", "names no row")
            given = [cells[only]] if only is not None else [cell for i, cell in enumerate(cells) if i != name and cell.strip()]
            if not given:
                raise BadInput("", "has no depth")
            lengths = [parse_length(cell) for cell in given]
        except (BadInput, IndexError) as problem:
            found.refused.append(Refused(number, ",".join(cells), _why(problem)))
        else:
            found.rows.setdefault(row, []).extend(lengths)
    return found


def shown(lengths: list[float]) -> str:
    """Lengths as they are typed into one field."""
    return " ".join(plain(length, 2) for length in lengths)


def _column(titles: list[str], start: str, otherwise: int = -1) -> int:
    return next((i for i, title in enumerate(titles) if title.startswith(start)), otherwise)


def _why(problem: Exception) -> str:
    return problem.message if isinstance(problem, BadInput) else "has too few columns"
