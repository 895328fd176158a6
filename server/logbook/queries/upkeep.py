"""Work that comes round, and what is put away for the winter: what is due, what was done, by whom."""

import datetime as dt
import uuid
from collections.abc import Collection
from dataclasses import dataclass

from django.db.models import Q
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
from lumvek_core.counted import counted, noun
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
    wanted = {one.key: one for one in services_of(machine, member.shop.schools)}
    unit, now = counters.unit_of(machine), counters.now_of(machine)
    last = _last(machine, wanted.values(), now)
    counts = counters.counts_of([machine.pk])[machine.pk]
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
        may_record=may(member, "record services"),
    )


def _last(machine: Machine, services: Collection[Service], now: float | None) -> dict[str, Last]:
    """When each service was last done: said so, read at the machine, or a part that was fitted. Three queries."""
    found = {one.key: Last() for one in services}
    asked = {long(machine, one.check): one for one in services if one.check}
    by_check = {key: asked[now_called] for key, now_called in rule_books.ever(asked).items()}
    by_slot = {one.slot: one for one in services if one.slot}
    for done in ServiceDone.objects.filter(machine=machine, key__in=found, taken_back_at=None):
        found[done.key].newer(done.day, done.counter, "logbook", done.uuid)
    rows = Verdict.objects.filter(check_key__in=by_check, reading__state="seen", walk_around__machine=machine).order_by(
        "reading"
    )
    for check, value, day in rows.values_list("check_key", "reading__value", "reading__taken_at"):
        numbers, text = value.get("numbers"), value.get("text", "")
        if numbers and (now is None or numbers[0] <= now):
            found[by_check[check].key].newer(None, numbers[0], f"read {said(day)}")
        elif text and (done_on := dt.date.fromisoformat(text)) <= timezone.localdate():
            found[by_check[check].key].newer(done_on, None, f"read {said(day)}")
    for fitment in Fitment.objects.filter(machine=machine, slot__in=by_slot, until_at=None):
        found[by_slot[fitment.slot].key].newer(
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
    book = rule_books.now_of(machine, machine.shop)
    options = {long(machine, option) for option in machine.options}
    return [
        check
        for station in book.family.stations
        if short(station.key) == STATION
        for check in station.checks
        if check.key not in book.left_out and "after-season" in check.phases and check.made_with(options)
    ]


def put_away(member: Member, machine: Machine, season: int | None = None) -> PutAwayOut:
    """The list of one season, ticked and dated; without one the season that ended last. Read sound in an inspection is done
    too."""
    ticks = list(PutAwayTick.objects.filter(machine=machine).select_related("by"))
    this = season_of(timezone.localdate())
    wanted = season or this
    done = _read_sound(machine, wanted)
    for tick in ticks:
        if tick.season == wanted:
            done[tick.key] = (tick.by.get_full_name() or tick.by.get_username(), tick.at) if tick.done else None
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
        for check in put_away_items(machine)
        for by in [done.get(check.key)]
    ]
    return PutAwayOut(
        season=wanted,
        seasons=sorted({this, *(tick.season for tick in ticks)}, reverse=True),
        items=items,
        done=sum(one.done for one in items),
        may_record=may(member, "record services"),
    )


def _read_sound(machine: Machine, season: int) -> dict[str, tuple[str, dt.datetime] | None]:
    """What an inspection after that season found put away at every place."""
    keys = rule_books.ever(check.key for check in put_away_items(machine))
    found: dict[str, tuple[str, dt.datetime] | None] = {}
    rows = Verdict.objects.filter(Q(walk_around__machine=machine) | Q(walk_around__headers=machine), check_key__in=keys)
    for row in rows.select_related("reading__by").order_by("reading").distinct():
        if season_of(timezone.localdate(row.reading.taken_at)) == season:
            check = keys[row.check_key]
            sound = row.severity == "sound" and found.get(check, ()) is not None
            by = row.reading.by
            found[check] = (by.get_full_name() or by.get_username(), row.reading.taken_at) if sound else None
    return found


def season_of(day: dt.date) -> int:
    """The year in which the season before a day ended: until April it is the last year's machine that stands in the shed."""
    return day.year if day.month > 4 else day.year - 1
