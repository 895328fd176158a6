"""Records that can be taken back: they stay, with who took them back and when, and count no more."""

from __future__ import annotations

from typing import TYPE_CHECKING, Any

from django.conf import settings
from django.db import models
from django.utils import timezone

if TYPE_CHECKING:
    from .models import Member


class TakenBack(models.Model):
    """What somebody recorded by mistake and took back again; ``taken_back_at`` is None while it counts."""

    taken_back_at = models.DateTimeField(null=True, blank=True)
    taken_back_by = models.ForeignKey(
        settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", null=True, blank=True
    )

    class Meta:
        abstract = True


def take_back(member: Member, records: models.QuerySet[Any]) -> int:
    """Take back those that still count; asked twice it is done once. Returns how many were taken back now.

    They are held by their keys alone and in their order, so that two who take back the same wait for each other and never in a
    circle.
    """
    keys = sorted(records.filter(taken_back_at=None).values_list("pk", flat=True))
    by_key = records.model._base_manager.filter(pk__in=keys)
    still = list(by_key.select_for_update().order_by("pk").values_list("pk", "taken_back_at"))
    counting = [key for key, taken in still if taken is None]
    return by_key.filter(pk__in=counting).update(taken_back_at=timezone.now(), taken_back_by=member.user) if counting else 0
