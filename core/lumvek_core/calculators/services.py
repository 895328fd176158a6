"""Services by counter and calendar: what is due, what comes next."""

import datetime as dt
import math
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import AtMost
from ..compare import exceeds, reached
from ..errors import BadInput
from ..registry import calculator
from .common import Count, NotNegative, Positive, day, different_names

State = Literal["overdue", "due", "soon", "later", "unknown"]
ORDER: tuple[State, ...] = ("overdue", "due", "soon", "later", "unknown")


@dataclass(frozen=True)
class Service:
    """Every so many hours, so many days, or whichever comes first. Dates as ``2026-03-05``."""

    name: str
    every_h: Positive | None = None
    every_days: Positive | None = None
    last_h: NotNegative | None = None
    last_date: str | None = None


@dataclass(frozen=True)
class ServicesGiven:
    counter_now: NotNegative
    date_now: str
    services: Annotated[list[Service], AtMost(200)]
    counter_per_day: NotNegative | None = None
    soon_days: Count = 14


@dataclass(frozen=True)
class ServiceDue:
    name: str
    state: State
    due_h: float | None
    due_date: str | None
    left_h: float | None
    left_days: int | None
    by: Literal["counter", "date"] | None


@dataclass(frozen=True)
class ServicesDue:
    services: list[ServiceDue]


@calculator
def services_due(given: ServicesGiven) -> ServicesDue:
    """What is overdue, due, soon or later, by counter hours and by calendar, most pressing first.

    due_h = last_h + every_h; due_date the earlier of last_date + every_days and, with counter_per_day above 0, today + ⌈left
    hours / hours a day⌉. Overdue below 0 left, due at exactly 0, soon within `soon_days`. An interval without its "last" leaves
    the service unknown unless the other interval is already due. A service by hours alone, without hours a day, has no date and
    is later until its hours are up. by: which of the two comes first, the date where they fall on one day or cannot be
    compared. A service needs an interval; a "last" after today or above the counter is refused. Part days round up.
    """
    today = day(given.date_now, "date_now")
    different_names([service.name for service in given.services], "services")
    found = [_due(given, today, i, service) for i, service in enumerate(given.services)]
    return ServicesDue(
        sorted(
            found,
            key=lambda one: (
                ORDER.index(one.state),
                one.due_date or "9999-99-99",
                math.inf if one.left_h is None else one.left_h,
                one.name,
            ),
        )
    )


def _later(day: dt.date, days: float) -> dt.date | None:
    """`days` after a day, part days rounded up; None beyond the calendar."""
    try:
        return day + dt.timedelta(days=math.ceil(days - 1e-9))  # 25.000000000000004 days are 25
    except OverflowError:
        return None


def _due(given: ServicesGiven, today: dt.date, index: int, service: Service) -> ServiceDue:
    at = f"services.{index}"
    if service.every_h is None and service.every_days is None:
        raise BadInput(f"{at}.every_h", "needs an interval in hours or in days")
    if service.last_h is not None and exceeds(service.last_h, given.counter_now):
        raise BadInput(f"{at}.last_h", "cannot be above the counter")
    last_date = None if service.last_date is None else day(service.last_date, f"{at}.last_date")
    if last_date and last_date > today:
        raise BadInput(f"{at}.last_date", "cannot be after today")
    due_h = left_h = by_counter = by_calendar = None
    if service.every_h is not None and service.last_h is not None:
        due_h = service.last_h + service.every_h
        left_h = due_h - given.counter_now
        if reached(due_h, given.counter_now) and reached(given.counter_now, due_h):
            left_h = 0.0
        if given.counter_per_day:
            by_counter = _later(today, left_h / given.counter_per_day)
    if service.every_days is not None and last_date:
        by_calendar = _later(last_date, service.every_days)
    due_date = min((day for day in (by_counter, by_calendar) if day), default=None)
    known = (service.every_h is None or service.last_h is not None) and (service.every_days is None or last_date is not None)
    left_days = None if due_date is None else (due_date - today).days
    left_calendar = None if by_calendar is None else (by_calendar - today).days
    state = _state(left_h, left_calendar, left_days, known, given.soon_days)
    by = None if state == "unknown" else _first(left_h, by_counter, by_calendar, today)
    return ServiceDue(service.name, state, due_h, None if due_date is None else due_date.isoformat(), left_h, left_days, by)


def _state(left_h: float | None, left_calendar: int | None, left_days: int | None, known: bool, soon_days: int) -> State:
    left = [one for one in (left_h, left_calendar) if one is not None]
    if any(one < 0 for one in left):
        return "overdue"
    if any(one == 0 for one in left):
        return "due"
    if not known:
        return "unknown"
    return "soon" if left_days is not None and left_days <= soon_days else "later"


def _first(
    left_h: float | None, by_counter: dt.date | None, by_calendar: dt.date | None, today: dt.date
) -> Literal["counter", "date"]:
    if by_calendar is None:
        return "counter"
    if left_h is None:
        return "date"
    if by_counter is None:  # no hours a day: only what is up already can be told
        return "counter" if left_h <= 0 and by_calendar > today else "date"
    return "counter" if by_counter < by_calendar else "date"
