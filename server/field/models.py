"""How machines were set in the field, and what was looked at each day."""

from django.db import models

from shops.by_whom import user_key
from shops.scoping import OfShop
from shops.taken_back import TakenBack


class SetInField(TakenBack):
    """How a machine was set for a crop as it was then. crop, place (the field), condition: in the shop's words. values: by
    key of the catalogue's settings, as typed, lengths in millimetres. why: what made somebody set it so. worked: whether it
    did; None until somebody says."""

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="set_in_field")
    header = models.ForeignKey("fleet.Machine", on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    crop = models.CharField(max_length=60, blank=True)
    place = models.CharField(max_length=60, blank=True)
    condition = models.CharField(max_length=120, blank=True)
    values = models.JSONField(default=dict)
    why = models.CharField(max_length=200, blank=True)
    worked = models.BooleanField(null=True)
    at = models.DateTimeField()
    by = user_key()

    class Meta:
        ordering = ["at", "id"]
        indexes = [models.Index(fields=["machine", "crop", "at"])]


class DailyTick(models.Model):
    """One thing of a machine's daily card, right or not, on one day. Append-only: the newest of a day rules. key: a check's."""

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="daily_ticks")
    day = models.DateField()
    key = models.CharField(max_length=60)
    right = models.BooleanField()
    words = models.CharField(max_length=200, blank=True)
    at = models.DateTimeField(auto_now_add=True)
    by = user_key()

    class Meta:
        ordering = ["id"]
        indexes = [models.Index(fields=["machine", "day"])]
