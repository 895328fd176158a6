"""Rule books: made when a walk-around starts, then read from the database and kept in memory, for they never change."""

import hashlib
import json
from functools import lru_cache

from fleet.models import Machine
from fleet.queries import overrides_of
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.model import Catalogue
from lumvek_core.catalogue.model import RuleBook as CoreBook
from shops.models import Shop

from .models import RuleBook


@lru_cache(maxsize=1)
def shipped() -> Catalogue:
    """The catalogue that came with this version of the product."""
    return load.load()


def current(machine: Machine, shop: Shop) -> RuleBook:
    """The rule book in force for this machine now, stored if it is new."""
    book = in_force.rule_book(shipped(), machine.model.family, overrides_of(machine.model), shop.schools)
    content = in_force.to_json(book)
    digest = hashlib.sha256(json.dumps(content, sort_keys=True).encode()).hexdigest()
    stored, _ = RuleBook.objects.get_or_create(shop=shop, digest=digest, defaults={"content": content})
    return stored


@lru_cache(maxsize=64)
def opened(rule_book_id: int) -> CoreBook:
    """A stored rule book as the core uses it."""
    return in_force.from_json(RuleBook.objects.values_list("content", flat=True).get(pk=rule_book_id))
