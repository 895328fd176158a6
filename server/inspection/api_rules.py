"""Endpoints of the catalogue and of what a shop decides for itself."""

from django.http import HttpRequest
from ninja import File, Form, Router, UploadedFile

from shops.access import NotFoundHere, member_of
from shops.endpoints import allowed
from tabular import sheets
from tabular.schemas import TableReportOut

from .actions import machine_models, shop_rules
from .queries import browse, rules_in_force
from .schemas_rules import CopyIn, CountIn, FeelerIn, LimitIn, ModelOut, ModelRulesOut, RulesOut, SchoolIn
from .schemas_views import CatalogueFamilyOut, FamilyBriefOut

catalogue = Router(tags=["catalogue"])
rules = Router(tags=["rules"])


@catalogue.get("", response=list[FamilyBriefOut])
def families(request: HttpRequest) -> list[FamilyBriefOut]:
    """The kinds of machine the catalogue knows."""
    return browse.families()


@catalogue.get("/{str:family}", response=CatalogueFamilyOut)
def family(request: HttpRequest, family: str) -> CatalogueFamilyOut:
    """Every check of a kind of machine, in working order."""
    found = browse.family(member_of(request), family)
    if found is None:
        raise NotFoundHere("There is no such kind of machine.")
    return found


@rules.get("", response=RulesOut, **allowed("see rules"))
def all_rules(request: HttpRequest) -> RulesOut:
    """Schools, feelers, models and the log of changes."""
    return rules_in_force.rules(member_of(request))


@rules.get("/models/{int:model_id}", response=ModelRulesOut, **allowed("see rules"))
def model_rules(request: HttpRequest, model_id: int) -> ModelRulesOut:
    """Every limit of a model, where it comes from and what was shipped."""
    member = member_of(request)
    return rules_in_force.model_rules(member, rules_in_force.model_of(member, model_id))


@rules.post("/models/{int:model_id}/limits", response=ModelRulesOut, **allowed(shop_rules.set_limit))
def set_limit(request: HttpRequest, model_id: int, new: LimitIn) -> ModelRulesOut:
    """Replace a limit of a model, or take the replacement away."""
    member = member_of(request)
    model = rules_in_force.model_of(member, model_id)
    shop_rules.set_limit(member, model, new.check, new.figure, new.text, new.source, new.note)
    return rules_in_force.model_rules(member, model)


@rules.post("/models/{int:model_id}/counts", response=ModelRulesOut, **allowed(shop_rules.set_count))
def set_count(request: HttpRequest, model_id: int, new: CountIn) -> ModelRulesOut:
    """How many of a thing this model has."""
    member = member_of(request)
    model = rules_in_force.model_of(member, model_id)
    shop_rules.set_count(member, model, new.thing, new.count)
    return rules_in_force.model_rules(member, model)


@rules.post("/models/{int:model_id}/copies", response=ModelOut, **allowed(machine_models.copy))
def copy_model(request: HttpRequest, model_id: int, new: CopyIn) -> ModelOut:
    """A model like this one, under its own name and a UUID made by the client."""
    member = member_of(request)
    made = machine_models.copy(member, new.uuid, rules_in_force.model_of(member, model_id), new.maker, new.name)
    return rules_in_force.model_out(made)


@rules.post("/models/file", response=TableReportOut, **allowed(machine_models.take_file))
def model_from_file(request: HttpRequest, file: File[UploadedFile], dry: Form[bool] = True) -> TableReportOut:
    """A model from a file of another shop. dry: only say what it would change."""
    return TableReportOut.of(machine_models.take_file(member_of(request), sheets.words_of(file), dry=dry), dry=dry)


@rules.post("/schools", response=RulesOut, **allowed(shop_rules.set_school))
def set_school(request: HttpRequest, new: SchoolIn) -> RulesOut:
    """Pick a school for a subject."""
    member = member_of(request)
    shop_rules.set_school(member, new.subject, new.choice)
    return rules_in_force.rules(member)


@rules.post("/feelers", response=RulesOut, **allowed(shop_rules.set_feeler))
def set_feeler(request: HttpRequest, new: FeelerIn) -> RulesOut:
    """Own a feeler with its measured thickness, or give it away."""
    member = member_of(request)
    shop_rules.set_feeler(member, new.name, new.thickness)
    return rules_in_force.rules(member)
