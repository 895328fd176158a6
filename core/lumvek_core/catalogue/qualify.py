"""Headers in one rule book with their combine: every key of a header family carries its prefix (``draper.knife-sections``).

Files are written with short keys; `coupled` knows how the long ones are made.
"""

import dataclasses
from dataclasses import replace
from functools import partial

from .. import coupled
from ..rules.base import counted_things, other_checks
from .lists import Companion
from .model import Check, Family, Station


def qualified(family: Family) -> Family:
    """The family with its prefix before every key of its own; unchanged without a prefix."""
    if not family.prefix:
        return family

    long = partial(coupled.long, family.prefix)
    return replace(
        family,
        options={long(key): name for key, name in family.options.items()},
        things={long(key): thing for key, thing in family.things.items()},
        slots={long(key): slot for key, slot in family.slots.items()},
        stations=[_station(family.prefix, station) for station in family.stations],
    )


def companion(given: Companion, prefix: str) -> Companion:
    """A companion rule as it holds among the slots of a prefix."""
    long = partial(coupled.long, prefix)
    seen = replace(given.seen, check=long(given.seen.check)) if given.seen else None
    return replace(given, when=long(given.when), slot=long(given.slot) if given.slot else None, seen=seen)


def _station(prefix: str, station: Station) -> Station:
    return replace(
        station, key=coupled.long(prefix, station.key), checks=[qualified_check(prefix, check) for check in station.checks]
    )


def qualified_check(prefix: str, check: Check) -> Check:
    """A check with the prefix before every key in it; as it is without one."""
    if not prefix:
        return check
    long = partial(coupled.long, prefix)
    rule = check.rule
    named = {name: long(key) for name, key in (other_checks(rule) | counted_things(rule)).items()}
    if named:
        rule = replace(rule, **named)  # type: ignore[type-var]  # every kind is a dataclass
    return dataclasses.replace(
        check,
        key=long(check.key),
        per=check.per if check.per in ("machine", "side") else long(check.per),
        option=long(check.option) if check.option else None,
        needs=[long(key) for key in check.needs],
        unless=[long(key) for key in check.unless],
        after=[long(key) for key in check.after],
        parts=[replace(part, slot=long(part.slot)) for part in check.parts],
        noted_at=check.noted_at and long(check.noted_at),
        rule=rule,
    )
