"""What a shop decides for itself: limits of its models, schools, feelers. Every change is logged; running walk-arounds keep
theirs."""

from typing import Any

from django.db import transaction

from fleet.models import LimitOverride, Machine, MachineModel
from fleet.queries.counters import history_changed
from lumvek_core import units
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import LimitInForce
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.judgement.words import pressure_unit
from lumvek_core.rules import figures
from lumvek_core.rules.base import limits as rule_limits
from shops.access import NotFoundHere
from shops.models import Feeler, Member, Role, RuleChange, Shop

from ..queries import limits, rule_books, serializers
from ..schemas_views import (
    CountOut,
    FeelerOut,
    ModelOut,
    ModelRulesOut,
    RuleChangeOut,
    RuleCheckOut,
    RuleFigureOut,
    RulesOut,
    SchoolChoiceOut,
    SchoolOut,
)

LEADS = {Role.LEAD}
LOG = 60
"""Changes shown, the newest first."""


def model_of(member: Member, model_id: int) -> MachineModel:
    """A model of the member's shop. Raises NotFoundHere."""
    found = MachineModel.objects.filter(shop=member.shop_id, pk=model_id).first()
    if found is None or found.family not in rule_books.shipped().families:
        raise NotFoundHere("There is no such model.")
    return found


def book_of(model: MachineModel, shop: Shop) -> CoreBook:
    """The rule book in force for a model on its own. Nothing is stored."""
    return in_force.rule_book(rule_books.shipped(), model.family, rule_books.own_limits(model), shop.schools)


def rules(member: Member) -> RulesOut:
    shop = member.shop
    return RulesOut(
        models=[_model(model) for model in MachineModel.objects.filter(shop=shop).order_by("maker", "name")],
        schools=[
            SchoolOut(
                subject=school.subject,
                name=school.name,
                chosen=shop.schools.get(school.subject, school.default),
                default=school.default,
                why_default=school.why_default,
                choices=[SchoolChoiceOut(key=choice.key, name=choice.name, why=choice.why) for choice in school.choices],
            )
            for school in rule_books.shipped().schools.values()
        ],
        feelers=[FeelerOut(id=f.pk, name=f.name, thickness_mm=f.thickness_mm) for f in shop.feelers.all()],
        changes=[
            RuleChangeOut(at=c.at, by=serializers.full_name(c.by), what=c.what, before=c.before, after=c.after)
            for c in shop.rule_changes.select_related("by")[:LOG]
        ],
        may_change=member.role in LEADS,
    )


def _model(model: MachineModel) -> ModelOut:
    family = rule_books.shipped().families.get(model.family)
    return ModelOut(id=model.pk, name=model.full_name, kind=family.name if family else model.family)


def model_rules(member: Member, model: MachineModel) -> ModelRulesOut:
    """Every limit of a model with where it comes from and what was shipped."""
    book, shipped = book_of(model, member.shop), in_force.rule_book(rule_books.shipped(), model.family)
    own = {(o.check_key, o.figure) for o in model.overrides.all()}
    checks = []
    for station in book.family.stations:
        for check in station.checks:
            in_force_here = book.limits[check.key]
            if in_force_here:
                listed = [
                    _figure(member, check, name, limit, shipped.limits[check.key].get(name), (check.key, name) in own)
                    for name, limit in in_force_here.items()
                ]
                checks.append(RuleCheckOut(check=check.key, name=check.name, station=station.name, figures=listed))
    counts = [
        CountOut(thing=key, name=thing.name, count=model.counts.get(short(key), thing.count), shipped=thing.count)
        for key, thing in book.family.things.items()
        if not thing.places and not key.endswith("row")
    ]
    return ModelRulesOut(model=_model(model), checks=checks, counts=counts)


def _figure(
    member: Member, check: Check, name: str, limit: LimitInForce, shipped: LimitInForce | None, own: bool
) -> RuleFigureOut:
    system = serializers.system_of(member)
    return RuleFigureOut(
        figure=name,
        name=figures.name(check, name),
        value=limit.value,
        shown=figures.shown(check, name, limit.value, system),
        unit=figures.unit(check, name),
        source=limits.SOURCES.get(limit.source, limit.source),
        note=limit.note,
        shipped=figures.shown(check, name, shipped.value, system) if shipped else "none",
        own=own,
    )


@transaction.atomic
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


@transaction.atomic
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


@transaction.atomic
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
        history_changed(Machine.objects.filter(shop=shop).values_list("pk", flat=True))
        _log(member, school.name, names.get(before, before), names[choice])


@transaction.atomic
def set_feeler(member: Member, name: str, thickness: str) -> None:
    """Own a feeler, change its thickness, or with empty thickness give it away. Raises BadInput with field ``thickness``."""
    name = name.strip().lower()
    had = Feeler.objects.filter(shop=member.shop_id, name=name).first()
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
