"""What a file from outside does, line by line."""

from typing import Self

from ninja import Schema

from .tables import Outcome, Table


class TableLineOut(Schema):
    line: int
    outcome: Outcome
    words: str


MOST_LINES = 300
"""Told line by line; the refused ones first, where there are more."""


class TableReportOut(Schema):
    """dry: nothing was taken, this is what would be. lines: so many of them as a person reads, refused ones before others."""

    dry: bool
    taken: int
    there: int
    refused: int
    lines: list[TableLineOut]

    @classmethod
    def of(cls, table: Table, *, dry: bool) -> Self:
        lines = table.lines
        if len(lines) > MOST_LINES:
            lines = sorted(lines, key=lambda one: one.outcome != "refused")[:MOST_LINES]
            lines.sort(key=lambda one: one.line)
        return cls(
            dry=dry,
            taken=table.count("taken"),
            there=table.count("there"),
            refused=table.count("refused"),
            lines=[TableLineOut(line=one.line, outcome=one.outcome, words=one.words) for one in lines],
        )
