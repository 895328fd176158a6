"""Recording readings: appended once, judged at once, with everything that rests on them."""

import datetime as dt
import uuid
from collections.abc import Mapping, Sequence
from contextlib import suppress
from dataclasses import dataclass

from django.utils import timezone

from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.errors import BadInput
from shops.access import Conflict
from shops.models import Member
from shops.rights import action

from ..judging.expected_values import Pair
from ..judging.judge import Judging
from ..judging.tallies import follow
from ..judging.typed_readings import NewReading, Typed, Understanding
from ..models import Reading, Verdict, WalkAround
from ..queries import rule_books
from ..queries.values import columns_of
from .locking import lock, running
from .parts_in_step import refresh_parts


@dataclass
class Changed:
    """What recording changed: (check, position) pairs with another verdict, and whether the parts lines moved.

    rows: the verdicts of those pairs where they are at hand; None where they are to be read again.
    """

    walk_around: WalkAround
    pairs: list[Pair]
    parts: bool
    rows: list[Verdict] | None = None


def together(walk_around: WalkAround, changed: Sequence[Changed]) -> Changed:
    """What several writes to one walk-around changed, one after the other."""
    if len(changed) == 1:
        return changed[0]
    pairs = dict.fromkeys(pair for one in changed for pair in one.pairs)
    return Changed(walk_around, list(pairs), any(one.parts for one in changed))


@action("record readings", atomic=False)
def record_reading(member: Member, walk_around_id: uuid.UUID, new: NewReading) -> Changed:
    """Append one reading; see `record_readings`."""
    return record_readings(member, walk_around_id, [new])


@action("record readings")
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


@action("record readings", atomic=False)
def record_each(
    member: Member, walk_around_id: uuid.UUID, new: Sequence[NewReading]
) -> tuple[list[Changed], dict[uuid.UUID, BadInput | Conflict]]:
    """Append readings that waited on a device, each for itself: what is refused holds up none of the others.

    Returns what changed, and the refused by their UUIDs with the reason. Raises NotFoundHere.
    """
    # All in one go, as long as none rests on another of them and none is refused.
    if len({(reading.check, reading.position) for reading in new}) == len({reading.uuid for reading in new}) == len(new):
        with suppress(BadInput, Conflict):
            return [record_readings(member, walk_around_id, new)], {}
    taken, refused = list[Changed](), dict[uuid.UUID, BadInput | Conflict]()
    for reading in new:
        try:
            taken.append(record_readings(member, walk_around_id, [reading]))
        except (BadInput, Conflict) as problem:
            refused[reading.uuid] = problem
    return taken, refused


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


class _Recording:
    """Readings on their way in."""

    def __init__(self, member: Member, walk_around: WalkAround, book: CoreBook) -> None:
        self.member, self.walk_around, self.book = member, walk_around, book
        self.understanding, self.judging = Understanding(member, walk_around), Judging(walk_around, book)

    def write(self, new: Sequence[NewReading], withdrawn: Mapping[Pair, dt.datetime]) -> Changed:
        """withdrawn: when places that are typed were last opened again."""
        typed = [self.understanding.read(reading) for reading in new]
        touched = {one.check.key for one in typed}
        dependents = rule_books.looking_at(self.walk_around.rule_book_id, touched)
        self.judging.read_rows(dependents, typed)
        rows = self.judging.rows
        new_here = {one.pair for one in typed if one.pair not in rows}
        open_here = new_here | {one.pair for one in typed if one.pair in rows and rows[one.pair].ask}
        readings = self._append(typed)
        settled = [self._settle(one, reading, withdrawn.get(one.pair)) for one, reading in zip(typed, readings, strict=True)]
        changed = self.judging.judge_around(list(dict.fromkeys(settled)), open_here)
        follow(self.walk_around, self.judging.stood, rows, [(pair, self.book.station_of[pair[0]].key) for pair in changed])
        # Nobody has decided anything at a place that was never read before.
        parts = self.judging.calls_for_parts(never_decided=new_here - withdrawn.keys())
        if parts:
            refresh_parts(self.walk_around, self.book)
        return Changed(self.walk_around, changed, parts, [rows[pair] for pair in changed if pair in rows])

    def _append(self, typed: Sequence[Typed]) -> list[Reading]:
        newest = {pair: row.reading for pair, row in self.judging.rows.items()}
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
                units=self.understanding.units(one.new),
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

    def _settle(self, typed: Typed, reading: Reading, withdrawn: dt.datetime | None) -> Pair:
        """Point the position's verdict at the reading that was typed last, whatever arrived last; judging follows when all
        stand.

        withdrawn: when somebody last opened this place again.
        """
        row = self.judging.rows.get(typed.pair)
        if row is not None and row.reading.taken_at > reading.taken_at:
            if reading.state != Reading.State.WITHDRAWN:
                row.overtaken = reading
            return typed.pair
        if row is None and withdrawn is not None and withdrawn > reading.taken_at:
            return typed.pair
        if row is not None:
            self.judging.may_call(typed.pair, row.severity)
        if reading.state == Reading.State.WITHDRAWN:
            if row and row.pk:
                row.delete()
            self.judging.rows.pop(typed.pair, None)
            return typed.pair
        if row is None:
            row = Verdict(walk_around=self.walk_around, check_key=typed.check.key, position_key=typed.position.key)
            row.station_key = self.book.station_of[typed.check.key].key
        else:
            row.overtaken = row.reading if row.reading.by_id != reading.by_id else None
        row.reading = reading
        self.judging.rows[typed.pair] = row
        return typed.pair
