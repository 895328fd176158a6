"""Readings in a file: every line is understood first, and is new, already there, or refused with its reason."""

import csv
import datetime as dt
import io
import uuid
from collections.abc import Callable, Mapping
from dataclasses import dataclass, field, replace
from typing import Literal

from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.coupled import prefix_of
from lumvek_core.errors import BadInput
from lumvek_core.files.tables import rows_of
from shops.models import Member
from tabular.sheets import as_typed

from ..models import Reading, Verdict, WalkAround
from ..queries import coupled, rule_books
from .typed_readings import NewReading, Typed, Understanding

NAMESPACE = uuid.UUID("0d7c6f6e-6c1e-4b7e-9a54-7d5b7f1c2a10")
"""Readings from files get their UUID from what they say, so that the same file read twice is read once."""

TITLES: dict[str, tuple[str, ...]] = {
    "machine": ("machine",),
    "check": ("check",),
    "position": ("position", "row", "place", "where"),
    "typed": ("typed", "reading", "value", "figure"),
    "feeler": ("feeler",),
    "units": ("typed in", "units"),
    "state": ("state",),
    "reason": ("reason", "why not", "value"),
    "note": ("note",),
    "taken": ("taken at", "date", "time"),
    "in_force": ("in force",),
}
"""What the columns may be called; a title is found by its first name that is there."""

MOST = 20_000
"""Readings of one file: nobody else records in the walk-around meanwhile."""

Outcome = Literal["taken", "there", "refused"]


@dataclass(frozen=True)
class Line:
    """What became, or would become, of one line of the file."""

    line: int
    text: str
    outcome: Outcome
    check: str = ""
    position: str = ""
    says: str = ""


@dataclass
class Report:
    lines: list[Line] = field(default_factory=list)
    new: list[NewReading] = field(default_factory=list)

    def count(self, outcome: Outcome) -> int:
        return sum(line.outcome == outcome for line in self.lines)


def read(member: Member, walk_around: WalkAround, text: str) -> Report:
    """What a file would do. Nothing is written. Raises BadInput with field ``text`` or ``file`` for what is no table of
    readings."""
    rows, titles = rows_of(text)
    if len(rows) > MOST:
        raise BadInput("file", f"has {len(rows)} lines, and {MOST} are taken at once: read it in parts")
    columns = {name: _column(titles, called) for name, called in TITLES.items()}
    for needed in ("check", "position", "typed"):
        if columns[needed] is None:
            raise BadInput("text", f"has no column “{TITLES[needed][0]}”; the first line names the columns")
    reader = _Lines(member, walk_around, columns)
    report = Report()
    for number, cells in rows:
        line, new = reader.line(number, cells)
        report.lines.append(line)
        if new:
            report.new.append(new)
    return report


def _column(titles: list[str], called: tuple[str, ...]) -> int | None:
    return next((titles.index(name) for name in called if name in titles), None)


class _Lines:
    """Understands one line after the other for one walk-around."""

    def __init__(self, member: Member, walk_around: WalkAround, columns: Mapping[str, int | None]) -> None:
        self.member, self.walk_around, self.columns = member, walk_around, columns
        self.checks: dict[str, list[Check]] = {}
        for check in rule_books.checks_of(walk_around):
            for called in {check.key.lower(), check.name.lower()}:
                self.checks.setdefault(called, []).append(check)
        # Prefix of the keys of each machine's checks: a combine and its headers may have checks of one name.
        self.machines = {machine.name.lower(): prefix for prefix, machine in coupled.of(walk_around)}
        self.known = set(Reading.objects.filter(walk_around=walk_around).values_list("uuid", flat=True))
        self.stands = {
            (row.check_key, row.position_key): row.reading
            for row in Verdict.objects.filter(walk_around=walk_around).select_related("reading")
        }
        self.understand: Callable[[NewReading], Typed] = Understanding(member, walk_around).read

    def _cell(self, cells: list[str], name: str) -> str:
        at = self.columns[name]
        return as_typed(cells[at].strip()) if at is not None and at < len(cells) else ""

    def line(self, number: int, cells: list[str]) -> tuple[Line, NewReading | None]:
        out = io.StringIO()
        csv.writer(out).writerow(cells)
        text = out.getvalue().strip()
        try:
            check, position = self._where(cells)
            new = self._reading(cells, check, position)
            if self._cell(cells, "in_force").lower() == "replaced":
                raise BadInput("", "was replaced already by a later line")
            stands = self.stands.get((check.key, position.key))
            if new.uuid in self.known or (stands and _same(stands, new)):
                return Line(number, text, "there", check.name, position.label, "stands there already"), None
            if stands and new.taken_at and new.taken_at <= stands.taken_at:
                new = replace(new, taken_at=None)  # whoever takes the file means what it says, now
            self.understand(new)
        except BadInput as problem:
            return Line(number, text, "refused", says=problem.message), None
        said = " · ".join(new.raw) if new.state == "seen" else new.state.replace("-", " ")
        return Line(number, text, "taken", check.name, position.label, said), new

    def _where(self, cells: list[str]) -> tuple[Check, positions.Position]:
        machine = self._cell(cells, "machine")
        if machine and machine.lower() not in self.machines:
            raise BadInput("", f"belongs to {machine}, not to this walk-around")
        name = self._cell(cells, "check")
        named = self.checks.get(name.lower(), [])
        if len(named) > 1 and machine:
            named = [check for check in named if prefix_of(check.key) == self.machines[machine.lower()]]
        if not named:
            raise BadInput("", f"“{name}” is no check of this walk-around" if name else "names no check")
        if len(named) > 1:
            raise BadInput("", f"“{name}” is a check of several machines here; name the machine")
        check = named[0]
        where = self._cell(cells, "position").lower()
        expanded = positions.expand(check.per, self.walk_around.layout)
        if not where and len(expanded) == 1:
            return check, expanded[0]
        for position in expanded:
            if where in (position.key.lower(), position.label.lower()):
                return check, position
        raise BadInput("", f"“{where}” is no position of {check.name.lower()}" if where else "names no position")

    def _reading(self, cells: list[str], check: Check, position: positions.Position) -> NewReading:
        state = self._cell(cells, "state").lower() or "seen"
        if state not in ("seen", "not-seen", "does-not-apply"):
            raise BadInput("", f"“{state}” is not read from files")
        typed = self._cell(cells, "typed")
        raw = [part.strip() for part in typed.split("|")] if state == "seen" else []
        if state == "seen" and not typed:
            raise BadInput("", "has no reading")
        units = self._cell(cells, "units")
        if units not in ("", "mm", "in"):
            raise BadInput("", f"“{units}” is no unit to read in; mm or in")
        taken = _moment(self._cell(cells, "taken"))
        feeler, note = self._cell(cells, "feeler"), self._cell(cells, "note")[:500]
        reason = "" if state == "seen" else self._cell(cells, "reason") or ("from a file" if state == "not-seen" else "")
        says = "\n".join([check.key, position.key, state, *raw, str(taken), feeler, units, reason, note])
        return NewReading(
            uuid=uuid.uuid5(NAMESPACE, f"{self.walk_around.pk}\n{says}"),
            check=check.key,
            position=position.key,
            state=state,
            raw=raw,
            feeler=feeler,
            units=units,
            reason=reason[:200],
            note=note,
            taken_at=taken,
        )


def _moment(text: str) -> dt.datetime | None:
    if not text:
        return None
    try:
        moment = dt.datetime.fromisoformat(text)
    except ValueError:
        raise BadInput("", f"“{text}” is no time such as 2026-03-05T14:30") from None
    return moment if moment.tzinfo else moment.replace(tzinfo=dt.UTC)


def _same(stands: Reading, new: NewReading) -> bool:
    said = (new.state, new.raw, new.feeler or stands.feeler, new.units or stands.units)
    return (stands.state, stands.raw, stands.feeler, stands.units) == said
