"""Limits in words: what they are called, their unit, and where they come from."""

from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.units import System, plain, show_length

from .schemas import FigureOut

FIGURE_NAMES = {
    "new": "When new",
    "limit": "Replace at",
    "watch_from": "Watch from",
    "low": "From",
    "high": "To",
    "target": "Aim for",
    "tolerance": "Alike within",
    "feeler": "By feeler",
    "angle_deg": "Included angle",
    "spread": "Spread up to",
    "go": "Go",
    "no_go": "No-go",
    "set_share": "Whole set above",
    "of": "In all",
    "every_h": "Every",
    "every_days": "Every",
    "pitch": "Pitch",
    "pitches": "Pitches measured",
    "limit_pct": "Retire at",
    "steps": "Steps at most",
    "overtravel": "Overtravel",
}
SOURCES = {"manual": "operator's manual", "shop": "this shop", "school": "school"}

_OWN_UNIT = {"of": "", "every_h": "h", "every_days": "days", "pitches": "", "limit_pct": "%", "steps": ""}
"""Figures that are not in the unit of their check."""


def figure(check: Check, name: str, value: float, system: System) -> str:
    """A limit with its unit."""
    if name in ("watch_from", "set_share"):
        return f"{plain(100 * value, 0)} %"
    if name in _OWN_UNIT:
        return f"{plain(value, 2)} {_OWN_UNIT[name]}".strip()
    if name == "angle_deg":
        return f"{plain(value, 1)}°"
    return show_length(value, system) if check.unit == "mm" else f"{plain(value, 2)} {check.unit or ''}".strip()


def figures(book: CoreBook, check: Check, system: System) -> list[FigureOut]:
    """The limits of a check with where each comes from."""
    return [
        FigureOut(
            name=FIGURE_NAMES[name],
            shown=figure(check, name, limit.value, system),
            source=SOURCES.get(limit.source, limit.source),
            note=limit.note,
        )
        for name, limit in book.limits[check.key].items()
    ]
