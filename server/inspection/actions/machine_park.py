"""Machines and their models come, are changed, and go. What was is in the log; walk-arounds keep what they began with."""

import datetime as dt
import uuid
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from typing import Any

from django.db import IntegrityError, transaction
from django.db.models import QuerySet
from django.utils import timezone

from fleet.actions import counting, machines
from fleet.actions.history import history_changed
from fleet.actions.machines import Particulars
from fleet.models import Machine, MachineModel
from fleet.queries.machines import machines_for
from lumvek_core import units
from lumvek_core.catalogue.model import Family
from lumvek_core.counted import counted
from lumvek_core.coupled import long, short
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.actions.log import log_change
from shops.models import Change, Member
from shops.rights import action
from tabular.tables import number_in

from ..queries import rule_books
from ..queries.rules_in_force import book_of
from ..schemas_machines import ModelIn, NewMachineIn, ParticularsIn, SizeIn
from . import shop_rules

MOST_ROWS = 200
WIDEST_MM = 30_000
SOURCES = {"manual": "operator's manual", "shop": "as given when the model was added"}


@action("add machines")
def add(member: Member, wanted: NewMachineIn) -> Machine:
    """A machine of a model the shop has, or of a new one. The same UUID twice is one machine.

    Raises BadInput with a field of what was sent (``machine.name``, ``model.sizes.2.text``, ``counter``), NotFoundHere.
    """
    known = Machine.objects.filter(uuid=wanted.uuid).first()
    if known is not None:
        if known.shop_id != member.shop_id:
            raise NotFoundHere("There is no such machine.")
        return known
    model = _model(member, wanted.model)
    family = rule_books.shipped().families[model.family]
    made = machines.make(member, wanted.uuid, model, _understood(member, family, wanted.machine))
    log_change(member, Change.About.MACHINE, made.name, "", f"added: {model.full_name}, {family.name.lower()}")
    _first_count(member, made, family, wanted)
    return made


@action("change machines")
def change(member: Member, machine: Machine, wanted: ParticularsIn) -> None:
    """What a machine is from now on. Raises BadInput with a field of what was sent."""
    family = rule_books.shipped().families[machine.model.family]
    before = said(machine, family)
    machines.change(machine, _understood(member, family, wanted, machine))
    after = said(machine, family)
    for what, was in before.items():
        log_change(member, Change.About.MACHINE, f"{before['name']}: {what}", was, after[what])


@action("put machines out of the lists")
def put_out(member: Member, machine: Machine, why: str, on: dt.date | None) -> None:
    """Sold or scrapped: in no list any more, its logbook stays. Raises BadInput with field ``why``."""
    if why not in Machine.Gone.values:
        raise BadInput("why", "is sold or scrapped")
    before = machine.get_gone_display() or "in use"
    machines.put_out(machine, why, on or timezone.now().date())
    log_change(member, Change.About.MACHINE, machine.name, before, machine.get_gone_display())


@action("put machines out of the lists")
def bring_back(member: Member, machine: Machine) -> None:
    """In use again."""
    before = machine.get_gone_display() or "in use"
    machines.put_out(machine, "", None)
    log_change(member, Change.About.MACHINE, machine.name, before, "in use")


def _model(member: Member, wanted: ModelIn) -> MachineModel:
    """The model that is meant, made if it is new."""
    if wanted.id is not None:
        found = MachineModel.objects.of(member).filter(pk=wanted.id).first()
        if found is None:
            raise NotFoundHere("There is no such model.")
        return found
    family = rule_books.shipped().families.get(wanted.family)
    if family is None:
        raise BadInput("model.family", "pick what kind of machine it is")
    for name in ("maker", "name"):
        if not getattr(wanted, name).strip():
            raise BadInput(f"model.{name}", "is wanted")
    numbers = _numbers(family, wanted.counts)
    with _taken("model.name", "you have a model of this name; pick it from the list"):
        model = machines.make_model(member, wanted.maker.strip(), wanted.name.strip(), family.family, numbers)
    log_change(member, Change.About.MODEL, model.full_name, "", f"added: {family.name.lower()}")
    _set_sizes(member, model, wanted.sizes)
    return model


def _set_sizes(member: Member, model: MachineModel, sizes: Sequence[SizeIn]) -> None:
    """Its own sizes, all before they are held against each other: a new size may be what the limit was."""
    book, last = book_of(model, member.shop), 0
    for i, size in enumerate(sizes):
        if size.text.strip():
            last = i
            try:
                check = shop_rules.check_with(book, size.check, size.figure)
                shop_rules.put_limit(member, model, check, size.figure, size.text, size.source, SOURCES[size.source])
            except BadInput as problem:
                raise BadInput(f"model.sizes.{i}.text", problem.message) from None
    try:
        book_of(model, member.shop)
    except BadInput as problem:
        raise BadInput(f"model.sizes.{last}.text", problem.message) from None


def _numbers(family: Family, wanted: dict[str, int]) -> dict[str, int]:
    """Numbers of things, where they are not the family's own."""
    own = {}
    for thing, count in wanted.items():
        named = family.things.get(long(family.prefix, thing))
        if named is None or named.places:
            raise BadInput(f"model.counts.{thing}", "is not counted on this kind of machine")
        if not 0 <= count <= 400:
            raise BadInput(f"model.counts.{thing}", "must be 0 to 400")
        if count != named.count:
            own[thing] = count
    return own


def _understood(member: Member, family: Family, typed: ParticularsIn, machine: Machine | None = None) -> Particulars:
    """What was typed of a machine. Raises BadInput with field ``machine.…``."""
    name = typed.name.strip()
    if not name:
        raise BadInput("machine.name", "say what it is called here")
    same = Machine.objects.of(member).filter(name=name).first()
    if same is not None and same != machine:
        raise BadInput("machine.name", f"you have a {name} already{', sold or scrapped' if same.gone else ''}")
    has_rows = any(key.endswith("row") for key in family.things)
    if has_rows and not 1 <= typed.rows <= MOST_ROWS:
        raise BadInput("machine.rows", f"must be 1 to {MOST_ROWS}")
    if any(not 1 <= row <= typed.rows for row in typed.track_rows):
        raise BadInput("machine.track_rows", f"there are {counted(typed.rows, 'row')}")
    if strange := set(typed.options) - {short(key) for key in family.options}:
        raise BadInput("machine.options", f"{sorted(strange)[0]} is not asked of this kind of machine")
    return Particulars(
        name=name,
        serial=typed.serial.strip(),
        rows=typed.rows if has_rows else 0,
        track_rows=sorted(set(typed.track_rows)),
        options=[short(key) for key in family.options if short(key) in typed.options],
        season_date=typed.season_date,
        priority=typed.priority,
        row_spacing_mm=_length(member, "row_spacing", typed.row_spacing, 50, 3000),
        folded_width_mm=_length(member, "folded_width", typed.folded_width, 500, WIDEST_MM),
        folded_height_mm=_length(member, "folded_height", typed.folded_height, 500, 6000),
        owners=_ours("owners", typed.owners, Member.objects.of(member)),
        goes_with=_ours("goes_with", typed.goes_with if family.is_header else [], machines_for(member)),
    )


def _ours(name: str, wanted: Sequence[int], ours: QuerySet[Any]) -> list[int]:
    if set(wanted) - set(ours.filter(pk__in=wanted).values_list("pk", flat=True)):
        raise BadInput(f"machine.{name}", "is not of this shop")
    return sorted(set(wanted))


def _length(member: Member, name: str, text: str, least: float, most: float) -> float | None:
    if not text.strip():
        return None
    try:
        value = units.parse_length(text, "in" if member.units == "in" else "mm")
    except BadInput as problem:
        raise BadInput(f"machine.{name}", problem.message) from None
    if not least <= value <= most:
        asked = units.show_length(value, "mm")
        raise BadInput(f"machine.{name}", f"means {asked}: write it with its unit, for example 5.9 m or 500 mm")
    return value


def _first_count(member: Member, machine: Machine, family: Family, wanted: NewMachineIn) -> None:
    """What its meter shows on the day it is added; of a new machine every part is as old as that."""
    if not wanted.counter.strip():
        if wanted.arrival == "new":
            raise BadInput("counter", "say what its meter shows: its parts are as old as that")
        return
    shown = number_in(wanted.counter.strip().removesuffix(family.counter), "counter", 0, 10**7)
    first = uuid.uuid5(wanted.uuid, "counter")
    if family.counter == "h":
        machine.hours = 0.0  # it has an hour meter; the reading says what it shows
    try:
        counting.record(member, machine, first, shown, None, "typed", unit=family.counter)
    except BadInput as problem:
        raise BadInput("counter", problem.message) from None
    if wanted.arrival == "new":
        machines.came_new(machine, shown)
        history_changed([machine.pk])


@contextmanager
def _taken(at: str, message: str) -> Iterator[None]:
    try:
        with transaction.atomic():
            yield
    except IntegrityError:
        raise BadInput(at, message) from None


def said(machine: Machine, family: Family) -> dict[str, str]:
    """A machine in words, to say what was changed about it."""
    names = {short(key): name.lower() for key, name in family.options.items()}
    return {
        "name": machine.name,
        "serial number": machine.serial or "none",
        "rows": str(machine.rows),
        "rows behind the wheels": ", ".join(map(str, machine.track_rows)) or "none",
        "options": ", ".join(names.get(one, one) for one in machine.options) or "none",
        "season date": machine.season_date.isoformat() if machine.season_date else "none",
        "when it is late": machine.get_priority_display().lower(),
        "row spacing": _in_mm(machine.row_spacing_mm),
        "folded width": _in_mm(machine.folded_width_mm),
        "folded height": _in_mm(machine.folded_height_mm),
        "owners": ", ".join(one.name for one in machine.owners.select_related("user")) or "none",
        "goes with": ", ".join(one.name for one in machine.goes_with.all()) or "none",
    }


def _in_mm(length: float | None) -> str:
    return "none" if length is None else units.show_mm(length)
