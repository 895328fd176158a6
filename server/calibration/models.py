"""What was taught to a machine's controls, what happened that asks for it, and loads that were collected for it."""

from django.db import models

from shops.by_whom import user_key
from shops.scoping import OfShop
from shops.taken_back import TakenBack


class CalibrationRun(TakenBack):
    """A calibration that was gone through, whatever came of it. key: of the catalogue's calibration. steps: how many of its
    steps were done. values: what is kept of it, by key. given: what a value was worked out of, the input of a calculator.
    header: the one that was on the machine. words: why it was left."""

    class Outcome(models.TextChoices):
        SAVED = "saved", "Saved"
        UNSAVED = "unsaved", "Left without saving"
        ABORTED = "aborted", "Aborted"

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="calibration_runs")
    key = models.CharField(max_length=40)
    outcome = models.CharField(max_length=8, choices=Outcome.choices)
    begun_at = models.DateTimeField()
    at = models.DateTimeField()
    steps = models.PositiveSmallIntegerField(default=0)
    values = models.JSONField(default=dict, blank=True)
    given = models.JSONField(default=dict, blank=True)
    header = models.ForeignKey("fleet.Machine", on_delete=models.SET_NULL, null=True, blank=True, related_name="+")
    words = models.CharField(max_length=200, blank=True)
    by = user_key()

    class Meta:
        ordering = ["at", "id"]
        indexes = [models.Index(fields=["machine", "key", "at"])]


class Happened(TakenBack):
    """What somebody says was done to a machine. what: a key of the catalogue's list."""

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="happened")
    what = models.CharField(max_length=40)
    at = models.DateTimeField()
    by = user_key()

    class Meta:
        ordering = ["at", "id"]


class CollectedLoad(TakenBack):
    """A load as the machine told it, and what scale and grain store found, where they have said so. flow: of the harvest."""

    class Flow(models.TextChoices):
        NORMAL = "normal", "Normal flow"
        LOW = "low", "Low flow"

    shop_path = "machine__shop"
    objects = OfShop.as_manager()

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="collected_loads")
    crop = models.CharField(max_length=60, blank=True)
    name = models.CharField(max_length=60, blank=True)
    flow = models.CharField(max_length=6, choices=Flow.choices, default=Flow.NORMAL)
    machine_kg = models.FloatField(null=True, blank=True)
    shown_pct = models.FloatField(null=True, blank=True)
    scale_kg = models.FloatField(null=True, blank=True)
    reference_pct = models.FloatField(null=True, blank=True)
    at = models.DateTimeField()
    by = user_key()

    class Meta:
        ordering = ["at", "id"]

    @property
    def found(self) -> str:
        """What scale and grain store found, in words."""
        weighed = [f"{self.scale_kg:g} kg" if self.scale_kg else "", f"{self.reference_pct:g} %" if self.reference_pct else ""]
        return ", ".join(filter(None, weighed)) or "not weighed"
