"""Judging a whole walk-around again: from its readings alone, by its rule book, or before it closes."""

import uuid

from django.db import transaction

from shops.models import Member

from ..actions.locking import lock
from ..actions.parts_in_step import refresh_parts
from ..models import Reading, Verdict, WalkAround
from ..queries import rule_books
from .judge import Judging
from .tallies import recount


@transaction.atomic
def rebuild(walk_around: WalkAround) -> None:
    """Make every verdict of a walk-around anew from its readings alone: at each place the one typed last is in force."""
    book = rule_books.opened(walk_around.rule_book_id)
    newest = {(one.check_key, one.position_key): one for one in walk_around.readings.order_by("taken_at", "id")}
    Verdict.objects.filter(walk_around=walk_around).delete()
    judging = Judging(walk_around, book)
    for pair, reading in newest.items():
        if reading.state != Reading.State.WITHDRAWN:
            station = book.station_of[pair[0]].key
            judging.rows[pair] = Verdict(
                walk_around=walk_around, check_key=pair[0], position_key=pair[1], station_key=station, reading=reading
            )
    judging.judge_all()
    recount(walk_around)
    refresh_parts(walk_around, book)


@transaction.atomic
def recompute(walk_around: WalkAround) -> None:
    """Judge every position again from its reading and the walk-around's own rule book, and bring the parts in step."""
    book = rule_books.opened(walk_around.rule_book_id)
    Judging(walk_around, book).rejudge(set(book.family.checks))
    recount(walk_around)
    refresh_parts(walk_around, book)


@transaction.atomic
def settle(member: Member, walk_around_id: uuid.UUID) -> None:
    """Before a walk-around closes: every place that wears is judged by all that was read, its neighbours' readings too."""
    walk_around = lock(member, walk_around_id)
    if walk_around.finished_at is None:
        book = rule_books.opened(walk_around.rule_book_id)
        Judging(walk_around, book).rejudge({key for key, check in book.family.checks.items() if check.wears})
        recount(walk_around)
        refresh_parts(walk_around, book)
