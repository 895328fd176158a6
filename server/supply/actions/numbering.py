"""Changing the parts book of a model, by hand or from a table, and saying which hand a part is."""

import uuid
from collections.abc import Sequence
from typing import Any

from django.db import transaction

from fleet.actions.history import history_changed
from fleet.models import MachineModel
from inspection.queries.walk_arounds import walk_around_for
from lumvek_core.counted import counted
from lumvek_core.errors import BadInput
from parts import actions as parts
from parts.models import PartNumber
from shops.models import Member
from shops.rights import action
from tabular.tables import Outcome, Table, TableLine, number_in, table_rows, whole_in

from ..queries.parts_book import slots_of
from .parts_log import log_parts

MOST = 5000
"""Numbers of one file: they are taken all at once, or none."""


@action("change the parts book")
def read_file(member: Member, model: MachineModel, text: str, *, dry: bool) -> Table:
    """Take a table of numbers into a model's book; dry says only what each line would do. A line without a number is passed
    over.

    Nothing is taken unless every line can be. Raises BadInput where the file is no such table.
    """
    found = Table()
    for at, row in table_rows(text, ("slot", "number"), MOST):
        if not row.get("number", "").strip():
            continue
        try:
            found.lines.append(TableLine(at, *_take(model, row)))
        except BadInput as problem:
            found.lines.append(TableLine(at, "refused", f"{problem.field}: {problem.message}"))
    if dry or found.count("refused"):
        transaction.set_rollback(True)
    elif found.count("taken"):
        log_parts(member, f"{model.full_name}: parts book", "", f"{counted(found.count('taken'), 'number')} from a file")
    return found


def _take(model: MachineModel, row: dict[str, str]) -> tuple[Outcome, str]:
    slots = slots_of(model)
    key = row["slot"]
    if key not in slots:
        raise BadInput("slot", f"{key or 'nothing'} is no part of {model.full_name}")
    side = row.get("side", "").upper()
    if side not in (("L", "R") if slots[key].handed else ("",)):
        raise BadInput(
            "side",
            "must be L or R: left and right are different parts" if slots[key].handed else "is not handed: leave it empty",
        )
    values: dict[str, Any] = {
        "pack": whole_in(row.get("pack") or "1", "pack", 1, 1000),
        "kind": row.get("kind") or "original",
        "chosen": row.get("chosen", "").lower() in ("yes", "1", "true", "x"),
        "status": row.get("status") or "supported",
        "life": number_in(row.get("life") or "1", "life", 0.1, 10),
        "replaced_by": row.get("replaced_by", "")[:40],
        "mark": row.get("mark", "")[:120],
        "note": row.get("note", "")[:200],
    }
    for name, known in (("kind", PartNumber.Kind.values), ("status", PartNumber.Status.values)):
        if values[name] not in known:
            raise BadInput(name, f"must be one of {', '.join(known)}")
    if len(row["number"]) > 40:
        raise BadInput("number", "is longer than 40 signs")
    had = parts.keep_number(model.pk, key, side, row["number"], values)
    if had and all(getattr(had, name) == value for name, value in values.items()):
        return "there", f"{row['number']} is there already"
    if had and had.life != values["life"]:
        history_changed(model.machines.values_list("pk", flat=True))
    return "taken", f"{row['number']} {'changed' if had else 'added'}: {slots[key].name.lower()}"


@action("change the parts book")
def set_number(member: Member, model: MachineModel, slot: str, side: str, number: str, pack: int) -> None:
    """Enter a number that was found. The first one of a slot is its original; a further one an alternative that is chosen."""
    number = number.strip()
    if not number:
        raise BadInput("number", "say the number")
    before = _fitted(model, slot, side)
    _take(model, {"slot": slot, "side": side, "number": number, "pack": str(pack)})
    _choose(member, model, slot, side, number, before)


@action("change the parts book")
def choose(member: Member, model: MachineModel, slot: str, side: str, number: str) -> None:
    """Fit this one of the alternatives. Raises BadInput for one that is not in the book."""
    _choose(member, model, slot, side, number, _fitted(model, slot, side))


def _fitted(model: MachineModel, slot: str, side: str) -> str:
    """The number that is fitted so far: the one that was chosen, else the one as original."""
    rows = sorted(PartNumber.objects.filter(model=model, slot=slot, side=side), key=lambda row: not row.chosen)
    return next((row.number for row in rows if row.chosen or row.kind == PartNumber.Kind.ORIGINAL), "none")


def _choose(member: Member, model: MachineModel, slot: str, side: str, number: str, before: str) -> None:
    if not parts.choose(model.pk, slot, side, number):
        raise BadInput("number", "is not in the book")
    part = slots_of(model).get(slot)
    hand = {"L": ", left", "R": ", right"}.get(side, "")
    log_parts(member, f"{model.full_name}, {part.name.lower() if part else slot}{hand}", before, number)


@action("decide on parts")
def set_hand(member: Member, walk_around_id: uuid.UUID, slot: str, at: Sequence[str], side: str) -> None:
    """Say which hand a part is, where its place does not tell. Raises BadInput, NotFoundHere."""
    walk_around = walk_around_for(member, walk_around_id)
    if not parts.set_hand(walk_around.pk, slot, at, side):
        raise BadInput("positions", "nothing is needed there")
