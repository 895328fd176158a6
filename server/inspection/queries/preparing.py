"""A walk-around before it begins: its rule book, which checks belong to it, the route through its postures."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from typing import Any

from fleet.models import Machine
from fleet.queries.machines import machines_for
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rounds import CHANGEOVER, FAULT
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.planning import walk
from lumvek_core.planning.route import Route
from shops.access import Conflict
from shops.models import Member

from ..models import RuleBook
from . import changeover, rounds, rule_books
from .coupled import long


@dataclass(frozen=True)
class Wanted:
    """What a walk-around is to be: phase, crop (empty for any), headers (machines) and people (members) by id.

    take_in: also what its round would leave out. then_crop, then_days: the crop after that, where a changeover asks. checks: of
    a fault that is traced, by their keys without a header's prefix.
    """

    phase: str = "winter"
    crop: str = ""
    headers: Sequence[int] = ()
    people: Sequence[int] = ()
    take_in: bool = False
    then_crop: str = ""
    then_days: int | None = None
    checks: Sequence[str] = ()


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
    left_out: list[dict[str, Any]] = field(default_factory=list)


@dataclass(frozen=True)
class Scoped:
    """A machine with its headers, the rule book for them, and everything that may belong to such a walk-around."""

    machine: Machine
    headers: list[Machine]
    stored: RuleBook
    book: CoreBook
    scope: in_force.Scope
    checks: list[Check]
    layout: dict[str, int | list[str]]


def scope(member: Member, machine: Machine, wanted: Wanted) -> Scoped:
    """Compose the rule book and pick the checks. Raises BadInput, Conflict, NotFoundHere."""
    if machine.model.family not in rule_books.shipped().families:
        raise Conflict("There is no route for this kind of machine yet.")
    headers = _headers(member, wanted.headers)
    counts = {long(one, thing): n for one in [machine, *headers] for thing, n in counts_of(one).items()}
    stored = rule_books.current(machine, member.shop, headers, counts)
    book = rule_books.opened(stored.pk)
    families = rule_books.shipped().families
    options = [long(one, option) for one in [machine, *headers] for option in one.options]
    within = in_force.Scope(options, wanted.phase, wanted.crop, [header.model.family for header in headers])
    checks = in_force.applicable(book, within)
    if not checks:
        raise BadInput("phase", f"nothing is listed for {families[machine.model.family].name.lower()} at this time")
    return Scoped(machine, headers, stored, book, within, checks, in_force.layout(book, counts))


def prepare(member: Member, machine: Machine, wanted: Wanted) -> Prepared:
    """What belongs to it, what its round leaves out, and the route. Raises BadInput, Conflict, NotFoundHere."""
    of = scope(member, machine, wanted)
    machines, checks = [machine, *of.headers], of.checks
    left_out: list[dict[str, Any]] = []
    if wanted.phase == CHANGEOVER:
        crops = changeover.Crops(wanted.crop, wanted.then_crop, wanted.then_days)
        found = changeover.found(of.book, machines, checks, of.layout, crops)
        left_out = rounds.standing_right(found.right, found.kept)
        checks = [check for check in checks if check.key in changeover.listed(found)]
    elif wanted.phase == FAULT:
        checks = [check for check in checks if short(check.key) in wanted.checks]
        if not checks:
            raise BadInput("phase", "begins with a symptom")
    elif not wanted.take_in:
        left_out = rounds.left_out(machines, checks, wanted.phase, of.layout)
        without = {key for one in left_out for key in one["checks"]}
        checks = [check for check in checks if check.key not in without] or checks
    route = walk.plan(of.book, checks, rule_books.shipped().safety.moves)
    tools = list(dict.fromkeys(tool for check in checks for tool in check.tools))
    return Prepared(
        machine, of.headers, of.stored, of.book, of.scope, checks, of.layout, route, sorted(tools, key=str.lower), left_out
    )


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


def plan_json(route: Route) -> dict[str, object]:
    """A route as it is stored with its walk-around."""
    visits = [
        {"posture": visit.posture, "via": visit.via, "minutes": visit.minutes, "checks": visit.ids} for visit in route.visits
    ]
    return {"visits": visits, "minutes": route.minutes, "minutes_station_order": route.minutes_station_order}
