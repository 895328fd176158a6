"""A made-up telematics service: what a machine's own modem last sent of its counters. It knows nothing of files or lines."""

import datetime as dt
from dataclasses import dataclass
from typing import Any

from ..errors import BadInput


@dataclass(frozen=True)
class Sent:
    """The newest message of a machine: its counter, and so many hours ago."""

    counter: float
    unit: str
    hours_ago: float = 6.0


def newest(book: dict[str, Sent], serial: str, now: dt.datetime) -> dict[str, Any]:
    """The newest message of a machine by its serial number. Raises BadInput for one that has no modem."""
    if serial not in book:
        raise BadInput("serial", "sends nothing")
    sent = book[serial]
    return {
        "serial": serial,
        "counter": sent.counter,
        "unit": sent.unit,
        "at": (now - dt.timedelta(hours=sent.hours_ago)).isoformat(timespec="seconds"),
    }
