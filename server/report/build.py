"""What a report says, gathered once for the page and the PDF."""

from dataclasses import dataclass, field

from inspection.models import PostureHold, Verdict, WalkAround, WalkAroundEvent
from inspection.queries import coupled, limits, pictures, row_map, rule_books, serializers, serializers_findings, walk_arounds
from inspection.schemas import PlaceOut, StationOut
from inspection.schemas_findings import FindingsOut, PartsOut
from inspection.schemas_notes import NoteOut
from inspection.schemas_plan import FigureOut
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.counted import counted
from lumvek_core.judgement.words import unit_of
from lumvek_core.vocabulary import PHASE_NAMES
from season.queries import readiness
from season.schemas import ReadinessOut
from shops.models import Member, Shop

FEW = 4
WIDE = 18
"""Columns of a grid that fit across a page."""


@dataclass
class Line:
    """One line of a check's grid: all rows of one side, or of the row."""

    label: str
    cells: list[PlaceOut | None] = field(default_factory=list)


@dataclass
class CheckSection:
    """One check with its limits and where they come from, and its grid."""

    check: Check
    limits: str
    unit: str
    lines: list[Line]
    numeric: bool
    seen: int
    total: int
    columns: list[str]
    places: list[tuple[str, PlaceOut | None]]

    @property
    def passing(self) -> int:
        """How many of its places were marked right in passing, with others of their station."""
        return sum(cell is not None and cell.bulk for _, cell in self.places)

    @property
    def strips(self) -> list[tuple[list[str], list[Line]]]:
        """The grid in pieces that fit a page's width."""
        return [
            (self.columns[i : i + WIDE], [Line(line.label, line.cells[i : i + WIDE]) for line in self.lines])
            for i in range(0, len(self.columns), WIDE)
        ]


@dataclass
class StationSection:
    """few: checks at a handful of places, a line each. many: checks that need a grid."""

    name: str
    few: list[CheckSection]
    many: list[CheckSection]


@dataclass
class Picture:
    """A photo with the words beneath it."""

    uuid: str
    title: str
    caption: str
    by: str
    check: str
    position: str


@dataclass
class Report:
    """Everything on the pages of one report. ready: how its machine stands today; None of one that is gone."""

    walk_around: WalkAround
    shop: Shop
    phase: str
    book: CoreBook
    stations: list[StationOut]
    findings: FindingsOut
    parts: PartsOut
    sections: list[StationSection]
    open_places: list[tuple[str, str]]
    totals: dict[str, int]
    complete: bool
    headers: list[str]
    people: list[str]
    holds: list[PostureHold]
    photos: list[Picture]
    notes: list[NoteOut]
    events: list[WalkAroundEvent]
    ready: ReadinessOut | None

    @property
    def passing(self) -> int:
        """Places that were looked at in passing, and not examined one by one."""
        return sum(section.passing for station in self.sections for section in [*station.few, *station.many])

    @property
    def nothing_found(self) -> str:
        """What is said where there is no finding: never more than was looked at."""
        seen = sum(self.totals[name] for name in ("sound", "watch", "due", "stop"))
        if not seen:
            return "Nothing was looked at, so nothing can be said."
        if self.complete:
            return "Nothing found that needs doing."
        return f"Nothing found that needs doing at {seen} of {counted(self.totals['total'], 'place')} that were seen."


def build(walk_around: WalkAround, book: CoreBook, member: Member) -> Report:
    """The report of one walk-around in the member's units."""
    places = {(place.check, place.position): place for place in walk_arounds.places(walk_around, book, member)}
    stations = walk_arounds.station_states(walk_around)
    applicable = rule_books.checks_of(walk_around)
    system = serializers.system_of(member)
    sections, open_places = [], []
    for station in book.family.stations:
        checks = [check for check in applicable if check in station.checks]
        if not checks:
            continue
        built = []
        for check in checks:
            listed = "; ".join(_limit(figure) for figure in limits.of_check(book, check, system))
            unit = unit_of(check, system)
            built.append(_section(check, listed, unit, walk_around.layout, places))
            missing = _missing(check, walk_around.layout, places)
            if missing:
                open_places.append((check.name, missing))
        few = [section for section in built if section.total <= FEW]
        sections.append(StationSection(station.name, few, [section for section in built if section.total > FEW]))
    totals = {
        name: sum(getattr(s, name) for s in stations)
        for name in ("sound", "watch", "due", "stop", "not_seen", "does_not_apply", "asked", "open", "total")
    }
    return Report(
        walk_around=walk_around,
        shop=member.shop,
        phase=PHASE_NAMES.get(walk_around.phase, walk_around.phase),
        book=book,
        stations=stations,
        findings=serializers_findings.findings(walk_around, book, member),
        parts=serializers_findings.parts_page(walk_around, book, member),
        sections=sections,
        open_places=open_places,
        totals=totals,
        headers=[header.name for header in walk_around.headers.all()],
        people=[one.name for one in walk_around.people.select_related("user")],
        holds=list(walk_around.holds.select_related("by")),
        photos=_pictures(walk_around, book),
        notes=serializers.notes(walk_around.machine, closed=True),
        events=_told(walk_around),
        ready=next(iter(readiness.readiness(member, walk_around.machine_id)), None),
        complete=not (totals["open"] or totals["not_seen"] or totals["asked"]),
    )


def _told(walk_around: WalkAround) -> list[WalkAroundEvent]:
    """What became of it after it was first finished; that it was finished once stands above already."""
    events = list(walk_around.events.select_related("by"))
    return events if any(event.kind != WalkAroundEvent.Kind.FINISHED for event in events) else []


def _pictures(walk_around: WalkAround, book: CoreBook) -> list[Picture]:
    return [
        Picture(
            str(one.uuid),
            f"{book.family.checks[one.check_key].name}, {positions.find(one.position_key).label.lower()}",
            one.caption,
            serializers.full_name(one.by),
            one.check_key,
            one.position_key,
        )
        for one in pictures.of(walk_around)
    ]


def _limit(figure: FigureOut) -> str:
    source = f"{figure.source}: {figure.note}" if figure.note else figure.source
    return f"{figure.name.lower()} {figure.shown} ({source})"


def _section(
    check: Check, limits: str, unit: str, layout: positions.Layout, places: dict[tuple[str, str], PlaceOut]
) -> CheckSection:
    expanded = positions.expand(check.per, layout)
    lines: dict[str, Line] = {}
    by_side = check.per.endswith("-side")
    for position in sorted(expanded, key=lambda p: (p.side or "", p.number or 0)):
        label = positions.SIDE_NAMES[position.side] if by_side and position.side else ""
        lines.setdefault(label, Line(label)).cells.append(places.get((check.key, position.key)))
    seen = sum(1 for position in expanded if (check.key, position.key) in places)
    across = expanded if not by_side else [position for position in expanded if position.side == "L"]
    columns = [row_map.short(position) for position in across] if check.per != "machine" else []
    numeric = check.kind in ("measure", "count", "interval", "note")
    named = [(position.label if len(expanded) > 1 else "", places.get((check.key, position.key))) for position in expanded]
    return CheckSection(check, limits, unit, list(lines.values()), numeric, seen, len(expanded), columns, named)


def _missing(check: Check, layout: positions.Layout, places: dict[tuple[str, str], PlaceOut]) -> str:
    """The positions nobody looked at, in words; empty if there are none or the check is optional."""
    if check.optional:
        return ""
    expanded = positions.expand(check.per, layout)
    missing = [position.key for position in expanded if (check.key, position.key) not in places]
    if len(missing) == len(expanded) and len(expanded) > 1:
        return f"all {len(expanded)} places"
    return positions.in_words(missing)


def readings_rows(walk_around: WalkAround, book: CoreBook, member: Member) -> list[list[str]]:
    """Every reading ever taken in this walk-around, in the order it came in, with the verdict where it is in force."""
    in_force_now = {
        verdict.reading_id: verdict for verdict in Verdict.objects.filter(walk_around=walk_around).select_related("reading")
    }
    there = coupled.of(walk_around)
    rows = [
        [
            "machine",
            "check",
            "position",
            "state",
            "typed",
            "typed in",
            "value",
            "unit",
            "feeler",
            "severity",
            "action",
            "verdict",
            "in force",
            "confirmed",
            "in passing",
            "posture",
            "note",
            "taken at",
            "by",
        ]
    ]
    for reading in walk_around.readings.select_related("by").order_by("id"):
        check, verdict = book.family.checks[reading.check_key], in_force_now.get(reading.pk)
        numbers = " ".join(f"{number:g}" for number in reading.value.get("numbers", []))
        rows.append(
            [
                there.owner(check.key).name,
                check.name,
                positions.find(reading.position_key).label,
                reading.state,
                " | ".join(reading.raw),
                reading.units,
                numbers or reading.value.get("choice", "") or reading.reason,
                check.unit or "",
                reading.feeler,
                verdict.severity if verdict else "",
                verdict.action if verdict else "",
                walk_arounds.in_units(verdict, serializers.system_of(member))["reason"] if verdict else "",
                "yes" if verdict else "replaced",
                "yes" if reading.confirmed else "",
                "yes" if reading.bulk else "",
                reading.posture,
                reading.note,
                reading.taken_at.isoformat(timespec="seconds"),
                reading.by.get_full_name() or reading.by.get_username(),
            ]
        )
    return rows


def parts_rows(walk_around: WalkAround, book: CoreBook) -> list[list[str]]:
    """The parts list, a line a part."""
    rows = [
        [
            "part",
            "side",
            "number",
            "needed",
            "order in packs",
            "declined",
            "found worn at",
            "along with new parts at",
            "declined at",
        ]
    ]
    for part in serializers.parts(walk_around, book):
        number = part.number or "to be found"
        rows.append(
            [
                part.name,
                part.side_name,
                number,
                str(part.quantity),
                str(part.order),
                str(part.declined),
                part.found_at,
                part.along_at,
                part.declined_at,
            ]
        )
    return rows
