"""What leads nowhere in the lists beside the families: what goes along, strip-downs, services, calibrations and the others."""

from collections.abc import Iterable, Iterator, Mapping

from .. import registry
from ..calculators.calibrations_due import CALIBRATED
from ..coupled import short
from ..errors import nearest
from ..rules.base import limits
from ..rules.verdict import FAR_REACHING
from . import calibration, shafts, symptoms
from .lists import Catalogue, SchoolChoice, SchoolCondition
from .model import Check


def in_lists(catalogue: Catalogue) -> Iterator[tuple[str, str, str]]:
    """(file, dotted path, complaint)."""
    checks = {short(key): check for family in catalogue.families.values() for key, check in family.checks.items()}
    postures, hazards = catalogue.safety.postures, catalogue.safety.hazards
    turn = {name: [one.key for one in line.shafts] for name, line in catalogue.shafts.families.items()}
    for file, found in (
        ("companions", _companions(catalogue, checks)),
        ("schools", _schools(catalogue, checks)),
        ("strip-downs", _strip_downs(catalogue, checks)),
        ("services", _services(catalogue)),
        ("safety", _moves(catalogue)),
        ("work", _work(catalogue)),
        ("calibrations", _calibrations(catalogue)),
        ("field-settings", _field_settings(catalogue)),
        ("symptoms", symptoms.complaints(catalogue.symptoms, catalogue.families, postures, hazards, turn)),
        ("shafts", shafts.complaints(catalogue.shafts, catalogue.families)),
        ("renamed", _renamed(catalogue, checks)),
    ):
        yield from ((file, path, complaint) for path, complaint in found)


def _companions(catalogue: Catalogue, checks: Mapping[str, Check]) -> Iterator[tuple[str, str]]:
    slots = _slots(catalogue)
    for i, companion in enumerate(catalogue.companions):
        for slot in filter(None, (companion.when, companion.slot)):
            if slot not in slots:
                yield str(i), f"no family has a slot {slot}{nearest(slot, slots)}"
        if not companion.slot and not companion.task:
            yield str(i), f"what goes with {companion.when} is neither a slot nor a task"
        if companion.seen:
            looked_at = companion.seen.check
            for state in companion.seen.choices:
                if state not in (states := _states(checks, looked_at)):
                    yield str(i), f"{looked_at} has no option {state}{nearest(state, states)}"
        yield from ((str(i), complaint) for complaint in school_complaints(catalogue, companion.school))


def _schools(catalogue: Catalogue, checks: Mapping[str, Check]) -> Iterator[tuple[str, str]]:
    for i, school in enumerate(catalogue.schools.values()):
        if school.default not in (known := _choices(catalogue, school.subject)):
            yield str(i), f"{school.subject} has no choice {school.default}{nearest(school.default, known)}"
        for key in school.about:
            if key not in checks:
                yield str(i), f"{school.subject} is about {key}, which is no check{nearest(key, checks)}"
        for j, choice in enumerate(school.choices):
            yield from ((f"{i}.choices.{j}", complaint) for complaint in _school_choice(catalogue, choice, checks))


def _school_choice(catalogue: Catalogue, choice: SchoolChoice, checks: Mapping[str, Check]) -> Iterator[str]:
    for key, sets in choice.sets.items():
        known = set(limits(type(checks[key].rule))) if key in checks else set()
        yield from (f"{key} has no limit {name}{nearest(name, known)}" for name in sets if name not in known)
    for key, option in choice.right.items():
        if option not in (states := _states(checks, key)):
            yield f"{key} has no option {option}{nearest(option, states)}"
    for key, way in choice.read_by.items():
        known_ways = checks[key].rule.ways() if key in checks else ()
        if way not in known_ways:
            yield f"{key} is not read by {way}{nearest(way, known_ways)}"
    for key, posture in choice.postures.items():
        if key not in checks or posture not in catalogue.safety.postures:
            yield f"{key} cannot be made in posture {posture}"


def _strip_downs(catalogue: Catalogue, checks: Mapping[str, Check]) -> Iterator[tuple[str, str]]:
    slots = _slots(catalogue)
    for i, down in enumerate(catalogue.strip_downs):
        for slot in [*down.for_, *(reach.slot for reach in down.reaches)]:
            if slot not in slots:
                yield str(i), f"{down.key}: no family has a slot {slot}{nearest(slot, slots)}"
        for reach in down.reaches:
            if reach.check not in checks:
                yield str(i), f"{down.key}: no family has a check {reach.check}{nearest(reach.check, checks)}"
            elif checks[reach.check].safety:
                yield str(i), f"{down.key}: {reach.check} is a safety item, which is never weighed against money"


def _moves(catalogue: Catalogue) -> Iterator[tuple[str, str]]:
    postures = catalogue.safety.postures
    for i, move in enumerate(catalogue.safety.moves):
        for name in (move.from_, move.to):
            if name not in postures:
                yield f"moves.{i}", f"unknown posture {name}{nearest(name, postures)}"


def _work(catalogue: Catalogue) -> Iterator[tuple[str, str]]:
    work, safety = catalogue.work, catalogue.safety
    for what, named, known in (
        ("posture", "postures", safety.postures),
        ("hazard", "skills", safety.hazards),
    ):
        for name in getattr(work, named):
            if name not in known:
                yield f"{named}.{name}", f"unknown {what} {name}{nearest(name, known)}"
    for name in work.actions:
        if name not in FAR_REACHING:
            yield f"actions.{name}", f"nothing calls for {name}{nearest(name, FAR_REACHING)}"


def _renamed(catalogue: Catalogue, checks: Mapping[str, Check]) -> Iterator[tuple[str, str]]:
    for old, now in catalogue.renamed.checks.items():
        if now not in checks:
            yield f"checks.{old}", f"{old} is now {now}, which is no check{nearest(now, checks)}"
        if old in checks:
            yield f"checks.{old}", f"{old} is a check still"


def _slots(catalogue: Catalogue) -> set[str]:
    return {short(slot) for family in catalogue.families.values() for slot in family.slots}


def _states(checks: Mapping[str, Check], key: str) -> set[str]:
    return {one.key for one in checks[key].rule.states()} if key in checks else set()


def school_complaints(catalogue: Catalogue, wanted: SchoolCondition | None) -> Iterator[str]:
    if wanted and wanted.choice not in (known := _choices(catalogue, wanted.subject)):
        yield f"there is no school {wanted.subject}: {wanted.choice}{nearest(wanted.choice, known)}"


def _services(catalogue: Catalogue) -> Iterator[tuple[str, str]]:
    keys = [one.key for one in catalogue.services]
    for i, one in enumerate(catalogue.services):
        where = str(i)
        if keys.count(one.key) > 1:
            yield where, f"{one.key} stands there twice"
        if not (one.every_h or one.every_days):
            yield where, f"{one.key} needs an interval in hours or days"
        yield from ((where, f"{one.key}: {complaint}") for complaint in school_complaints(catalogue, one.school))
        for name in one.families:
            family = catalogue.families.get(name)
            if family is None:
                yield where, f"{one.key}: there is no family {name}{nearest(name, catalogue.families)}"
                continue
            for what, key, known in (
                ("check", one.check, family.checks),
                ("slot", one.slot, family.slots),
                ("option", one.option, family.options),
            ):
                short_keys = {short(known_key) for known_key in known}
                if key and key not in short_keys:
                    yield where, f"{one.key}: {name} has no {what} {key}{nearest(key, short_keys)}"
        checks = {short(key) for name in one.families if name in catalogue.families for key in catalogue.families[name].checks}
        for key in one.touches:
            if key not in checks:
                yield where, f"{one.key} touches {key}, which is no check of its machines{nearest(key, checks)}"


def _calibrations(catalogue: Catalogue) -> Iterator[tuple[str, str]]:
    """(dotted path, complaint)."""
    listed = catalogue.calibrations.calibrations
    keys = [one.key for one in listed]
    for i, one in enumerate(listed):
        where = f"calibrations.{i}"
        if keys.count(one.key) > 1:
            yield where, f"{one.key} stands there twice"
        known: list[tuple[str, Iterable[str], Iterable[str]]] = [
            ("family", [*one.families, *one.headers], catalogue.families),
            ("posture", [one.posture], catalogue.safety.postures),
            ("hazard", one.hazards, catalogue.safety.hazards),
            ("calibration", [before.key for before in one.after], keys[:i]),
            ("calculator", filter(None, [one.calculator]), registry.calculators()),
            ("option", filter(None, [one.option]), _options(catalogue, one.families)),
            ("option of a header", filter(None, [one.header_option]), _options(catalogue, one.headers)),
            ("event", one.due_after, _events(catalogue, one, keys)),
        ]
        for what, named, there in known:
            yield from (
                (where, f"{one.key}: there is no {what} {name} here{nearest(name, there)}")
                for name in named
                if name not in there
            )
    said = {event for one in listed for event in one.due_after}
    for key in catalogue.calibrations.happened:
        if calibration.TOLD + key not in said:
            yield f"happened.{key}", f"nothing is due after {key}"


def _field_settings(catalogue: Catalogue) -> Iterator[tuple[str, str]]:
    """(dotted path, complaint)."""
    keys = [one.key for one in catalogue.field_settings.settings]
    for i, one in enumerate(catalogue.field_settings.settings):
        if keys.count(one.key) > 1:
            yield f"settings.{i}", f"{one.key} stands there twice"
        for name in one.families:
            if name not in catalogue.families:
                yield f"settings.{i}", f"{one.key}: there is no family {name}{nearest(name, catalogue.families)}"
        if one.calculator and one.calculator not in (known := registry.calculators()):
            yield f"settings.{i}", f"{one.key}: there is no calculator {one.calculator}{nearest(one.calculator, known)}"


def _options(catalogue: Catalogue, families: Iterable[str]) -> set[str]:
    found = (catalogue.families[name].options for name in families if name in catalogue.families)
    return {short(option) for options in found for option in options}


def _events(catalogue: Catalogue, one: calibration.Calibration, keys: Iterable[str]) -> set[str]:
    """Everything that may make a calibration due."""
    families = [catalogue.families[name] for name in [*one.families, *one.headers] if name in catalogue.families]
    return {
        *calibration.PLAIN,
        *(calibration.SET + short(key) for family in families for key, check in family.checks.items() if check.rule.sets_up),
        *(calibration.FITTED + short(slot) for family in families for slot in family.slots),
        *(calibration.TOLD + key for key in catalogue.calibrations.happened),
        *(CALIBRATED + key for key in keys if key != one.key),
    }


def _choices(catalogue: Catalogue, subject: str) -> set[str]:
    school = catalogue.schools.get(subject)
    return {choice.key for choice in school.choices} if school else set()
