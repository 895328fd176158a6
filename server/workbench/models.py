"""Results of the bench that somebody kept with a machine."""

from django.conf import settings
from django.db import models


class BenchResult(models.Model):
    """One answer in a machine's log: what was typed and what came out, as it was then. Withdrawn, not erased.

    texts: as typed; sheet: the answer with its figures and reasons, not computed again when a limit changes.
    """

    uuid = models.UUIDField(unique=True)
    machine = models.ForeignKey("fleet.Machine", on_delete=models.CASCADE, related_name="bench_results")
    subject = models.CharField(max_length=40)
    texts = models.JSONField()
    sheet = models.JSONField()
    note = models.CharField(max_length=300, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    withdrawn_at = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["-id"]
