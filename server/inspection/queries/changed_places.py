"""What a write changed, or what others have recorded since, as the screen follows it."""

import uuid

from lumvek_core import positions
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.errors import BadInput, RunTogether
from shops.access import Conflict
from shops.models import Member

from ..actions import recording
from ..models import WalkAround
from ..schemas import ChangedOut, PlaceKey, RefusedReadingOut
from . import parts_fitted_since, rule_books, walk_arounds
from .serializers import holds, parts


def changed(walk_around: WalkAround, book: CoreBook, member: Member, what: recording.Changed, last: int = 0) -> ChangedOut:
    """What a write changed, for the screen to follow."""
    if what.rows is None:
        now = walk_arounds.places(walk_around, book, member, what.pairs)
    else:
        names = (
            walk_arounds.names_in(member.shop_id)
            if any(row.reading.by_id != member.user_id for row in what.rows)
            else {member.user_id: member.name}
        )
        now = [
            walk_arounds.place_out(row, book, member, names, parts_fitted_since.NOTHING) for row in what.rows
        ]  # read just now
    there = {(place.check, place.position) for place in now}
    return ChangedOut(
        last=last,
        places=now,
        gone=[PlaceKey(check=pair[0], position=pair[1]) for pair in what.pairs if pair not in there],
        stations=walk_arounds.station_states(walk_around, {book.station_of[check].key for check, _ in what.pairs}),
        parts=parts(walk_around, book) if what.parts else None,
    )


def refused(reading: uuid.UUID, problem: BadInput | Conflict) -> RefusedReadingOut:
    """Why a reading was not taken, as an answer to it alone would say it."""
    if isinstance(problem, Conflict):
        return RefusedReadingOut(uuid=reading, status=409, field="", message=str(problem), figures=[])
    figures = problem.figures if isinstance(problem, RunTogether) else []
    return RefusedReadingOut(uuid=reading, status=422, field=problem.field, message=problem.message, figures=figures)


def changed_since(walk_around: WalkAround, book: CoreBook, member: Member, after: int) -> ChangedOut:
    """What anybody has recorded since a reading, with what was judged anew because of it."""
    last = walk_arounds.last_reading(walk_around)
    pairs = walk_arounds.read_since(walk_around, after)
    touched = {check for check, _ in pairs}
    like_places = {check for check in touched if book.family.checks[check].wears}
    dependent = rule_books.looking_at(walk_around.rule_book_id, touched) | like_places
    judged_anew = {
        (check.key, p.key)
        for check in rule_books.checks_of(walk_around)
        if check.key in dependent
        for p in positions.expand(check.per, walk_around.layout)
    }
    out = changed(walk_around, book, member, recording.Changed(walk_around, [*(pairs | judged_anew)], parts=bool(pairs)), last)
    out.holds = holds(walk_around)
    return out
