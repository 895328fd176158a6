"""An own check as a lead types it, and as the core takes it: one made from the other, both ways."""

from dataclasses import MISSING, Field, fields
from typing import Any, get_args
from uuid import uuid4

from fleet.models import MachineModel
from lumvek_core import structure
from lumvek_core.catalogue.model import Check, Family, Unit
from lumvek_core.catalogue.own import OwnCheck, key_for, misfits, offered
from lumvek_core.coupled import long, short
from lumvek_core.errors import BadInput
from lumvek_core.rules import figures
from lumvek_core.rules.base import Option, Rule, limits
from lumvek_core.units import stated_in
from shops.models import Member

from ..schemas_checks import OwnCheckIn, StateIn
from . import limits as limits_of
from . import rule_books, serializers


def understood(member: Member, typed: OwnCheckIn, taken: list[str]) -> OwnCheck:
    """The check that was typed, for its family. taken: keys there are. Raises BadInput at the field that is at fault."""
    family = rule_books.shipped().families.get(typed.family)
    if family is None:
        raise BadInput("family", "pick what kind of machine it is for")
    kind = offered().get(typed.rule)
    if kind is None:
        raise BadInput("rule", "pick how it is read")
    for name, words in (("name", "say what it is called"), ("how", "say what is done")):
        if not getattr(typed, name).strip():
            raise BadInput(name, words)
    raw = _raw(member, typed, family, kind, typed.key or key_for(typed.name, taken))
    try:
        found: OwnCheck = structure.read(OwnCheck, raw)
    except BadInput as problem:
        raise BadInput(_field(problem.field), problem.message) from None
    for field, complaint in misfits(rule_books.shipped(), family, found):
        raise BadInput(_about(complaint) if field == "check" else field.rpartition(".")[2], complaint)
    return found


def _raw(member: Member, typed: OwnCheckIn, family: Family, kind: type[Rule], key: str) -> dict[str, Any]:
    states = _states(typed) if "options" in fields_of(kind) else []
    rule: dict[str, Any] = {"kind": typed.rule, **_limits(member, typed, kind)}
    if states:
        rule["options"] = states
    for name in ("right", "severity", "action"):
        if name in fields_of(kind):
            rule[name] = getattr(typed, name)
    check: dict[str, Any] = {
        "key": key,
        "name": typed.name.strip(),
        "per": typed.per,
        "kind": _answers(kind, typed),
        "how": typed.how.strip(),
        "why": typed.why.strip(),
        "unit": (typed.unit or None) if "unit" in asks(kind) else None,
        "rule": rule,
        "source": "this shop",
        "posture": typed.posture,
        "tools": [one.strip() for one in typed.tools if one.strip()],
        "hazards": typed.hazards,
        "phases": typed.phases,
        "crops": typed.crops,
        "option": typed.option or None,
        "remedy": typed.remedy.strip(),
        "safety": typed.safety,
        "optional": typed.optional,
        "parts": _parts(typed, kind, states),
        "wears": {"life": _life(typed)} if "life" in asks(kind) and typed.life.strip() else None,
    }
    if not typed.phases:
        raise BadInput("phases", "say when it is made")
    slots = {_slot(typed): {"name": typed.part.strip()}} if typed.slot == OWN_PART else {}
    return {"station": typed.station, "check": check, "slots": slots}


OWN_PART = "own"
"""What is picked in place of a part of the catalogue."""


def _slot(typed: OwnCheckIn) -> str:
    if typed.slot != OWN_PART:
        return typed.slot
    if not typed.part.strip():
        raise BadInput("part", "say what the part is called")
    return key_for(typed.part)


def fields_of(kind: type[Rule]) -> dict[str, Field[Any]]:
    """What the catalogue may say of a kind of rule, by name."""
    return {field.name: field for field in fields(kind)}  # type: ignore[arg-type]  # every kind is a dataclass


def asks(kind: type[Rule]) -> list[str]:
    """What is asked of a kind of reading besides its limits."""
    names = fields_of(kind)
    figure = kind.answers == "measure" or (kind.answers is None and kind.figures is None)
    return [
        *(["states"] if "options" in names else []),
        *(["unit"] if figure else []),
        *(["right"] if "right" in names else []),
        *(["fault"] if "action" in names else []),
        *(["life"] if kind.renews else []),
    ]


def _answers(kind: type[Rule], typed: OwnCheckIn) -> str:
    return kind.answers or ("measure" if typed.unit else "note")


def _states(typed: OwnCheckIn) -> list[dict[str, str]]:
    """The states with keys made from their names. The first is the sound one."""
    if len(typed.states) < 2:
        raise BadInput("states", "name at least two states, the sound one first")
    found: list[dict[str, str]] = []
    for i, one in enumerate(typed.states):
        if not one.name.strip():
            raise BadInput(f"states.{i}.name", "say what this state is called")
        key = key_for(one.name, [f"own-{there['key']}" for there in found]).removeprefix("own-")
        found.append({"key": key, "name": one.name.strip(), "severity": one.severity, "action": one.action})
    if typed.states[0].severity != "sound":
        raise BadInput("states.0.severity", "the first state is the sound one")
    return found


def _limits(member: Member, typed: OwnCheckIn, kind: type[Rule]) -> dict[str, Any]:
    bare = _bare(typed, kind)
    found: dict[str, Any] = {}
    for name in limits(kind):
        text = typed.figures.get(name, "").strip()
        if text:
            try:
                value = limits_of.typed(member, bare, name, text)
            except BadInput as problem:
                raise BadInput(f"figures.{name}", problem.message) from None
            found[name] = stated_in(value) or value
        elif wanted(kind, name):
            raise BadInput(f"figures.{name}", "is wanted")
    return found


def wanted(kind: type[Rule], figure: str) -> bool:
    """Whether a rule cannot do without this limit."""
    field = fields_of(kind)[figure]
    return field.default is MISSING and field.default_factory is MISSING


def _bare(typed: OwnCheckIn, kind: type[Rule]) -> Check:
    """A check with a rule of this kind that has no figures yet: enough to tell their units."""
    rule = object.__new__(kind)
    return Check("own", typed.name, typed.per, kind.answers or "measure", typed.how, rule, unit=typed.unit or None)


def _life(typed: OwnCheckIn) -> float:
    try:
        life = float(typed.life.strip().replace(",", "."))
    except ValueError:
        raise BadInput("life", "must be a number") from None
    if not 0 < life < 1e6:
        raise BadInput("life", "must be more than nothing")
    return life


def _parts(typed: OwnCheckIn, kind: type[Rule], states: list[dict[str, str]]) -> list[dict[str, Any]]:
    if not typed.slot:
        return []
    part: dict[str, Any] = {"slot": _slot(typed), "quantity": typed.quantity}
    if states:
        faulty = [one for one in states if one["severity"] != "sound"]
        with_part = [one for one in faulty if one["action"] == "replace"] or faulty
        part |= {"options": [one["key"] for one in with_part], "when": sorted({one["action"] for one in with_part})}
    elif "action" in fields_of(kind):
        part["when"] = [typed.action]
    return [part]


def _field(path: str) -> str:
    """Where on the form what the core refused was typed."""
    steps = path.removeprefix("check.").split(".")
    if steps[0] == "rule" and len(steps) > 1:
        return ".".join(["states", *steps[2:]]) if steps[1] == "options" else f"figures.{steps[1]}"
    return {"parts": "slot", "slots": "part"}.get(steps[0], steps[0])


ABOUT = {
    "slot": "slot",
    "part": "slot",
    "is made per": "per",
    "posture": "posture",
    "hazard": "hazards",
    "option": "option",
}
"""What a complaint of the catalogue says, and the field that it is about."""


def _about(complaint: str) -> str:
    """The field that a complaint of the catalogue is about; empty where it is about several."""
    return next((field for words, field in ABOUT.items() if words in complaint), "")


def typed_again(member: Member, family: Family, model: MachineModel | None, own: OwnCheck) -> OwnCheckIn:
    """A check as it would be typed, to be changed, under a UUID for the version that comes of it."""
    check, rule = own.check, own.check.rule
    system = serializers.system_of(member)
    part = check.parts[0] if check.parts else None
    states: list[Option] = getattr(rule, "options", [])
    stated = {name: getattr(rule, name) for name in limits(type(rule)) if getattr(rule, name) is not None}
    shown = {name: stated_in(value) or figures.shown(check, name, value, system) for name, value in stated.items()}
    return OwnCheckIn(
        uuid=uuid4(),
        key=check.key,
        family=family.family,
        model=model.pk if model else None,
        station=own.station,
        name=check.name,
        per=check.per,
        how=check.how,
        why=check.why,
        rule=rule.kind,
        unit=check.unit or "",
        figures=shown,
        states=[StateIn(name=one.name, severity=one.severity, action=one.action) for one in states],
        right=getattr(rule, "right", "yes"),
        severity=getattr(rule, "severity", "due"),
        action=getattr(rule, "action", "repair"),
        posture=check.posture,
        tools=check.tools,
        hazards=check.hazards,
        phases=check.phases,
        crops=check.crops,
        option=check.option or "",
        slot=OWN_PART if part and part.slot in own.slots else part.slot if part else "",
        part=own.slots[part.slot].name if part and part.slot in own.slots else "",
        quantity=part.quantity if part else 1,
        life=f"{check.wears.life:g}" if check.wears else "",
        remedy=check.remedy,
        safety=check.safety,
        optional=check.optional,
        reason="",
    )


def places(family: Family) -> list[tuple[str, str]]:
    """(per, in words) of everything a check of a family can be made at."""
    found = [("machine", "Once"), ("side", "Left and right")]
    for key, thing in family.things.items():
        plain = short(key)
        found.append((plain, f"Every {thing.name.lower()}"))
        if not thing.places:
            found.append((f"{plain}-side", f"Every {thing.name.lower()}, left and right"))
    return found


def units_offered() -> list[str]:
    return list(get_args(Unit))


def full_key(family: Family, key: str) -> str:
    return long(family.prefix, key)
