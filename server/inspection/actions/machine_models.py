"""Models are copied, and read in from the files of other shops."""

import uuid
from collections.abc import Iterator
from dataclasses import asdict

from django.db import transaction

from fleet.actions import machines, own_rules
from fleet.actions.history import history_changed
from fleet.models import MachineModel
from lumvek_core.catalogue import files
from lumvek_core.catalogue.model import Family
from lumvek_core.catalogue.model_file import ModelFile, ModelLimit, ModelNumber
from lumvek_core.catalogue.own import key_for
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.coupled import long
from lumvek_core.errors import BadInput
from lumvek_core.rules import figures
from parts import actions as parts
from shops.access import NotFoundHere
from shops.actions.log import log_change
from shops.actions.shop import hold
from shops.models import Change, Member
from shops.rights import action
from tabular.tables import Table, TableLine

from ..models import CheckVersion
from ..queries import check_files, rule_books
from ..queries.rules_in_force import book_of
from . import check_file
from .shop_rules import check_with


@action("change models")
def copy(member: Member, write: uuid.UUID, model: MachineModel, maker: str, name: str) -> MachineModel:
    """A model like another, under its own name. The same UUID twice is one. Raises BadInput at ``maker`` or ``name``."""
    hold(member)
    known = MachineModel.objects.filter(uuid=write).first()
    if known is not None:
        if known.shop_id != member.shop_id:
            raise NotFoundHere("There is no such model.")
        return known
    maker, name = maker.strip(), name.strip()
    for field, text in (("maker", maker), ("name", name)):
        if not text:
            raise BadInput(field, "is wanted")
    if MachineModel.objects.of(member).filter(maker__iexact=maker, name__iexact=name).exists():
        raise BadInput("name", "you have a model of this name")
    made = machines.make_model(member, maker, name, model.family, model.counts, write)
    log_change(member, Change.About.MODEL, made.full_name, "", f"added: like {model.full_name}")
    lines = list(_lines(member, made, check_files.as_file(model)))
    if wrong := [line for line in lines if line.outcome == "refused"]:
        raise BadInput("", wrong[0].words)
    return made


@action("change models")
def take_file(member: Member, text: str, *, dry: bool) -> Table:
    """A model from a file: added, or brought in line with it; what the file does not name stays.

    Nothing is taken while something is refused, or on a dry run. Raises BadInput with field ``file`` for what is no such file.
    """
    given: ModelFile = files.read_foreign(ModelFile, text)
    family = rule_books.shipped().families.get(given.family)
    if family is None:
        raise BadInput("file", f"there is no kind of machine {given.family}")
    if not given.maker.strip() or not given.name.strip() or max(len(given.maker), len(given.name)) > 60:
        raise BadInput("file", "needs a maker and a name of at most 60 characters")
    found = Table()
    model = MachineModel.objects.of(member).filter(maker=given.maker.strip(), name=given.name.strip()).first()
    if model is None:
        model = machines.make_model(member, given.maker.strip(), given.name.strip(), given.family, {})
        found.lines.append(TableLine(0, "taken", f"{model.full_name}, {family.name.lower()}: new"))
        log_change(member, Change.About.MODEL, model.full_name, "", "added from a file")
    elif model.family != given.family:
        raise BadInput("file", f"{model.full_name} is another kind of machine here")
    found.lines += _lines(member, model, given)
    try:
        book_of(model, member.shop)
    except BadInput as problem:
        found.lines.append(TableLine(0, "refused", problem.message))
    for number, line in enumerate(found.lines, 1):
        line.line = number
    if dry or found.count("refused"):
        transaction.set_rollback(True)
    return found


def _lines(member: Member, model: MachineModel, given: ModelFile) -> Iterator[TableLine]:
    """What each thing of a file does, done."""
    family = rule_books.shipped().families[model.family]
    for thing, count in given.counts.items():
        yield _count(member, model, family, thing, count)
    # Its checks first: limits may be about them.
    taken = list(CheckVersion.objects.of(member).filter(family=model.family).exclude(model=model).values_list("key", flat=True))
    for one in given.checks:
        key = key_for(one.check.name, taken) if one.check.key in taken else one.check.key
        yield check_file.take(member, 0, model.family, check_file.called(one, key), model)
    book = book_of(model, member.shop)
    for limit in given.limits:
        yield _limit(member, model, book, limit)
    for number in given.numbers:
        yield _number(member, model, book.family, number)
    history_changed(model.machines.values_list("pk", flat=True))


def _count(member: Member, model: MachineModel, family: Family, thing: str, count: int) -> TableLine:
    named = family.things.get(long(family.prefix, thing))
    if named is None or named.places:
        return TableLine(0, "refused", f"{thing} is not counted on this kind of machine")
    what, before = f"Number of {named.name.lower()}s", model.counts.get(thing, named.count)
    if before == count:
        return TableLine(0, "there", what)
    own_rules.set_count(model, thing, count)
    log_change(member, Change.About.MODEL, f"{model.full_name}: {what.lower()}", str(before), str(count))
    return TableLine(0, "taken", f"{what}: {before} → {count}")


def _limit(member: Member, model: MachineModel, book: RuleBook, given: ModelLimit) -> TableLine:
    """book: as it was before; each limit stands there once."""
    key = long(book.family.prefix, given.check)
    try:
        check = check_with(book, key, given.figure)
    except BadInput as problem:
        return TableLine(0, "refused", f"{given.check}: {problem.message} {given.figure}")
    what = f"{check.name}, {figures.name(check, given.figure).lower()}"
    there = model.overrides.filter(check_key=key, figure=given.figure).last()
    if there is not None and (there.value, there.source, there.note) == (float(given.value), given.source, given.note):
        return TableLine(0, "there", what)
    had = book.limits[key].get(given.figure)
    before = figures.shown(check, given.figure, had.value, "mm") if had else "none"
    after = figures.shown(check, given.figure, given.value, "mm")
    own_rules.replace_limit(model, key, given.figure, given.value, given.source, given.note[:200])
    log_change(member, Change.About.MODEL, f"{model.full_name}, {what}", before, after)
    return TableLine(0, "taken", f"{what}: {before} → {after}")


def _number(member: Member, model: MachineModel, family: Family, given: ModelNumber) -> TableLine:
    slot = family.slots.get(long(family.prefix, given.slot))
    if slot is None:
        return TableLine(0, "refused", f"{given.slot} is no part of this kind of machine")
    number = given.number.strip()
    if not number or len(number) > 40:
        return TableLine(0, "refused", f"{slot.name}: a number has 1 to 40 characters")
    if bool(given.side) != slot.handed:
        words = "is left or right: say which" if slot.handed else "is the same on both sides"
        return TableLine(0, "refused", f"{slot.name} {words}")
    values = {name: value for name, value in asdict(given).items() if name not in ("slot", "side", "number")}
    there = parts.keep_number(model.pk, given.slot, given.side, number, values)
    side = {"L": ", left", "R": ", right"}.get(given.side, "")
    if there is not None and all(getattr(there, name) == value for name, value in values.items()):
        return TableLine(0, "there", f"{slot.name}{side}: {number}")
    if there is None:
        log_change(member, Change.About.MODEL, f"{model.full_name}, {slot.name.lower()}{side}", "", number)
    return TableLine(0, "taken", f"{slot.name}{side}: {number}{'' if there is None else ' changed'}")
