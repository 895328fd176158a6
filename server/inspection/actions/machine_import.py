"""Many machines at once, from a table."""

from collections.abc import Iterator

from django.db import transaction

from lumvek_core.errors import BadInput
from shops.models import Member
from shops.rights import action
from tabular.streamed import Step
from tabular.tables import Table, TableLine, table_rows

from ..queries.machine_table import WANTED, Lines
from . import machine_park

MOST = 1000
"""Machines of one file: they are added all at once, or none."""
STEP = 10
"""Lines after which it is told how far it is."""


@action("add machines", atomic=False)
def take_file(member: Member, text: str, *, dry: bool) -> Iterator[Step | Table]:
    """Add the machines of a table, combines before their headers; it tells how far it is. Nothing is taken while a line is
    refused, or on a dry run.

    What is there already by its name is left as it is. Raises BadInput with field ``file`` for what is no such table.
    """
    lines, found = Lines(member), Table()
    rows = [
        (number, {title: cell.strip() for title, cell in cells.items()}) for number, cells in table_rows(text, WANTED, MOST)
    ]
    with transaction.atomic():
        for done, (number, cells) in enumerate(sorted(rows, key=lambda row: _after(lines, row[1]))):
            if done % STEP == 0:
                yield Step("Reading" if dry else "Adding", done, len(rows))
            try:
                found.lines.append(_take(member, lines, number, cells))
            except BadInput as problem:
                column = problem.field.rpartition(".")[2].replace("_", " ")
                found.lines.append(TableLine(number, "refused", f"{column} {problem.message}"))
        if dry or found.count("refused"):
            transaction.set_rollback(True)
    found.lines.sort(key=lambda line: line.line)
    yield found


def _after(lines: Lines, cells: dict[str, str]) -> bool:
    """Whether a line waits for the others: headers name combines that stand in the same file."""
    try:
        return lines.family(cells).is_header
    except BadInput:
        return False


def _take(member: Member, lines: Lines, number: int, cells: dict[str, str]) -> TableLine:
    if there := lines.names.get(cells["name"].lower()):
        return TableLine(number, "there", f"{there} is there already")
    made = machine_park.add(member, lines.wanted(cells))
    lines.has(made)
    return TableLine(number, "taken", f"{made.name}: {made.model.full_name}")
