"""Walk-arounds of which every place was looked at and found sound: in one write, for typing them all would take minutes."""

import uuid
from collections.abc import Collection

from django.utils import timezone

from inspection.judging import tallies
from inspection.models import Reading, Verdict, WalkAround
from inspection.queries import rule_books
from lumvek_core import positions

NONE: frozenset[str] = frozenset()


def see_everything(walk_around: WalkAround, *, but: Collection[str] = NONE, apply: bool = True) -> None:
    """Every place that has no verdict is sound now, but for those of some checks. apply: False: none of them applies here, so
    that what is typed later rests on no figure of theirs."""
    state, severity = (Reading.State.SEEN, "sound") if apply else (Reading.State.DOES_NOT_APPLY, "does-not-apply")
    book = rule_books.opened(walk_around.rule_book_id)
    there = set(Verdict.objects.filter(walk_around=walk_around).values_list("check_key", "position_key"))
    open_ = [
        (check, place.key)
        for check in rule_books.checks_of(walk_around)
        for place in positions.expand(check.per, walk_around.layout)
        if check.key not in but and (check.key, place.key) not in there and not check.optional
    ]
    readings = Reading.objects.bulk_create(
        Reading(
            uuid=uuid.uuid4(),
            walk_around=walk_around,
            check_key=check.key,
            position_key=place,
            kind=check.kind,
            state=state,
            units="mm",
            taken_at=timezone.now(),
            by=walk_around.started_by,
        )
        for check, place in open_
    )
    Verdict.objects.bulk_create(
        Verdict(
            walk_around=walk_around,
            station_key=book.station_of[check.key].key,
            check_key=check.key,
            position_key=place,
            reading=reading,
            severity=severity,
            action="none",
        )
        for (check, place), reading in zip(open_, readings, strict=True)
    )
    tallies.recount(walk_around)
