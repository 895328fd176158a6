"""The rules in force for a shop and for a model, with where each comes from."""

from fleet.models import MachineModel
from fleet.queries.machines import machines_for
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.model import Check, Family
from lumvek_core.catalogue.rule_book import LimitInForce
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.counted import noun
from lumvek_core.coupled import long, short
from lumvek_core.rules import figures
from lumvek_core.units import stated_in
from parts.models import PartNumber
from shops.access import NotFoundHere
from shops.models import Change, Member, Shop
from shops.rights import may

from ..schemas_rules import (
    ChangeOut,
    CountOut,
    FeelerOut,
    ModelNumberOut,
    ModelOut,
    ModelRulesOut,
    RuleCheckOut,
    RuleFigureOut,
    RulesOut,
    SchoolChoiceOut,
    SchoolOut,
)
from . import check_files, limits, own_checks, rule_books, serializers

LOG = 60
"""Changes shown, the newest first."""


def model_of(member: Member, model_id: int) -> MachineModel:
    """A model of the member's shop. Raises NotFoundHere."""
    machine_model = MachineModel.objects.of(member).filter(pk=model_id).first()
    if machine_model is None or machine_model.family not in rule_books.shipped().families:
        raise NotFoundHere("There is no such model.")
    return machine_model


def book_of(model: MachineModel, shop: Shop) -> CoreBook:
    """The rule book in force for a model on its own. Nothing is stored."""
    own = own_checks.read(own_checks.of_models(shop, [model]))
    return in_force.rule_book(rule_books.shipped(), model.family, rule_books.own_limits(model), shop.schools, own=own)


def rules(member: Member) -> RulesOut:
    shop = member.shop
    return RulesOut(
        models=[model_out(model) for model in MachineModel.objects.in_shop(shop.pk).order_by("maker", "name")],
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
            ChangeOut(at=c.at, by=serializers.full_name(c.by), what=c.what, before=c.before, after=c.after)
            for c in shop.changes.filter(about=Change.About.RULE).select_related("by")[:LOG]
        ],
        may_change=may(member, "change limits"),
    )


def model_out(model: MachineModel) -> ModelOut:
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
                    _figure(member, check, name, limit, shipped.limits.get(check.key, {}).get(name), (check.key, name) in own)
                    for name, limit in in_force_here.items()
                ]
                checks.append(RuleCheckOut(check=check.key, name=check.name, station=station.name, figures=listed))
    counts = [
        CountOut(thing=key, many=noun(2, thing.name), count=model.counts.get(short(key), thing.count), shipped=thing.count)
        for key, thing in book.family.things.items()
        if not thing.places and not key.endswith("row")
    ]
    numbers = list(model.part_numbers.all())
    return ModelRulesOut(
        model=model_out(model),
        machines=list(machines_for(member).filter(model=model).values_list("name", flat=True)),
        checks=checks,
        counts=counts,
        numbers=[_number(book.family, one) for one in numbers],
        to_find=len({short(slot) for slot in book.family.slots} - {one.slot for one in numbers}),
        own=[one.check.name for one in check_files.checks_of(model)],
    )


def _number(family: Family, one: PartNumber) -> ModelNumberOut:
    said = [
        one.get_kind_display() if one.kind != PartNumber.Kind.ORIGINAL else "",
        f"replaced by {one.replaced_by}" if one.replaced_by else "",
        f"lasts {one.life:g} times the original" if one.life != 1 else "",
        "scarce" if one.status == PartNumber.Status.SCARCE else "",
        one.mark,
        one.note,
    ]
    slot = family.slots.get(long(family.prefix, one.slot))
    return ModelNumberOut(
        part=slot.name if slot else one.slot,
        side={"L": "left", "R": "right"}.get(one.side, ""),
        number=one.number,
        pack=one.pack,
        chosen=one.chosen,
        remarks=", ".join(filter(None, said)),
    )


def _figure(
    member: Member, check: Check, name: str, limit: LimitInForce, shipped: LimitInForce | None, own: bool
) -> RuleFigureOut:
    system = serializers.system_of(member)
    return RuleFigureOut(
        figure=name,
        name=figures.name(check, name),
        value=limit.value,
        shown=figures.shown(check, name, limit.value, system),
        typed=stated_in(limit.value) or figures.shown(check, name, limit.value, system),
        unit=figures.unit(check, name),
        source=limits.SOURCES.get(limit.source, limit.source),
        note=limit.note,
        shipped=figures.shown(check, name, shipped.value, system) if shipped else "none",
        own=own,
    )
