"""What a shop says of itself."""

from lumvek_core.errors import BadInput

from ..models import Change, Member, Shop
from ..rights import action
from .log import log_change


@action("change the shop")
def change(member: Member, name: str, second_factor: bool) -> None:
    """What it is called, and whether everybody has to have a second factor. Raises BadInput with field ``name``."""
    if not name.strip():
        raise BadInput("name", "say what the shop is called")
    shop = Shop.objects.select_for_update().get(pk=member.shop_id)
    before = shop.name, _said(shop)
    shop.name, shop.second_factor, shop.described = name.strip()[:120], second_factor, True
    shop.save(update_fields=["name", "second_factor", "described"])
    log_change(member, Change.About.SHOP, "Name", before[0], shop.name)
    log_change(member, Change.About.SHOP, "Logging in", before[1], _said(shop))
    member.shop = shop


@action("change the shop")
def begin(member: Member) -> None:
    """The first day is over: the pages that lead through it are put away."""
    Shop.objects.filter(pk=member.shop_id).update(begun=True)
    member.shop.begun = True


def _said(shop: Shop) -> str:
    return "password and a code" if shop.second_factor else "password alone"
