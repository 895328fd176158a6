"""Work that comes round, and what is put away for the winter: what is due, what was done, by whom."""

import datetime as dt
import uuid
from collections.abc import Collection, Iterable, Mapping, Sequence
from dataclasses import dataclass

from django.contrib.auth.models import User
from django.db.models import F, Q
from django.utils import timezone

from fleet.models import Fitment, Machine
from fleet.queries import counters
from inspection.models import Verdict
from inspection.queries import rule_books
from inspection.queries.coupled import long
from lumvek_core import counters as core_counters
from lumvek_core import registry
from lumvek_core.catalogue.lists import Service
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.counted import counted, noun
from lumvek_core.counters import Count
from lumvek_core.coupled import short
from lumvek_core.units import plain
from shops.days import said
from shops.models import Member
from shops.rights import may

from ..models import PutAwayTick, ServiceDone
from ..schemas_upkeep import PutAwayItemOut, PutAwayOut, ServiceDueOut, ServicesOut


@dataclass
class Last:
    """When a service was last done, by whatever told so. record: the logbook's, where that told it."""

    day: dt.date | None = None
    counter: float | None = None
    source: str = ""
    record: uuid.UUID | None = None

    def newer(self, day: dt.date | None, counter: float | None, source: str, record: uuid.UUID | None = None) -> None:
        """Take what was done later: by counter where both have one, else by day."""
        if self.source and (
            (counter is not None and self.counter is not None and counter <= self.counter)
            or (counter is None and day is not None and self.day is not None and day <= self.day)
        ):
            return
        self.day, self.counter = day or self.day, counter if counter is not None else self.counter
        self.source, self.record = source, record


def services_of(machine: Machine, schools: dict[str, str]) -> list[Service]:
    """The services a machine wants, by its kind, its options and the shop's schools."""
    catalogue = rule_books.shipped()
    chosen = {subject: school.default for subject, school in catalogue.schools.items()} | schools
    return [
        one
        for one in catalogue.services
        if machine.model.family in one.families
        and (not one.option or one.option in machine.options)
        and (one.school is None or chosen.get(one.school.subject) == one.school.choice)
    ]


def due(member: Member, machine: Machine) -> ServicesOut:
    """What is overdue, due, soon or later, most pressing first, by the core's `services_due`."""
    return due_of(member, [machine])[machine.pk]


def due_of(member: Member, machines: Iterable[Machine]) -> dict[int, ServicesOut]:
    """The same of each machine. The number of queries is the same however many."""
    wanted = {machine: {one.key: one for one in services_of(machine, member.shop.schools)} for machine in machines}
    last, counts = _last(wanted), counters.counts_of([machine.pk for machine in wanted])
    records = may(member, "record services")
    return {
        machine.pk: _services(machine, services, last[machine.pk], counts[machine.pk], records=records)
        for machine, services in wanted.items()
    }


def _services(
    machine: Machine, wanted: Mapping[str, Service], last: Mapping[str, Last], counts: Sequence[Count], *, records: bool
) -> ServicesOut:
    unit, now = counters.unit_of(machine), counters.now_of(machine)
    use = core_counters.usual_season(counts, counts[-1].at) if counts else None
    given = {
        "counter_now": now or 0.0,
        "date_now": timezone.localdate().isoformat(),
        "counter_per_day": use / core_counters.YEAR.days if use else None,
        "services": [
            {
                "name": key,
                "every_h": one.every_h,
                "every_days": one.every_days,
                "last_h": last[key].counter if one.every_h else None,
                "last_date": day.isoformat() if one.every_days and (day := last[key].day) else None,
            }
            for key, one in wanted.items()
        ],
    }
    answer = registry.find("services_due").run(given)
    return ServicesOut(
        unit=unit,
        counter=now,
        services=[_shown(wanted[one["name"]], one, last[one["name"]], unit) for one in answer["services"]],
        may_record=records,
    )


def _last(wanted: Mapping[Machine, Mapping[str, Service]]) -> dict[int, dict[str, Last]]:
    """When each service of each machine was last done: said so, read at the machine, or a part that was fitted. Three
    queries."""
    found = {machine.pk: {key: Last() for key in services} for machine, services in wanted.items()}
    machines = {machine.pk: machine for machine in wanted}
    for done in ServiceDone.objects.filter(machine__in=found, taken_back_at=None):
        if done.key in found[done.machine_id]:
            found[done.machine_id][done.key].newer(done.day, done.counter, "logbook", done.uuid)
    asked = {
        machine.pk: {long(machine, one.check): one.key for one in mine.values() if one.check}
        for machine, mine in wanted.items()
    }
    now_called = rule_books.ever(check for mine in asked.values() for check in mine)
    rows = Verdict.objects.filter(check_key__in=now_called, reading__state="seen", walk_around__machine__in=found)
    for pk, check, value, day in rows.order_by("reading").values_list(
        "walk_around__machine", "check_key", "reading__value", "reading__taken_at"
    ):
        key = asked[pk].get(now_called[check])
        if key is None:
            continue
        numbers, text, now = value.get("numbers"), value.get("text", ""), counters.now_of(machines[pk])
        if numbers and (now is None or numbers[0] <= now):
            found[pk][key].newer(None, numbers[0], f"read {said(day)}")
        elif text and (done_on := dt.date.fromisoformat(text)) <= timezone.localdate():
            found[pk][key].newer(done_on, None, f"read {said(day)}")
    by_slot = {machine.pk: {one.slot: one.key for one in mine.values() if one.slot} for machine, mine in wanted.items()}
    for fitment in Fitment.objects.filter(machine__in=found, until_at=None):
        if key := by_slot[fitment.machine_id].get(fitment.slot):
            found[fitment.machine_id][key].newer(
                timezone.localdate(fitment.fitted_at), fitment.counter, f"fitted {fitment.number}"
            )
    return found


def _shown(service: Service, one: dict[str, object], last: Last, unit: str) -> ServiceDueOut:
    parts = [f"every {plain(service.every_h, 0)} {unit}" if service.every_h else "", _days(service.every_days)]
    done = [said(last.day) if last.day else "", f"{plain(last.counter, 0)} {unit}" if last.counter is not None else ""]
    left_h, left_days = one["left_h"], one["left_days"]
    due_h, due_date = one["due_h"], one["due_date"]
    return ServiceDueOut(
        key=service.key,
        name=service.name,
        how=service.how,
        source=service.source,
        state=one["state"],  # type: ignore[arg-type]
        interval=" or ".join(filter(None, parts)),
        last=(" at ".join(filter(None, done)) + (f", {last.source}" if last.source not in ("", "logbook") else ""))
        or "not on record",
        due=", ".join(
            filter(
                None,
                [
                    f"{plain(float(str(due_h)), 0)} {unit}" if due_h is not None else "",
                    said(dt.date.fromisoformat(str(due_date))) if due_date else "",
                ],
            )
        ),
        left=_left(left_h, left_days, unit),
        record=last.record,
    )


def _days(days: float | None) -> str:
    if not days:
        return ""
    return (
        "yearly"
        if days == 365
        else f"every {counted(days / 365, 'year')}"
        if days % 365 == 0
        else f"every {counted(days, 'day')}"
    )


def _left(left_h: object, left_days: object, unit: str) -> str:
    """``20 h left, about 34 days``; by the one that is known where only one is."""
    if left_h is None:
        return _over(float(str(left_days)), noun(float(str(left_days)), "day")) if left_days is not None else ""
    by_counter = _over(float(str(left_h)), unit)
    return f"{by_counter}, about {counted(left_days, 'day')}" if isinstance(left_days, int) and left_days > 0 else by_counter


def _over(left: float, unit: str) -> str:
    return f"{plain(-left, 0)} {unit} over" if left < 0 else f"{plain(left, 0)} {unit} left"


STATION = "put-away"


def put_away_items(machine: Machine) -> list[Check]:
    """What is looked after before a machine stands for the winter: the checks of that station, by its options."""
    return _items(machine, rule_books.now_of(machine, machine.shop))


def _items(machine: Machine, book: RuleBook) -> list[Check]:
    options = {long(machine, option) for option in machine.options}
    return [
        check
        for station in book.family.stations
        if short(station.key) == STATION
        for check in station.checks
        if check.key not in book.left_out and "after-season" in check.phases and check.made_with(options)
    ]


def put_away_left(member: Member, machines: Iterable[Machine]) -> dict[int, int]:
    """How much of the list of the season that ended last is not done on each machine. The number of queries is the same
    however many, for each model there is."""
    listed, season = list(machines), season_of(timezone.localdate())
    books = rule_books.now_of_each(listed, member.shop)
    items = {machine.pk: [check.key for check in _items(machine, books[machine.pk])] for machine in listed}
    ticks: dict[int, list[PutAwayTick]] = {}
    for tick in PutAwayTick.objects.filter(machine__in=listed, season=season).select_related("by"):
        ticks.setdefault(tick.machine_id, []).append(tick)
    sound = _read_sound(items, season)
    done = {pk: _ticked(sound[pk], ticks.get(pk, [])) for pk in items}
    return {pk: sum(done[pk].get(key) is None for key in keys) for pk, keys in items.items()}


def put_away(member: Member, machine: Machine, season: int | None = None) -> PutAwayOut:
    """The list of one season, ticked and dated; without one the season that ended last. Read sound in an inspection is done
    too."""
    ticks = list(PutAwayTick.objects.filter(machine=machine).select_related("by"))
    this = season_of(timezone.localdate())
    wanted = season or this
    checks = put_away_items(machine)
    sound = _read_sound({machine.pk: [check.key for check in checks]}, wanted)[machine.pk]
    done = _ticked(sound, [tick for tick in ticks if tick.season == wanted])
    items = [
        PutAwayItemOut(
            key=check.key,
            text=check.name,
            how=check.how,
            why=check.why,
            done=by is not None,
            by=by[0] if by else "",
            at=by[1] if by else None,
        )
        for check in checks
        for by in [done.get(check.key)]
    ]
    return PutAwayOut(
        season=wanted,
        seasons=sorted({this, *(tick.season for tick in ticks)}, reverse=True),
        items=items,
        done=sum(one.done for one in items),
        may_record=may(member, "record services"),
    )


Done = dict[str, tuple[str, dt.datetime] | None]
"""Who did what of the list, and when; None: it was said not to be done."""


def _ticked(sound: Done, ticks: Iterable[PutAwayTick]) -> Done:
    """What was read sound, and what was ticked since; ticks: the oldest first."""
    return sound | {tick.key: (_name(tick.by), tick.at) if tick.done else None for tick in ticks}


def _name(user: User) -> str:
    return user.get_full_name() or user.get_username()


def _read_sound(items: Mapping[int, Collection[str]], season: int) -> dict[int, Done]:
    """What an inspection after that season found put away at every place, of each machine's items. One query."""
    keys = rule_books.ever(key for mine in items.values() for key in mine)
    found: dict[int, Done] = {pk: {} for pk in items}
    rows = Verdict.objects.filter(
        Q(walk_around__machine__in=items) | Q(walk_around__headers__in=items), check_key__in=keys
    ).annotate(header=F("walk_around__headers"))
    for row in rows.select_related("reading__by", "walk_around").order_by("reading"):
        if season_of(timezone.localdate(row.reading.taken_at)) != season:
            continue
        check = keys[row.check_key]
        for pk in (row.walk_around.machine_id, row.header):
            if check in items.get(pk, ()):
                sound = row.severity == "sound" and found[pk].get(check, ()) is not None
                found[pk][check] = (_name(row.reading.by), row.reading.taken_at) if sound else None
    return found


def season_of(day: dt.date) -> int:
    """The year in which the season before a day ended: until April it is the last year's machine that stands in the shed."""
    return day.year if day.month > 4 else day.year - 1
