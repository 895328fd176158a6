"""How those outside answered last."""

from django.db import models


class Line(models.Model):
    """A line to somebody outside. After several failures in a row it rests: nobody is kept waiting for a deaf one.

    failures: in a row. trouble: what was wrong last, in words; empty while it answers. asked_at: when that was.
    """

    class Name(models.TextChoices):
        MAIL = "mail", "The mail server"
        DESK = "desk", "The suppliers’ desk"
        MODEMS = "modems", "The machines’ modems"

    name = models.CharField(max_length=8, choices=Name.choices, unique=True)
    failures = models.PositiveIntegerField(default=0)
    trouble = models.CharField(max_length=200, blank=True)
    asked_at = models.DateTimeField(null=True, blank=True)
    rests_until = models.DateTimeField(null=True, blank=True)

    class Meta:
        ordering = ["name"]
