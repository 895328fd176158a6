"""Events of an iCalendar file (RFC 5545), as they stand there."""

import datetime as dt

from icalendar import Calendar

from ..errors import BadInput

MOST_EVENTS = 200
LONGEST = 500_000
Moments = tuple[str, str]


def events_of(text: str) -> list[list[str]]:
    """Beginning and end of every event, as ISO text: with a zone where the file states one, days as their midnights. An event
    that repeats is taken once. Raises BadInput with field ``file``.
    """
    if len(text) > LONGEST:
        raise BadInput("file", "is larger than 500 kB")
    try:
        calendar = Calendar.from_ical(text)
        events = list(calendar.walk("VEVENT"))
        if len(events) > MOST_EVENTS:
            raise BadInput("file", f"has {len(events)} events, and {MOST_EVENTS} are taken at once")
        found = [_moments(one.get("dtstart"), one.get("dtend"), one.get("duration")) for one in events]
    except (ValueError, KeyError, AttributeError, IndexError, TypeError, OverflowError):
        raise BadInput("file", "is no calendar file") from None
    if not found:
        raise BadInput("file", "has no events")
    return [list(one) for one in found]


def _moments(start: object, end: object, duration: object) -> Moments:
    begins = _moment(start)
    if end is not None:
        return begins.isoformat(), _moment(end).isoformat()
    if duration is not None:
        return begins.isoformat(), (begins + duration.dt).isoformat()  # type: ignore[attr-defined]
    whole_day = not isinstance(start.dt, dt.datetime)  # type: ignore[attr-defined]
    return begins.isoformat(), (begins + dt.timedelta(days=1 if whole_day else 0)).isoformat()


def _moment(stated: object) -> dt.datetime:
    found = stated.dt  # type: ignore[attr-defined]
    return found if isinstance(found, dt.datetime) else dt.datetime.combine(found, dt.time())
