"""A shop's own checks of a family, and a whole model, as the readable files that other shops read in."""

from fleet.models import MachineModel
from lumvek_core.catalogue import files
from lumvek_core.catalogue.model_file import ModelFile, ModelLimit, ModelNumber
from lumvek_core.catalogue.own import Altered, OwnCheck, OwnChecks
from lumvek_core.coupled import short
from lumvek_core.units import Inches
from parts.models import PartNumber
from shops.models import Member

from . import own_checks, rule_books

HEADING = "Lumvek: {what}. What is as the catalogue has it is not written. Read in again under {where}."


def own_check_file(member: Member, family: str) -> str:
    """The shop's own checks of a family and what it altered; those for one model alone go with that model's file."""
    mine = (one for one in own_checks.newest(member.shop).values() if one.family == family and one.model_id is None)
    what = [found for one in mine if (found := own_checks.said(one))]
    given = OwnChecks(
        family,
        [one for one in what if isinstance(one, OwnCheck)],
        [one for one in what if isinstance(one, Altered)],
    )
    return files.write(given, HEADING.format(what="own checks of a shop", where="Shop, Own checks"))


def model_file(model: MachineModel) -> str:
    """A model as text."""
    return files.write(as_file(model), HEADING.format(what="a model", where="Rules, Models"))


def as_file(model: MachineModel) -> ModelFile:
    """A model with its own numbers, limits, part numbers and checks."""
    return ModelFile(
        format="lumvek-model-1",
        maker=model.maker,
        name=model.name,
        family=model.family,
        counts=model.counts,
        limits=[
            ModelLimit(
                check=short(one.check),
                figure=one.figure,
                value=Inches(one.stated) if one.stated else one.value,
                source="manual" if one.source == "manual" else "shop",
                note=one.note,
            )
            for one in rule_books.own_limits(model)
        ],
        numbers=[number_of(one) for one in model.part_numbers.all()],
        checks=checks_of(model),
    )


def checks_of(model: MachineModel) -> list[OwnCheck]:
    """The own checks that were made for this model alone."""
    mine = [one for one in own_checks.newest(model.shop).values() if one.model_id == model.pk]
    return [what for one in mine if isinstance(what := own_checks.said(one), OwnCheck)]


def number_of(one: PartNumber) -> ModelNumber:
    return ModelNumber(
        slot=one.slot,
        number=one.number,
        side=one.side,  # type: ignore[arg-type]
        pack=one.pack,
        kind=one.kind,  # type: ignore[arg-type]
        chosen=one.chosen,
        status=one.status,  # type: ignore[arg-type]
        life=one.life,
        replaced_by=one.replaced_by,
        mark=one.mark,
        note=one.note,
    )
