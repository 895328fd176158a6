"""Telling that what a machine's forecasts rest on has changed."""

from collections.abc import Iterable

from django.db.models import F

from ..models import Machine


def history_changed(machines: Iterable[int]) -> None:
    """Something that forecasts of these machines rest on has changed, other than by a reading: a counter, a part, a limit."""
    Machine.objects.filter(pk__in=list(machines)).update(wear_stale=True, history_edition=F("history_edition") + 1)
