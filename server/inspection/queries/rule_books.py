"""Rule books: made when a walk-around starts, then read from the database and kept in memory, for they never change."""

import hashlib
import json
import logging
import time
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import replace
from functools import lru_cache
from typing import Any

from django.conf import settings

from fleet.models import Machine, MachineModel
from fleet.queries.machines import overrides_of
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.lists import Catalogue
from lumvek_core.catalogue.model import Check, Family
from lumvek_core.catalogue.own import with_own
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.errors import BadInput
from lumvek_core.judgement import verdicts
from shops.models import Shop

from ..models import RuleBook, WalkAround
from . import own_checks
from .own_checks import Own


class _Shipped:
    """The catalogue in memory, with the edition of its files."""

    def __init__(self) -> None:
        self.catalogue: Catalogue | None = None
        self.edition: tuple[tuple[str, int], ...] = ()
        self.looked = 0.0

    def now(self) -> Catalogue:
        if self.catalogue is None or (settings.CATALOGUE_RELOADS and time.monotonic() - self.looked > LOOK_AFTER_S):
            self.looked = time.monotonic()
            edition = tuple((str(path), path.stat().st_mtime_ns) for path in sorted(load.SHIPPED.rglob("*.yaml")))
            if edition != self.edition:
                self.edition = edition
                self._read()
        assert self.catalogue is not None  # noqa: S101 - it was read, or reading it has raised
        return self.catalogue

    def _read(self) -> None:
        """Files that make no catalogue leave the one before in force, and are told of once."""
        try:
            self.catalogue = load.load(load.SHIPPED)
        except BadInput as problem:
            if self.catalogue is None:
                raise
            logger.error("The catalogue stays as it was:\n%s", problem.message)
            return
        for cached in (_family, _in_force, _composed):
            cached.cache_clear()


LOOK_AFTER_S = 1.0
"""How often a catalogue that is being worked on is looked at."""
logger = logging.getLogger(__name__)
_shipped = _Shipped()


def shipped() -> Catalogue:
    """The catalogue that came with this version of the product. Where it is being worked on it is read again when a file
    changes."""
    return _shipped.now()


def today(check_key: str) -> str:
    """What a check is called now that was read under this key."""
    return shipped().renamed.today(check_key)


def ever(check_keys: Iterable[str]) -> dict[str, str]:
    """All keys under which these checks were ever read, each with today's."""
    return shipped().renamed.ever(check_keys)


def current(machine: Machine, shop: Shop, headers: Sequence[Machine], counts: Mapping[str, int]) -> RuleBook:
    """The rule book in force for this machine and its headers now, stored if it is new. counts: their own numbers of things."""
    overrides = tuple(override for one in [machine, *headers] for override in own_limits(one.model))
    families = tuple(header.model.family for header in headers)
    own = own_checks.of_models(shop, [machine.model, *(header.model for header in headers)])
    schools, numbers = tuple(sorted(shop.schools.items())), tuple(sorted(counts.items()))
    digest, content = _composed(machine.model.family, overrides, schools, families, numbers, own)
    stored, _ = RuleBook.objects.defer("content").get_or_create(shop=shop, digest=digest, defaults={"content": content})
    return stored


def own_limits(model: MachineModel) -> list[LimitOverride]:
    """A model's limits under today's keys, the manual's before the shop's."""
    return [replace(one, check=today(one.check)) for one in overrides_of(model)]


def now_of(machine: Machine, shop: Shop) -> CoreBook:
    """What is in force for a machine on its own today. Nothing is stored."""
    own = own_checks.of_models(shop, [machine.model])
    return _in_force(machine.model.family, tuple(own_limits(machine.model)), tuple(sorted(shop.schools.items())), own)


def now_of_each(machines: Iterable[Machine], shop: Shop) -> dict[int, CoreBook]:
    """What is in force for each of these machines on its own today, by id. So many queries as there are models."""
    by_model: dict[int, CoreBook] = {}
    found = {}
    for machine in machines:
        if machine.model_id not in by_model:
            by_model[machine.model_id] = now_of(machine, shop)
        found[machine.pk] = by_model[machine.model_id]
    return found


def family_of(shop: Shop, family: str, model: MachineModel | None = None) -> Family:
    """A kind of machine as a shop has it, with its own checks: those for any model, and for this one. Raises KeyError."""
    return _family(family, own_checks.of_family(shop, family, model))


@lru_cache(maxsize=64)
def _family(family: str, own: Own) -> Family:
    return with_own(shipped(), shipped().families[family], own_checks.read(own).get(family))


@lru_cache(maxsize=64)
def _in_force(family: str, overrides: tuple[LimitOverride, ...], schools: tuple[tuple[str, str], ...], own: Own) -> CoreBook:
    return in_force.rule_book(shipped(), family, overrides, dict(schools), own=own_checks.read(own))


@lru_cache(maxsize=32)
def _composed(
    family: str,
    overrides: tuple[LimitOverride, ...],
    schools: tuple[tuple[str, str], ...],
    headers: tuple[str, ...],
    counts: tuple[tuple[str, int], ...],
    own: Own,
) -> tuple[str, dict[str, Any]]:
    """A rule book as plain data, with the hash of its content."""
    book = in_force.rule_book(shipped(), family, overrides, dict(schools), headers, dict(counts), own_checks.read(own))
    content = in_force.to_json(book)
    return hashlib.sha256(json.dumps(content, sort_keys=True).encode()).hexdigest(), content


def checks_of(walk_around: WalkAround) -> list[Check]:
    """The checks that belong to a walk-around, those of its plan, in working order."""
    planned = planned_in(walk_around)
    return [check for check in opened(walk_around.rule_book_id).family.checks.values() if check.key in planned]


def planned_in(walk_around: WalkAround) -> set[str]:
    """Keys of the checks of a walk-around's plan."""
    return {key for visit in walk_around.plan["visits"] for key in visit["checks"]}


@lru_cache(maxsize=64)
def opened(rule_book_id: int) -> CoreBook:
    """A stored rule book as the core uses it."""
    return _of_digest(RuleBook.objects.values_list("digest", flat=True).get(pk=rule_book_id))


@lru_cache(maxsize=64)
def _of_digest(digest: str) -> CoreBook:
    """Read once, whichever shop's it is: rule books of one digest are the same to the letter."""
    return in_force.from_json(RuleBook.objects.filter(digest=digest).values_list("content", flat=True)[0])


def looking_at(rule_book_id: int, checks: set[str]) -> set[str]:
    """The checks whose rules look at any of these: they are judged anew when one of these is read."""
    return set().union(*(_lookers(rule_book_id).get(key, ()) for key in checks))


@lru_cache(maxsize=64)
def _lookers(rule_book_id: int) -> dict[str, set[str]]:
    found: dict[str, set[str]] = {}
    for check in opened(rule_book_id).family.checks.values():
        for key in verdicts.needs(check):
            found.setdefault(key, set()).add(check.key)
    return found
