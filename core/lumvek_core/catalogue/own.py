"""What a shop adds to the catalogue: checks of its own, and shipped ones that it words otherwise or leaves out.

An own check is written as the catalogue writes one and held to the same rules, but for the picture of its states. Its key
begins with ``own-``, which no shipped one does: a newer catalogue never takes its place.
"""

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from functools import partial

from .. import coupled
from ..errors import nearest
from ..rules import kinds
from ..rules.base import Rule
from . import resolve
from .lists import Catalogue
from .model import Check, Family, Slot
from .qualify import qualified_check

OWN = "own-"
LONGEST_KEY = 40
"""Characters; a header's prefix comes before them."""


@dataclass(frozen=True)
class OwnCheck:
    """A check of a shop's own at a station of the catalogue, with parts that the catalogue does not have. Every key begins with
    ``own-``."""

    station: str
    check: Check
    slots: dict[str, Slot] = field(default_factory=dict)


@dataclass(frozen=True)
class Altered:
    """A shipped check as a shop has it: worded otherwise (what is empty stays), or left out of walk-arounds. reason: why."""

    check: str
    reason: str
    name: str = ""
    how: str = ""
    why: str = ""
    left_out: bool = False


@dataclass(frozen=True)
class OwnChecks:
    """Everything of a shop's own about one family, keys without a header's prefix. It is a file, too."""

    family: str
    checks: list[OwnCheck] = field(default_factory=list)
    altered: list[Altered] = field(default_factory=list)


def is_own(key: str) -> bool:
    """Whether a check is a shop's own, by its key with or without a header's prefix."""
    return coupled.short(key).startswith(OWN)


def key_for(name: str, taken: Sequence[str] = ()) -> str:
    """A key for a new check of this name: ``own-wheel-nuts``, with a number where that is taken."""
    plain = OWN + (re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-") or "check")
    key, n = plain[:LONGEST_KEY].strip("-"), 2
    while key in taken:
        key, n = f"{plain[: LONGEST_KEY - 4].strip('-')}-{n}", n + 1
    return key


def offered() -> dict[str, type[Rule]]:
    """The kinds of rule that an own check may have, by name, in the order they are offered."""
    found = {name: kind for name, kind in kinds.kinds().items() if kind.offered}
    return dict(sorted(found.items(), key=lambda one: one[1].offered))


def with_own(catalogue: Catalogue, family: Family, own: OwnChecks | None) -> Family:
    """A family as a shop has it. An own check that does not fit the catalogue any more is not in it (see `misfits`)."""
    if own is None:
        return family
    long = partial(coupled.long, family.prefix)
    words = {long(one.check): one for one in own.altered}
    added: dict[str, list[Check]] = {}
    slots = dict(family.slots)
    for one in own.checks:
        if not any(misfits(catalogue, family, one)):
            added.setdefault(long(one.station), []).append(qualified_check(family.prefix, one.check))
            slots |= _slots(family, one)
    stations = [
        replace(
            station,
            checks=[*(_worded(check, words.get(check.key)) for check in station.checks), *added.get(station.key, [])],
        )
        for station in family.stations
    ]
    return replace(family, stations=stations, slots=slots)


def _slots(family: Family, own: OwnCheck) -> dict[str, Slot]:
    return {coupled.long(family.prefix, key): slot for key, slot in own.slots.items()}


def left_out(family: Family, own: OwnChecks | None) -> dict[str, str]:
    """The shipped checks that a shop leaves out, with why. A safety item stays in, whatever is said."""
    found = {coupled.long(family.prefix, one.check): one.reason for one in (own.altered if own else []) if one.left_out}
    return {key: why for key, why in found.items() if key in family.checks and not family.checks[key].safety}


def misfits(catalogue: Catalogue, family: Family, own: OwnCheck) -> Iterator[tuple[str, str]]:
    """(field, complaint) for whatever keeps an own check out of a family; nothing where it fits."""
    stations = {coupled.short(station.key) for station in family.stations}
    if own.station not in stations:
        yield "station", f"there is no station {own.station}{nearest(own.station, stations)}"
    if not is_own(own.check.key):
        yield "check.key", f"the key of an own check begins with {OWN}"
    yield from (("slots", f"the key of an own part begins with {OWN}, not {key}") for key in own.slots if not is_own(key))
    check = qualified_check(family.prefix, own.check)
    family = replace(family, slots=family.slots | _slots(family, own))
    if own.check.rule.kind not in offered():
        yield "check.rule.kind", f"an own check is not judged by {own.check.rule.kind}"
    yield from (("check", complaint) for complaint in resolve.complaints(check, family, catalogue, own=True))


def _worded(check: Check, said: Altered | None) -> Check:
    if said is None:
        return check
    return replace(check, **{name: words for name in ("name", "how", "why") if (words := getattr(said, name))})
