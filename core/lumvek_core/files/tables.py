"""CSV text as rows, whatever its separator and decimal sign."""

import csv
import io

from ..errors import BadInput

LONGEST = 2_000_000
"""Characters of one file."""
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
        read = list(csv.reader(io.StringIO(text), delimiter=separator))
    except csv.Error:
        raise BadInput("text", "is not a table") from None
    rows = [(number, [cell.strip() for cell in cells]) for number, cells in enumerate(read, 1) if any(map(str.strip, cells))]
    if not rows:
        raise BadInput("text", "is empty")
    titles = [cell.lower() for cell in rows[0][1]]
    if any(cell[:1].isdigit() for cell in titles):
        return rows, []
    return rows[1:], titles
