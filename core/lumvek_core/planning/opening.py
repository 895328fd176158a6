"""When a supplier can be driven to, and when what is ordered goes out and arrives."""

import datetime as dt
from dataclasses import dataclass

from ..calculators.common import clock, day
from ..errors import BadInput
from .sourcing_model import FETCH, Delivery, SourceSupplier

DAY = dt.timedelta(days=1)
SATURDAY = 5


@dataclass(frozen=True)
class Journey:
    """One trip out and back. call: when the call before it is made."""

    leave: dt.datetime
    back: dt.datetime
    call: dt.datetime | None = None

    @property
    def date(self) -> dt.date:
        return self.leave.date()


@dataclass(frozen=True)
class Hours:
    """A supplier's times, read once. openings: weekday → (from, to) in order."""

    supplier: SourceSupplier
    openings: dict[int, list[tuple[dt.time, dt.time]]]
    closed: frozenset[dt.date]
    cutoffs: dict[str, dt.time | None]

    def is_open(self, date: dt.date) -> bool:
        return date.weekday() in self.openings and date not in self.closed

    def journey(self, date: dt.date, earliest: dt.datetime, *, called: bool = False) -> Journey | None:
        """The first trip of a day that leaves after `earliest`, stands at the counter while it is open and is back that day.

        called: the call is made as soon as they are open, and the trip begins when it has ended. None if there is no such trip.
        """
        if not self.is_open(date):
            return None
        there = dt.timedelta(minutes=self.supplier.travel_min)
        counter = dt.timedelta(minutes=self.supplier.counter_min)
        call = dt.timedelta(minutes=self.supplier.call_min or 0)
        midnight = dt.datetime.combine(date, dt.time())
        for opens, closes in self.openings[date.weekday()]:
            at = dt.datetime.combine(date, opens)
            rings = max(at, earliest) if called else None
            leave = rings + call if rings else max(at - there, earliest, midnight)
            arrive = leave + there
            if arrive + counter <= dt.datetime.combine(date, closes) and arrive + counter + there <= midnight + DAY:
                return Journey(leave, arrive + counter + there, rings)
        return None

    def first_journey(self, earliest: dt.datetime, last: dt.date, *, called: bool = False) -> Journey | None:
        """The first trip there is up to a day. A later one is never better: it costs the same, and what is missing is known
        later."""
        date = earliest.date()
        while date <= last:
            if found := self.journey(date, max(earliest, dt.datetime.combine(date, dt.time())), called=called):
                return found
            date += DAY
        return None

    def goes_out(self, way: Delivery, ordered: dt.datetime, last: dt.date) -> dt.date | None:
        """The day an order leaves the supplier: a day they are open, a working day where the service is, before the cutoff."""
        date = ordered.date()
        cutoff = self.cutoffs[way.name]
        if cutoff is not None and ordered.time() > cutoff:
            date += DAY
        while date <= last:
            works = date.weekday() < SATURDAY or not way.working
            if works and date not in self.closed and (not self.openings or date.weekday() in self.openings):
                return date
            date += DAY
        return None

    def arrival(self, way: Delivery, out: dt.date) -> dt.date:
        """`lead_days` after the day it goes out; a working service counts and arrives Monday to Friday."""
        if not way.working:
            return out + way.lead_days * DAY
        date, left = out, way.lead_days
        while left:
            date += DAY
            left -= date.weekday() < SATURDAY
        return date


def hours(supplier: SourceSupplier, at: str) -> Hours:
    """Read a supplier's times; `at` is its path in the input. Raises BadInput."""
    openings: dict[int, list[tuple[dt.time, dt.time]]] = {}
    for i, one in enumerate(supplier.open):
        opens, closes = clock(one.from_, f"{at}.open.{i}.from"), clock(one.to, f"{at}.open.{i}.to")
        if closes <= opens:
            raise BadInput(f"{at}.open.{i}.to", "must be later than it opens")
        openings.setdefault(one.weekday, []).append((opens, closes))
    cutoffs: dict[str, dt.time | None] = {}
    for i, way in enumerate(supplier.deliveries):
        if way.name == FETCH or way.name in cutoffs:
            raise BadInput(f"{at}.deliveries.{i}.name", f"“{way.name}” means something already")
        cutoffs[way.name] = None if way.cutoff is None else clock(way.cutoff, f"{at}.deliveries.{i}.cutoff")
    closed = frozenset(day(one, f"{at}.closed.{i}") for i, one in enumerate(supplier.closed))
    return Hours(supplier, {weekday: sorted(times) for weekday, times in openings.items()}, closed, cutoffs)
