"""The daily card of a machine: what is looked at and greased each day, what was ticked, and how regularly."""

import datetime as dt
from collections import defaultdict
from collections.abc import Iterable, Mapping

from django.utils import timezone

from calibration.queries.events import coupled_now
from fleet.models import Machine
from fleet.queries.machines import machines_for
from inspection.queries import rule_books, serializers
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rounds import in_round
from lumvek_core.coupled import short
from shops.models import Member
from shops.rights import may

from ..models import DailyTick
from ..schemas import DailyCardOut, DailyDayOut, DailyFleetOut, DailyItemOut

DAYS = 14


def checks_of(machine: Machine, header: Machine | None) -> list[tuple[Machine, Check]]:
    """What is looked at each day on a machine and on the header that is on it, in working order, but for what is only
    written."""
    found = []
    for one in [machine, *([header] if header else [])]:
        family = rule_books.shipped().families.get(one.model.family)
        options = set(one.options)
        for check in family.checks.values() if family else ():
            wanted = {short(option) for option in check.wanted_options}
            without = {short(option) for option in check.unless}
            if in_round(check, "daily") and check.kind != "note" and wanted <= options and not without & options:
                found.append((one, check))
    return found


def card(member: Member, machine: Machine, day: dt.date | None = None) -> DailyCardOut:
    """The card of one day."""
    day = day or timezone.localdate()
    header = coupled_now(machine)
    listed = checks_of(machine, header)
    ticks = _newest(DailyTick.objects.filter(machine=machine, day__gt=day - dt.timedelta(days=DAYS + 60), day__lte=day))
    today = ticks.get(day, {})
    keys = [check.key for _, check in listed]
    return DailyCardOut(
        machine=serializers.machine_out(machine),
        header=header.name if header else "",
        day=day,
        items=[
            DailyItemOut(
                key=check.key,
                name=check.name,
                how=check.how,
                station=next(
                    station.name
                    for station in rule_books.shipped().families[owner.model.family].stations
                    if check in station.checks
                ),
                state="" if check.key not in today else "right" if today[check.key].right else "not",
                words=today[check.key].words if check.key in today else "",
                by=serializers.full_name(today[check.key].by) if check.key in today else "",
            )
            for owner, check in listed
        ],
        days=_days(ticks, keys, day),
        streak=streak(ticks, keys, day),
        may_tick=may(member, "tick daily cards"),
    )


def fleet(member: Member) -> list[DailyFleetOut]:
    """Every machine that has a card, the least regular first; a header is on the card of its combine."""
    today, families = timezone.localdate(), rule_books.shipped().families
    machines = [one for one in machines_for(member) if checks_of(one, None) and not families[one.model.family].is_header]
    by_machine: dict[int, list[DailyTick]] = defaultdict(list)
    rows = DailyTick.objects.filter(machine__in=machines, day__gt=today - dt.timedelta(days=DAYS + 60))
    for tick in rows.select_related("by"):
        by_machine[tick.machine_id].append(tick)
    found = []
    for machine in machines:
        ticks = _newest(by_machine[machine.pk])
        keys = [check.key for _, check in checks_of(machine, None)]
        found.append(
            DailyFleetOut(
                machine=serializers.machine_out(machine),
                of=len(keys),
                days=_days(ticks, keys, today),
                streak=streak(ticks, keys, today),
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


def streak(ticks: Ticks, keys: list[str], last: dt.date) -> int:
    """Days in a row on which all of it was looked at, up to today, or to yesterday where today is not done yet."""

    def whole(day: dt.date) -> bool:
        return bool(keys) and all(key in ticks.get(day, {}) for key in keys)

    day = last if whole(last) else last - dt.timedelta(days=1)
    found = 0
    while whole(day):
        found, day = found + 1, day - dt.timedelta(days=1)
    return found
