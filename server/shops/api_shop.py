"""What a shop says of itself, and its first day."""

from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Query, Router, UploadedFile

from .access import member_of
from .actions import shop as actions
from .endpoints import allowed
from .pictures import LARGEST_BYTES
from .queries import changes as log
from .queries.shop import mark_of, shop_of
from .schemas import ChangesAsked, ChangesOut, CropsIn, HoursIn, ShopIn, ShopOut, WaysIn, WorkplaceIn

router = Router(tags=["shop"])


@router.get("", response=ShopOut, **allowed("change the shop"))
def shop(request: HttpRequest) -> ShopOut:
    """The shop as its lead sees it."""
    return shop_of(member_of(request))


@router.post("", response=ShopOut, **allowed(actions.change))
def change_the_shop(request: HttpRequest, wanted: ShopIn) -> ShopOut:
    """Its name, and whether everybody has to have a second factor."""
    member = member_of(request)
    actions.change(member, wanted.name, wanted.address, wanted.second_factor)
    return shop_of(member)


@router.post("/ways", response=ShopOut, **allowed(actions.set_ways))
def set_ways(request: HttpRequest, wanted: WaysIn) -> ShopOut:
    """Its time zone, the units of those who join, how days are written."""
    member = member_of(request)
    actions.set_ways(member, wanted.time_zone, wanted.units, wanted.day_form)
    return shop_of(member)


@router.post("/hours", response=ShopOut, **allowed(actions.set_hours))
def set_hours(request: HttpRequest, wanted: HoursIn) -> ShopOut:
    """When it works."""
    member = member_of(request)
    actions.set_hours(member, wanted.hours, wanted.closed)
    return shop_of(member)


@router.post("/crops", response=ShopOut, **allowed(actions.set_crops))
def set_crops(request: HttpRequest, wanted: CropsIn) -> ShopOut:
    """The crops grown and the seasons."""
    member = member_of(request)
    crops, seasons = ([one.model_dump() for one in listed] for listed in (wanted.crops, wanted.seasons))
    actions.set_crops(member, crops, seasons)
    return shop_of(member)


@router.post("/places", response=ShopOut, **allowed(actions.keep_workplace))
def keep_workplace(request: HttpRequest, wanted: WorkplaceIn) -> ShopOut:
    """A bay, yard, lift or bench: added, or changed."""
    member = member_of(request)
    actions.keep_workplace(member, wanted.uuid, wanted.model_dump(exclude={"uuid"}))
    return shop_of(member)


@router.post("/places/{uuid:workplace_id}/removed", response=ShopOut, **allowed(actions.remove_workplace))
def remove_workplace(request: HttpRequest, workplace_id: UUID) -> ShopOut:
    """It is there no more."""
    member = member_of(request)
    actions.remove_workplace(member, workplace_id)
    return shop_of(member)


@router.get("/mark", **allowed(actions.set_mark))
def mark(request: HttpRequest) -> HttpResponse:
    """The picture at the head of reports."""
    return HttpResponse(mark_of(member_of(request)), content_type="image/jpeg")


@router.post("/mark", response=ShopOut, **allowed(actions.set_mark))
def set_mark(request: HttpRequest, photo: File[UploadedFile]) -> ShopOut:
    """The picture at the head of reports, anew."""
    member = member_of(request)
    actions.set_mark(member, photo.read(LARGEST_BYTES + 1))
    return shop_of(member)


@router.post("/mark/removed", response=ShopOut, **allowed(actions.remove_mark))
def remove_mark(request: HttpRequest) -> ShopOut:
    """Reports go without a picture."""
    member = member_of(request)
    actions.remove_mark(member)
    return shop_of(member)


@router.post("/begun", response=ShopOut, **allowed(actions.begin))
def begun(request: HttpRequest) -> ShopOut:
    """The first day is over."""
    member = member_of(request)
    actions.begin(member)
    return shop_of(member)


@router.get("/changes", response=ChangesOut, **allowed("see changes"))
def changes(request: HttpRequest, asked: Query[ChangesAsked]) -> ChangesOut:
    """What was changed, by whom, from what to what."""
    return log.changes(member_of(request), asked)
