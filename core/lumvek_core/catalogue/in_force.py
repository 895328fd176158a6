"""Which limits are in force: shipped figures, replaced by the shop's schools, the model's sizes and the shop's own."""

import dataclasses
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from .. import structure
from ..coupled import prefix_of, short
from ..errors import BadInput
from ..rules.base import Rule, counted_things, limits, whole
from ..rules.choice import ChoiceRule
from ..rules.fitted import FittedRule
from ..units import stated_in
from .lists import Catalogue, Companion, SchoolChoice
from .model import Check, Family, Station
from .own import OwnChecks, is_own, left_out, with_own
from .qualify import companion
from .rounds import BENCH, in_round
from .rule_book import LimitInForce, LimitOverride, RuleBook


def rule_book(
    catalogue: Catalogue,
    family_key: str,
    overrides: Sequence[LimitOverride] = (),
    schools: Mapping[str, str] | None = None,
    headers: Sequence[str] = (),
    counts: Mapping[str, int] | None = None,
    own: Mapping[str, OwnChecks] | None = None,
) -> RuleBook:
    """The rule book of one model in one shop, together with the headers coupled to it: their stations come first.

    overrides: later ones win, so pass the model's before the shop's; a header's carry its prefix. schools: subject → chosen
    school, defaults fill in. headers: families of the headers. counts: the machine's own numbers of things. own: by family,
    what the shop adds and alters. Raises BadInput for an unknown family, school, check or figure, for two headers of one
    family, and for figures that make a rule unusable.
    """
    own = own or {}
    family = _composed(catalogue, family_key, headers, own)
    chosen = _schools(catalogue, schools or {})
    found = {check.key: _shipped(check) for check in family.checks.values()}
    for override in [*_from_schools(catalogue, family, chosen), *overrides]:
        if override.figure not in found.get(override.check, {}):
            if is_own(override.check):
                continue  # the check was taken away since, or is judged otherwise
            raise BadInput(f"overrides.{override.check}", f"has no limit {override.figure}")
        found[override.check][override.figure] = LimitInForce(override.length, override.source, override.note)
    for check in family.checks.values():
        for thing in counted_things(check.rule).values():
            if thing in (counts or {}):
                found[check.key]["of"] = LimitInForce((counts or {})[thing], "machine")
    picked = [_choice(catalogue, subject, key) for subject, key in chosen.items()]
    elsewhere: dict[str, str] = {}
    for choice in picked:
        elsewhere |= choice.postures
    stations = [
        dataclasses.replace(
            station,
            checks=[
                _with_posture(_by_schools(_with_limits(check, found[check.key]), picked), station, elsewhere)
                for check in station.checks
            ],
        )
        for station in family.stations
    ]
    needed = {check.posture for station in stations for check in station.checks} | {family.start}
    hazards = {name for check in family.checks.values() for name in check.hazards}
    return RuleBook(
        family=dataclasses.replace(family, stations=stations),
        limits=found,
        companions=_companions(catalogue, family, chosen),
        postures={name: posture for name, posture in catalogue.safety.postures.items() if name in needed},
        hazards={name: text for name, text in catalogue.safety.hazards.items() if name in hazards},
        notice=catalogue.safety.notice,
        schools=chosen,
        ways=_ways(catalogue, family, chosen),
        left_out={key: why for one in own.values() for key, why in left_out(_known(catalogue, one.family), one).items()},
    )


def _known(catalogue: Catalogue, key: str) -> Family:
    if key not in catalogue.families:
        raise BadInput("family", f"there is no family {key}")
    return catalogue.families[key]


def _composed(catalogue: Catalogue, family_key: str, headers: Sequence[str], own: Mapping[str, OwnChecks]) -> Family:
    if len(set(headers)) < len(headers):
        raise BadInput("headers", "two headers of one kind: give each its own walk-around")
    family, *coupled_to = [with_own(catalogue, _known(catalogue, key), own.get(key)) for key in (family_key, *headers)]
    for coupled in reversed(coupled_to):
        if not (coupled.is_header and family.takes_headers):
            raise BadInput("headers", f"{coupled.name} is not coupled to {family.name}")
        family = dataclasses.replace(
            family,
            stations=[*coupled.stations, *family.stations],
            slots=coupled.slots | family.slots,
            options=coupled.options | family.options,
            things=coupled.things | family.things,
        )
    return family


def _companions(catalogue: Catalogue, family: Family, chosen: Mapping[str, str]) -> list[Companion]:
    prefixes = dict.fromkeys(prefix_of(slot) for slot in family.slots)
    here = (companion(c, prefix) for prefix in prefixes for c in catalogue.companions if _applies(c, chosen))
    return [c for c in here if c.when in family.slots and (not c.slot or c.slot in family.slots)]


def _ways(catalogue: Catalogue, family: Family, chosen: Mapping[str, str]) -> dict[str, list[str]]:
    """What the chosen schools say at each check they are about: ``Hold-down clearance: feeler … Go and no-go leave …``."""
    found: dict[str, list[str]] = {}
    for subject, key in chosen.items():
        school, choice = catalogue.schools[subject], _choice(catalogue, subject, key)
        for check in family.checks:
            if short(check) in school.about:
                found.setdefault(check, []).append(f"{school.name}: {choice.name[0].lower()}{choice.name[1:]}. {choice.why}")
    return found


def _choice(catalogue: Catalogue, subject: str, key: str) -> SchoolChoice:
    return next(choice for choice in catalogue.schools[subject].choices if choice.key == key)


def _by_schools(check: Check, picked: Sequence[SchoolChoice]) -> Check:
    """The check as the chosen schools read it and call it right."""
    key = short(check.key)
    for choice in picked:
        if way := choice.read_by.get(key):
            check = dataclasses.replace(check, rule=dataclasses.replace(check.rule, by=way))  # type: ignore[type-var]
        if right := choice.right.get(key):
            check = _with_right(check, right)
    return check


def _with_right(check: Check, wanted: str) -> Check:
    """The check with the option that its school calls right as the sound one, first; what was right otherwise is to be set."""
    if not isinstance(check.rule, ChoiceRule):
        return check
    options = [
        dataclasses.replace(one, severity="sound", action="none")
        if one.key == wanted
        else dataclasses.replace(one, severity="due", action="adjust")
        if one.severity == "sound"
        else one
        for one in sorted(check.rule.options, key=lambda one: one.key != wanted)
    ]
    return dataclasses.replace(check, rule=dataclasses.replace(check.rule, options=options))


def _with_posture(check: Check, station: Station, elsewhere: Mapping[str, str]) -> Check:
    """The check with the posture it is made in: its school's, its own or its station's."""
    return dataclasses.replace(check, posture=elsewhere.get(short(check.key)) or check.posture or station.posture)


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
        choice = _choice(catalogue, subject, key)
        for check, sets in choice.sets.items():
            for key in family.checks:
                if short(key) == check:
                    found += [
                        LimitOverride(key, name, value, "school", choice.name, stated_in(value)) for name, value in sets.items()
                    ]
    return found


def _shipped(check: Check) -> dict[str, LimitInForce]:
    values = {name: getattr(check.rule, name) for name in limits(type(check.rule))}
    return {name: LimitInForce(value, check.source) for name, value in values.items() if value is not None}


def _with_limits(check: Check, found: Mapping[str, LimitInForce]) -> Check:
    if not found:
        return check
    values = {name: _figure(check, name, limit.value) for name, limit in found.items()}
    changed: Rule = dataclasses.replace(check.rule, **values)  # type: ignore[type-var]  # every kind is a dataclass
    _usable(check.key, changed)
    return dataclasses.replace(check, rule=changed)


def _figure(check: Check, name: str, value: float) -> float:
    """A limit as its rule takes it: whole where it counts something."""
    if not whole(type(check.rule), name):
        return value
    known = not limits(type(check.rule))[name].unknown
    if value < known or value != int(value):
        raise BadInput(f"overrides.{check.key}", "must be a whole number of at least 1")
    return int(value)


def _usable(key: str, rule: Rule) -> None:
    try:
        structure.read(type(rule), structure.write(rule))
    except BadInput as problem:
        raise BadInput(f"overrides.{key}", problem.message) from None
    if complaint := rule.unusable():
        raise BadInput(f"overrides.{key}", complaint)


def _applies(companion: Companion, chosen: Mapping[str, str]) -> bool:
    return companion.school is None or chosen.get(companion.school.subject) == companion.school.choice


@dataclass(frozen=True)
class Scope:
    """What one walk-around is about. options: of the machine and its headers, the headers' with prefix. phase, crop: empty for
    any. headers: families coupled."""

    options: Sequence[str] = ()
    phase: str = ""
    crop: str = ""
    headers: Sequence[str] = ()


def applicable(book: RuleBook, scope: Scope) -> list[Check]:
    """The checks that belong to a walk-around, in working order."""
    checks = (check for key, check in book.family.checks.items() if key not in book.left_out)
    return [check for check in checks if belongs(check, scope)]


def belongs(check: Check, scope: Scope) -> bool:
    """Whether a check is part of a walk-around."""
    return (
        check.made_with(scope.options)
        and in_round(check, scope.phase)
        and (not check.crops or not scope.crop or scope.crop in check.crops)
        and (not check.headers or any(header in scope.headers for header in check.headers))
    )


def right_states(check: Check, crop: str, schools: Mapping[str, str]) -> list[str]:
    """The states that are right without another word: those the crop that comes would have, else the first one. None where it
    is set by crop and nobody here knows how.
    """
    rule, states = check.rule, check.rule.states()
    if isinstance(rule, FittedRule) and rule.by_crop and crop:
        wanted = {one.key for one in rule.wanted(crop, schools)}
        return [one.key for one in states if one.key in wanted and one.severity == "sound"]
    return [one.key for one in states[:1]]


LAMP = "lamp"
"""All that a look in passing takes."""


def seen_in_bulk(check: Check, right: Collection[str], choice: str = "") -> bool:
    """Whether a check may be marked sound together with the others of its station, in passing: looked at, not measured, no
    safety item, and nothing for which something is taken apart, put on the bench or taken in hand beside a lamp.

    right: its `right_states`. choice: the state it is marked with, which must be one of them; empty asks about the check alone.
    """
    looked_at = check.kind in ("choice", "yes-no") and not check.safety and not check.optional
    in_sight = not check.apart and check.posture != BENCH and not set(check.tools) - {LAMP}
    return looked_at and in_sight and bool(right) and (not choice or choice in right)


def layout(book: RuleBook, counts: Mapping[str, int]) -> dict[str, int | list[str]]:
    """How many there are of each thing on one machine: the family's number or names, replaced by `counts` (a header's with
    prefix).

    Raises BadInput for a thing that the family does not have or that has names.
    """
    found: dict[str, int | list[str]] = {key: thing.places or thing.count for key, thing in book.family.things.items()}
    for key, count in counts.items():
        if not isinstance(found.get(key), int):
            raise BadInput(f"counts.{key}", "is not counted on this kind of machine")
        found[key] = count
    return found


def to_json(book: RuleBook) -> dict[str, Any]:
    """The rule book as plain data, to be stored with a walk-around."""
    data: dict[str, Any] = structure.write(book)
    return data


def from_json(data: Any) -> RuleBook:
    """The rule book as it was stored."""
    book: RuleBook = structure.read(RuleBook, data)
    # Books stored before checks had postures of their own have them at the station.
    stations = [
        dataclasses.replace(station, checks=[_with_posture(check, station, {}) for check in station.checks])
        for station in book.family.stations
    ]
    return dataclasses.replace(book, family=dataclasses.replace(book.family, stations=stations))
