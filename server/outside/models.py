"""How those outside answered last, and what somebody wants to know of them."""

from django.db import models


class Line(models.Model):
    """A line to somebody outside. After several failures in a row it rests: nobody is kept waiting for a deaf one.

    failures: in a row. trouble: what was wrong last, in words; empty while it answers. asked_at: when that was.
    """

    class Name(models.TextChoices):
        MAIL = "mail", "The mail server"
        DESK = "desk", "The suppliers’ desk"
        MODEMS = "modems", "The machines’ modems"
        FORECAST = "forecast", "The weather forecast"

    name = models.CharField(max_length=8, choices=Name.choices, unique=True)
    failures = models.PositiveIntegerField(default=0)
    trouble = models.CharField(max_length=200, blank=True)
    asked_at = models.DateTimeField(null=True, blank=True)
    rests_until = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["name"]


class Inquiry(models.Model):
    """What a member wants to know of somebody outside, by the client's UUID. It is asked beside; the answer waits here.

    told: [{who, said, trouble}]. trouble, field: why nothing came of it.
    """

    uuid = models.UUIDField(primary_key=True)
    member = models.ForeignKey("shops.Member", on_delete=models.CASCADE, related_name="inquiries")
    asked_at = models.DateTimeField(auto_now_add=True)
    answered_at = models.DateTimeField(null=True, blank=True)
    told = models.JSONField(default=list, blank=True)
    trouble = models.CharField(max_length=300, blank=True)
    field = models.CharField(max_length=60, blank=True)

    class Meta:
        ordering = ["-asked_at"]
