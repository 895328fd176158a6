"""Endpoints of the parts list, suppliers and sourcing. Orders, stock and cost have modules of their own."""

from uuid import UUID

from django.conf import settings
from django.http import HttpRequest, StreamingHttpResponse
from ninja import File, Form, Query, Router, UploadedFile

from fleet.queries.machines import machine_for
from inspection.queries import rules_in_force
from lumvek_core import opening_hours
from lumvek_core.planning.sourcing_model import Pin
from shops.access import member_of
from shops.endpoints import allowed
from shops.queries.outside import inquiry_of
from shops.schemas import InquiryIn, InquiryOut
from tabular import sheets, streamed

from . import desk
from .actions import numbering, plans, supplier_book, terms
from .queries import serializers, sourcing, suppliers
from .schemas import (
    ChooseIn,
    DeskIn,
    DeskOut,
    HandIn,
    NeedDateIn,
    NeedsAsked,
    NeedsOut,
    NumberIn,
    SourcingIn,
    SourcingOut,
    SupplierIn,
    SupplierOut,
    TermsIn,
)

router = Router(tags=["supply"])
SEE_ALL = "see the parts of the whole shop"
"""Owners see the cost of their own machines only."""


@router.get("/list", response=NeedsOut, **allowed(SEE_ALL))
def needed(request: HttpRequest, asked: Query[NeedsAsked]) -> NeedsOut:
    """What the shop's machines need, less what there is and what is coming."""
    return serializers.needs(member_of(request), asked)


@router.post("/numbers", response=NeedsOut, **allowed(numbering.set_number))
def set_number(request: HttpRequest, new: NumberIn, asked: Query[NeedsAsked]) -> NeedsOut:
    """Enter a part number that was to be found."""
    member = member_of(request)
    model = rules_in_force.model_of(member, new.model)
    numbering.set_number(member, model, new.slot, new.side, new.number, new.pack)
    return serializers.needs(member, asked)


@router.post("/choices", response=NeedsOut, **allowed(numbering.choose))
def choose(request: HttpRequest, new: ChooseIn, asked: Query[NeedsAsked]) -> NeedsOut:
    """Choose among the alternatives of a slot."""
    member = member_of(request)
    numbering.choose(member, rules_in_force.model_of(member, new.model), new.slot, new.side, new.number)
    return serializers.needs(member, asked)


@router.post("/hands", response=NeedsOut, **allowed(numbering.set_hand))
def set_hand(request: HttpRequest, new: HandIn, asked: Query[NeedsAsked]) -> NeedsOut:
    """Say which hand a part is, where its place does not tell."""
    member = member_of(request)
    numbering.set_hand(member, new.walk_around, new.slot, new.positions, new.side)
    return serializers.needs(member, asked)


@router.post("/need-dates", response=NeedsOut, **allowed(terms.set_need_date))
def need_date(request: HttpRequest, new: NeedDateIn, asked: Query[NeedsAsked]) -> NeedsOut:
    """The day a machine's parts are wanted; without a day the season's date less the shop's days."""
    member = member_of(request)
    terms.set_need_date(member, machine_for(member, new.machine), new.day)
    return serializers.needs(member, asked)


@router.post("/terms", response=NeedsOut, **allowed(terms.set_terms))
def set_terms(request: HttpRequest, new: TermsIn, asked: Query[NeedsAsked]) -> NeedsOut:
    """Currency and rates the shop counts with."""
    member = member_of(request)
    rates = {name: getattr(new, name) for name in terms.RATES}
    terms.set_terms(member, new.currency, rates, new.days_before, new.now)
    return serializers.needs(member, asked)


@router.post("/ask-desks", response=InquiryOut, **allowed(supplier_book.ask_desks))
def ask_desks(request: HttpRequest, new: InquiryIn) -> InquiryOut:
    """Have every supplier's desk asked for price and stock of the whole list; what they said is told of the inquiry."""
    member = member_of(request)
    supplier_book.ask_desks(member, new.uuid)
    return inquiry_of(member, new.uuid)


@router.get("/suppliers", response=list[SupplierOut], **allowed(SEE_ALL))
def all_suppliers(request: HttpRequest) -> list[SupplierOut]:
    """The shop's suppliers, nearest first."""
    return [serializers.supplier(one) for one in suppliers.of_shop(member_of(request))]


@router.post("/suppliers", response=list[SupplierOut], **allowed(supplier_book.set_supplier))
def set_supplier(request: HttpRequest, new: SupplierIn) -> list[SupplierOut]:
    """Enter a supplier, or change one."""
    member = member_of(request)
    values = new.model_dump(exclude={"id", "uuid", "hours", "closed"})
    values |= {"openings": opening_hours.read(new.hours), "closed": opening_hours.days(new.closed)}
    supplier_book.set_supplier(member, new.id, new.uuid, values)
    return all_suppliers(request)


@router.post("/suppliers/{int:supplier_id}/offers-file", response={200: None}, **allowed(supplier_book.read_offers))
def offers_file(
    request: HttpRequest, supplier_id: int, file: File[UploadedFile], dry: Form[bool] = True
) -> StreamingHttpResponse:
    """A supplier's prices from a CSV or XLSX file: a line of JSON for each step, the last one with the report. dry: only say
    what each line would do."""
    member = member_of(request)
    supplier = suppliers.supplier_of(member, supplier_id)
    return streamed.table_told(supplier_book.read_offers(member, supplier, sheets.uploaded(file), dry=dry), dry=dry)


@router.post("/plans", response={200: None}, **allowed(plans.stream))
def make_plan(request: HttpRequest, new: SourcingIn) -> StreamingHttpResponse:
    """Work out three plans: a line of JSON for each step, the last one with ``done`` or ``error``."""
    pins = [Pin(pin.line, pin.supplier, pin.way, pin.date.isoformat() if pin.date else None) for pin in new.pinned]
    return streamed.told(plans.stream(member_of(request), new.uuid, pins))


@router.get("/plans/latest", response=SourcingOut | None, **allowed(SEE_ALL))
def latest_plan(request: HttpRequest) -> SourcingOut | None:
    """The newest plan of the shop, if there is one."""
    member = member_of(request)
    plan = sourcing.last_plan(member)
    return serializers.plan(member, plan) if plan else None


@router.get("/plans/{uuid:plan_id}", response=SourcingOut, **allowed(SEE_ALL))
def one_plan(request: HttpRequest, plan_id: UUID) -> SourcingOut:
    """One plan."""
    member = member_of(request)
    return serializers.plan(member, sourcing.plan_of(member, plan_id))


@router.get("/desk", response=DeskOut, **allowed(SEE_ALL))
def desk_state(request: HttpRequest) -> DeskOut:
    """Whether the suppliers' desk answers."""
    connected = bool(settings.DESK_URL)
    return DeskOut(connected=connected, answers=connected and desk.answers(), simulated=settings.MODE != "serve" and connected)


@router.post("/desk", response=DeskOut, **allowed(supplier_book.switch_desk))
def desk_mode(request: HttpRequest, new: DeskIn) -> DeskOut:
    """Make the simulated desk slow, deaf or silent. There is no such switch where the product serves."""
    supplier_book.switch_desk(member_of(request), new.mode)
    return desk_state(request)
