"""What people notice of a machine and what it may come of: the file ``symptoms.yaml``."""

from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..coupled import short
from ..errors import nearest
from .model import Check, Family

When = Literal["empty", "loaded", "starting", "turning", "always"]
Sound = Literal["hum", "knock", "rumble", "rattle", "squeal", "growl"]
Follows = Literal["engine speed", "ground speed", "load", "crop"]
Season = Literal["", "begin", "run"]
"""When in its season a machine shows something: while it begins, or once it has run for weeks."""


@dataclass(frozen=True)
class Look:
    """Something that is looked at. A key of the catalogue's checks brings name, posture and way with it; any other says them.
    minutes: that it takes where the machine stands ready for it."""

    minutes: Annotated[float, Over(0), Within(0, 600)]
    name: str = ""
    posture: str = ""
    how: str = ""
    hazards: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Signs:
    """When it shows, how it sounds, what it follows; empty where that tells nothing."""

    when: list[When] = field(default_factory=list)
    sound: list[Sound] = field(default_factory=list)
    follows: list[Follows] = field(default_factory=list)


@dataclass(frozen=True)
class SymptomCause:
    """check: the look that proves it, and rules it out where `clears`. families: where it can be at all, if not in all of the
    symptom's. weight: how common it is beside the others. shaft: of the drive line, that a recording would name. season: when
    it is commoner than that."""

    key: str
    name: str
    weight: Annotated[float, Over(0), Within(0, 100)]
    check: str
    clears: bool = True
    families: list[str] = field(default_factory=list)
    shaft: str = ""
    season: Season = ""


@dataclass(frozen=True)
class Split:
    """A look that proves several causes at once, and rules them all out where `clears`."""

    check: str
    proves: list[str]
    clears: bool = True


@dataclass(frozen=True)
class Symptom:
    """also: other words for it. splits: looks that are no cause's own and tell several apart. stations: where it shows, by
    their keys without a header's prefix. swap: it is one for a swap test. loosens: checks of what it may have loosened, which
    are looked at after the cure."""

    key: str
    name: str
    families: list[str]
    stations: list[str]
    causes: list[SymptomCause]
    also: list[str] = field(default_factory=list)
    signs: Signs = field(default_factory=Signs)
    splits: list[Split] = field(default_factory=list)
    swap: bool = False
    loosens: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class SwapPart:
    """A part that sits alike on every row. name: as one says it. minutes: to swap it between two rows."""

    slot: str
    name: str
    families: list[str]
    weight: Annotated[float, Over(0), Within(0, 100)]
    minutes: Annotated[float, Over(0), Within(0, 600)]


@dataclass(frozen=True)
class Symptoms:
    """looks: by key. swaps: what is swapped between rows."""

    looks: dict[str, Look]
    symptoms: list[Symptom]
    swaps: list[SwapPart] = field(default_factory=list)

    def get(self, key: str) -> "Symptom | None":
        """One of them by its key."""
        return next((one for one in self.symptoms if one.key == key), None)

    def of(self, families: Collection[str]) -> list[Symptom]:
        """Those of a machine and what is coupled to it."""
        return [one for one in self.symptoms if set(one.families) & set(families)]


def check_of(family: Family, key: str) -> Check | None:
    """The family's check that a look names, if there is one."""
    return next((check for check in family.checks.values() if short(check.key) == key), None)


def causes_in(symptom: Symptom, looks: Mapping[str, Look], family: Family) -> list[SymptomCause]:
    """The causes that a machine of this family can have: those whose look it has."""
    return [
        one
        for one in symptom.causes
        if (not one.families or family.family in one.families)
        and (looks[one.check].name or check_of(family, one.check) is not None)
    ]


def complaints(
    symptoms: Symptoms,
    families: Mapping[str, Family],
    postures: Collection[str],
    hazards: Collection[str],
    shafts: Mapping[str, Collection[str]],
) -> Iterator[tuple[str, str]]:
    """(dotted path, what is wrong there). shafts: by family, the keys of its drive line."""
    checks = {short(key) for family in families.values() for key in family.checks}
    for key, look in symptoms.looks.items():
        yield from ((f"looks.{key}", complaint) for complaint in _look(key, look, checks, postures, hazards))
    for i, part in enumerate(symptoms.swaps):
        for name in part.families:
            slots = [short(slot) for slot in families[name].slots] if name in families else []
            if part.slot not in slots:
                yield f"swaps.{i}", f"{name} has no slot {part.slot}{nearest(part.slot, slots)}"
    keys = [one.key for one in symptoms.symptoms]
    used = {check for one in symptoms.symptoms for check in _looked_at(one)}
    for key in symptoms.looks:
        if key not in used:
            yield f"looks.{key}", f"nothing is found by {key}"
    for i, one in enumerate(symptoms.symptoms):
        if keys.count(one.key) > 1:
            yield f"symptoms.{i}", f"{one.key} stands there twice"
        yield from ((f"symptoms.{i}", f"{one.key}: {complaint}") for complaint in _symptom(one, symptoms.looks, families))
        turning = {key for name in one.families for key in shafts.get(name, ())}
        for cause in one.causes:
            if cause.shaft and cause.shaft not in turning:
                yield f"symptoms.{i}", f"{cause.key}: there is no shaft {cause.shaft}{nearest(cause.shaft, turning)}"


def _looked_at(one: Symptom) -> list[str]:
    return [*(cause.check for cause in one.causes), *(split.check for split in one.splits)]


def _look(key: str, look: Look, checks: Collection[str], postures: Collection[str], hazards: Collection[str]) -> Iterator[str]:
    own = [look.name, look.posture, look.how]
    if key in checks and any(own):
        yield f"{key} is a check, which says its name, posture and way itself"
    elif key not in checks and not all(own):
        yield f"{key} is no check{nearest(key, checks)}, so it needs name, posture and how"
    if look.posture and look.posture not in postures:
        yield f"{key}: unknown posture {look.posture}{nearest(look.posture, postures)}"
    for name in look.hazards:
        if name not in hazards:
            yield f"{key}: unknown hazard {name}{nearest(name, hazards)}"


def _symptom(one: Symptom, looks: Mapping[str, Look], families: Mapping[str, Family]) -> Iterator[str]:
    for name in [*one.families, *(name for cause in one.causes for name in cause.families)]:
        if name not in families:
            yield f"there is no family {name}{nearest(name, families)}"
    known = [families[name] for name in one.families if name in families]
    stations = {short(station.key) for family in known for station in family.stations}
    for station in one.stations:
        if station not in stations:
            yield f"there is no station {station}{nearest(station, stations)}"
    keys = [cause.key for cause in one.causes]
    for key in keys:
        if keys.count(key) > 1:
            yield f"{key} stands there twice"
    for name in (name for split in one.splits for name in split.proves):
        if name not in keys:
            yield f"there is no cause {name}{nearest(name, keys)}"
    for key in one.loosens:
        if not any(check_of(family, key) for family in known):
            yield f"none of {', '.join(one.families)} has a check {key}"
    for check in _looked_at(one):
        if check not in looks:
            yield f"there is no look {check}{nearest(check, looks)}"
        elif not looks[check].name and not any(check_of(family, check) for family in known):
            yield f"none of {', '.join(one.families)} has a check {check}"
    for family in known:
        if all(cause.check in looks for cause in one.causes) and not causes_in(one, looks, family):
            yield f"{family.family} has none of its causes"
