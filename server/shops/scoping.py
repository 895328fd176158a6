"""Every query starts from whose it is: ``Machine.objects.of(member)``."""

from __future__ import annotations

from typing import TYPE_CHECKING, Self, TypeVar

from django.db import models

if TYPE_CHECKING:
    from .models import Member

M = TypeVar("M", bound=models.Model)


class OfShop(models.QuerySet[M]):
    """Rows that belong to a shop.

    A model says by ``shop_path`` how its shop is reached where that is not ``shop``, and by ``owners_path`` that a machine's
    owner sees their own machines' rows only.
    """

    def in_shop(self, shop_id: int) -> Self:
        """The rows of one shop."""
        return self.filter(**{getattr(self.model, "shop_path", "shop"): shop_id})

    def of(self, member: Member) -> Self:
        """The rows this member may see."""
        mine = self.in_shop(member.shop_id)
        path = getattr(self.model, "owners_path", "")
        return mine.filter(**{path: member}) if path and member.sees_own_only else mine
