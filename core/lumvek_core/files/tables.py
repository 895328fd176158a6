"""CSV text as rows, whatever its separator and decimal sign."""

import csv
import io
from collections.abc import Iterable, Iterator

from ..errors import BadInput

LONGEST = 8_000_000
"""Characters of one file."""
MOST_ROWS = 100_001
MOST_COLUMNS = 100
MOST_CELLS = 1_000_000
SEPARATORS = ";\t,"


def rows_of(text: str) -> tuple[list[tuple[int, list[str]]], list[str]]:
    """(rows with their line numbers from 1, column titles in lower case or none).

    The separator is the one of ``;``, tab and ``,`` that the first line has most of, in that order: files with decimal commas
    separate by semicolons. The first line is titles if no cell of it is a figure. Raises BadInput with field ``text``.
    """
    if len(text) > LONGEST:
        raise BadInput("text", "is too large for one file of readings")
    if "\x00" in text:
        raise BadInput("text", "is not a text file")
    text = text.removeprefix("\ufeff")
    first = next((line for line in text.splitlines() if line.strip()), "")
    separator = max(SEPARATORS, key=first.count)
    try:
        rows = list(_filled(csv.reader(io.StringIO(text), delimiter=separator)))
    except csv.Error:
        raise BadInput("text", "is not a table") from None
    if not rows:
        raise BadInput("text", "is empty")
    titles = [cell.lower() for cell in rows[0][1]]
    if any(cell[:1].isdigit() for cell in titles):
        return rows, []
    return rows[1:], titles


def _filled(read: Iterable[list[str]]) -> Iterator[tuple[int, list[str]]]:
    """Rows that have anything in them, counted as they come, so that no more is read than may be."""
    size = TableSize()
    for number, cells in enumerate(read, 1):
        size.add(len(cells))
        stripped = [cell.strip() for cell in cells]
        if any(stripped):
            yield number, stripped


class TableSize:
    """How large a table has become while it is read."""

    def __init__(self) -> None:
        self.rows = self.cells = 0

    def add(self, columns: int) -> None:
        """One more row. Raises BadInput with field ``text`` where it is more than one file may have."""
        self.rows += 1
        self.cells += columns
        if columns > MOST_COLUMNS:
            raise BadInput("text", f"has more than {MOST_COLUMNS} columns in line {self.rows}")
        if self.rows > MOST_ROWS:
            raise BadInput("text", f"has more than {MOST_ROWS - 1} lines: read it in parts")
        if self.cells > MOST_CELLS:
            raise BadInput("text", f"has more than {MOST_CELLS} cells: read it in parts")
