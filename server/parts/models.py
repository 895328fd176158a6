"""Parts books, and the pieces that a walk-around calls for."""

from django.db import models


class PartNumber(models.Model):
    """A model's part number for a slot; handed slots have one for each side."""

    model = models.ForeignKey("fleet.MachineModel", on_delete=models.CASCADE, related_name="part_numbers")
    slot = models.CharField(max_length=60)
    side = models.CharField(max_length=1, blank=True)
    number = models.CharField(max_length=40)
    pack = models.PositiveSmallIntegerField(default=1)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["model", "slot", "side"], name="one_number_per_slot_and_side")]


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
