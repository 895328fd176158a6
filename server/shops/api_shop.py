"""What a shop says of itself, and its first day."""

from typing import Annotated

from django.http import HttpRequest
from ninja import Query, Router

from .access import member_of
from .actions import shop as actions
from .endpoints import allowed
from .queries import changes as log
from .queries.shop import shop_of
from .schemas import ChangesOut, ShopIn, ShopOut

router = Router(tags=["shop"])


@router.get("", response=ShopOut, **allowed("change the shop"))
def shop(request: HttpRequest) -> ShopOut:
    """The shop as its lead sees it."""
    return shop_of(member_of(request))


@router.post("", response=ShopOut, **allowed(actions.change))
def change_the_shop(request: HttpRequest, wanted: ShopIn) -> ShopOut:
    """Its name, and whether everybody has to have a second factor."""
    member = member_of(request)
    actions.change(member, wanted.name, wanted.second_factor)
    return shop_of(member)


@router.post("/begun", response=ShopOut, **allowed(actions.begin))
def begun(request: HttpRequest) -> ShopOut:
    """The first day is over."""
    member = member_of(request)
    actions.begin(member)
    return shop_of(member)


@router.get("/changes", response=ChangesOut, **allowed("see changes"))
def changes(
    request: HttpRequest, about: str = "", search: str = "", page: Annotated[int, Query(ge=0, le=10_000)] = 0
) -> ChangesOut:
    """What was changed, by whom, from what to what."""
    return log.changes(member_of(request), about, search, page)
