"""What a machine's logbook keeps besides inspections, fitments and counters: services done, and what was put away for the
winter."""

from django.conf import settings
from django.db import models

from shops.taken_back import TakenBack


class ServiceDone(TakenBack):
    """Work that comes round, done. key: of the catalogue's service. counter: the machine's, in its own unit."""

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="services_done")
    key = models.CharField(max_length=40)
    day = models.DateField()
    counter = models.FloatField(null=True)
    note = models.CharField(max_length=300, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["day", "id"]


class PutAwayTick(models.Model):
    """One thing of the put-away list done, or taken back. Append-only: the newest of a season rules. season: the year it ended
    in."""

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="put_away_ticks")
    key = models.CharField(max_length=40)
    season = models.PositiveSmallIntegerField()
    done = models.BooleanField()
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["id"]
