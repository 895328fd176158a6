"""The parts list: pieces merged over rows and sides, with their numbers."""

import uuid
from collections.abc import Iterable, Mapping
from math import ceil
from typing import Literal, cast

from fleet.models import MachineModel
from lumvek_core import positions
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.coupled import long

from .models import PartNumber, PartsLine
from .schemas import PartOut, PieceOut


def parts_list(walk_around_id: uuid.UUID, models: Mapping[str, int], book: RuleBook) -> list[PartOut]:
    """The merged list; lines without a number first, then by name. Two queries.

    models: prefix of the slots → model.
    """
    by_model: dict[int, list[PartNumber]] = {}
    for one in PartNumber.objects.filter(model__in=models.values()):
        by_model.setdefault(one.model_id, []).append(one)
    numbers = {
        (long(prefix, slot), side): one
        for prefix, model in models.items()
        for (slot, side), one in numbers_of(by_model.get(model, [])).items()
    }
    names = {check.key: check.name for check in book.family.checks.values()}
    names |= {key: f"new {slot.name.lower()}" for key, slot in book.family.slots.items()}
    listed: dict[tuple[str, str], PartOut] = {}
    for line in PartsLine.objects.filter(walk_around_id=walk_around_id):
        part = listed.get((line.slot, line.side))
        if part is None:
            part = listed[line.slot, line.side] = _part(book, line, numbers.get((line.slot, line.side)))
        part.pieces.append(
            PieceOut(
                position=line.position_key,
                label=positions.find(line.position_key).label,
                quantity=line.quantity,
                origin=cast(Literal["finding", "companion", "apart"], line.origin),
                because=names.get(line.because, line.because),
                why=line.why,
                declined_reason=line.declined_reason,
                declined_by=line.declined_by,
            )
        )
        if line.declined_reason:
            part.declined += line.quantity
        else:
            part.quantity += line.quantity
    for part in listed.values():
        part.order = ceil(part.quantity / part.pack) * part.pack
        part.found_at = _at(part, found=True, declined=False)
        part.along_at = _at(part, found=False, declined=False)
        part.declined_at = _at(part, found=False, declined=True)
        part.pieces.sort(key=lambda piece: positions.reading_order(piece.position))
    return sorted(listed.values(), key=lambda part: (bool(part.number), part.name, part.side))


def numbers_of(book: Iterable[PartNumber]) -> dict[tuple[str, str], PartNumber]:
    """The number to use for each (slot, side) of one model: the alternative that was chosen, else the one as original."""
    ranked = sorted(book, key=lambda n: (not n.chosen, n.kind != PartNumber.Kind.ORIGINAL, n.number))
    return {(n.slot, n.side): n for n in reversed(ranked)}


def number_for(model: MachineModel, slot: str) -> str:
    """The number that this shop fits in a slot that is not handed; empty where none is known. One query."""
    found = numbers_of(PartNumber.objects.filter(model=model, slot=slot)).get((slot, ""))
    return found.number if found else ""


def _at(part: PartOut, *, found: bool, declined: bool) -> str:
    """Where pieces that were found worn, or that go along, are needed, in words."""
    return positions.in_words(
        p.position for p in part.pieces if (p.origin == "finding") == found and bool(p.declined_reason) == declined
    )


def _part(book: RuleBook, line: PartsLine, number: PartNumber | None) -> PartOut:
    slot = book.family.slots[line.slot]
    return PartOut(
        slot=line.slot,
        name=slot.name,
        side=line.side,
        side_name=positions.SIDE_NAMES[line.side] if line.side in ("L", "R") else "",
        number=number.ordered_as if number else "",
        pack=number.pack if number else 1,
        note=slot.note,
        quantity=0,
        order=0,
        declined=0,
        found_at="",
        along_at="",
        declined_at="",
        pieces=[],
    )
