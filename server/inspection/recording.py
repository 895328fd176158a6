"""Recording readings: appended once, judged at once, with everything that rests on them."""

import datetime as dt
import uuid
from collections.abc import Callable, Collection, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property

from django.db import transaction
from django.db.models import Q
from django.utils import timezone

from lumvek_core import positions, structure
from lumvek_core.calculators.opener import FEELERS_MM
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.model import RuleBook as CoreBook
from lumvek_core.errors import BadInput, RunTogether
from lumvek_core.judgement import plausible, verdicts
from lumvek_core.judgement.context import Expected, Past
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.rules import verdict as core
from lumvek_core.units import System
from shops.models import Member

from . import rule_books
from .expected_values import Pair, expected_at
from .models import Reading, Verdict, WalkAround
from .services import decided_to_do, lock, refresh_parts, running
from .values import columns_of, value_of


@dataclass(frozen=True)
class NewReading:
    """A reading as the client sends it. raw: texts as typed; state ``seen``, ``not-seen`` or ``withdrawn``.

    units: what a bare number meant where it was typed; it may be sent later, by somebody who reads other units. Empty: the
    member's own.
    """

    uuid: uuid.UUID
    check: str
    position: str
    state: str = "seen"
    raw: list[str] = field(default_factory=list)
    feeler: str = ""
    units: str = ""
    reason: str = ""
    note: str = ""
    confirmed: bool = False
    bulk: bool = False
    posture: str = ""
    taken_at: dt.datetime | None = None


@dataclass
class Changed:
    """What recording changed: (check, position) pairs with another verdict, and whether the parts lines moved.

    rows: the verdicts of those pairs where they are at hand; None where they are to be read again.
    """

    walk_around: WalkAround
    pairs: list[Pair]
    parts: bool
    rows: list[Verdict] | None = None


def record_reading(member: Member, walk_around_id: uuid.UUID, new: NewReading) -> Changed:
    """Append one reading; see `record_readings`."""
    return record_readings(member, walk_around_id, [new])


@transaction.atomic
def record_readings(member: Member, walk_around_id: uuid.UUID, new: Sequence[NewReading]) -> Changed:
    """Append readings, all or none, and bring verdicts and parts in step.

    A UUID that is known is not recorded again; its pair is returned all the same, so that a repeated request gets its answer.
    Raises BadInput (fields ``uuid``, ``check``, ``position``, ``raw.<n>``, ``feeler``, ``reason``), NotFoundHere, Conflict.
    """
    walk_around = lock(member, walk_around_id)
    known, withdrawn = _on_record(walk_around, new)
    if any(owner != walk_around.pk for owner, _, _ in known.values()):
        raise BadInput("uuid", "belongs to another walk-around")
    fresh = [reading for reading in new if reading.uuid not in known]
    if fresh:
        running(walk_around)
    repeated = [(check, position) for _, check, position in known.values()]
    if not fresh:
        return Changed(walk_around, repeated, parts=True)
    changed = _Recording(member, walk_around, rule_books.opened(walk_around.rule_book_id)).write(fresh, withdrawn)
    return changed if not repeated else Changed(walk_around, repeated + changed.pairs, changed.parts)


def _on_record(
    walk_around: WalkAround, new: Sequence[NewReading]
) -> tuple[dict[uuid.UUID, tuple[uuid.UUID, str, str]], dict[Pair, dt.datetime]]:
    """(known, withdrawn): which of these UUIDs are on record, with walk-around and place; when their places were last opened
    again."""
    columns = ("uuid", "walk_around_id", "check_key", "position_key", "state", "taken_at")
    mine = {reading.uuid for reading in new}
    same = Reading.objects.filter(uuid__in=mine).order_by().values_list(*columns)
    opened = Reading.objects.filter(
        walk_around=walk_around,
        check_key__in={reading.check for reading in new},
        position_key__in={reading.position for reading in new},
        state=Reading.State.WITHDRAWN,
    )
    known, withdrawn = dict[uuid.UUID, tuple[uuid.UUID, str, str]](), dict[Pair, dt.datetime]()
    for key, owner, check, position, state, taken_at in same.union(opened.order_by().values_list(*columns)):
        if key in mine:
            known[key] = owner, check, position
        if state == Reading.State.WITHDRAWN and owner == walk_around.pk:
            withdrawn[check, position] = max(taken_at, withdrawn.get((check, position), taken_at))
    return known, withdrawn


def where(walk_around: WalkAround, check_key: str, position_key: str) -> tuple[Check, positions.Position]:
    """The check and the position that these keys stand for in a walk-around. Raises BadInput."""
    book = rule_books.opened(walk_around.rule_book_id)
    check = book.family.checks.get(check_key)
    if check is None or not in_force.belongs(check, rule_books.scope_of(walk_around)):
        raise BadInput("check", "is not part of this walk-around")
    for position in positions.expand(check.per, walk_around.layout):
        if position.key == position_key:
            return check, position
    raise BadInput("position", "is not on this machine")


def understood(member: Member, walk_around: WalkAround) -> Callable[[NewReading], None]:
    """A check of readings before they are recorded: raises BadInput for what recording would refuse, and writes nothing."""
    recording = _Recording(member, walk_around, rule_books.opened(walk_around.rule_book_id))

    def check(new: NewReading) -> None:
        recording._typed(new)

    return check


@dataclass
class _Typed:
    """One reading that was understood, on its way in."""

    new: NewReading
    check: Check
    position: positions.Position
    value: Value

    @property
    def pair(self) -> Pair:
        return self.check.key, self.position.key


class _Recording:
    """Readings on their way in. The verdict rows around them are read once, changed in memory and written once."""

    def __init__(self, member: Member, walk_around: WalkAround, book: CoreBook) -> None:
        self.member, self.walk_around, self.book = member, walk_around, book
        self.checks = book.family.checks
        self.rows: dict[Pair, Verdict] = {}
        self.called = False
        self.watched: set[Pair] = set()
        self._logs: dict[str, list[Past]] = {}
        self.expected: dict[Pair, Expected] = {}

    def write(self, new: Sequence[NewReading], withdrawn: Mapping[Pair, dt.datetime]) -> Changed:
        """withdrawn: when places that are typed were last opened again."""
        typed = [self._typed(reading) for reading in new]
        touched = {one.check.key for one in typed}
        dependents = rule_books.looking_at(self.walk_around.rule_book_id, touched)
        self._read_rows(dependents, typed)
        new_here = {one.pair for one in typed if one.pair not in self.rows}
        open_here = new_here | {one.pair for one in typed if one.pair in self.rows and self.rows[one.pair].ask}
        readings = self._append(typed)
        pairs = [self._settle(one, reading, withdrawn.get(one.pair)) for one, reading in zip(typed, readings, strict=True)]
        pairs = list(dict.fromkeys(pairs))
        anew = self._all_read({key for key, _ in open_here if self.checks[key].wears}, pairs)
        if anew:
            self._read_more(Q(check_key__in=anew))
        rejudged = [pair for pair in self.rows if pair in pairs or self._concerned(pair, pairs, anew)]
        self.expected = expected_at(self.walk_around, self.book, self.rows, rejudged, pairs, anew=anew)
        changed = pairs + [pair for pair in rejudged if self._judge(pair, pair in pairs) and pair not in pairs]
        self._write_rows(changed)
        # Nobody has decided anything at a place that was never read before.
        parts = self.called or decided_to_do(self.walk_around, self.watched - (new_here - withdrawn.keys()))
        if parts:
            refresh_parts(self.walk_around, self.book)
        return Changed(self.walk_around, changed, parts, [self.rows[pair] for pair in changed if pair in self.rows])

    def rejudge(self, checks: set[str]) -> None:
        """Judge all positions of these checks by what stands now."""
        self._read_rows(checks, [])
        self.expected = expected_at(self.walk_around, self.book, self.rows, list(self.rows), list(self.rows), anew=checks)
        self._write_rows([pair for pair in self.rows if self._judge(pair)])

    def judge_all(self) -> None:
        """Judge the rows that are at hand, whatever stood before, and write them."""
        self.expected = expected_at(self.walk_around, self.book, self.rows, list(self.rows), list(self.rows), anew=self.checks)
        for pair in self.rows:
            self._judge(pair)
        self._write_rows(list(self.rows))

    def _typed(self, new: NewReading) -> _Typed:
        check, position = where(self.walk_around, new.check, new.position)
        if new.state == Reading.State.NOT_SEEN and not new.reason.strip():
            raise BadInput("reason", "say why it was not seen")
        value = Value()
        if new.state == Reading.State.SEEN:
            value = self._understood(check, new)
            if new.bulk and not in_force.seen_in_bulk(check, value.choice):
                raise BadInput("bulk", "is looked at or measured by itself")
        return _Typed(new, check, position, value)

    def _understood(self, check: Check, new: NewReading) -> Value:
        unit: System = "in" if self._units(new) == "in" else "mm"
        try:
            return parse_reading(check, new.raw, new.feeler, unit, self._feelers(check))
        except BadInput as problem:
            measured = problem.field.startswith("raw.") and not check.rule.states()
            figures = plausible.run_together(check, new.raw, unit) if measured else []
            if figures:
                raise RunTogether(problem.field, figures) from None
            raise

    def _units(self, new: NewReading) -> str:
        return new.units or self.member.units

    def _feelers(self, check: Check) -> dict[str, float]:
        """The shop's own feelers by name, where the check is made with one."""
        return self._own_feelers if check.rule.by_feeler else {}

    @cached_property
    def _own_feelers(self) -> dict[str, float]:
        return {name.lower(): mm for name, mm in self.member.shop.feelers.values_list("name", "thickness_mm")}

    def _log(self, check: Check) -> list[Past]:
        """What was read on this machine of a check and those that it looks at, oldest first, under rules alike today's."""
        if check.key not in self._logs:
            self._logs[check.key] = self._read_log(check)
        return self._logs[check.key]

    def _read_log(self, check: Check) -> list[Past]:
        keys = rule_books.ever(verdicts.needs(check) | {check.key})
        rows = Reading.objects.filter(
            walk_around__machine=self.walk_around.machine_id,
            walk_around__discarded_at=None,
            check_key__in=keys,
            state=Reading.State.SEEN,
        )
        listed = rows.order_by("id").values_list(
            "check_key", "position_key", "value", "walk_around_id", "walk_around__rule_book_id"
        )
        alike = {book for book in {row[4] for row in listed} if _alike(book, check)}
        return [Past(keys[key], place, Value(**value), visit) for key, place, value, visit, book in listed if book in alike]

    def _moved(self, check: Check, pair: Pair, reading: Reading) -> bool:
        """Whether what a check rests on was changed at this row, not only counted, after it was read."""
        row = positions.find(pair[1]).row or 0
        places = [(check.rule.undone_by(), key) for key in positions.of_row(row)]
        newer = [
            self.rows[place].reading
            for place in places
            if place in self.rows and _order(self.rows[place].reading) > _order(reading)
        ]
        return any(
            one.replaces is not None and one.replaces.value.get("numbers") not in (None, one.value.get("numbers"))
            for one in newer
        )

    def _all_read(self, checks: set[str], typed: Collection[Pair]) -> set[str]:
        """Those of these checks of which every place has been read now; what waits for an answer has not, unless it was just
        typed."""
        if not checks:
            return set()
        stored = Verdict.objects.filter(walk_around=self.walk_around, check_key__in=checks, ask="")
        read = {*stored.values_list("check_key", "position_key"), *(pair for pair in typed if pair in self.rows)}
        return {
            key
            for key in checks
            if all((key, place.key) in read for place in positions.expand(self.checks[key].per, self.walk_around.layout))
        }

    def _read_more(self, wanted: Q) -> None:
        """What stands at these places, beside what is at hand."""
        rows = Verdict.objects.filter(wanted, walk_around=self.walk_around).select_related("reading__replaces")
        self.rows = {(row.check_key, row.position_key): row for row in rows} | self.rows

    def _concerned(self, pair: Pair, typed: Collection[Pair], anew: Collection[str]) -> bool:
        """Whether a place is to be judged again because of what was typed at others."""
        check, row = self.checks[pair[0]], self.rows[pair]
        if pair[0] in anew and not row.ask:
            return True
        return any(verdicts.concerns(check, pair[1], key, place) for key, place in typed)

    def _read_rows(self, judged: set[str], typed: Sequence[_Typed]) -> None:
        """What stands at the places that are typed, at the checks to be judged anew, and at what their rules look at.

        Of rules that look no further than their row only the rows that were typed.
        """
        touched = {one.check.key for one in typed}
        everywhere, in_row = set[str](), set[str]()
        for key in judged | touched:
            reach = verdicts.looks_at(self.checks[key])
            wide = not typed or "all" in reach.values()
            if key in judged:
                (everywhere if wide else in_row).add(key)
            for other, far in reach.items():
                (everywhere if wide or far == "all" else in_row).add(other)
        here = {one.position.key for one in typed}
        around = {key for one in typed if one.position.row for key in positions.of_row(one.position.row)} | here
        wanted = Q(check_key__in=everywhere) | Q(check_key__in=in_row - everywhere, position_key__in=around)
        self._read_more(wanted | Q(check_key__in=touched - everywhere - in_row, position_key__in=here))

    def _append(self, typed: Sequence[_Typed]) -> list[Reading]:
        newest = {pair: row.reading for pair, row in self.rows.items()}
        now, readings = timezone.now(), []
        for one in typed:
            had = newest.get(one.pair)
            taken_at = min(one.new.taken_at or now, now)
            reading = Reading(
                uuid=one.new.uuid,
                walk_around=self.walk_around,
                check_key=one.check.key,
                position_key=one.position.key,
                kind=one.check.kind,
                state=one.new.state,
                raw=one.new.raw,
                value=columns_of(one.value),
                feeler=one.new.feeler,
                units=self._units(one.new),
                reason=one.new.reason.strip(),
                note=one.new.note.strip(),
                confirmed=one.new.confirmed,
                bulk=one.new.bulk,
                posture=one.new.posture,
                taken_at=taken_at,
                by=self.member.user,
                replaces=had if had and had.taken_at <= taken_at else None,
            )
            readings.append(reading)
        return Reading.objects.bulk_create(readings)

    def _settle(self, one: _Typed, reading: Reading, withdrawn: dt.datetime | None) -> Pair:
        """Point the position's verdict at the reading that was typed last, whatever arrived last; judging follows when all
        stand.

        withdrawn: when somebody last opened this place again.
        """
        row = self.rows.get(one.pair)
        if row is not None and row.reading.taken_at > reading.taken_at:
            if reading.state != Reading.State.WITHDRAWN:
                row.overtaken = reading
            return one.pair
        if row is None and withdrawn is not None and withdrawn > reading.taken_at:
            return one.pair
        if row is not None:
            self._may_call(one.pair, row.severity)
        if reading.state == Reading.State.WITHDRAWN:
            if row and row.pk:
                row.delete()
            self.rows.pop(one.pair, None)
            return one.pair
        if row is None:
            row = Verdict(walk_around=self.walk_around, check_key=one.check.key, position_key=one.position.key)
            row.station_key = self.book.station_of[one.check.key].key
        else:
            row.overtaken = row.reading if row.reading.by_id != reading.by_id else None
        row.reading = reading
        self.rows[one.pair] = row
        return one.pair

    def _may_call(self, pair: Pair, severity: str) -> None:
        """Note that parts may hang on a place: surely where it is due, where it is watched only if somebody decided to renew
        early."""
        if severity == "watch":
            self.watched.add(pair)
        self.called |= severity in ("due", "stop")

    def _judge(self, pair: Pair, typed: bool = True) -> bool:
        """Judge a position by what stands now; True if its verdict is another than before.

        Of a place that was not typed now, only another severity or question counts as another verdict: its neighbours' readings
        move its expected value by a hair. `settle` brings all figures up to date.
        """
        row, check = self.rows[pair], self.checks[pair[0]]
        if row.reading.state == Reading.State.NOT_SEEN:
            return _fill(row, "not-seen", core.Verdict("sound", "none", f"Not seen: {row.reading.reason}"))
        if row.reading.state == Reading.State.DOES_NOT_APPLY:
            because = f": {row.reading.reason}" if row.reading.reason else ""
            return _fill(row, "does-not-apply", core.Verdict("sound", "none", f"Does not apply{because}."))
        needed, wants = verdicts.needs(check), check.rule.wants
        typed_in: System = "in" if row.reading.units == "in" else "mm"
        others: dict[str, dict[str, Value]] = {key: {} for key in needed}
        for (key, place), other in self.rows.items():
            if key in needed and other.reading.state == Reading.State.SEEN and not other.ask:
                others[key][place] = value_of(other.reading)
        context = verdicts.Context(
            system=typed_in,
            typed_in=typed_in,
            confirmed=row.reading.confirmed,
            typed=row.reading.raw,
            others=others,
            rules={key: self.checks[key].rule for key in needed if key in self.checks},
            log=self._log(check) if "log" in wants else (),
            moved=bool(check.rule.undone_by()) and self._moved(check, pair, row.reading),
            schools=self.book.schools,
            feelers={**FEELERS_MM, **self._own_feelers} if "feelers" in wants else FEELERS_MM,
            track_rows=self.walk_around.machine.track_rows if "track-rows" in wants else (),
            counter_h=self.walk_around.machine.hours if "counter" in wants else None,
            today=self.walk_around.started_at.date(),
            expected=self.expected.get(pair),
        )
        position, value = positions.find(pair[1]), value_of(row.reading)
        verdict = verdicts.judge(check, position, value, context)
        severity_before = row.severity
        if not typed and pair in self.expected and (row.severity, row.ask) == (verdict.severity, verdict.ask):
            return False
        elsewhere = verdicts.judge(check, position, value, replace(context, system="mm" if typed_in == "in" else "in"))
        changed = _fill(row, verdict.severity, verdict, elsewhere)
        if changed:
            self._may_call(pair, severity_before)
            self._may_call(pair, row.severity)
        return changed

    def _write_rows(self, pairs: Sequence[Pair]) -> None:
        rows = [self.rows[pair] for pair in pairs if pair in self.rows]
        new = [row for row in rows if row.pk is None]
        had = [row for row in rows if row.pk is not None]
        if new:
            Verdict.objects.bulk_create(new)
        if len(had) == 1:
            had[0].save(update_fields=VERDICT_COLUMNS)  # the usual case, and cheaper than a bulk of one
        elif had:
            Verdict.objects.bulk_update(had, VERDICT_COLUMNS)


def _order(reading: Reading) -> tuple[dt.datetime, int]:
    """The order in which readings were typed."""
    return reading.taken_at, reading.pk


@transaction.atomic
def rebuild(member: Member, walk_around: WalkAround) -> None:
    """Make every verdict of a walk-around anew from its readings alone: at each place the one typed last is in force."""
    book = rule_books.opened(walk_around.rule_book_id)
    newest = {(one.check_key, one.position_key): one for one in walk_around.readings.order_by("taken_at", "id")}
    Verdict.objects.filter(walk_around=walk_around).delete()
    recording = _Recording(member, walk_around, book)
    for pair, reading in newest.items():
        if reading.state != Reading.State.WITHDRAWN:
            station = book.station_of[pair[0]].key
            recording.rows[pair] = Verdict(
                walk_around=walk_around, check_key=pair[0], position_key=pair[1], station_key=station, reading=reading
            )
    recording.judge_all()
    refresh_parts(walk_around, book)


@transaction.atomic
def recompute(walk_around: WalkAround) -> None:
    """Judge every position again from its reading and the walk-around's own rule book, and bring the parts in step."""
    book = rule_books.opened(walk_around.rule_book_id)
    _Recording(walk_around.started_by.member, walk_around, book).rejudge(set(book.family.checks))
    refresh_parts(walk_around, book)


@transaction.atomic
def settle(member: Member, walk_around_id: uuid.UUID) -> None:
    """Before a walk-around closes: every place that wears is judged by all that was read, its neighbours' readings too."""
    walk_around = lock(member, walk_around_id)
    if walk_around.finished_at is None:
        book = rule_books.opened(walk_around.rule_book_id)
        _Recording(member, walk_around, book).rejudge({key for key, check in book.family.checks.items() if check.wears})
        refresh_parts(walk_around, book)


def _alike(rule_book_id: int, check: Check) -> bool:
    """Whether what was read under the rule book of another walk-around teaches something for a check as it is today."""
    checks = rule_books.opened(rule_book_id).family.checks
    then = next((checks[key] for key in rule_books.ever([check.key]) if key in checks), None)
    return then is not None and check.rule.alike(then.rule)


VERDICT_COLUMNS = [
    "reading",
    "overtaken",
    "severity",
    "action",
    "reason",
    "why",
    "facts",
    "used",
    "ask",
    "instead",
    "split",
    "advice",
    "elsewhere",
]


def words_of(verdict: core.Verdict) -> dict[str, object]:
    """What of a verdict is in its reader's units."""
    words = {"reason": verdict.reason, "why": verdict.why, "ask": verdict.ask, "instead": verdict.instead}
    return words | {"advice": structure.write(verdict.advice), "facts": structure.write(verdict.facts) if verdict.facts else {}}


def _fill(row: Verdict, severity: str, verdict: core.Verdict, elsewhere: core.Verdict | None = None) -> bool:
    """Put a verdict of the core into its row; True if that changed anything. elsewhere: the same for readers of other units."""
    columns = {
        "severity": severity,
        "action": verdict.action,
        "reason": verdict.reason,
        "why": verdict.why,
        "facts": structure.write(verdict.facts) if verdict.facts else {},
        "used": verdict.used,
        "ask": verdict.ask,
        "instead": verdict.instead,
        "split": verdict.split,
        "advice": structure.write(verdict.advice),
        "elsewhere": words_of(elsewhere) if elsewhere else {},
    }
    before = [getattr(row, name) for name in columns]
    for name, value in columns.items():
        setattr(row, name, value)
    return before != list(columns.values())
