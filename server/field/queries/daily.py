"""The daily card of a machine: what is looked at and greased each day, what was ticked, and how regularly."""

import datetime as dt
from collections import defaultdict
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from django.utils import timezone

from fleet.models import Machine
from fleet.queries.machines import machines_for
from inspection.queries import rule_books, serializers
from inspection.queries.stands_now import coupled_now, crops_now
from lumvek_core.catalogue.model import Check, Station
from lumvek_core.catalogue.rounds import in_round
from lumvek_core.coupled import short
from shops.models import Member, Shop
from shops.rights import may

from ..models import DailyTick
from ..schemas import DailyCardOut, DailyDayOut, DailyFleetOut, DailyItemOut
from . import first_field

DAYS = 14


@dataclass(frozen=True)
class DailyCheck:
    """machine: that it belongs to, the combine or its header."""

    machine: Machine
    station: Station
    check: Check


def checks_of(shop: Shop, machine: Machine, header: Machine | None, crop: str) -> list[DailyCheck]:
    """What is looked at each day on a machine and on the header that is on it, in working order, the shop's own checks among
    it, but for what is only written. crop: the group it stands for; empty where nobody knows, then every crop's."""
    found = []
    for one in [machine, *([header] if header else [])]:
        if one.model.family not in rule_books.shipped().families:
            continue
        family, options = rule_books.family_of(shop, one.model.family, one.model), set(one.options)
        for station in family.stations:
            for check in station.checks:
                wanted = {short(option) for option in check.wanted_options}
                without = {short(option) for option in check.unless}
                made = wanted <= options and not without & options and (not crop or not check.crops or crop in check.crops)
                if made and in_round(check, "daily") and check.kind != "note":
                    found.append(DailyCheck(one, station, check))
    return found


def card(member: Member, machine: Machine, day: dt.date | None = None) -> DailyCardOut:
    """The card of one day."""
    day = day or timezone.localdate()
    header = coupled_now(machine)
    listed = checks_of(member.shop, machine, header, crops_now([machine]).get(machine.pk, ""))
    ticks = _newest(DailyTick.objects.filter(machine=machine, day__gt=day - dt.timedelta(days=DAYS + 60), day__lte=day))
    today = ticks.get(day, {})
    keys = [one.check.key for one in listed]
    return DailyCardOut(
        machine=serializers.machine_out(machine),
        header=header.name if header else "",
        day=day,
        items=[
            DailyItemOut(
                key=one.check.key,
                name=one.check.name,
                how=one.check.how,
                station=one.station.name,
                state="" if one.check.key not in today else "right" if today[one.check.key].right else "not",
                words=today[one.check.key].words if one.check.key in today else "",
                by=serializers.full_name(today[one.check.key].by) if one.check.key in today else "",
            )
            for one in listed
        ],
        days=_days(ticks, keys, day),
        since=works_since(machine, ticks, day),
        streak=streak(ticks, keys, day),
        first_field=first_field.now(machine),
        may_tick=may(member, "tick daily cards"),
    )


def fleet(member: Member) -> list[DailyFleetOut]:
    """Every machine that has a card, the least regular first; a header is on the card of its combine."""
    today, families = timezone.localdate(), rule_books.shipped().families
    listed = [one for one in machines_for(member) if not families[one.model.family].is_header]
    crops = crops_now(listed)
    keys_of = {
        one.pk: [each.check.key for each in checks_of(member.shop, one, None, crops.get(one.pk, ""))] for one in listed
    }  # fmt: skip
    machines = [one for one in listed if keys_of[one.pk]]
    again = first_field.of(machines)
    by_machine: dict[int, list[DailyTick]] = defaultdict(list)
    rows = DailyTick.objects.filter(machine__in=machines, day__gt=today - dt.timedelta(days=DAYS + 60))
    for tick in rows.select_related("by"):
        by_machine[tick.machine_id].append(tick)
    found = []
    for machine in machines:
        ticks = _newest(by_machine[machine.pk])
        keys = keys_of[machine.pk]
        found.append(
            DailyFleetOut(
                machine=serializers.machine_out(machine),
                of=len(keys),
                days=_days(ticks, keys, today),
                since=works_since(machine, ticks, today),
                streak=streak(ticks, keys, today),
                first_field=first_field.out(again[machine.pk]),
            )
        )
    return sorted(found, key=lambda one: (one.streak, one.machine.name))


Ticks = Mapping[dt.date, Mapping[str, DailyTick]]


def _newest(rows: Iterable[DailyTick]) -> Ticks:
    """The newest tick of each thing on each day."""
    found: dict[dt.date, dict[str, DailyTick]] = defaultdict(dict)
    for tick in sorted(rows, key=lambda one: one.pk):
        found[tick.day][tick.key] = tick
    return found


def _days(ticks: Ticks, keys: list[str], last: dt.date) -> list[DailyDayOut]:
    days = [last - dt.timedelta(days=back) for back in range(DAYS - 1, -1, -1)]
    return [
        DailyDayOut(
            day=day,
            done=sum(key in ticks.get(day, {}) for key in keys),
            wrong=sum(not tick.right for tick in ticks.get(day, {}).values()),
        )
        for day in days
    ]


WORKS_FOR = dt.timedelta(days=60)
"""So long a season lasts where nobody ticks anything."""


def works_since(machine: Machine, ticks: Ticks, day: dt.date) -> dt.date | None:
    """The day from which its card is wanted: that of its season, or the first that somebody ticked; None while it does not
    work, for nobody has missed anything then."""
    first = min((one for one in ticks if one <= day), default=None)
    season = machine.season_date
    begun = season if season and season <= day <= season + WORKS_FOR else None
    return min((one for one in (first, begun) if one), default=None)


def streak(ticks: Ticks, keys: list[str], last: dt.date) -> int:
    """Days in a row on which all of it was looked at, up to today, or to yesterday where today is not done yet."""

    def whole(day: dt.date) -> bool:
        return bool(keys) and all(key in ticks.get(day, {}) for key in keys)

    day = last if whole(last) else last - dt.timedelta(days=1)
    found = 0
    while whole(day):
        found, day = found + 1, day - dt.timedelta(days=1)
    return found
