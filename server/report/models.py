"""Links that show one report to somebody without an account."""

from django.conf import settings
from django.db import models


class ReportLink(models.Model):
    """An unguessable address of one report that ends by itself. Only the hash of its secret is kept. units: it is read in.
    uuid: it was asked for under; those from before have none."""

    walk_around = models.ForeignKey("inspection.WalkAround", on_delete=models.CASCADE, related_name="report_links")
    uuid = models.UUIDField(null=True, unique=True, editable=False)
    digest = models.CharField(max_length=64, unique=True)
    expires_at = models.DateTimeField()
    made_by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+")
    made_at = models.DateTimeField(auto_now_add=True)
    revoked_at = models.DateTimeField(null=True, blank=True)
    units = models.CharField(max_length=4, default="mm")

    class Meta:
        ordering = ["-id"]
