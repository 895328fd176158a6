"""How the places of some checks of a machine stood when they were read last, whatever round that was in."""

import datetime as dt
from collections import defaultdict
from collections.abc import Iterable
from dataclasses import dataclass

from fleet.models import Machine

from ..models import Reading, Verdict
from . import rule_books
from .set_up import of_machines


@dataclass(frozen=True)
class Stood:
    """severity: of the verdict. used: share of the wear, where the check tells it."""

    severity: str
    used: float | None
    at: dt.datetime


def stood_last(machine: Machine, checks: Iterable[str], before: dt.datetime) -> dict[str, list[Stood]]:
    """By the check's full key, one for each place that was seen before then. One query."""
    known = rule_books.ever(checks)
    if not known:
        return {}
    rows = Verdict.objects.filter(
        of_machines([machine], known),
        walk_around__discarded_at=None,
        reading__state=Reading.State.SEEN,
        reading__taken_at__lt=before,
        ask="",
    )
    newest: dict[tuple[str, str], Stood] = {}
    columns = ("check_key", "position_key", "severity", "used", "reading__taken_at")
    for key, place, severity, used, at in rows.order_by("reading__taken_at", "id").values_list(*columns):
        newest[known[key], place] = Stood(severity, used, at)
    found: dict[str, list[Stood]] = defaultdict(list)
    for (key, _), stood in newest.items():
        found[key].append(stood)
    return found
