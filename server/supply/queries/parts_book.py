"""The parts book of a model: its numbers by slot, kept by hand or read from a table, and written as one."""

from fleet.models import MachineModel
from inspection.queries import rule_books, rules_in_force
from lumvek_core.catalogue.model import Slot
from lumvek_core.coupled import short
from parts.models import PartNumber
from shops.models import Member
from shops.rights import may

from ..schemas import BookLineOut, BookModelOut, BookOut

TITLES = ("slot", "part", "side", "number", "pack", "kind", "chosen", "status", "life", "replaced_by", "mark", "note")
OFFER_TITLES = ("number", "unit_price", "pack", "stock", "chance", "restock_days", "status")


def slots_of(model: MachineModel) -> dict[str, Slot]:
    """The slots of a model's family, the shop's own among them, without a header's prefix."""
    family = rule_books.family_of(model.shop, model.family, model)
    return {short(key): slot for key, slot in family.slots.items()}


def rows(model: MachineModel) -> list[list[str]]:
    """The book as a table; a slot without a number has an empty one, so that the file can be filled in."""
    listed = [list(TITLES)]
    numbers: dict[str, list[PartNumber]] = {}
    for number in model.part_numbers.all():
        numbers.setdefault(number.slot, []).append(number)
    for key, slot in slots_of(model).items():
        sides = ("L", "R") if slot.handed else ("",)
        there = numbers.get(key, [])
        for one in there:
            listed.append(
                [
                    key,
                    slot.name,
                    one.side,
                    one.number,
                    str(one.pack),
                    one.kind,
                    "yes" if one.chosen else "",
                    one.status,
                    f"{one.life:g}",
                    one.replaced_by,
                    one.mark,
                    one.note,
                ]
            )
        for side in sides:
            if side not in {one.side for one in there}:
                listed.append([key, slot.name, side, "", "1", "original", "", "supported", "1", "", "", slot.note])
    return listed


def book(member: Member, model_id: int) -> BookOut:
    """The parts book of a model; without one, of the first."""
    models = list(member.shop.machine_models.prefetch_related("part_numbers").order_by("maker", "name"))
    shown = rules_in_force.model_of(member, model_id or models[0].pk) if models or model_id else None
    names = slots_of(shown) if shown else {}
    return BookOut(
        models=[
            BookModelOut(id=one.pk, name=one.full_name, numbers=one.part_numbers.count(), slots=len(slots_of(one)))
            for one in models
        ],
        model=shown.pk if shown else 0,
        name=shown.full_name if shown else "",
        lines=[_book_line(names[row[0]].name, row) for row in (rows(shown)[1:] if shown else [])],
        may_change=may(member, "change the parts book"),
    )


def _book_line(name: str, row: list[str]) -> BookLineOut:
    slot, _, side, number, pack, kind, chosen, status, life, replaced_by, mark, note = row
    return BookLineOut(
        slot=slot, name=name, side=side, number=number, pack=int(pack), kind=PartNumber.Kind(kind).label, chosen=bool(chosen),
        status=status, life=float(life), replaced_by=replaced_by, mark=mark, note=note,
    )  # fmt: skip
