"""Parts books, and the pieces that a walk-around calls for."""

from django.db import models

from shops.scoping import OfShop


class PartNumber(models.Model):
    """A model's part number for a slot; handed slots have one for each side, and a slot may have alternatives.

    chosen: the alternative this shop fits; without a choice the one as original. life: how long it lasts against the original.
    replaced_by: the number that came after it; mark: how the old one is recognised, and whether the two may be mixed.
    """

    shop_path = "model__shop"
    objects = OfShop.as_manager()

    class Kind(models.TextChoices):
        ORIGINAL = "original", "As original"
        UPGRADED = "upgraded", "Upgraded"
        REPAIR = "repair", "Repair"
        ASSEMBLY = "assembly", "Assembly"

    class Status(models.TextChoices):
        SUPPORTED = "supported", "Still supported"
        SCARCE = "scarce", "Scarce"

    model = models.ForeignKey("fleet.MachineModel", on_delete=models.CASCADE, related_name="part_numbers")
    slot = models.CharField(max_length=60)
    side = models.CharField(max_length=1, blank=True)
    number = models.CharField(max_length=40)
    pack = models.PositiveSmallIntegerField(default=1)
    kind = models.CharField(max_length=10, choices=Kind.choices, default=Kind.ORIGINAL)
    chosen = models.BooleanField(default=False)
    status = models.CharField(max_length=10, choices=Status.choices, default=Status.SUPPORTED)
    life = models.FloatField(default=1)
    replaced_by = models.CharField(max_length=40, blank=True)
    mark = models.CharField(max_length=120, blank=True)
    note = models.CharField(max_length=200, blank=True)

    class Meta:
        ordering = ["slot", "side", "-chosen", "kind", "number"]
        constraints = [
            models.UniqueConstraint(fields=["model", "slot", "side", "number"], name="one_line_per_number"),
        ]

    @property
    def ordered_as(self) -> str:
        """The number to order: that which came after it, where there is one."""
        return self.replaced_by or self.number


class PartsLine(models.Model):
    """One part at one position that a walk-around calls for, because of a finding or as a companion.

    Kept in step with verdicts and decisions; what a person declined stays declined until they take it back.
    """

    walk_around = models.ForeignKey("inspection.WalkAround", on_delete=models.CASCADE, related_name="parts_lines")
    slot = models.CharField(max_length=60)
    position_key = models.CharField(max_length=40)
    side = models.CharField(max_length=1, blank=True)
    quantity = models.PositiveSmallIntegerField()
    origin = models.CharField(max_length=10)
    because = models.CharField(max_length=60)
    why = models.CharField(max_length=200)
    declined_reason = models.CharField(max_length=200, blank=True)
    declined_by = models.CharField(max_length=150, blank=True)

    class Meta:
        ordering = ["id"]
        constraints = [models.UniqueConstraint(fields=["walk_around", "slot", "position_key"], name="one_line_per_place")]
