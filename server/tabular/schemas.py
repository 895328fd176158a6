"""What a file from outside does, line by line."""

from typing import Self

from ninja import Schema

from .tables import Outcome, Table


class TableLineOut(Schema):
    line: int
    outcome: Outcome
    words: str


class TableReportOut(Schema):
    """dry: nothing was taken, this is what would be."""

    dry: bool
    taken: int
    there: int
    refused: int
    lines: list[TableLineOut]

    @classmethod
    def of(cls, table: Table, *, dry: bool) -> Self:
        return cls(
            dry=dry,
            taken=table.count("taken"),
            there=table.count("there"),
            refused=table.count("refused"),
            lines=[TableLineOut(line=one.line, outcome=one.outcome, words=one.words) for one in table.lines],
        )
