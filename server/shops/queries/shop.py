"""Reading what a shop says of itself."""

from ..models import Invitation, Member
from ..schemas import ShopOut


def shop_of(member: Member) -> ShopOut:
    """The member's shop, and how far its first day is. Two queries."""
    shop = member.shop
    return ShopOut(
        name=shop.name,
        second_factor=shop.second_factor,
        described=shop.described,
        people=Member.objects.of(member).filter(left_at=None).count(),
        asked=Invitation.objects.of(member).filter(used_at=None, withdrawn_at=None).count(),
    )
