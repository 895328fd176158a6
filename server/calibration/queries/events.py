"""What happened to a machine that makes calibrations due, as walk-arounds, fitments and people tell it."""

import datetime as dt
from collections.abc import Iterator, Sequence

from django.utils import timezone

from fleet.models import Fitment, Machine
from inspection.models import WalkAround
from inspection.queries import rule_books, set_up
from inspection.queries.stands_now import couplings, walks_of
from lumvek_core.calculators.calibrations_due import Happened as Event
from lumvek_core.catalogue import calibration
from lumvek_core.coupled import short
from lumvek_core.vocabulary import CROP_NAMES
from shops.days import said

from ..models import Happened

SEASON = dt.timedelta(days=60)
"""So long before its date a machine's season begins, for what is done once in it."""


def read(machine: Machine, header: Machine | None) -> list[Event]:
    """Everything that happened, oldest first. header: the one that is on it now. A constant number of queries."""
    machines = [machine, *([header] if header else [])]
    walks = walks_of(machine)
    found = [*_headers(machine, walks), *_crops(walks), *_season(machine), *_set(machines), *_fitted(machines), *_said(machine)]
    return sorted(found, key=lambda one: one.at)


def local(moment: dt.datetime) -> str:
    """A moment on the shop's clock."""
    return timezone.localtime(moment).replace(tzinfo=None).isoformat()


def _headers(machine: Machine, walks: list[WalkAround]) -> Iterator[Event]:
    before: int | None = None
    for at, header in couplings(machine, walks):
        if header and header.pk != before:
            yield Event("header", local(at), f"{header.name} coupled")
        before = header.pk if header else None


def _crops(walks: list[WalkAround]) -> Iterator[Event]:
    before = ""
    for walk in walks:
        if walk.crop and walk.crop != before:
            yield Event("crop", local(walk.started_at), f"set for {CROP_NAMES[walk.crop]}")
        before = walk.crop or before


def _season(machine: Machine) -> Iterator[Event]:
    if machine.season_date and machine.season_date - SEASON <= timezone.localdate():
        begins = machine.season_date - SEASON
        yield Event("season", begins.isoformat(), f"the season from {said(machine.season_date)}")


def _set(machines: Sequence[Machine]) -> Iterator[Event]:
    """Where a place was read otherwise than the time before."""
    families = rule_books.shipped().families
    checks = [
        check for one in machines if one.model.family in families for check in families[one.model.family].checks.values()
        if check.rule.sets_up
    ]  # fmt: skip
    names = {check.key: check.name for check in checks}
    before: dict[tuple[str, str], str] = {}
    for one in set_up.read(machines, checks):
        place, state = (one.check, one.position), one.value.choice or one.value.text
        if place in before and before[place] != state:
            yield Event(calibration.SET + short(one.check), local(one.at), f"{names[one.check]}: set otherwise")
        before[place] = state


def _fitted(machines: Sequence[Machine]) -> Iterator[Event]:
    families = rule_books.shipped().families
    names = {
        short(slot): known.name
        for one in machines
        if one.model.family in families
        for slot, known in families[one.model.family].slots.items()
    }
    for one in Fitment.objects.filter(machine__in=machines, taken_back_at=None).exclude(number=""):
        yield Event(calibration.FITTED + one.slot, local(one.fitted_at), f"{names.get(one.slot, one.slot)} renewed")


def _said(machine: Machine) -> Iterator[Event]:
    happened = rule_books.shipped().calibrations.happened
    for one in Happened.objects.filter(machine=machine, taken_back_at=None):
        yield Event(calibration.TOLD + one.what, local(one.at), happened.get(one.what, one.what))
