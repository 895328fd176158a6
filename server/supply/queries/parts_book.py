"""The parts book of a model: its numbers by slot, kept by hand or read from a table, and written as one."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from decimal import Decimal, InvalidOperation
from typing import Any

from django.db import transaction

from fleet.models import MachineModel
from fleet.queries.counters import history_changed
from inspection.queries import rule_books
from lumvek_core.catalogue.model import Slot
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.files.tables import rows_of
from parts.models import PartNumber
from shops.access import NotFoundHere
from shops.models import Member

from ..models import Supplier
from . import sourcing

TITLES = ("slot", "part", "side", "number", "pack", "kind", "chosen", "status", "life", "replaced_by", "mark", "note")
OFFER_TITLES = ("number", "unit_price", "pack", "stock", "chance", "restock_days", "status")


def model_of(member: Member, model_id: int) -> MachineModel:
    """A model of the member's shop. Raises NotFoundHere."""
    found = MachineModel.objects.filter(shop=member.shop_id, pk=model_id).first()
    if found is None or found.family not in rule_books.shipped().families:
        raise NotFoundHere("There is no such model.")
    return found


def slots_of(model: MachineModel) -> dict[str, Slot]:
    """The slots of a model's family, without a header's prefix."""
    return {short(key): slot for key, slot in rule_books.shipped().families[model.family].slots.items()}


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


@dataclass
class TableLine:
    """What one line of a file does, or why it is refused. line: as the file counts, titles are 1."""

    line: int
    outcome: str
    words: str


@dataclass
class Table:
    lines: list[TableLine] = field(default_factory=list)

    def count(self, outcome: str) -> int:
        return sum(line.outcome == outcome for line in self.lines)


def read(model: MachineModel, text: str, *, dry: bool) -> Table:
    """Take a table of numbers into a model's book; dry says only what each line would do. A line without a number is passed
    over.

    Nothing is taken unless every line can be. Raises BadInput where the file is no such table.
    """
    found = Table()
    with transaction.atomic():
        for at, row in table_rows(text, ("slot", "number")):
            if not row.get("number", "").strip():
                continue
            try:
                found.lines.append(TableLine(at, *_take(model, row)))
            except BadInput as problem:
                found.lines.append(TableLine(at, "refused", f"{problem.field}: {problem.message}"))
        if dry or found.count("refused"):
            transaction.set_rollback(True)
    return found


def table_rows(text: str, wanted: tuple[str, ...]) -> Iterator[tuple[int, dict[str, str]]]:
    """Line number and cells by title of a table from outside. Raises BadInput with field ``file`` where a column is missing."""
    lines, titles = rows_of(text)
    if missing := [one for one in wanted if one not in titles]:
        raise BadInput("file", f"has no column {', '.join(missing)}; the file that is given out has them all")
    for at, cells in lines:
        # A spreadsheet keeps what would look like a formula behind an apostrophe.
        yield at, dict(zip(titles, (cell.removeprefix("'") for cell in cells), strict=False))


def _take(model: MachineModel, row: dict[str, str]) -> tuple[str, str]:
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
        "pack": whole(row.get("pack") or "1", "pack", 1, 1000),
        "kind": row.get("kind") or "original",
        "chosen": row.get("chosen", "").lower() in ("yes", "1", "true", "x"),
        "status": row.get("status") or "supported",
        "life": _number(row.get("life") or "1", "life", 0.1, 10),
        "replaced_by": row.get("replaced_by", "")[:40],
        "mark": row.get("mark", "")[:120],
        "note": row.get("note", "")[:200],
    }
    for name, known in (("kind", PartNumber.Kind.values), ("status", PartNumber.Status.values)):
        if values[name] not in known:
            raise BadInput(name, f"must be one of {', '.join(known)}")
    if len(row["number"]) > 40:
        raise BadInput("number", "is longer than 40 signs")
    had = PartNumber.objects.filter(model=model, slot=key, side=side, number=row["number"]).first()
    if had and all(getattr(had, name) == value for name, value in values.items()):
        return "there", f"{row['number']} is there already"
    PartNumber.objects.update_or_create(model=model, slot=key, side=side, number=row["number"], defaults=values)
    if had and had.life != values["life"]:
        history_changed(model.machines.values_list("pk", flat=True))
    return "taken", f"{row['number']} {'changed' if had else 'added'}: {slots[key].name.lower()}"


def whole(text: str, name: str, low: int, high: int) -> int:
    """A whole number in a cell. Raises BadInput with the column as field."""
    value = _number(text, name, low, high)
    if value != int(value):
        raise BadInput(name, "must be a whole number")
    return int(value)


def _number(text: str, name: str, low: float, high: float) -> float:
    try:
        value = float(text.replace(",", "."))
    except ValueError:
        raise BadInput(name, "must be a number") from None
    if not low <= value <= high:
        raise BadInput(name, f"must be between {low:g} and {high:g}")
    return value


@transaction.atomic
def set_number(member: Member, model: MachineModel, slot: str, side: str, number: str, pack: int) -> None:
    """Enter a number that was found. The first one of a slot is its original; a further one an alternative that is chosen."""
    number = number.strip()
    if not number:
        raise BadInput("number", "say the number")
    _take(model, {"slot": slot, "side": side, "number": number, "pack": str(pack)})
    choose(model, slot, side, number)


def choose(model: MachineModel, slot: str, side: str, number: str) -> None:
    """Fit this one of the alternatives. Raises BadInput for one that is not in the book."""
    mine = PartNumber.objects.filter(model=model, slot=slot, side=side)
    if not mine.filter(number=number).exists():
        raise BadInput("number", "is not in the book")
    mine.exclude(number=number).update(chosen=False)
    mine.filter(number=number).update(chosen=True)


def read_offers(supplier: Supplier, text: str, *, dry: bool) -> Table:
    """Take a supplier's prices, stock and chances from a table. Nothing is taken unless every line can be."""
    found, offers = Table(), []
    for at, row in table_rows(text, ("number", "unit_price")):
        if not row.get("number") or not row.get("unit_price"):
            continue
        try:
            offers.append(_offer(row))
            found.lines.append(TableLine(at, "taken", f"{row['number']} at {offers[-1]['unit_price']}"))
        except BadInput as problem:
            found.lines.append(TableLine(at, "refused", f"{problem.field}: {problem.message}"))
    if not dry and not found.count("refused"):
        sourcing.keep_offers(supplier, offers, "file")
    return found


def _offer(row: dict[str, str]) -> dict[str, Any]:
    restock = row.get("restock_days", "")
    return {
        "number": row["number"][:40],
        "unit_price": amount(row["unit_price"], "unit_price"),
        "pack": whole(row.get("pack") or "1", "pack", 1, 1000),
        "stock": whole(row.get("stock") or "0", "stock", 0, 1_000_000),
        "p_stock": _number(row.get("chance") or "1", "chance", 0, 1),
        "restock_days": whole(restock, "restock_days", 0, 365) if restock else None,
        "status": "scarce" if row.get("status") == "scarce" else "supported",
    }


def amount(text: str, name: str, below: int = 10**8) -> Decimal:
    """Money in a cell or a field, to the cent. Raises BadInput with `name` as field."""
    try:
        value = Decimal(text.strip().replace(",", "."))
    except InvalidOperation:
        raise BadInput(name, "must be an amount such as 47.20") from None
    if not value.is_finite() or not 0 <= value < below:
        raise BadInput(name, f"must be between 0 and {below}")
    return value.quantize(Decimal("0.01"))
