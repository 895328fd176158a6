"""Endpoints of shelf and truck, and of the parts book."""

from uuid import UUID

from django.http import HttpRequest
from ninja import File, Form, Router, UploadedFile

from inspection.queries import rules_in_force
from shops.access import member_of
from shops.endpoints import allowed
from tabular import sheets
from tabular.schemas import TableReportOut

from .actions import numbering, stocking, taking_back
from .api import SEE_ALL
from .queries import parts_book, serializers_orders
from .schemas import BookOut
from .schemas_orders import GiveBackIn, LoadIn, MovementOut, StockCountIn, StockItemIn, StockOut

router = Router(tags=["stock"])


@router.get("/stock", response=StockOut, **allowed(SEE_ALL))
def in_stock(request: HttpRequest) -> StockOut:
    """Shelf and truck, with how many to carry and why."""
    return serializers_orders.stocked(member_of(request))


@router.post("/stock/items", response=StockOut, **allowed(stocking.keep_item))
def stock_item(request: HttpRequest, new: StockItemIn) -> StockOut:
    """Keep a part, or change its bin and what the truck should carry."""
    stocking.keep_item(member_of(request), new.number, new.model_dump(exclude={"number"}))
    return in_stock(request)


@router.post("/stock/count", response=StockOut, **allowed(stocking.count))
def count_stock(request: HttpRequest, new: StockCountIn) -> StockOut:
    """Say how many lie there."""
    stocking.count(member_of(request), new.uuid, new.number, new.place, new.counted)
    return in_stock(request)


@router.post("/stock/load", response=StockOut, **allowed(stocking.load_truck))
def load_truck(request: HttpRequest, new: LoadIn) -> StockOut:
    """From shelf to truck; below 0 back again."""
    stocking.load_truck(member_of(request), new.uuid, new.number, new.quantity)
    return in_stock(request)


@router.post("/stock/give-back", response=StockOut, **allowed(stocking.give_back))
def give_back(request: HttpRequest, new: GiveBackIn) -> StockOut:
    """Send pieces back to a supplier."""
    stocking.give_back(member_of(request), new.uuid, new.number, new.quantity, new.note)
    return in_stock(request)


@router.post("/movements/{uuid:movement_id}/take-back", response=MovementOut, **allowed(taking_back.take_back))
def take_back_movement(request: HttpRequest, movement_id: UUID) -> MovementOut:
    """Take back that something was received, fitted, counted, loaded or given back. Twice is once."""
    return serializers_orders.movement(taking_back.take_back(member_of(request), movement_id))


@router.get("/book", response=BookOut, **allowed(SEE_ALL))
def model_book(request: HttpRequest, model: int = 0) -> BookOut:
    """The parts book of a model; without one, of the first."""
    return parts_book.book(member_of(request), model)


@router.post("/book/{int:model_id}/file", response=TableReportOut, **allowed(numbering.read_file))
def book_file(request: HttpRequest, model_id: int, file: File[UploadedFile], dry: Form[bool] = True) -> TableReportOut:
    """Part numbers of a model from CSV or XLSX. dry: only say what each line would do."""
    member = member_of(request)
    model = rules_in_force.model_of(member, model_id)
    return TableReportOut.of(numbering.read_file(member, model, sheets.uploaded(file), dry=dry), dry=dry)
