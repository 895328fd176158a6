"""Who did it: the same column in every app."""

from typing import Any

from django.conf import settings
from django.db import models


def user_key(**more: Any) -> Any:
    """A person's account; it cannot be deleted while something says that they did it."""
    return models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT, related_name="+", **more)
