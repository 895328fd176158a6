"""All kinds of rule by name: the one list behind the catalogue, its limits, stand-ins, docs and the types of the front end."""

import importlib
import inspect
import pkgutil
from collections.abc import Mapping
from functools import cache
from typing import Any, Literal, get_args, get_type_hints

from .. import rules
from .base import Rule
from .verdict import Facts


@cache
def kinds() -> dict[str, type[Rule]]:
    """Every kind by the name that the catalogue gives it."""
    found: dict[str, type[Rule]] = {}
    for module in pkgutil.iter_modules(rules.__path__):
        loaded = importlib.import_module(f"{rules.__name__}.{module.name}")
        for _, one in inspect.getmembers(loaded, inspect.isclass):
            if issubclass(one, Rule) and one.__module__ == loaded.__name__ and not inspect.isabstract(one):
                found[get_args(get_type_hints(one)["kind"])[0]] = one
    return dict(sorted(found.items()))


@cache
def facts() -> dict[str, type[Facts]]:
    """What the kinds tell drawings, by the name that stands in it; several kinds may tell the same."""
    return {kind.facts().kind: kind.facts for kind in kinds().values() if kind.facts}


def figure(stored: Mapping[str, Any], which: Literal["compared", "worked_out"]) -> float | None:
    """A figure of facts as they are stored; None where there is none, or they are of an older version of the product."""
    kind = facts().get(stored.get("kind", ""))
    return stored.get(getattr(kind, which)) if kind else None
