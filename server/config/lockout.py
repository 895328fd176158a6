"""How long a name is locked from one address after wrong passwords: longer with every further try, and from nowhere else."""

import datetime as dt

from axes.models import AccessAttempt
from django.conf import settings
from django.http import HttpRequest, JsonResponse

from .pages import refused

FIRST, LONGEST = dt.timedelta(minutes=15), dt.timedelta(hours=4)
"""Tries are forgotten after the same time: with a short one, five a minute would never lock."""


def cool_off(request: HttpRequest | None) -> dt.timedelta:
    """A quarter of an hour after the first six, and twice as long after every third try from then on."""
    failures = _failures(request) if request is not None else 0
    further = max(0, failures - settings.AXES_FAILURE_LIMIT) // 3
    return min(FIRST * (1 << min(further, 10)), LONGEST)


def locked(request: HttpRequest, *_: object) -> JsonResponse:
    """The answer to who is locked, in the API's own shape."""
    minutes = round(cool_off(request).total_seconds() / 60)
    return refused(429, f"Too many wrong passwords from here. Try again in {minutes} minutes.")


def _failures(request: HttpRequest) -> int:
    """Of this address, for whichever name it tried most."""
    address = request.META.get("REMOTE_ADDR", "")
    tried = AccessAttempt.objects.filter(ip_address=address).order_by("-failures_since_start")
    return tried.values_list("failures_since_start", flat=True).first() or 0
