"""Like things side by side – rows, runners, knives – with every value and verdict, against each other and against last
season.
"""

from collections.abc import Sequence
from statistics import median

from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.coupled import prefix_of
from lumvek_core.errors import BadInput
from lumvek_core.judgement.words import unit_of, without_unit
from lumvek_core.positions import Position
from lumvek_core.rules import kinds
from lumvek_core.units import System
from shops.models import Member

from ..models import Verdict, WalkAround
from ..schemas import PlaceOut
from ..schemas_views import CellOut, GridOut, LineOut, ThingOut
from . import coupled, parts_fitted_since, rule_books, serializers, walk_arounds

WEIGHT = {"stop": 8, "due": 4, "watch": 2, "asked": 1}
"""What a verdict adds to how bad a column is, for "worst first"."""


def build(walk_around: WalkAround, book: CoreBook, member: Member, thing: str = "") -> GridOut:
    """The map of one kind of thing; without `thing` the one most checks are made at. Raises BadInput if there is none."""
    checks = rule_books.checks_of(walk_around)
    things = _things(book, checks, walk_around)
    if not things:
        raise BadInput("thing", "nothing on this machine is there several times")
    thing = thing or things[0].key
    if thing not in {one.key for one in things}:
        raise BadInput("thing", "is not there on this machine")
    columns = positions.expand(thing, walk_around.layout)
    places = {(place.check, place.position): place for place in walk_arounds.places(walk_around, book, member)}
    before = walk_arounds.previous(walk_around)
    same = [check.key for check in checks if positions.thing_of(check.per) == thing]
    numbers = _numbers(before, book, _of_the_same_machines(walk_around, before, same)) if before else {}
    system = serializers.system_of(member)
    lines = [
        _line(check, side, keys, places, numbers, system)
        for check in checks
        if positions.thing_of(check.per) == thing
        for side, keys in _sides(check, walk_around)
    ]
    is_rows = thing == "row"
    return GridOut(
        walk_around=serializers.brief(walk_around),
        machine=serializers.machine_out(walk_around.machine),
        things=things,
        thing=thing,
        name=next(one.name for one in things if one.key == thing),
        columns=[short(column) for column in columns],
        marked=[str(row) for row in walk_around.machine.track_rows] if is_rows else [],
        worst=_worst_first([short(column) for column in columns], lines),
        lines=lines,
        before=before.started_at.date().isoformat() if before else "",
        may_record=serializers.may_record(walk_around, member),
    )


def short(position: Position) -> str:
    return str(position.number) if position.number is not None else position.label


def _things(book: CoreBook, checks: Sequence[Check], walk_around: WalkAround) -> list[ThingOut]:
    """Things with at least two places, the one most checks are made at first."""
    counts: dict[str, int] = {}
    for check in checks:
        thing = positions.thing_of(check.per)
        if thing and len(positions.expand(thing, walk_around.layout)) > 1:
            counts[thing] = counts.get(thing, 0) + 1
    return [
        ThingOut(key=key, name=book.family.things[key].name)
        for key in sorted(counts, key=lambda key: (-counts[key], list(book.family.things).index(key)))
    ]


def _sides(check: Check, walk_around: WalkAround) -> list[tuple[str, list[str]]]:
    """Position keys by side, in the order of the columns."""
    expanded = sorted(positions.expand(check.per, walk_around.layout), key=lambda p: p.number or 0)
    if not check.per.endswith("-side"):
        return [("", [position.key for position in expanded])]
    return [(positions.SIDE_NAMES[side], [p.key for p in expanded if p.side == side]) for side in positions.BOTH]


def _of_the_same_machines(walk_around: WalkAround, before: WalkAround, checks: Sequence[str]) -> list[str]:
    """Checks of the machine itself and of headers that were coupled both times: another draper is another draper."""
    both = walk_around.headers.filter(pk__in=before.headers.values("pk")).select_related("model")
    there = coupled.together(walk_around.machine, both)
    return [key for key in checks if prefix_of(key) in there.machines]


def _numbers(before: WalkAround, book: CoreBook, checks: Sequence[str]) -> dict[tuple[str, str], float]:
    """Single figures that were read in another walk-around, but for parts that were renewed since."""
    new = parts_fitted_since.of(before)
    keys = rule_books.ever(checks)
    rows = Verdict.objects.filter(walk_around=before, check_key__in=keys)
    listed = rows.values_list("check_key", "position_key", "facts", "reading__taken_at")
    figures = {
        (keys[check], place): kinds.figure(facts, "compared")
        for check, place, facts, read_at in listed
        if new.at(book.family.checks[keys[check]], place, read_at) is None
    }
    return {pair: figure for pair, figure in figures.items() if figure is not None}


def _line(
    check: Check,
    side: str,
    keys: list[str],
    places: dict[tuple[str, str], PlaceOut],
    before: dict[tuple[str, str], float],
    system: System,
) -> LineOut:
    figures = {key: _figure(places.get((check.key, key))) for key in keys}
    known = [figure for figure in figures.values() if figure is not None]
    middle = median(known) if len(known) > 2 else None
    spread = max((abs(figure - middle) for figure in known), default=0.0) if middle is not None else 0.0
    cells: list[CellOut | None] = []
    for key in keys:
        place, figure, had = places.get((check.key, key)), figures[key], before.get((check.key, key))
        off = figure - middle if figure is not None and middle is not None else None
        cells.append(
            CellOut(
                position=key,
                severity=("asked" if place.ask else place.severity) if place else "open",
                short=place.short if place else "",
                shown=place.shown if place else "",
                reason=place.reason if place else "",
                off=_signed(check, off, system) if off is not None else "",
                change=_signed(check, figure - had, system) if figure is not None and had is not None else "",
                deviation=abs(off) / spread if off and spread else 0.0,
                used=place.used if place else None,
                fitted=place.fitted if place else "",
            )
        )
    unit = unit_of(check, system)
    figures_typed = max(1, len(check.values))
    return LineOut(check=check.key, name=check.name, side=side, unit=unit, kind=check.kind, figures=figures_typed, cells=cells)


def _figure(place: PlaceOut | None) -> float | None:
    if place is None or place.ask or place.fitted:
        return None  # a new part is not to be held against worn ones
    facts = place.facts
    return getattr(facts, facts.compared) if facts and facts.compared else None


def _signed(check: Check, difference: float, system: System) -> str:
    """A difference with its sign: ``−2.5``, ``+0``."""
    size = abs(difference)
    return f"{'−' if difference < 0 else '+'}{without_unit(check, size, system)}"


def _worst_first(columns: list[str], lines: Sequence[LineOut]) -> list[str]:
    """Columns by what was found in them, then by how far their figures stand from the others'."""
    bad = dict.fromkeys(columns, 0.0)
    for line in lines:
        for column, cell in zip(columns, line.cells, strict=False):
            if cell:
                bad[column] += WEIGHT.get(cell.severity, 0) + 0.1 * cell.deviation
    return sorted(columns, key=lambda column: (-bad[column], columns.index(column)))
