"""What a round leaves out because it was seen since the last season, or can be seen only at work."""

import datetime as dt
from collections import defaultdict
from collections.abc import Mapping, Sequence
from typing import Any

from django.utils import timezone

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue import rounds
from lumvek_core.catalogue.model import Check
from lumvek_core.counted import counted
from shops.days import said

from ..models import Reading, Verdict
from . import rule_books, set_up

SEASON = dt.timedelta(days=300)
"""So long ago is another season, where a machine's season date is not known."""


def left_out(
    machines: Sequence[Machine], checks: Sequence[Check], phase: str, layout: Mapping[str, Any]
) -> list[dict[str, Any]]:
    """What a round leaves out, each with its reason in one line: ``{why, checks, words}``. One query at most."""
    seen, last = _seen(machines, checks, layout) if phase == "pre-season" else (set(), None)
    found = rounds.left_out(checks, phase, seen)
    return [{"why": one.why, "checks": one.checks, "words": _words(one, last)} for one in found]


def standing_right(right: Sequence[str], kept: Sequence[str]) -> list[dict[str, Any]]:
    """What a changeover leaves out: what stands as the crop would have it, and what is not worth changing for one field."""
    told = [
        ("right", list(right), f"{counted(len(right), 'item')} left out: set for this crop already."),
        ("kept", list(kept), f"{counted(len(kept), 'item')} left as set: it would be changed back soon."),
    ]
    return [{"why": why, "checks": checks, "words": words} for why, checks, words in told if checks]


def _words(one: rounds.LeftOut, last: dt.date | None) -> str:
    many = counted(len(one.checks), "check")
    if one.why == "field":
        return f"{many} left out: seen only while it works in the field."
    return f"{many} left out: seen since the last season, last on {said(last) if last else 'no day'}."


def _seen(machines: Sequence[Machine], checks: Sequence[Check], layout: Mapping[str, Any]) -> tuple[set[str], dt.date | None]:
    """The checks of which every place was seen in finished walk-arounds since the last season, and when the last one was."""
    known = rule_books.ever(check.key for check in checks)
    rows = Verdict.objects.filter(
        set_up.of_machines(machines, known),
        walk_around__discarded_at=None,
        walk_around__finished_at__isnull=False,
        walk_around__started_at__gte=_since(machines[0]),
    ).exclude(reading__state=Reading.State.NOT_SEEN)
    places, days = defaultdict(set), []
    for key, place, at in rows.exclude(walk_around__phase="daily").values_list(
        "check_key", "position_key", "reading__taken_at"
    ):
        places[known[key]].add(place)
        days.append(at.date())
    seen = {check.key for check in checks if {place.key for place in positions.expand(check.per, layout)} <= places[check.key]}
    return seen, max(days, default=None)


def _since(machine: Machine) -> dt.datetime:
    """When the last season of a machine began."""
    now = timezone.now()
    if machine.season_date is None:
        return now - SEASON
    years = (machine.season_date - now.date()).days // 365 + 1
    day = machine.season_date - dt.timedelta(days=365 * years)
    return timezone.make_aware(dt.datetime.combine(day, dt.time()))
