"""Telling that what a machine's forecasts rest on has changed, and that they were looked at."""

from collections.abc import Iterable

from django.db.models import F

from ..models import Machine


def history_changed(machines: Iterable[int]) -> None:
    """Something that forecasts of these machines rest on has changed, other than by a reading: a counter, a part, a limit."""
    Machine.objects.filter(pk__in=list(machines)).update(wear_stale=True, history_edition=F("history_edition") + 1)


def mark_stale(machine: int) -> None:
    """A reading came that the machine's forecasts do not know of yet."""
    Machine.objects.filter(pk=machine, wear_stale=False).update(wear_stale=True)


def mark_fresh(machines: Iterable[int]) -> None:
    """The forecasts of these machines are being brought up to date."""
    Machine.objects.filter(pk__in=list(machines)).update(wear_stale=False)
