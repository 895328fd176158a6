"""Reading the catalogue's YAML files and refusing what does not resolve."""

from collections.abc import Iterator
from pathlib import Path
from typing import Any

import yaml

from .. import shapes
from ..errors import BadInput
from ..judgement.rules import ChoiceRule, ContactRule, figures
from .model import Catalogue, Check, Companion, Family, Safety, School

SHIPPED = Path(__file__).resolve().parents[3] / "catalogue"


def load(folder: Path = SHIPPED) -> Catalogue:
    """The catalogue in `folder`. Raises BadInput with file and dotted path of the first thing that is wrong."""
    families = [_read(Family, path) for path in sorted((folder / "families").glob("*.yaml"))]
    catalogue = Catalogue(
        families={family.family: family for family in families},
        companions=_read(list[Companion], folder / "companions.yaml"),
        schools={school.subject: school for school in _read(list[School], folder / "schools.yaml")},
        safety=_read(Safety, folder / "safety.yaml"),
    )
    problems = list(unresolved(catalogue))
    if problems:
        raise BadInput("catalogue", "; ".join(problems))
    return catalogue


def _read(kind: Any, path: Path) -> Any:
    try:
        return shapes.read(kind, yaml.safe_load(path.read_text(encoding="utf-8")))
    except yaml.YAMLError as problem:
        raise BadInput(path.name, f"is not YAML: {problem}") from None
    except BadInput as problem:
        raise problem.within(path.name) from None


def unresolved(catalogue: Catalogue) -> Iterator[str]:
    """Every reference that leads nowhere and every rule that cannot be used, one sentence each."""
    slots: set[str] = set()
    checks: dict[str, Check] = {}
    for family in catalogue.families.values():
        yield from _unresolved_in_family(family, catalogue)
        slots |= set(family.slots)
        checks |= family.checks
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
        for choice in school.choices:
            for key, sets in choice.sets.items():
                known = figures(checks[key].rule) if key in checks else ()
                yield from (f"schools: {key} has no limit {name}" for name in sets if name not in known)


def _choices(catalogue: Catalogue, subject: str) -> set[str]:
    school = catalogue.schools.get(subject)
    return {choice.key for choice in school.choices} if school else set()


def _unresolved_in_family(family: Family, catalogue: Catalogue) -> Iterator[str]:
    here = family.family
    keys = [check.key for station in family.stations for check in station.checks]
    stations = [station.key for station in family.stations]
    yield from (f"{here}: {key} stands there twice" for key in sorted({k for k in keys if keys.count(k) > 1}))
    yield from (f"{here}: station {key} stands there twice" for key in sorted({k for k in stations if stations.count(k) > 1}))
    for station in family.stations:
        if station.posture not in catalogue.safety.postures:
            yield f"{here}.{station.key}: unknown posture {station.posture}"
        for check in station.checks:
            for complaint in _unresolved_in_check(check, family, catalogue):
                yield f"{here}.{check.key}: {complaint}"


def _unresolved_in_check(check: Check, family: Family, catalogue: Catalogue) -> Iterator[str]:
    rule = check.rule
    yield from (f"unknown slot {part.slot}" for part in check.parts if part.slot not in family.slots)
    yield from (f"unknown hazard {name}" for name in check.hazards if name not in catalogue.safety.hazards)
    yield from (f"comes after {key}, which is not there" for key in check.after if key not in family.checks)
    if check.option is not None and check.option not in family.options:
        yield f"unknown option {check.option}"
    if check.plausible and (len(check.plausible) != 2 or check.plausible[0] >= check.plausible[1]):
        yield "plausible must be two figures, the smaller first"
    if check.kind == "measure" and check.unit is None:
        yield "is measured but has no unit"
    if rule.kind == "wear" and rule.new == rule.limit:
        yield "new and limit are the same"
    if isinstance(rule, ContactRule):
        yield from _unresolved_diameter(rule, check, family)
    if isinstance(rule, ChoiceRule):
        if len(rule.options) < 2:
            yield "needs at least two options"
        known = {option.key for option in rule.options}
        yield from (f"unknown option {o} for part {p.slot}" for p in check.parts for o in p.options if o not in known)


def _unresolved_diameter(rule: ContactRule, check: Check, family: Family) -> Iterator[str]:
    source = family.checks.get(rule.diameter_from)
    if source is None or source.rule.kind != "wear":
        yield "diameter_from must name a check of wear"
    elif source.per != "row-side" or check.per != "row":
        yield "contact is per row and its diameters per row and side"
