"""Reading the catalogue's YAML files and refusing what does not resolve."""

from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any

import yaml

from .. import positions, structure
from ..errors import BadInput
from ..rules.base import limits, other_checks
from .model import (
    Catalogue,
    Check,
    Companion,
    Family,
    Safety,
    School,
    Service,
    Slot,
    Station,
    StripDown,
    Thing,
)
from .qualify import qualified, short

SHIPPED = Path(__file__).resolve().parents[3] / "catalogue"


@dataclass(frozen=True)
class Shared:
    """Stations that several families have alike, in `parts/`."""

    stations: list[Station]
    slots: dict[str, Slot] = field(default_factory=dict)
    options: dict[str, str] = field(default_factory=dict)
    things: dict[str, Thing] = field(default_factory=dict)


def load(folder: Path = SHIPPED) -> Catalogue:
    """The catalogue in `folder`. Raises BadInput with file and dotted path of the first thing that is wrong."""
    written = [_read(Family, path) for path in sorted((folder / "families").glob("*.yaml"))]
    families = [qualified(_with_shared(family, folder / "parts")) for family in written]
    catalogue = Catalogue(
        families={family.family: family for family in families},
        companions=_read(list[Companion], folder / "companions.yaml"),
        schools={school.subject: school for school in _read(list[School], folder / "schools.yaml")},
        safety=_read(Safety, folder / "safety.yaml"),
        strip_downs=_read(list[StripDown], folder / "strip-downs.yaml"),
        services=_read(list[Service], folder / "services.yaml"),
    )
    problems = list(unresolved(catalogue))
    if problems:
        raise BadInput("catalogue", "; ".join(problems))
    return catalogue


def _read(kind: Any, path: Path) -> Any:
    try:
        return structure.read(kind, yaml.load(path.read_text(encoding="utf-8"), Loader=_Fast))  # noqa: S506  (a safe loader)
    except FileNotFoundError:
        raise BadInput(path.name, "is not there") from None
    except yaml.YAMLError as problem:
        raise BadInput(path.name, f"is not YAML: {problem}") from None
    except BadInput as problem:
        raise problem.within(path.name) from None


_Fast: Any = getattr(yaml, "CSafeLoader", yaml.SafeLoader)


def _with_shared(family: Family, folder: Path) -> Family:
    """The family with the stations it shares; those stand where `include` names them: before its own, in that order."""
    for name in reversed(family.include):
        shared: Shared = _read(Shared, folder / f"{name}.yaml")
        family = replace(
            family,
            stations=[*shared.stations, *family.stations],
            slots=shared.slots | family.slots,
            options=shared.options | family.options,
            things=shared.things | family.things,
        )
    return family


def unresolved(catalogue: Catalogue) -> Iterator[str]:
    """Every reference that leads nowhere and every rule that cannot be used, one sentence each."""
    slots: set[str] = set()
    checks: dict[str, Check] = {}
    for family in catalogue.families.values():
        yield from _unresolved_in_family(family, catalogue)
        slots |= {short(slot) for slot in family.slots}
        checks |= {short(key): check for key, check in family.checks.items()}
    for companion in catalogue.companions:
        for slot in filter(None, (companion.when, companion.slot)):
            if slot not in slots:
                yield f"companions: no family has a slot {slot}"
        if not companion.slot and not companion.task:
            yield f"companions: what goes with {companion.when} is neither a slot nor a task"
        if (wanted := companion.school) and wanted.choice not in _choices(catalogue, wanted.subject):
            yield f"companions: there is no school {wanted.subject}: {wanted.choice}"
    for school in catalogue.schools.values():
        if school.default not in _choices(catalogue, school.subject):
            yield f"schools: {school.subject} has no choice {school.default}"
        yield from (f"schools: {school.subject} is about {key}, which is no check" for key in school.about if key not in checks)
        for choice in school.choices:
            for key, sets in choice.sets.items():
                known = limits(type(checks[key].rule)) if key in checks else {}
                yield from (f"schools: {key} has no limit {name}" for name in sets if name not in known)
            for key, posture in choice.postures.items():
                if key not in checks or posture not in catalogue.safety.postures:
                    yield f"schools: {key} cannot be made in posture {posture}"
    for down in catalogue.strip_downs:
        yield from (f"strip-downs: {down.key}: no family has a slot {slot}" for slot in down.for_ if slot not in slots)
        for reach in down.reaches:
            if reach.slot not in slots:
                yield f"strip-downs: {down.key}: no family has a slot {reach.slot}"
            if reach.check not in checks:
                yield f"strip-downs: {down.key}: no family has a check {reach.check}"
            elif checks[reach.check].safety:
                yield f"strip-downs: {down.key}: {reach.check} is a safety item, which is never weighed against money"
    yield from _unresolved_services(catalogue)
    yield from _unresolved_moves(catalogue)


def _unresolved_services(catalogue: Catalogue) -> Iterator[str]:
    keys = [one.key for one in catalogue.services]
    yield from (f"services: {key} stands there twice" for key in sorted({key for key in keys if keys.count(key) > 1}))
    for one in catalogue.services:
        where = f"services: {one.key}"
        if not (one.every_h or one.every_days):
            yield f"{where} needs an interval in hours or days"
        if (wanted := one.school) and wanted.choice not in _choices(catalogue, wanted.subject):
            yield f"{where}: there is no school {wanted.subject}: {wanted.choice}"
        for name in one.families:
            family = catalogue.families.get(name)
            if family is None:
                yield f"{where}: there is no family {name}"
            elif one.check and one.check not in {short(key) for key in family.checks}:
                yield f"{where}: {name} has no check {one.check}"
            elif one.slot and one.slot not in {short(key) for key in family.slots}:
                yield f"{where}: {name} has no slot {one.slot}"
            elif one.option and one.option not in {short(key) for key in family.options}:
                yield f"{where}: {name} has no option {one.option}"


def _choices(catalogue: Catalogue, subject: str) -> set[str]:
    school = catalogue.schools.get(subject)
    return {choice.key for choice in school.choices} if school else set()


def _unresolved_moves(catalogue: Catalogue) -> Iterator[str]:
    known = catalogue.safety.postures
    for move in catalogue.safety.moves:
        yield from (f"moves: unknown posture {name}" for name in (move.from_, move.to) if name not in known)


def _unresolved_in_family(family: Family, catalogue: Catalogue) -> Iterator[str]:
    here = family.family
    keys = [check.key for station in family.stations for check in station.checks]
    stations = [station.key for station in family.stations]
    yield from (f"{here}: {key} stands there twice" for key in sorted({k for k in keys if keys.count(k) > 1}))
    yield from (f"{here}: station {key} stands there twice" for key in sorted({k for k in stations if stations.count(k) > 1}))
    if family.start not in catalogue.safety.postures:
        yield f"{here}: unknown posture {family.start} to start from"
    if family.is_header != bool(family.prefix):
        yield f"{here}: a header needs a prefix, and nothing else has one"
    for key, thing in family.things.items():
        if bool(thing.count) == bool(thing.places):
            yield f"{here}: {key} needs either a count or names of its places"
    for station in family.stations:
        if station.posture not in catalogue.safety.postures:
            yield f"{here}.{station.key}: unknown posture {station.posture}"
        for check in station.checks:
            for complaint in _unresolved_in_check(check, family, catalogue):
                yield f"{here}.{check.key}: {complaint}"


def _unresolved_in_check(check: Check, family: Family, catalogue: Catalogue) -> Iterator[str]:
    yield from (f"unknown slot {part.slot}" for part in check.parts if part.slot not in family.slots)
    yield from (f"unknown hazard {name}" for name in check.hazards if name not in catalogue.safety.hazards)
    yield from (f"comes after {key}, which is not there" for key in check.after if key not in family.checks)
    yield from (f"unknown option {key}" for key in [check.option, *check.unless] if key and key not in family.options)
    yield from (f"unknown family {name}" for name in check.headers if name not in catalogue.families)
    if check.posture and check.posture not in catalogue.safety.postures:
        yield f"unknown posture {check.posture}"
    thing = positions.thing_of(check.per)
    if thing and thing not in family.things:
        yield f"is made per {thing}, which the family does not have"
    elif thing and family.things[thing].places and check.per.endswith("-side"):
        yield f"{thing} has named places, which have no sides"
    if check.plausible and (len(check.plausible) != 2 or check.plausible[0] >= check.plausible[1]):
        yield "plausible must be two figures, the smaller first"
    if check.kind == "measure" and check.unit is None:
        yield "is measured but has no unit"
    yield from _unresolved_rule(check, family)


def _unresolved_rule(check: Check, family: Family) -> Iterator[str]:
    rule = check.rule
    if rule.answers and check.kind != rule.answers:
        yield f"a rule {rule.kind} judges kind {rule.answers}, not {check.kind}"
    wanted = rule.figures if rule.figures is not None else len(check.values)
    if len(check.values) != wanted:
        yield f"a rule {rule.kind} needs {wanted} values"
    for name, key in other_checks(rule).items():
        if key not in family.checks:
            yield f"{name} names no check: {key}"
    yield from rule.problems(check, family)
    known = {option.key for option in rule.states()}
    yield from (f"unknown option {o} for part {p.slot}" for p in check.parts for o in p.options if o not in known)
