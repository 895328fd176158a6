"""Endpoints of the parts list, suppliers and sourcing. Orders, stock and cost have modules of their own."""

from collections.abc import Iterator
from uuid import UUID

from django.conf import settings
from django.http import HttpRequest, StreamingHttpResponse
from ninja import File, Form, Router, UploadedFile

from fleet.queries.machines import machine_for
from inspection.queries.walk_arounds import walk_around_for
from lumvek_core.errors import BadInput
from lumvek_core.planning.sourcing_model import Pin
from parts import actions as parts_services
from shops.access import DECIDERS, NotFoundHere, member_of, only
from shops.models import Member, Role
from tabular import sheets

from . import desk
from .models import NeedDate, Plan, Supplier
from .queries import opening_hours, parts_book, serializers, sourcing
from .queries.needs import terms_of
from .schemas import (
    AskedOut,
    ChooseIn,
    DeskIn,
    DeskOut,
    HandIn,
    NeedDateIn,
    NeedsOut,
    NumberIn,
    PartsTableOut,
    SourcingIn,
    SourcingOut,
    SupplierIn,
    SupplierOut,
    TermsIn,
)

supply = Router(tags=["supply"])
BUYERS = {Role.LEAD, Role.PARTS}
"""Who keeps the book, plans and orders; technicians see it all, receive, fit and count."""


def reader(request: HttpRequest, doing: str = "see the parts of the whole shop") -> Member:
    """The member, unless an owner: they see cost of their own machines only."""
    member = member_of(request)
    only(member, DECIDERS, doing)
    return member


def buyer(request: HttpRequest, doing: str) -> Member:
    member = member_of(request)
    only(member, BUYERS, doing)
    return member


@supply.get("/list", response=NeedsOut)
def needed(request: HttpRequest) -> NeedsOut:
    """Everything the shop's machines need, less what there is and what is coming."""
    return serializers.needs(reader(request))


@supply.post("/numbers", response=NeedsOut)
def set_number(request: HttpRequest, new: NumberIn) -> NeedsOut:
    """Enter a part number that was to be found."""
    member = buyer(request, "change the parts book")
    parts_book.set_number(member, parts_book.model_of(member, new.model), new.slot, new.side, new.number, new.pack)
    return serializers.needs(member)


@supply.post("/choices", response=NeedsOut)
def choose(request: HttpRequest, new: ChooseIn) -> NeedsOut:
    """Choose among the alternatives of a slot."""
    member = buyer(request, "change the parts book")
    parts_book.choose(parts_book.model_of(member, new.model), new.slot, new.side, new.number)
    return serializers.needs(member)


@supply.post("/hands", response=NeedsOut)
def set_hand(request: HttpRequest, new: HandIn) -> NeedsOut:
    """Say which hand a part is, where its place does not tell."""
    member = reader(request, "decide on parts")
    found = walk_around_for(member, new.walk_around)
    if not parts_services.set_hand(found.pk, new.slot, new.positions, new.side):
        raise BadInput("positions", "nothing is needed there")
    return serializers.needs(member)


@supply.post("/need-dates", response=NeedsOut)
def need_date(request: HttpRequest, new: NeedDateIn) -> NeedsOut:
    """The day a machine's parts are wanted; without a day the season's date less the shop's days."""
    member = buyer(request, "set dates")
    machine = machine_for(member, new.machine)
    if new.day is None:
        NeedDate.objects.filter(machine=machine).delete()
    else:
        NeedDate.objects.update_or_create(machine=machine, defaults={"day": new.day})
    return serializers.needs(member)


@supply.post("/terms", response=NeedsOut)
def set_terms(request: HttpRequest, new: TermsIn) -> NeedsOut:
    """Currency and rates the shop counts with."""
    member = buyer(request, "change rates")
    found = terms_of(member)
    found.currency, found.days_before, found.now = new.currency, new.days_before, new.now
    for name in ("labour_rate", "km_cost", "downtime_rate", "late_cost_per_day"):
        setattr(found, name, parts_book.amount(getattr(new, name), name, 10_000))
    found.save()
    return serializers.needs(member)


@supply.post("/ask-desks", response=list[AskedOut])
def ask_desks(request: HttpRequest) -> list[AskedOut]:
    """Ask every supplier's desk for price and stock of the whole list."""
    found = sourcing.ask_desks(buyer(request, "ask suppliers"))
    return [AskedOut(supplier=one.supplier, offers=one.offers, trouble=one.trouble) for one in found]


@supply.get("/suppliers", response=list[SupplierOut])
def suppliers(request: HttpRequest) -> list[SupplierOut]:
    """The shop's suppliers, nearest first."""
    return [serializers.supplier(one) for one in Supplier.objects.filter(shop=reader(request).shop_id)]


@supply.post("/suppliers", response=list[SupplierOut])
def set_supplier(request: HttpRequest, new: SupplierIn) -> list[SupplierOut]:
    """Enter a supplier, or change one."""
    member = buyer(request, "change suppliers")
    values = new.model_dump(exclude={"id", "hours", "closed"})
    values |= {"openings": opening_hours.read(new.hours), "closed": opening_hours.days(new.closed)}
    names = [way.name for way in new.deliveries]
    if "fetch" in names or len(set(names)) < len(names):
        raise BadInput("deliveries", "each delivery needs a name of its own, and none is called fetch")
    others = Supplier.objects.filter(shop=member.shop_id)
    if others.filter(name=new.name).exclude(pk=new.id).exists():
        raise BadInput("name", "there is a supplier of that name")
    if not new.id:
        Supplier.objects.create(shop=member.shop, **values)
    elif not others.filter(pk=new.id).update(**values):
        raise NotFoundHere("There is no such supplier.")
    return suppliers(request)


@supply.post("/suppliers/{int:supplier_id}/offers-file", response=PartsTableOut)
def offers_file(request: HttpRequest, supplier_id: int, file: File[UploadedFile], dry: Form[bool] = True) -> PartsTableOut:
    """A supplier's prices and stock from CSV or XLSX. dry: only say what each line would do."""
    member = member_of(request)
    supplier = Supplier.objects.filter(shop=member.shop_id, pk=supplier_id).first()
    if supplier is None:
        raise NotFoundHere("There is no such supplier.")
    only(member, BUYERS, "take prices")
    text = sheets.text_of(file.name or "", file.read(sheets.LARGEST + 1))
    return serializers.table(parts_book.read_offers(supplier, text, dry=dry), dry)


@supply.post("/plans", response={200: None})
def make_plan(request: HttpRequest, new: SourcingIn) -> StreamingHttpResponse:
    """Work out three plans: a line of JSON for each step, the last one with ``done`` or ``error``."""
    member = buyer(request, "plan orders")
    pins = [Pin(pin.line, pin.supplier, pin.way, pin.date.isoformat() if pin.date else None) for pin in new.pinned]
    steps = sourcing.stream(member, new.uuid, pins)
    first = next(steps)  # what is refused at once is refused as everywhere else

    def all_steps() -> Iterator[str]:
        yield first
        yield from steps

    response = StreamingHttpResponse(all_steps(), content_type="application/x-ndjson")
    response["Cache-Control"] = "no-store"
    return response


@supply.get("/plans/latest", response=SourcingOut | None)
def latest_plan(request: HttpRequest) -> SourcingOut | None:
    """The newest plan of the shop, if there is one."""
    member = reader(request)
    found = sourcing.last_plan(member)
    return serializers.plan(member, found) if found else None


def plan_or_nothing(member: Member, plan_id: UUID) -> Plan:
    found = sourcing.plan_of(member, plan_id)
    if found is None:
        raise NotFoundHere("There is no such plan.")
    return found


@supply.get("/plans/{uuid:plan_id}", response=SourcingOut)
def one_plan(request: HttpRequest, plan_id: UUID) -> SourcingOut:
    """One plan."""
    member = member_of(request)
    found = plan_or_nothing(member, plan_id)
    return serializers.plan(reader(request), found)


@supply.get("/desk", response=DeskOut)
def desk_state(request: HttpRequest) -> DeskOut:
    """Whether the suppliers' desk answers."""
    reader(request)
    connected = bool(settings.DESK_URL)
    return DeskOut(connected=connected, answers=connected and desk.answers(), simulated=settings.MODE != "serve" and connected)


@supply.post("/desk", response=DeskOut)
def desk_mode(request: HttpRequest, new: DeskIn) -> DeskOut:
    """Make the simulated desk slow, deaf or silent. There is no such switch where the product serves."""
    buyer(request, "switch the simulated desk")
    if settings.MODE == "serve" or not settings.DESK_URL:
        raise NotFoundHere("There is no simulated desk here.")
    desk.behave(new.mode)
    return desk_state(request)
