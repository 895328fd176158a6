"""What leads nowhere in the catalogue, and what cannot be used: one sentence each, with its file, line and the nearest right
name."""

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

from .. import positions
from ..coupled import short
from ..errors import nearest
from ..looks import motif
from ..looks import wanted as looks_wanted
from ..rules.base import counted_things, limits, other_checks
from ..units import Inches
from .lists import Catalogue
from .model import Check, Family
from .resolve_lists import in_lists

if TYPE_CHECKING:
    from .files import Written


@dataclass(frozen=True)
class Places:
    """Where everything was written. families: family → key of a station, check or slot → file and line; lists: the other
    files.
    """

    families: Mapping[str, Mapping[str, str]]
    lists: "Mapping[str, Written[Any]]"

    def of(self, family: str, key: str = "") -> str:
        places = self.families[family]
        return places.get(key, places[""])

    def in_list(self, name: str, path: str) -> str:
        return self.lists[name].at(path)


def unresolved(catalogue: Catalogue, places: Places) -> Iterator[str]:
    """Every reference that leads nowhere and everything that cannot be used, one sentence each with its place."""
    for family in catalogue.families.values():
        for key, complaint in _in_family(family, catalogue):
            yield f"{places.of(family.family, key)}: {complaint}"
    for name, path, complaint in in_lists(catalogue):
        yield f"{places.in_list(name, path)}: {complaint}"


def _in_family(family: Family, catalogue: Catalogue) -> Iterator[tuple[str, str]]:
    """(key of what is wrong, complaint)."""
    postures = catalogue.safety.postures
    keys = [check.key for station in family.stations for check in station.checks]
    stations = [station.key for station in family.stations]
    for listed in (keys, stations):
        yield from (
            (key, f"{short(key)} stands there twice") for key in sorted({key for key in listed if listed.count(key) > 1})
        )
    if family.start not in postures:
        yield "", f"unknown posture {family.start} to start from{nearest(family.start, postures)}"
    if family.is_header != bool(family.prefix):
        yield "", "a header needs a prefix, and nothing else has one"
    for key, thing in family.things.items():
        if bool(thing.count) == bool(thing.places):
            yield "", f"{short(key)} needs either a count or names of its places"
    for station in family.stations:
        if station.posture not in postures:
            yield station.key, f"unknown posture {station.posture}{nearest(station.posture, postures)}"
        for check in station.checks:
            for complaint in complaints(check, family, catalogue):
                yield check.key, f"{short(check.key)}: {complaint}"
    yield from ((slot, f"nothing calls for the slot {short(slot)}") for slot in _unused(family, catalogue))


def _unused(family: Family, catalogue: Catalogue) -> list[str]:
    called = {short(part.slot) for check in family.checks.values() for part in check.parts}
    called |= {slot for companion in catalogue.companions for slot in (companion.when, companion.slot) if slot}
    called |= {slot for down in catalogue.strip_downs for slot in [*down.for_, *(reach.slot for reach in down.reaches)]}
    called |= {service.slot for service in catalogue.services}
    return [slot for slot in family.slots if short(slot) not in called]


def complaints(check: Check, family: Family, catalogue: Catalogue, *, own: bool = False) -> Iterator[str]:
    """What is wrong with a check, one sentence each.

    own: a shop's, which may do without a picture of its states, and renew what is in no parts book.
    """
    yield from _in_check(check, family, catalogue)
    yield from _looks(check, wanted=not own)
    if not own:
        yield from _partless(check)
    yield from _in_rule(check, family)


def _in_check(check: Check, family: Family, catalogue: Catalogue) -> Iterator[str]:
    named: list[tuple[str, Iterable[str], Iterable[str]]] = [
        ("unknown slot", (part.slot for part in check.parts), family.slots),
        ("unknown hazard", check.hazards, catalogue.safety.hazards),
        ("comes after a check that is not there:", check.after, family.checks),
        ("unknown option", [*check.wanted_options, *check.unless], family.options),
        ("unknown family", check.headers, catalogue.families),
        ("unknown posture", filter(None, [check.posture]), catalogue.safety.postures),
        ("unknown station", filter(None, [check.noted_at]), [one.key for one in family.stations]),
    ]
    for what, names, known in named:
        yield from (f"{what} {short(name)}{nearest(short(name), map(short, known))}" for name in names if name not in known)
    if not check.how.strip():
        yield "how must say what is done"
    thing = positions.thing_of(check.per)
    if thing and thing not in family.things:
        yield f"is made per {short(thing)}, which the family does not have{nearest(short(thing), map(short, family.things))}"
    elif thing and family.things[thing].places and check.per.endswith("-side"):
        yield f"{short(thing)} has named places, which have no sides"
    if check.plausible and (len(check.plausible) != 2 or check.plausible[0] >= check.plausible[1]):
        yield "plausible must be two figures, the smaller first"
    elif check.plausible:
        low, high = check.plausible
        yield from (
            f"plausible {low:g} to {high:g} excludes the {name} {value:g}"
            for name, value in check.rule.readings_named().items()
            if not low <= value <= high
        )
    sided = check.per == "side" or check.per.endswith("-side")
    yield from (
        f"the part {short(part.slot)} is left or right, and neither the place nor `hand` says which"
        for part in check.parts
        if part.slot in family.slots and family.slots[part.slot].handed and not (sided or part.hand)
    )
    known_places = set(family.things[thing].places) if thing in family.things else set()
    yield from (
        f"unknown place {place} for part {short(part.slot)}{nearest(place, known_places)}"
        for part in check.parts
        for place in part.places
        if place not in known_places
    )
    if check.kind == "measure" and check.unit is None:
        yield "is measured but has no unit"


LOOKED_AT = ("choice", "bearing", "level", "count")
"""Kinds of check that eye or finger decides: each shows what its states look like."""


def _looks(check: Check, *, wanted: bool) -> Iterator[str]:
    name, known = looks_wanted.motif_of(check), motif.motifs()
    decided = check.kind in LOOKED_AT and check.rule.kind != "record"
    if wanted and decided and not name:
        yield "is decided by eye or finger, but has no look"
    elif name and name not in known:
        yield f"unknown look {name}{nearest(name, known)}"
    elif name and not check.rule.states() and not known[name].counted:
        yield f"the look {name} says nothing of what is counted"
    elif name:
        yield from (
            f"the look {name} has no drawing of {state.key}"
            for state in check.rule.states()
            if known[name].figures(state.key) is None
        )


def _partless(check: Check) -> Iterator[str]:
    for state in _renewing(check):
        if not any(not part.options or state in part.options for part in check.renewed_parts):
            yield f"{f'{state} says' if state else 'it is'} to be renewed, but no part is called for"


def _renewing(check: Check) -> Iterator[str]:
    """The states of a check in which something is renewed; one without a name where nothing is chosen."""
    states = check.rule.states()
    yield from (option.key for option in states if option.action == "replace")
    renewed = check.action if check.rule.renews else getattr(check.rule, "action", "")
    if not states and renewed == "replace":
        yield ""


def _in_rule(check: Check, family: Family) -> Iterator[str]:
    rule = check.rule
    if rule.answers and check.kind != rule.answers:
        yield f"a rule {rule.kind} judges kind {rule.answers}, not {check.kind}"
    wanted = rule.figures if rule.figures is not None else len(check.values)
    if len(check.values) != wanted:
        yield f"a rule {rule.kind} needs {wanted} values"
    if check.drawing and check.drawing not in rule.drawings:
        allowed = ", ".join(sorted(rule.drawings)) or "nothing"
        yield f"a rule {rule.kind} is drawn as {allowed}, not as {check.drawing}"
    for name, key in other_checks(rule).items():
        if key not in family.checks:
            yield f"{name} names no check: {short(key)}{nearest(short(key), map(short, family.checks))}"
    for name, thing in counted_things(rule).items():
        if thing not in family.things:
            yield f"{name} names no thing: {short(thing)}{nearest(short(thing), map(short, family.things))}"
    yield from rule.problems(check, family)
    for name, limit in limits(type(rule)).items():
        if isinstance(getattr(rule, name), Inches) and (check.unit != "mm" or limit.unit is not None):
            yield f"{name} is stated in inches, but is no length"
    known = {option.key for option in rule.states()}
    for part in check.parts:
        yield from (
            f"unknown option {o} for part {short(part.slot)}{nearest(o, known)}" for o in part.options if o not in known
        )
