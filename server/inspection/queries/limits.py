"""The limits of a check as the screens show them, with where each comes from, and as they are typed."""

from lumvek_core import pressures, units
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.errors import BadInput
from lumvek_core.judgement.words import pressure_unit
from lumvek_core.rules import figures
from lumvek_core.units import System
from shops.models import Member

from ..schemas_plan import FigureOut

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


def typed(member: Member, check: Check, figure: str, text: str) -> float:
    """A limit as the core takes it: lengths in mm, shares from per cent. Raises BadInput with field ``text``."""
    unit = figures.unit(check, figure)
    system: System = "in" if member.units == "in" else "mm"
    if unit == "mm":
        try:
            return units.as_stated(text, system)
        except BadInput as problem:
            raise BadInput("text", problem.message) from None
    if unit in ("mbar", "bar") and (own := pressure_unit(check, system)):
        try:
            return pressures.parse_pressure(text, own) / pressures.MBAR_PER[unit]  # type: ignore[index]
        except BadInput as problem:
            raise BadInput("text", problem.message) from None
    try:
        value = float(text.strip().removesuffix(unit).strip().replace(",", ".").replace("−", "-"))
    except ValueError:
        raise BadInput("text", f"must be a number{f' of {unit}' if unit else ''}") from None
    if not -1e6 < value < 1e6:
        raise BadInput("text", "is far outside anything measured on a machine")
    return figures.typed(check, figure, value)
