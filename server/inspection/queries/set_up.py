"""How machines are set up: what is fitted by crop, and what their gauges show, as it was read the last times."""

import datetime as dt
import uuid
from collections.abc import Iterable
from dataclasses import dataclass

from django.db.models import Q

from fleet.models import Machine
from lumvek_core import coupled as keys
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.judgement.parse_reading import Value

from ..models import Reading, Verdict, WalkAround
from . import coupled, rule_books
from .values import read_value

Place = tuple[str, str]
"""Check and position."""


@dataclass(frozen=True)
class Stands:
    """How one place stood at one time, under today's key of its check."""

    check: str
    position: str
    value: Value
    at: dt.datetime
    by: int
    walk_around: uuid.UUID


def checks_of(book: CoreBook) -> list[Check]:
    """The checks that record how a machine is set up, in working order."""
    return [check for check in book.family.checks.values() if check.rule.sets_up]


def read(machines: Iterable[Machine], checks: Iterable[Check], before: WalkAround | None = None) -> list[Stands]:
    """What was read at these checks of these machines, oldest first; of every walk-around what was in force at its end.

    before: only what was read before this walk-around began. One query.
    """
    return [one for mine in by_machine(machines, checks, before).values() for one in mine]


def by_machine(
    machines: Iterable[Machine], checks: Iterable[Check], before: WalkAround | None = None
) -> dict[int, list[Stands]]:
    """The same of each machine, whatever machine or header it was walked around with. One query, and none without checks."""
    prefixes = {machine.pk: coupled.prefix_of(machine) for machine in machines}
    known = rule_books.ever(check.key for check in checks)
    found: dict[int, dict[int, Stands]] = {pk: {} for pk in prefixes}
    if not known:
        return {pk: [] for pk in prefixes}
    theirs = Q(walk_around__machine__in=prefixes) | Q(walk_around__headers__in=prefixes)
    rows = Verdict.objects.filter(
        theirs, check_key__in=known, walk_around__discarded_at=None, reading__state=Reading.State.SEEN, ask=""
    )
    if before is not None:
        rows = rows.filter(walk_around__started_at__lt=before.started_at)
    listed = rows.order_by("walk_around__started_at", "reading_id").values_list(
        "walk_around__machine", "walk_around__headers", "id", "check_key", "position_key", "reading__value",
        "reading__taken_at", "reading__by", "walk_around",
    )  # fmt: skip
    for machine, header, verdict, key, place, value, at, by, visit in listed:
        for one in (machine, header):
            if prefixes.get(one) == keys.prefix_of(key) and verdict not in found[one]:
                found[one][verdict] = Stands(known[key], place, read_value(value), at, by, visit)
    return {pk: list(mine.values()) for pk, mine in found.items()}


def of_machines(machines: Iterable[Machine], check_keys: Iterable[str]) -> Q:
    """Verdicts of these machines' own checks, whatever machine or header they were walked around with."""
    mine, listed = Q(), list(check_keys)
    for machine in machines:
        prefix = coupled.prefix_of(machine)
        own = Q(check_key__in=[key for key in listed if keys.prefix_of(key) == prefix])
        mine |= own & (Q(walk_around__machine=machine) | Q(walk_around__headers=machine))
    return mine


def last_before(walk_around: WalkAround, machines: Iterable[Machine], checks: Iterable[Check]) -> dict[Place, Stands]:
    """How each place of these checks stood on these machines before a walk-around. One query, and none without checks."""
    return {(one.check, one.position): one for one in read(machines, checks, walk_around)}
