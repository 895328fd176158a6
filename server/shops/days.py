"""The shop of whoever asks, as far as time goes: its time zone and how it writes days."""

import datetime as dt
from contextvars import ContextVar
from functools import lru_cache
from zoneinfo import ZoneInfo, available_timezones

from django.utils import timezone

from lumvek_core.errors import BadInput

from .models import DayForm, Shop

_form: ContextVar[str] = ContextVar("day_form", default=DayForm.WORDS)
SAID = {DayForm.WORDS: "%-d %b %Y", DayForm.MONTH_FIRST: "%b %-d, %Y", DayForm.FIGURES: "%Y-%m-%d"}


def as_in(shop: Shop) -> None:
    """From now on, in this request, times and days are the shop's."""
    _form.set(shop.day_form)
    if shop.time_zone in zones():
        timezone.activate(ZoneInfo(shop.time_zone))
    else:
        timezone.deactivate()


def as_nowhere(**_: object) -> None:
    """The server's own again."""
    _form.set(DayForm.WORDS)
    timezone.deactivate()


def said(day: dt.date | dt.datetime) -> str:
    """A day as the shop writes it; of a moment the day it was in the shop's time zone."""
    if isinstance(day, dt.datetime) and timezone.is_aware(day):
        day = timezone.localtime(day)
    return day.strftime(SAID[DayForm(_form.get())])


@lru_cache(maxsize=1)
def zones() -> frozenset[str]:
    """The time zones there are, without those that are no places."""
    named = (zone for zone in available_timezones() if "/" in zone and not zone.startswith(("Etc/", "posix", "right")))
    return frozenset(named) | {"UTC"}


SLOW = dt.timedelta(minutes=5)
"""So far a device's clock may be ahead."""


def not_to_come(moment: dt.datetime, field: str = "at") -> dt.datetime:
    """The moment itself. Raises BadInput where it is still to come."""
    if moment > timezone.now() + SLOW:
        raise BadInput(field, "is still to come")
    return moment
