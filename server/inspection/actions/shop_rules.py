"""What a shop decides for itself: limits of its models, schools, feelers. Every change is logged; running walk-arounds keep
theirs."""

from typing import Any

from fleet.actions.history import history_changed
from fleet.models import LimitOverride, Machine, MachineModel
from lumvek_core import units
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import LimitInForce
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.judgement.words import pressure_unit
from lumvek_core.rules import figures
from lumvek_core.rules.base import limits as rule_limits
from shops.models import Feeler, Member, Role, RuleChange, Shop
from shops.rights import action

from ..queries import limits, rule_books
from ..queries.rules_in_force import book_of

LEADS = {Role.LEAD}


@action("change limits")
def set_limit(member: Member, model: MachineModel, check_key: str, figure: str, text: str, source: str, note: str) -> None:
    """Replace a limit of a model, or with empty text take its own figure away. Raises BadInput with field ``text``."""
    before = book_of(model, member.shop)
    check = before.family.checks.get(check_key)
    if check is None or figure not in rule_limits(type(check.rule)):
        raise BadInput("figure", "there is no such limit")
    had = before.limits[check_key].get(figure)
    model.overrides.filter(check_key=check_key, figure=figure).delete()
    if text.strip():
        value = _value(member, check, figure, text)
        LimitOverride.objects.create(
            model=model, check_key=check_key, figure=figure, value=value, source=source, note=note.strip()
        )
    try:
        after = book_of(model, member.shop).limits[check_key].get(figure)
    except BadInput as problem:
        raise BadInput("text", problem.message) from None
    history_changed(model.machines.values_list("pk", flat=True))
    name = f"{model.full_name}, {check.name}: {figures.name(check, figure).lower()}"
    _log(member, name, _said(check, figure, had), _said(check, figure, after))


def _said(check: Check, figure: str, limit: LimitInForce | None) -> str:
    if limit is None:
        return "none"
    return f"{figures.shown(check, figure, limit.value, 'mm')} ({limits.SOURCES.get(limit.source, limit.source)})"


def _value(member: Member, check: Check, figure: str, text: str) -> float:
    """A limit as the core takes it: lengths in mm, shares from per cent."""
    unit = figures.unit(check, figure)
    if unit == "mm":
        try:
            return units.parse_length(text, "in" if member.units == "in" else "mm")
        except BadInput as problem:
            raise BadInput("text", problem.message) from None
    if unit in ("mbar", "bar") and (own := pressure_unit(check, "in" if member.units == "in" else "mm")):
        try:
            return units.parse_pressure(text, own) / units.MBAR_PER[unit]  # type: ignore[index]
        except BadInput as problem:
            raise BadInput("text", problem.message) from None
    try:
        value = float(text.strip().removesuffix(unit).strip().replace(",", ".").replace("−", "-"))
    except ValueError:
        raise BadInput("text", f"must be a number{f' of {unit}' if unit else ''}") from None
    if not -1e6 < value < 1e6:
        raise BadInput("text", "is far outside anything measured on a machine")
    return figures.typed(check, figure, value)


@action("change sizes")
def set_count(member: Member, model: MachineModel, thing: str, count: int) -> None:
    """How many of a thing this model has."""
    family = rule_books.shipped().families[model.family]
    found = family.things.get(thing)
    if found is None or found.places:
        raise BadInput("thing", "is not counted on this kind of machine")
    before = model.counts.get(short(thing), found.count)
    model.counts = {**model.counts, short(thing): count}
    model.save(update_fields=["counts"])
    _log(member, f"{model.full_name}: number of {found.name.lower()}s", str(before), str(count))


@action("pick schools")
def set_school(member: Member, subject: str, choice: str) -> None:
    """Pick a school. Raises BadInput for one that there is not."""
    school = rule_books.shipped().schools.get(subject)
    names = {one.key: one.name for one in school.choices} if school else {}
    if school is None or choice not in names:
        raise BadInput("choice", "there is no such school")
    shop = Shop.objects.select_for_update().get(pk=member.shop_id)
    before = shop.schools.get(subject, school.default)
    chosen: dict[str, Any] = {**shop.schools, subject: choice}
    if choice == school.default:
        chosen.pop(subject)
    shop.schools = chosen
    shop.save(update_fields=["schools"])
    member.shop = shop
    if before != choice:
        history_changed(Machine.objects.in_shop(shop.pk).values_list("pk", flat=True))
        _log(member, school.name, names.get(before, before), names[choice])


@action("change feelers")
def set_feeler(member: Member, name: str, thickness: str) -> None:
    """Own a feeler, change its thickness, or with empty thickness give it away. Raises BadInput with field ``thickness``."""
    name = name.strip().lower()
    had = Feeler.objects.of(member).filter(name=name).first()
    before = f"{had.thickness_mm:g} mm" if had else "none"
    if not thickness.strip():
        if had is None:
            raise BadInput("thickness", "say how thick it is")
        had.delete()
        return _log(member, f"Feeler {name}", before, "none")
    try:
        value = units.parse_length(thickness)
    except BadInput as problem:
        raise BadInput("thickness", problem.message) from None
    if not 0 < value <= 5:
        raise BadInput("thickness", "must be between 0 and 5 mm")
    Feeler.objects.update_or_create(shop=member.shop, name=name, defaults={"thickness_mm": value})
    _log(member, f"Feeler {name}", before, f"{value:g} mm")


def _log(member: Member, what: str, before: str, after: str) -> None:
    RuleChange.objects.create(shop=member.shop, by=member.user, what=what[:200], before=before[:200], after=after[:200])
