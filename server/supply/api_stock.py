"""Endpoints of shelf and truck, and of the parts book."""

from uuid import UUID

from django.http import HttpRequest
from ninja import File, Form, Router, UploadedFile

from parts.models import PartNumber
from shops.access import member_of, only
from shops.models import Member
from tabular import sheets

from .actions import stock, taking_back
from .api import BUYERS, reader
from .models import StockItem
from .queries import parts_book, serializers, serializers_orders
from .schemas import BookLineOut, BookModelOut, BookOut, PartsTableOut
from .schemas_orders import GiveBackIn, LoadIn, MovementOut, StockCountIn, StockItemIn, StockOut

stocking = Router(tags=["stock"])


@stocking.get("/stock", response=StockOut)
def in_stock(request: HttpRequest) -> StockOut:
    """Shelf and truck, with how many to carry and why."""
    return serializers_orders.stocked(reader(request))


@stocking.post("/stock/items", response=StockOut)
def stock_item(request: HttpRequest, new: StockItemIn) -> StockOut:
    """Keep a part, or change its bin and what the truck should carry."""
    member = reader(request)
    values = new.model_dump(exclude={"number"})
    StockItem.objects.update_or_create(shop=member.shop, number=new.number.strip(), defaults=values)
    return serializers_orders.stocked(member)


@stocking.post("/stock/count", response=StockOut)
def count_stock(request: HttpRequest, new: StockCountIn) -> StockOut:
    """Say how many lie there."""
    member = reader(request)
    stock.count(member, new.uuid, new.number, new.place, new.counted)
    return serializers_orders.stocked(member)


@stocking.post("/stock/load", response=StockOut)
def load_truck(request: HttpRequest, new: LoadIn) -> StockOut:
    """From shelf to truck; below 0 back again."""
    member = reader(request)
    stock.load_truck(member, new.uuid, new.number, new.quantity)
    return serializers_orders.stocked(member)


@stocking.post("/stock/give-back", response=StockOut)
def give_back(request: HttpRequest, new: GiveBackIn) -> StockOut:
    """Send pieces back to a supplier."""
    member = reader(request)
    stock.give_back(member, new.uuid, new.number, new.quantity, new.note)
    return serializers_orders.stocked(member)


@stocking.post("/movements/{uuid:movement_id}/take-back", response=MovementOut)
def take_back_movement(request: HttpRequest, movement_id: UUID) -> MovementOut:
    """Take back that something was received, fitted, counted, loaded or given back. Twice is once."""
    taking_back.movement_of(member_of(request), movement_id)
    member = reader(request, "move parts")
    return serializers_orders.movement(taking_back.take_back(member, movement_id))


@stocking.get("/book", response=BookOut)
def model_book(request: HttpRequest, model: int = 0) -> BookOut:
    """The parts book of a model; without one, of the first."""
    return _book(reader(request), model)


def _book(member: Member, model_id: int) -> BookOut:
    models = list(member.shop.machine_models.prefetch_related("part_numbers").order_by("maker", "name"))
    shown = parts_book.model_of(member, model_id or models[0].pk) if models or model_id else None
    names = parts_book.slots_of(shown) if shown else {}
    return BookOut(
        models=[
            BookModelOut(id=one.pk, name=one.full_name, numbers=one.part_numbers.count(), slots=len(parts_book.slots_of(one)))
            for one in models
        ],
        model=shown.pk if shown else 0,
        name=shown.full_name if shown else "",
        lines=[_book_line(names[row[0]].name, row) for row in (parts_book.rows(shown)[1:] if shown else [])],
        may_change=member.role in BUYERS,
    )


def _book_line(name: str, row: list[str]) -> BookLineOut:
    slot, _, side, number, pack, kind, chosen, status, life, replaced_by, mark, note = row
    return BookLineOut(
        slot=slot, name=name, side=side, number=number, pack=int(pack), kind=PartNumber.Kind(kind).label, chosen=bool(chosen),
        status=status, life=float(life), replaced_by=replaced_by, mark=mark, note=note,
    )  # fmt: skip


@stocking.post("/book/{int:model_id}/file", response=PartsTableOut)
def book_file(request: HttpRequest, model_id: int, file: File[UploadedFile], dry: Form[bool] = True) -> PartsTableOut:
    """Part numbers of a model from CSV or XLSX. dry: only say what each line would do."""
    member = member_of(request)
    model = parts_book.model_of(member, model_id)
    only(member, BUYERS, "change the parts book")
    text = sheets.text_of(file.name or "", file.read(sheets.LARGEST + 1))
    return serializers.table(parts_book.read(model, text, dry=dry), dry)
