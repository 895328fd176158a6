"""Many machines at once, from a table."""

from django.db import transaction

from fleet.models import Machine
from lumvek_core.errors import BadInput
from shops.models import Member
from shops.rights import action
from tabular.tables import Table, TableLine, table_rows

from ..queries.machine_table import WANTED, Lines
from . import machine_park

MOST = 1000
"""Machines of one file: they are added all at once, or none."""


@action("add machines")
def take_file(member: Member, text: str, *, dry: bool) -> Table:
    """Add the machines of a table, combines before their headers. Nothing is taken while a line is refused, or on a dry run.

    What is there already by its name is left as it is. Raises BadInput with field ``file`` for what is no such table.
    """
    lines, found = Lines(member), Table()
    rows = [
        (number, {title: cell.strip() for title, cell in cells.items()}) for number, cells in table_rows(text, WANTED, MOST)
    ]
    for number, cells in sorted(rows, key=lambda row: _after(lines, row[1])):
        try:
            found.lines.append(_take(member, lines, number, cells))
        except BadInput as problem:
            column = problem.field.rpartition(".")[2].replace("_", " ")
            found.lines.append(TableLine(number, "refused", f"{column} {problem.message}"))
    if dry or found.count("refused"):
        transaction.set_rollback(True)
    found.lines.sort(key=lambda line: line.line)
    return found


def _after(lines: Lines, cells: dict[str, str]) -> bool:
    """Whether a line waits for the others: headers name combines that stand in the same file."""
    try:
        return lines.family(cells).is_header
    except BadInput:
        return False


def _take(member: Member, lines: Lines, number: int, cells: dict[str, str]) -> TableLine:
    if there := Machine.objects.of(member).filter(name__iexact=cells["name"]).first():
        return TableLine(number, "there", f"{there.name} is there already")
    made = machine_park.add(member, lines.wanted(cells))
    return TableLine(number, "taken", f"{made.name}: {made.model.full_name}")
