"""What happened to a machine that makes calibrations due, as walk-arounds, fitments and people tell it."""

import datetime as dt
from collections.abc import Collection, Iterable, Iterator, Mapping

from django.utils import timezone

from fleet.models import Fitment, Machine
from inspection.models import WalkAround
from inspection.queries import rule_books, set_up
from inspection.queries.set_up import Stands
from inspection.queries.stands_now import Coupled, couplings, walks_of
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
    return of_each({machine: header})[machine.pk]


def of_each(coupled: Mapping[Machine, Machine | None]) -> dict[int, list[Event]]:
    """What happened to each machine, with the header that is on it now. The number of queries is the same however many."""
    walks, whole = walks_of(coupled), {*coupled, *filter(None, coupled.values())}
    headers = couplings(coupled, walks)
    set_, fitted, told = _set(whole), _fitted(whole), _said(coupled)
    found = {}
    for machine, header in coupled.items():
        pks = [one.pk for one in (machine, header) if one]
        events = [*_headers(headers[machine.pk]), *_crops(walks[machine.pk]), *_season(machine)]
        events += [event for events_of in (set_, fitted) for pk in pks for event in events_of[pk]] + told[machine.pk]
        found[machine.pk] = sorted(events, key=lambda one: one.at)
    return found


def local(moment: dt.datetime) -> str:
    """A moment on the shop's clock."""
    return timezone.localtime(moment).replace(tzinfo=None).isoformat()


def _headers(couplings: list[Coupled]) -> Iterator[Event]:
    before: int | None = None
    for at, header in couplings:
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


def _set(machines: Collection[Machine]) -> dict[int, list[Event]]:
    """Where a place was read otherwise than the time before, of each machine."""
    families = rule_books.shipped().families
    checks = [
        check for family in {one.model.family for one in machines} if family in families
        for check in families[family].checks.values() if check.rule.sets_up
    ]  # fmt: skip
    names = {check.key: check.name for check in checks}
    return {pk: list(_otherwise(stands, names)) for pk, stands in set_up.by_machine(machines, checks).items()}


def _otherwise(stands: Iterable[Stands], names: Mapping[str, str]) -> Iterator[Event]:
    before: dict[tuple[str, str], str] = {}
    for one in stands:
        place, state = (one.check, one.position), one.value.choice or one.value.text
        if place in before and before[place] != state:
            yield Event(calibration.SET + short(one.check), local(one.at), f"{names[one.check]}: set otherwise")
        before[place] = state


def _fitted(machines: Collection[Machine]) -> dict[int, list[Event]]:
    families = rule_books.shipped().families
    found: dict[int, list[Event]] = {one.pk: [] for one in machines}
    rows = Fitment.objects.filter(machine__in=found, taken_back_at=None).exclude(number="").select_related("machine__model")
    for one in rows:
        family = families.get(one.machine.model.family)
        slots = {short(slot): known.name for slot, known in family.slots.items()} if family else {}
        event = Event(calibration.FITTED + one.slot, local(one.fitted_at), f"{slots.get(one.slot, one.slot)} renewed")
        found[one.machine_id].append(event)
    return found


def _said(machines: Collection[Machine]) -> dict[int, list[Event]]:
    happened = rule_books.shipped().calibrations.happened
    found: dict[int, list[Event]] = {one.pk: [] for one in machines}
    for one in Happened.objects.filter(machine__in=found, taken_back_at=None):
        found[one.machine_id].append(Event(calibration.TOLD + one.what, local(one.at), happened.get(one.what, one.what)))
    return found
