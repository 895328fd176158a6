"""Tables from outside: their lines by title, what became of each, and figures in cells."""

import datetime as dt
import re
from collections.abc import Iterator
from dataclasses import dataclass, field
from decimal import Decimal, InvalidOperation
from typing import Literal

from lumvek_core.errors import BadInput
from lumvek_core.files.tables import MOST_ROWS, rows_of

from .moments import FIRST, LAST
from .sheets import as_typed

Outcome = Literal["taken", "there", "refused"]


@dataclass
class TableLine:
    """What one line of a file does, or why it is refused. line: as the file counts, titles are 1."""

    line: int
    outcome: Outcome
    words: str


@dataclass
class Table:
    """What a whole file does."""

    lines: list[TableLine] = field(default_factory=list)

    def count(self, outcome: Outcome) -> int:
        return sum(line.outcome == outcome for line in self.lines)


def table_rows(text: str, wanted: tuple[str, ...], most: int = MOST_ROWS - 1) -> Iterator[tuple[int, dict[str, str]]]:
    """Line number and cells by title of a table from outside. most: lines, where all of them are taken at once.

    Raises BadInput with field ``file`` for what is no table, is too large a one, or lacks a column.
    """
    try:
        lines, titles = rows_of(text)
    except BadInput as problem:
        raise BadInput("file", problem.message) from None
    if len(lines) > most:
        raise BadInput("file", f"has {len(lines)} lines, and {most} are taken at once: read it in parts")
    if missing := [one for one in wanted if one not in titles]:
        raise BadInput("file", f"has no column {', '.join(missing)}; the file that is given out has them all")
    for at, cells in lines:
        yield at, dict(zip(titles, map(as_typed, cells), strict=False))


def whole_in(text: str, name: str, low: int, high: int) -> int:
    """A whole number in a cell. Raises BadInput with the column as field."""
    value = number_in(text, name, low, high)
    if value != int(value):
        raise BadInput(name, "must be a whole number")
    return int(value)


def plain(text: str, name: str, asked: str = ",") -> str:
    """A figure as it stands in somebody's table, with a point before its fraction and nothing between its thousands.

    asked: marks that may set apart a fraction or thousands where they stand alone before three figures. A point is one of them
    only where nobody writes three figures behind it; programs do. Raises BadInput with the column as field for such a one.
    """
    text = re.sub(r"(?<=\d)[\s'’](?=\d{3}(?!\d))", "", text.strip())
    if re.fullmatch(rf"[1-9]\d{{0,2}}[{asked}]\d{{3}}", text):
        whole, fraction = re.split("[.,]", text)
        raise BadInput(name, f"can be read in two ways: write {whole}{fraction} or {whole}.{fraction.rstrip('0') or 0}")
    if re.fullmatch(r"[1-9]\d{0,2}(\.\d{3}){2,}|[1-9]\d{0,2}(\.\d{3})+,\d+", text):
        return text.replace(".", "").replace(",", ".")
    if re.fullmatch(r"[1-9]\d{0,2}(,\d{3})+(\.\d+)?", text):
        return text.replace(",", "")
    return text.replace(",", ".")


def day_in(text: str, name: str) -> dt.datetime:
    """A day, or a moment, as a table may have it: 2026-03-05, 2026-03-05T14:00 or 05.03.2026.

    Raises BadInput with the column as field.
    """
    found = re.fullmatch(r"(\d{1,2})\.(\d{1,2})\.(\d{4})", text.strip())
    try:
        when = dt.datetime(int(found[3]), int(found[2]), int(found[1])) if found else dt.datetime.fromisoformat(text.strip())
    except ValueError:
        raise BadInput(name, "must be a day such as 2026-03-05 or 05.03.2026") from None
    if not FIRST <= when.date() <= LAST:
        raise BadInput(name, f"must lie between {FIRST.year} and {LAST.year}")
    return when


def number_in(text: str, name: str, low: float, high: float) -> float:
    """A number in a cell, with a point or a comma. Raises BadInput with the column as field."""
    written = plain(text, name)
    try:
        value = float(written)
    except ValueError:
        raise BadInput(name, "must be a number") from None
    if not low <= value <= high:
        raise BadInput(name, f"must be between {low:g} and {high:g}")
    return value


def amount_in(text: str, name: str, below: int = 10**8) -> Decimal:
    """Money in a cell or a field, to the cent. Raises BadInput with `name` as field."""
    try:
        value = Decimal(plain(text, name, ".,"))
    except InvalidOperation:
        raise BadInput(name, "must be an amount such as 47.20") from None
    if not value.is_finite() or not 0 <= value < below:
        raise BadInput(name, f"must be between 0 and {below}")
    return value.quantize(Decimal("0.01"))
