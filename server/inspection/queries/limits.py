"""The limits of a check as the screens show them: with where each comes from."""

from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.rules import figures
from lumvek_core.units import System

from ..schemas import FigureOut

SOURCES = {"manual": "operator's manual", "shop": "this shop", "school": "school", "machine": "this machine"}


def of_check(book: CoreBook, check: Check, system: System) -> list[FigureOut]:
    """The limits of a check with where each comes from."""
    return [
        FigureOut(
            key=figure,
            name=figures.name(check, figure),
            shown=figures.shown(check, figure, limit.value, system),
            brief=figures.shown(check, figure, float(limit.value), system),
            source=SOURCES.get(limit.source, limit.source),
            note=limit.note,
        )
        for figure, limit in book.limits[check.key].items()
    ]
