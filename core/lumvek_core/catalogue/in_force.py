"""Which limits are in force: shipped figures, replaced by the shop's schools, the model's sizes and the shop's own."""

import dataclasses
from collections.abc import Mapping, Sequence
from typing import Any

from .. import shapes
from ..errors import BadInput
from ..judgement.rules import Rule, WearRule, WindowRule, figures
from .model import Catalogue, Check, Companion, Family, LimitInForce, LimitOverride, RuleBook


def rule_book(
    catalogue: Catalogue, family_key: str, overrides: Sequence[LimitOverride] = (), schools: Mapping[str, str] | None = None
) -> RuleBook:
    """The rule book of one model in one shop.

    overrides: later ones win, so pass the model's before the shop's. schools: subject → chosen school, defaults fill in.
    Raises BadInput for an unknown family, school, check or figure, and for figures that make a rule unusable.
    """
    if family_key not in catalogue.families:
        raise BadInput("family", f"there is no family {family_key}")
    family = catalogue.families[family_key]
    chosen = _schools(catalogue, schools or {})
    limits = {check.key: _shipped(check) for check in family.checks.values()}
    for override in [*_from_schools(catalogue, family, chosen), *overrides]:
        if override.figure not in limits.get(override.check, {}):
            raise BadInput(f"overrides.{override.check}", f"has no limit {override.figure}")
        limits[override.check][override.figure] = LimitInForce(override.value, override.source, override.note)
    stations = [
        dataclasses.replace(station, checks=[_with_limits(check, limits[check.key]) for check in station.checks])
        for station in family.stations
    ]
    needed = {station.posture for station in stations}
    hazards = {name for check in family.checks.values() for name in check.hazards}
    return RuleBook(
        family=dataclasses.replace(family, stations=stations),
        limits=limits,
        companions=[c for c in catalogue.companions if c.when in family.slots and _applies(c, chosen)],
        postures={name: posture for name, posture in catalogue.safety.postures.items() if name in needed},
        hazards={name: text for name, text in catalogue.safety.hazards.items() if name in hazards},
        notice=catalogue.safety.notice,
        schools=chosen,
    )


def _schools(catalogue: Catalogue, picked: Mapping[str, str]) -> dict[str, str]:
    chosen = {subject: school.default for subject, school in catalogue.schools.items()} | dict(picked)
    for subject, choice in chosen.items():
        school = catalogue.schools.get(subject)
        if school is None or choice not in {c.key for c in school.choices}:
            raise BadInput(f"schools.{subject}", f"there is no school {choice}")
    return chosen


def _from_schools(catalogue: Catalogue, family: Family, chosen: Mapping[str, str]) -> list[LimitOverride]:
    """What the schools that differ from the default set in this family."""
    found = []
    for subject, key in chosen.items():
        school = catalogue.schools[subject]
        choice = next(choice for choice in school.choices if choice.key == key)
        for check, sets in choice.sets.items():
            if check in family.checks:
                found += [LimitOverride(check, name, value, "school", choice.name) for name, value in sets.items()]
    return found


def _shipped(check: Check) -> dict[str, LimitInForce]:
    values = {name: getattr(check.rule, name) for name in figures(check.rule)}
    return {name: LimitInForce(value, check.source) for name, value in values.items() if value is not None}


def _with_limits(check: Check, limits: Mapping[str, LimitInForce]) -> Check:
    if not limits:
        return check
    values: Any = {name: limit.value for name, limit in limits.items()}
    changed = dataclasses.replace(check.rule, **values)
    _usable(check.key, changed)
    return dataclasses.replace(check, rule=changed)


def _usable(key: str, rule: Rule) -> None:
    if isinstance(rule, WearRule) and rule.new == rule.limit:
        raise BadInput(f"overrides.{key}", "the limit must differ from the size when new")
    if isinstance(rule, WindowRule) and rule.low > rule.high:
        raise BadInput(f"overrides.{key}", "low must not be above high")


def _applies(companion: Companion, chosen: Mapping[str, str]) -> bool:
    return companion.school is None or chosen.get(companion.school.subject) == companion.school.choice


def applicable(book: RuleBook, options: Sequence[str]) -> list[Check]:
    """The checks that a machine with these options has, in working order."""
    return [check for check in book.family.checks.values() if check.option is None or check.option in options]


def to_json(book: RuleBook) -> dict[str, Any]:
    """The rule book as plain data, to be stored with a walk-around."""
    data: dict[str, Any] = shapes.write(book)
    return data


def from_json(data: Any) -> RuleBook:
    """The rule book as it was stored."""
    book: RuleBook = shapes.read(RuleBook, data)
    return book
