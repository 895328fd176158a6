"""Limits in words: what they are called, their unit, and where they come from."""

from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.judgement.words import Words, with_unit
from lumvek_core.units import System, plain

from .schemas import FigureOut

FIGURE_NAMES = {
    "new": "When new",
    "limit": "Renew at",
    "watch_from": "Watch from",
    "watch_chance": "Watch from a chance of",
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
    "per_turn": "A clockwise turn moves it",
    "washer": "Washer thickness",
    "wear_per_h": "Take-up used an hour",
    "season_h": "Coming season",
    "base": "Between the points",
    "lever": "Hitch point to wheels",
    "nose_up": "Nose up allowed",
    "nose_down": "Nose down allowed",
    "around": "Knives to a turn",
    "radius": "Knife's centre of mass at",
    "mass": "A worn knife",
    "new_mass": "A new knife",
    "rotor_mass": "Rotor with knives",
    "speed": "Speed",
    "grade": "Balance grade G",
}
SOURCES = {"manual": "operator's manual", "shop": "this shop", "school": "school"}

OWN_UNIT = {
    "of": "", "every_h": "h", "every_days": "days", "pitches": "", "limit_pct": "%", "steps": "", "wear_per_h": "mm/h", "season_h": "h",
    "nose_up": "°", "nose_down": "°", "angle_deg": "°", "around": "", "radius": "mm", "mass": "g", "new_mass": "g", "rotor_mass": "kg", "speed": "rpm",
    "grade": "mm/s",
}  # fmt: skip
"""Figures that are not in the unit of their check."""
DISTANCES = ("tolerance", "spread")
"""How far from something, not where."""
SHARES = ("watch_from", "watch_chance", "set_share")
"""Shown and typed as per cent."""


def figure(check: Check, name: str, value: float, system: System) -> str:
    """A limit with its unit."""
    if name in SHARES:
        return f"{plain(100 * value, 0)} %"
    if OWN_UNIT.get(name) == "°":
        return f"{plain(value, 1)}°"
    if name in OWN_UNIT:
        return f"{plain(value, 3)} {OWN_UNIT[name]}".strip()
    return Words(check, system).amount(value) if name in DISTANCES else with_unit(check, value, system)


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
