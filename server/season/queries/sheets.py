"""A plan as it is taken along: the days of each person, the rows of a table, the events of a calendar."""

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from zoneinfo import ZoneInfo

from django.utils import timezone
from icalendar import Calendar, Event

from lumvek_core.counted import counted
from shops.models import Shop

from ..schemas import AwaitedOut, ReadinessOut, SeasonJobOut, SeasonPlanOut, StretchOut

MOST_DAYS = 14


@dataclass
class Item:
    """One stretch of a job on one day. again: it was begun on an earlier one."""

    job: SeasonJobOut
    start: str
    end: str
    again: bool

    @property
    def others(self) -> int:
        return self.job.hands - 1


@dataclass
class Sheet:
    """What one person does on one day, with everything that is taken along. stops: machines of the day that nobody may run, and
    why."""

    person: str
    day: dt.date
    stops: list[str] = field(default_factory=list)
    items: list[Item] = field(default_factory=list)

    @property
    def tools(self) -> list[str]:
        return sorted({tool for item in self.items for tool in item.job.tools}, key=str.lower)

    @property
    def picks(self) -> list[AwaitedOut]:
        """Parts to take along, each once."""
        return list({part.id: part for item in self.items for part in item.job.parts}.values())


def sheets(plan: SeasonPlanOut, first: dt.date, days: int, person: str = "", ready: Iterable[ReadinessOut] = ()) -> list[Sheet]:
    """The sheets of some days from `first` on, of one person or of everybody who has work then."""
    stops = {one.machine: f"{one.name}: {', '.join(one.stops)}" for one in ready if one.stops}
    wanted = [first + dt.timedelta(days=i) for i in range(min(days, MOST_DAYS))]
    found = []
    for day in wanted:
        for one in plan.people:
            if person and one.name != person:
                continue
            items = [item for job in plan.jobs if one.name in job.technicians and not job.done for item in _on(job, day)]
            if items:
                mine = dict.fromkeys(stops[item.job.machine_id] for item in items if item.job.machine_id in stops)
                found.append(Sheet(one.name, day, list(mine), sorted(items, key=lambda item: item.start)))
    return found


def _on(job: SeasonJobOut, day: dt.date) -> Iterable[Item]:
    for i, stretch in enumerate(job.stretches):
        if stretch.start[:10] == day.isoformat():
            yield Item(job, stretch.start[11:16], stretch.end[11:16], i > 0)


def first_day(plan: SeasonPlanOut) -> dt.date:
    """The first day on which anything is left to do."""
    starts = [stretch.start for job in plan.jobs if not job.done for stretch in job.stretches]
    return dt.date.fromisoformat(min(starts, default=plan.now)[:10])


TITLES = ["machine", "job", "start", "end", "people", "place", "posture", "minutes", "waits for", "state"]


def rows(plan: SeasonPlanOut) -> list[list[str]]:
    """Every job as a line of a table; those without a place in the plan at the end."""
    placed = sorted((job for job in plan.jobs if job.stretches), key=lambda job: job.stretches[0].start)
    return [TITLES, *(_row(job) for job in placed), *(_row(job) for job in plan.jobs if not job.stretches)]


def _row(job: SeasonJobOut) -> list[str]:
    state = "done" if job.done else "under way" if job.begun_by else job.without or job.pin_trouble
    state = state or ("set by hand" if job.pinned else "")
    start, end = (job.stretches[0].start, job.stretches[-1].end) if job.stretches else ("", "")
    waits = "; ".join(part.words for part in job.parts)
    people, place = " and ".join(job.technicians), job.place or "bench"
    return [job.machine, job.name, start, end, people, place, job.posture, f"{job.minutes:.0f}", waits, state]


def calendar(plan: SeasonPlanOut | None, shop: Shop, person: str, ready: Mapping[int, str]) -> bytes:
    """Somebody's work as iCalendar (RFC 5545), in the shop's time zone. The same job keeps its identity from plan to plan.
    ready: how each machine stands, in words."""
    found = Calendar()
    found.add("prodid", "-//Lumvek//Work plan//EN")
    found.add("version", "2.0")
    found.add("x-wr-calname", f"{shop.name}: {person}")
    found.add("refresh-interval;value=duration", "PT1H")
    for job in plan.jobs if plan else []:
        if person in job.technicians and not job.done:
            for i, stretch in enumerate(job.stretches):
                found.add_component(_event(job, i, stretch, plan.at if plan else timezone.now(), ready))
    content: bytes = found.to_ical()
    return content


def _event(job: SeasonJobOut, i: int, stretch: StretchOut, made: dt.datetime, ready: Mapping[int, str]) -> Event:
    event = Event()
    event.add("uid", f"{job.key}:{i}@lumvek")
    event.add("dtstamp", made)
    event.add("dtstart", _utc(stretch.start))
    event.add("dtend", _utc(stretch.end))
    event.add("summary", f"{job.machine}: {job.name}")
    event.add("location", job.place or "Bench")
    told = [
        f"This job is {job.pin_trouble}." if job.pin_trouble else "",
        f"{job.machine}: {ready[job.machine_id]}" if job.machine_id in ready else "",
        f"Posture: {job.posture}" if job.posture else "",
        f"With {counted(job.hands - 1, 'other person', 'other people')}" if job.hands > 1 else "",
        f"Tools: {', '.join(job.tools)}" if job.tools else "",
        f"Parts: {', '.join(part.words for part in job.parts)}" if job.parts else "",
        *job.cautions,
    ]
    event.add("description", "\n".join(filter(None, told)))
    return event


def _utc(local: str) -> dt.datetime:
    zone = timezone.get_current_timezone()
    return dt.datetime.fromisoformat(local).replace(tzinfo=zone).astimezone(ZoneInfo("UTC"))
