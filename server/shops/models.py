"""Shops and their members. A shop owns everything else; every query starts from it."""

from django.conf import settings
from django.db import models

from .scoping import OfShop


class Shop(models.Model):
    """A workshop. schools: subject → chosen school where it differs from the shipped default."""

    name = models.CharField(max_length=120)
    schools = models.JSONField(default=dict, blank=True)


class Feeler(models.Model):
    """A feeler the shop owns, with its thickness as measured: a business card is not everywhere 0.3 mm."""

    objects = OfShop.as_manager()

    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="feelers")
    name = models.CharField(max_length=30)
    thickness_mm = models.FloatField()

    class Meta:
        ordering = ["thickness_mm", "name"]
        constraints = [models.UniqueConstraint(fields=["shop", "name"], name="one_feeler_per_name")]


class RuleChange(models.Model):
    """A limit, a school or a feeler that somebody changed: what it was, what it became. Never changed itself."""

    objects = OfShop.as_manager()

    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="rule_changes")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    what = models.CharField(max_length=200)
    before = models.CharField(max_length=200)
    after = models.CharField(max_length=200)

    class Meta:
        ordering = ["-id"]


class Role(models.TextChoices):
    LEAD = "lead", "Shop lead"
    TECHNICIAN = "technician", "Technician"
    PARTS = "parts", "Parts"
    OWNER = "owner", "Machine owner"


class Units(models.TextChoices):
    MM = "mm", "Millimetres"
    IN = "in", "Inches"


class Member(models.Model):
    """A person in a shop, with one role and the units they read. A person belongs to one shop."""

    objects = OfShop.as_manager()

    user = models.OneToOneField(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="member")
    shop = models.ForeignKey(Shop, on_delete=models.CASCADE, related_name="members")
    role = models.CharField(max_length=12, choices=Role.choices)
    units = models.CharField(max_length=2, choices=Units.choices, default=Units.MM)

    @property
    def sees_own_only(self) -> bool:
        """Whether only the machines that this member owns are to be seen."""
        return self.role == Role.OWNER

    @property
    def name(self) -> str:
        return self.user.get_full_name() or self.user.get_username()
