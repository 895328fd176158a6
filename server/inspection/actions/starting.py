"""Beginning a walk-around, and putting its visits in another order."""

import datetime as dt
import uuid
from collections.abc import Sequence

from django.db import transaction
from django.utils import timezone

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.errors import BadInput
from lumvek_core.planning import walk
from shops.access import Conflict, NotFoundHere
from shops.models import Member
from shops.rights import action, who_may

from ..judging.tallies import changed
from ..models import WalkAround, WalkAroundEvent
from ..queries import rule_books, serializers
from ..queries.preparing import Wanted, plan_json, prepare
from ..schemas import WalkAroundOut
from .locking import lock


@action("start a walk-around")
def start(
    member: Member,
    machine: Machine,
    walk_around_id: uuid.UUID,
    wanted: Wanted | None = None,
    at: dt.datetime | None = None,
    why: str = "",
) -> WalkAround:
    """Begin a walk-around, or return it if this UUID has begun one already.

    at: when that was, where it was begun without a connection; never later than now. why: it is begun though another one is
    under way; kept as its first event.
    """
    existing = WalkAround.objects.filter(pk=walk_around_id).first()
    if existing:
        if existing.shop_id != member.shop_id or existing.machine_id != machine.pk:
            raise NotFoundHere("There is no such walk-around.")
        return existing
    wanted, now = wanted or Wanted(), timezone.now()
    ready = prepare(member, machine, wanted)
    people = {member, *who_may(Member.objects.of(member), "record readings").filter(pk__in=list(wanted.people))}
    begun = WalkAround.objects.create(
        id=walk_around_id,
        shop=member.shop,
        machine=machine,
        rule_book=ready.stored,
        phase=wanted.phase,
        crop=wanted.crop,
        header_families=list(ready.scope.headers),
        layout=ready.layout,
        plan=plan_json(ready.route),
        options=list(ready.scope.options),
        stations=_stations(ready.book, {check.key for check in ready.checks}, ready.layout),
        left_out=ready.left_out,
        started_at=min(at or now, now),
        started_by=member.user,
    )
    begun.headers.set(ready.headers)
    begun.people.set(people)
    if why.strip():
        WalkAroundEvent.objects.create(
            uuid=uuid.uuid5(walk_around_id, "begun"),
            walk_around=begun,
            kind=WalkAroundEvent.Kind.BEGUN,
            version=begun.version,
            reason=why.strip(),
            by=member.user,
            at=begun.started_at,
        )
    return begun


@action("start a walk-around")
def as_if_begun(member: Member, machine: Machine, wanted: Wanted) -> WalkAroundOut:
    """What its screen would show if a walk-around began now, to begin it where there is no signal. Nothing of it stays."""
    begun = start(member, machine, uuid.uuid4(), wanted)
    shown = serializers.walk_around(begun, rule_books.opened(begun.rule_book_id), member)
    transaction.set_rollback(True)
    return shown


@action("start a walk-around")
def take_in(member: Member, walk_around_id: uuid.UUID) -> WalkAround:
    """Take in what the round left out; doing it twice is the same as once. Raises NotFoundHere, Conflict."""
    walk_around = lock(member, walk_around_id)
    if walk_around.finished_at or walk_around.discarded_at:
        raise Conflict("This walk-around is closed.")
    book = rule_books.opened(walk_around.rule_book_id)
    left = {key for one in walk_around.left_out for key in one["checks"]}
    if left:
        belongs = rule_books.planned_in(walk_around) | left
        checks = [check for check in book.family.checks.values() if check.key in belongs]
        walk_around.plan = plan_json(walk.plan(book, checks, rule_books.shipped().safety.moves))
        walk_around.stations = _stations(book, belongs, walk_around.layout)
        walk_around.left_out = []
        walk_around.save(update_fields=["plan", "stations", "left_out"])
        changed(walk_around)
    return walk_around


def _stations(book: RuleBook, belongs: set[str], layout: positions.Layout) -> list[dict[str, object]]:
    """Stations a walk-around comes to, with the number of places to look at and the checks that may be left out."""
    found: list[dict[str, object]] = []
    for station in walk.stations_of(book, list(belongs)):
        checks = [check for check in station.checks if check.key in belongs]
        total = sum(len(positions.expand(check.per, layout)) for check in checks if not check.optional)
        optional = [check.key for check in checks if check.optional]
        found.append({"key": station.key, "name": station.name, "total": total, "optional": optional})
    return found


@action("change the order")
def reorder(member: Member, walk_around_id: uuid.UUID, order: Sequence[int]) -> WalkAround:
    """Put the visits of the plan in another order. order: the numbers the visits have now. Raises BadInput, NotFoundHere."""
    walk_around = lock(member, walk_around_id)
    visits = walk_around.plan["visits"]
    if sorted(order) != list(range(len(visits))):
        raise BadInput("order", "must name every visit once")
    given = [visits[i] for i in order]
    minutes = walk.minutes_of(
        [visit["posture"] for visit in given], rule_books.opened(walk_around.rule_book_id), rule_books.shipped().safety.moves
    )
    for visit, (cost, via) in zip(given, minutes, strict=True):
        visit |= {"minutes": cost, "via": via}
    walk_around.plan = walk_around.plan | {"visits": given, "minutes": sum(cost for cost, _ in minutes)}
    walk_around.save(update_fields=["plan"])
    return walk_around
