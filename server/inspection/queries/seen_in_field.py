"""What was found in the field, in words: for the field card, and as notes that come back in winter."""

from collections import defaultdict
from dataclasses import dataclass
from typing import Literal

from lumvek_core import positions
from lumvek_core.judgement import describe
from lumvek_core.units import System

from ..models import Verdict, WalkAround
from . import rule_books
from .values import read_value

FIELD_ROUNDS: tuple[Literal["first-field", "emergence"], ...] = ("first-field", "emergence")
"""Walk-arounds of a machine at work. What they find is seen there only, and no other round asks for it again."""
NOT_RIGHT = ("watch", "due", "stop")


@dataclass(frozen=True)
class SeenInField:
    """What was not right at one check. station: where it is looked at in winter. text: check, places and what was seen."""

    check: str
    station: str
    text: str


def not_right(walk_around: WalkAround, system: System) -> list[SeenInField]:
    """What a walk-around in the field found, check by check in working order. Two queries."""
    book = rule_books.opened(walk_around.rule_book_id)
    rows = Verdict.objects.filter(walk_around=walk_around, severity__in=NOT_RIGHT, ask="").select_related("reading")
    places: dict[str, dict[str, list[str]]] = defaultdict(lambda: defaultdict(list))
    for row in rows.order_by("id"):
        check = book.family.checks[row.check_key]
        shown = "no" if check.kind == "yes-no" else describe.full(check, read_value(row.reading.value), system)
        places[row.check_key][shown].append(row.position_key)
    found = []
    for key, check in book.family.checks.items():
        if key not in places:
            continue
        told = [f"{_where(at)}{shown[:1].lower()}{shown[1:]}" for shown, at in places[key].items()]
        station = check.noted_at or book.station_of[key].key
        found.append(SeenInField(key, station, f"{check.name}: {'; '.join(told)}"))
    return found


def _where(places: list[str]) -> str:
    return "" if places == [positions.WHOLE.key] else f"{positions.in_words(places)} "
