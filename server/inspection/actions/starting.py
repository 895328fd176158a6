"""Beginning a walk-around: which checks belong to it, and in which order of postures."""

import uuid
from collections.abc import Sequence
from dataclasses import dataclass, field

from django.db import transaction
from django.utils import timezone

from fleet.models import Machine
from fleet.queries.machines import machines_for
from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.errors import BadInput
from lumvek_core.planning import walk
from lumvek_core.planning.route import Route
from shops.access import INSPECTORS, Conflict, NotFoundHere
from shops.models import Member

from ..models import RuleBook, WalkAround
from ..queries import rule_books
from ..queries.coupled import long
from .services import lock


@dataclass(frozen=True)
class Wanted:
    """What a walk-around is to be: phase, crop (empty for any), headers (machines) and people (members) by id."""

    phase: str = "winter"
    crop: str = ""
    headers: Sequence[int] = ()
    people: Sequence[int] = ()


@dataclass(frozen=True)
class Prepared:
    """A walk-around before it begins."""

    machine: Machine
    headers: list[Machine]
    stored: RuleBook
    book: CoreBook
    scope: in_force.Scope
    checks: list[Check]
    layout: dict[str, int | list[str]]
    route: Route
    tools: list[str] = field(default_factory=list)


def prepare(member: Member, machine: Machine, wanted: Wanted) -> Prepared:
    """Compose the rule book, pick the checks and plan the route. Raises BadInput, Conflict, NotFoundHere."""
    if machine.model.family not in rule_books.shipped().families:
        raise Conflict("There is no route for this kind of machine yet.")
    headers = _headers(member, wanted.headers)
    stored = rule_books.current(machine, member.shop, headers)
    book = rule_books.opened(stored.pk)
    families = rule_books.shipped().families
    options = [long(one, option) for one in [machine, *headers] for option in one.options]
    scope = in_force.Scope(options, wanted.phase, wanted.crop, [header.model.family for header in headers])
    checks = in_force.applicable(book, scope)
    if not checks:
        raise BadInput("phase", f"nothing is listed for {families[machine.model.family].name.lower()} at this time")
    counts = {long(one, thing): n for one in [machine, *headers] for thing, n in counts_of(one).items()}
    layout = in_force.layout(book, counts)
    route = walk.plan(book, checks, rule_books.shipped().safety.moves)
    tools = list(dict.fromkeys(tool for check in checks for tool in check.tools))
    return Prepared(machine, headers, stored, book, scope, checks, layout, route, sorted(tools, key=str.lower))


def counts_of(machine: Machine) -> dict[str, int]:
    """How many of each thing this machine has, where it is not what the family says."""
    family = rule_books.shipped().families[machine.model.family]
    rows = {"row": machine.rows} if machine.rows and any(key.endswith("row") for key in family.things) else {}
    return {**machine.model.counts, **rows}


def _headers(member: Member, ids: Sequence[int]) -> list[Machine]:
    found = {machine.pk: machine for machine in machines_for(member).filter(pk__in=list(ids))} if ids else {}
    missing = [str(pk) for pk in ids if pk not in found]
    if missing:
        raise BadInput("headers", "is not a machine of this shop")
    return [found[pk] for pk in dict.fromkeys(ids)]


@transaction.atomic
def start(member: Member, machine: Machine, walk_around_id: uuid.UUID, wanted: Wanted | None = None) -> WalkAround:
    """Begin a walk-around, or return it if this UUID has begun one already."""
    existing = WalkAround.objects.filter(pk=walk_around_id).first()
    if existing:
        if existing.shop_id != member.shop_id or existing.machine_id != machine.pk:
            raise NotFoundHere("There is no such walk-around.")
        return existing
    wanted = wanted or Wanted()
    ready = prepare(member, machine, wanted)
    people = {member, *Member.objects.filter(shop=member.shop_id, pk__in=list(wanted.people), role__in=INSPECTORS)}
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
        stations=_stations(ready),
        started_at=timezone.now(),
        started_by=member.user,
    )
    begun.headers.set(ready.headers)
    begun.people.set(people)
    return begun


def plan_json(route: Route) -> dict[str, object]:
    """A route as it is stored with its walk-around."""
    visits = [
        {"posture": visit.posture, "via": visit.via, "minutes": visit.minutes, "checks": visit.ids} for visit in route.visits
    ]
    return {"visits": visits, "minutes": route.minutes, "minutes_station_order": route.minutes_station_order}


def _stations(ready: Prepared) -> list[dict[str, object]]:
    """Stations this walk-around comes to, with the number of places to look at and the checks that may be left out."""
    belongs = {check.key for check in ready.checks}
    found: list[dict[str, object]] = []
    for station in walk.stations_of(ready.book, list(belongs)):
        checks = [check for check in station.checks if check.key in belongs]
        total = sum(len(positions.expand(check.per, ready.layout)) for check in checks if not check.optional)
        optional = [check.key for check in checks if check.optional]
        found.append({"key": station.key, "name": station.name, "total": total, "optional": optional})
    return found


@transaction.atomic
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
