"""Reaching somebody outside: a line that failed several times rests for a while, and how each one stands is known to all."""

import datetime as dt
from collections.abc import Callable
from typing import TypeVar

from django.utils import timezone

from .models import Line

T = TypeVar("T")
FAILURES = 3
"""In a row; then the line rests."""
RESTS = (dt.timedelta(minutes=1), dt.timedelta(minutes=5), dt.timedelta(minutes=15))
"""How long: longer each time, and never longer than the last."""


class Resting(Exception):
    """Nobody was asked: the line failed several times and rests."""


def reach(name: Line.Name, ask: Callable[[], T], failed: type[Exception], *, pressed: bool = False) -> T:
    """Ask, unless the line rests. failed: what `ask` raises where nobody answers. pressed: somebody wants it now, rest or not.

    Raises Resting, and whatever `ask` raises.
    """
    line, now = Line.objects.filter(name=name).first(), timezone.now()
    if not pressed and line and line.rests_until and line.rests_until > now:
        raise Resting(resting_words(line))
    try:
        found = ask()
    except failed as problem:
        _failed(name, str(problem))
        raise
    if line is None or line.failures or not line.asked_at or now - line.asked_at > dt.timedelta(minutes=1):
        fine = {"failures": 0, "trouble": "", "asked_at": now, "rests_until": None}
        Line.objects.update_or_create(name=name, defaults=fine)
    return found


def resting_words(line: Line) -> str:
    """What is said of a line that rests."""
    until = timezone.localtime(line.rests_until)
    return f"{line.get_name_display()} failed {line.failures} times in a row and is left alone until {until:%H:%M}."


def _failed(name: Line.Name, trouble: str) -> None:
    line, _ = Line.objects.get_or_create(name=name)
    line.failures += 1
    line.trouble, line.asked_at = trouble[:200], timezone.now()
    if line.failures >= FAILURES:
        line.rests_until = line.asked_at + RESTS[min(line.failures - FAILURES, len(RESTS) - 1)]
    line.save()
