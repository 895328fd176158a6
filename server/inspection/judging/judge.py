"""Judging places by what stands now. The verdict rows around them are read once, changed in memory and written once."""

import datetime as dt
from collections.abc import Collection, Sequence
from dataclasses import replace
from functools import cached_property

from django.db.models import Q

from lumvek_core import positions, structure
from lumvek_core.calculators.opener import FEELERS_MM
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement import verdicts
from lumvek_core.judgement.context import Expected, Past
from lumvek_core.judgement.parse_reading import Value
from lumvek_core.rules import verdict as core
from lumvek_core.units import System

from ..models import Reading, Verdict, WalkAround
from ..queries import rule_books
from ..queries.decisions import decided_to_do
from ..queries.values import value_of
from .expected_values import Pair, expected_at
from .tallies import state_of
from .typed_readings import Typed, feelers_of


class Judging:
    """The places of one walk-around that are being judged. rows: what stands there, by check and place; stood: how it
    stood when it was read.

    called: something was found, or is gone, that parts may hang on; watched: places where that depends on what was decided.
    """

    def __init__(self, walk_around: WalkAround, book: CoreBook) -> None:
        self.walk_around, self.book = walk_around, book
        self.checks = book.family.checks
        self.rows: dict[Pair, Verdict] = {}
        self.stood: dict[Pair, str] = {}
        self.called = False
        self.watched: set[Pair] = set()
        self._logs: dict[str, list[Past]] = {}
        self.expected: dict[Pair, Expected] = {}

    def judge_around(self, typed: Sequence[Pair], opened: Collection[Pair]) -> list[Pair]:
        """Judge the places that were typed and those that this concerns: returns them and whatever is judged otherwise now.

        opened: typed places that were open before. Where the last of like places was read, all of them are judged anew.
        """
        anew = self._all_read({key for key, _ in opened if self.checks[key].wears}, typed)
        if anew:
            self._read_more(Q(check_key__in=anew))
        again = [pair for pair in self.rows if pair in typed or self._concerned(pair, typed, anew)]
        self.expected = expected_at(self.walk_around, self.book, self.rows, again, typed, anew=anew)
        changed = [*typed, *(pair for pair in again if self._judge(pair, pair in typed) and pair not in typed)]
        self._write_rows(changed)
        return changed

    def calls_for_parts(self, never_decided: Collection[Pair] = ()) -> bool:
        """Whether parts hang on anything that is judged otherwise now."""
        return self.called or decided_to_do(self.walk_around, self.watched - set(never_decided))

    def rejudge(self, checks: set[str]) -> None:
        """Judge all positions of these checks by what stands now."""
        self.read_rows(checks, [])
        self.expected = expected_at(self.walk_around, self.book, self.rows, list(self.rows), list(self.rows), anew=checks)
        self._write_rows([pair for pair in self.rows if self._judge(pair)])

    def judge_all(self) -> None:
        """Judge the rows that are at hand, whatever stood before, and write them."""
        self.expected = expected_at(self.walk_around, self.book, self.rows, list(self.rows), list(self.rows), anew=self.checks)
        for pair in self.rows:
            self._judge(pair)
        self._write_rows(list(self.rows))

    def read_rows(self, judged: set[str], typed: Sequence[Typed]) -> None:
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

    def _read_more(self, wanted: Q) -> None:
        """What stands at these places, beside what is at hand."""
        rows = Verdict.objects.filter(wanted, walk_around=self.walk_around).select_related("reading__replaces")
        for row in rows:
            pair = row.check_key, row.position_key
            self.rows.setdefault(pair, row)
            self.stood.setdefault(pair, state_of(row))

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

    def _concerned(self, pair: Pair, typed: Collection[Pair], anew: Collection[str]) -> bool:
        """Whether a place is to be judged again because of what was typed at others."""
        check, row = self.checks[pair[0]], self.rows[pair]
        if pair[0] in anew and not row.ask:
            return True
        return any(verdicts.concerns(check, pair[1], key, place) for key, place in typed)

    def may_call(self, pair: Pair, severity: str) -> None:
        """Note that parts may hang on a place: surely where it is due, where it is watched only if somebody decided to renew
        early."""
        if severity == "watch":
            self.watched.add(pair)
        self.called |= severity in ("due", "stop") or pair[0] in self._seen_for_parts

    def _judge(self, pair: Pair, typed: bool = True) -> bool:
        """Judge a position by what stands now; True if its verdict is another than before.

        Of a place that was not typed now, only another severity or question counts as another verdict: its neighbours' readings
        move its expected value by a hair. `settle` brings all figures up to date.
        """
        row, check = self.rows[pair], self.checks[pair[0]]
        if row.reading.state == Reading.State.NOT_SEEN:
            return fill(row, "not-seen", core.Verdict("sound", "none", f"Not seen: {row.reading.reason}"))
        if row.reading.state == Reading.State.DOES_NOT_APPLY:
            because = f": {row.reading.reason}" if row.reading.reason else ""
            return fill(row, "does-not-apply", core.Verdict("sound", "none", f"Does not apply{because}."))
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
            crop=self.walk_around.crop,
            visit=self.walk_around.pk,
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
        changed = fill(row, verdict.severity, verdict, elsewhere)
        if changed:
            self.may_call(pair, severity_before)
            self.may_call(pair, row.severity)
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

    @cached_property
    def _seen_for_parts(self) -> set[str]:
        """Checks whose state decides what is renewed along with a part, sound or not."""
        return {one.seen.check for one in self.book.companions if one.seen}

    @cached_property
    def _own_feelers(self) -> dict[str, float]:
        return feelers_of(self.walk_around.shop_id)


def _order(reading: Reading) -> tuple[dt.datetime, int]:
    """The order in which readings were typed."""
    return reading.taken_at, reading.pk


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


def fill(row: Verdict, severity: str, verdict: core.Verdict, elsewhere: core.Verdict | None = None) -> bool:
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
