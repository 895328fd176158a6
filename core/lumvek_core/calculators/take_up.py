"""The take-up of a chain: whether a half link comes out, or the chain is done."""

from dataclasses import dataclass
from typing import Literal

from ..compare import reached
from ..errors import BadInput
from ..registry import calculator
from .common import Count, NotNegative, Positive

RetireSchool = Literal["first", "percent", "one_then_end", "all_fitted", "full_link", "yearly"]
TakeUpAdvice = Literal["none", "remove_half_link", "runs_out", "retire"]


@dataclass(frozen=True)
class TakeUpGiven:
    pitch_mm: Positive
    travel_mm: Positive
    used_mm: NotNegative
    half_links_removed: Count
    wear_mm_per_h: NotNegative
    season_h: NotNegative
    half_links_fitted: Count = 1
    school: RetireSchool = "first"
    stretch_pct: float | None = None
    limit_pct: Positive = 3
    join_mm: NotNegative = 0


@dataclass(frozen=True)
class TakeUp:
    can_remove: bool
    used_after_mm: float
    hours_to_end: float | None
    hours_to_end_after: float | None
    lasts_season: bool
    retire: bool
    advice: TakeUpAdvice
    words: str


@calculator
def take_up(given: TakeUpGiven) -> TakeUp:
    """Whether the take-up lasts the season, whether a half link can come out, and whether the chain is to be retired.

    One half link out shortens the loop by a pitch, so the take-up goes back by half a pitch: possible once that much is used
    (and `join_mm` more, to join the chain by hand) and while a half link is left; more taken out than were fitted counts as
    none left. A take-up used beyond its travel stands at its end: 0 hours. Without wear it never ends (null) and lasts.

    Schools of retirement: percent of stretch (stretch_pct then needed) · one half link and full travel again · all fitted half
    links and full travel · when a full link would have to go · yearly, so always · first: percent where the stretch is known,
    or one half link and full travel. Advice: retire, else none while it lasts the season, else remove_half_link, else runs_out.
    Every strand of a machine loses the same number. Lengths in mm, wear in mm of take-up per hour.
    """
    can_remove = given.half_links_removed < given.half_links_fitted and reached(
        given.used_mm, given.pitch_mm / 2 + given.join_mm
    )
    used_after = max(0.0, given.used_mm - given.pitch_mm / 2) if can_remove else given.used_mm
    to_end, after = _hours(given, given.used_mm), _hours(given, used_after)
    lasts = to_end is None or reached(to_end, given.season_h)
    retire = _retire(given)
    advice: TakeUpAdvice = "runs_out"
    if retire:
        advice = "retire"
    elif lasts:
        advice = "none"
    elif can_remove:
        advice = "remove_half_link"
    return TakeUp(can_remove, used_after, to_end, after, lasts, retire, advice, WORDS[advice])


WORDS: dict[TakeUpAdvice, str] = {
    "none": "The take-up lasts the season.",
    "remove_half_link": "Slacken right off and take one half link out of every strand.",
    "runs_out": "The take-up ends before the season does and no half link can come out yet: look again at its last hours.",
    "retire": "Retire the chain: renew every strand, with its sprockets looked at.",
}


def _hours(given: TakeUpGiven, used: float) -> float | None:
    return None if given.wear_mm_per_h == 0 else max(0.0, given.travel_mm - used) / given.wear_mm_per_h


def _retire(given: TakeUpGiven) -> bool:
    at_end = reached(given.used_mm, given.travel_mm)
    match given.school:
        case "yearly":
            return True
        case "percent":
            return _stretched(given)
        case "all_fitted":
            return given.half_links_removed >= given.half_links_fitted and at_end
        case "full_link":
            return reached(2 * given.used_mm + given.half_links_removed * given.pitch_mm, 2 * given.pitch_mm)
        case "first" if given.stretch_pct is not None and _stretched(given):
            return True
        case _:
            return given.half_links_removed >= 1 and at_end


def _stretched(given: TakeUpGiven) -> bool:
    if given.stretch_pct is None:
        raise BadInput("stretch_pct", "is missing: this school retires by stretch")
    return reached(given.stretch_pct, given.limit_pct)
