"""The catalogue as a shop has it, in words, for anybody who wants to look something up."""

from collections.abc import Mapping

from lumvek_core import positions
from lumvek_core.catalogue.lists import Catalogue
from lumvek_core.catalogue.model import Check, Family
from lumvek_core.catalogue.own import is_own, left_out
from lumvek_core.coupled import long, short
from lumvek_core.looks.wanted import looks_of
from lumvek_core.rules import figures
from lumvek_core.vocabulary import CROP_NAMES, PHASE_NAMES
from shops.models import Member

from ..schemas_views import CatalogueCheckOut, CatalogueFamilyOut, CatalogueStationOut, FamilyBriefOut, LookOut
from . import own_checks, rule_books


def families() -> list[FamilyBriefOut]:
    return [FamilyBriefOut(family=key, name=f.name, checks=len(f.checks)) for key, f in rule_books.shipped().families.items()]


def family(member: Member, key: str) -> CatalogueFamilyOut | None:
    """One family as the shop has it, or None where there is none of that name."""
    catalogue = rule_books.shipped()
    if key not in catalogue.families:
        return None
    found = rule_books.family_of(member.shop, key)
    own = own_checks.read(own_checks.of_family(member.shop, key)).get(key)
    out = left_out(catalogue.families[key], own)
    altered = {long(found.prefix, one.check): one.reason for one in (own.altered if own else [])}
    stations = [
        CatalogueStationOut(
            key=station.key,
            name=station.name,
            checks=[
                _check(catalogue, found, check, check.posture or station.posture, out, altered) for check in station.checks
            ],
        )
        for station in found.stations
    ]
    return CatalogueFamilyOut(
        family=key,
        name=found.name,
        flow=found.flow,
        options=list(found.options.values()),
        checks=len(found.checks),
        stations=stations,
    )


def _check(
    catalogue: Catalogue, family: Family, check: Check, posture: str, out: Mapping[str, str], altered: Mapping[str, str]
) -> CatalogueCheckOut:
    slots = {short(part.slot) for part in check.parts}
    along = [c for c in catalogue.companions if c.when in slots]
    names = {short(key): slot.name for key, slot in family.slots.items()}
    return CatalogueCheckOut(
        key=check.key,
        name=check.name,
        posture=posture,
        kind=check.kind,
        where=_where(family, check),
        how=check.how,
        why=check.why,
        tools=check.tools,
        phases=[PHASE_NAMES[phase] for phase in check.phases],
        when=_when(family, check),
        limits=_limits(check),
        source=check.source,
        verdicts=[
            f"{option.name}: {option.severity}" + (f", {option.action}" if option.action != "none" else "")
            for option in check.rule.states()
        ],
        looks=[LookOut(motif=one.motif, state=one.state, name=one.name, words=one.words) for one in looks_of(check)],
        remedy=check.remedy,
        parts=[family.slots[part.slot].name for part in check.parts],
        companions=[
            f"{names[c.slot]}: {c.why}" if c.slot in names else f"{c.task} {c.why}" for c in along if c.slot in names or c.task
        ],
        hazards=[catalogue.safety.hazards[name] for name in check.hazards],
        safety=check.safety,
        often_missed=check.often_missed,
        optional=check.optional,
        own=is_own(check.key),
        left_out=out.get(check.key, ""),
        altered=altered.get(check.key, ""),
    )


def _where(family: Family, check: Check) -> str:
    thing = positions.thing_of(check.per)
    if not thing:
        return "Left and right" if check.per == "side" else "Once"
    named = family.things[thing]
    if named.places:
        return ", ".join(positions.named(place).label for place in named.places)
    return f"Every {named.name.lower()}{', left and right' if check.per.endswith('-side') else ''}"


def _when(family: Family, check: Check) -> str:
    """What must be there for a check to be made, in words; empty where it is always made."""
    said = [f"with {family.options[option].lower()}" for option in check.wanted_options]
    said += [f"not with {family.options[option].lower()}" for option in check.unless]
    said += [" or ".join(CROP_NAMES[crop] for crop in check.crops)] if check.crops else []
    said += (
        [f"with {' or '.join(rule_books.shipped().families[name].name.lower() for name in check.headers)}"]
        if check.headers
        else []
    )
    return ", ".join(said)


def _limits(check: Check) -> list[str]:
    return [
        f"{figures.name(check, figure)} {figures.shown(check, figure, value, 'mm')}"
        for figure, value in figures.in_force(check).items()
    ]
