"""Days and moments as they may be typed or sent: those that somebody can mean."""

import datetime as dt
from typing import Annotated

from pydantic import AfterValidator, AwareDatetime

FIRST, LAST = dt.date(1950, 1, 1), dt.date(2149, 12, 31)


def _meant(when: dt.date) -> dt.date:
    day = when.date() if isinstance(when, dt.datetime) else when
    if not FIRST <= day <= LAST:
        raise ValueError(f"must lie between {FIRST.year} and {LAST.year}")
    return when


Day = Annotated[dt.date, AfterValidator(_meant)]
Moment = Annotated[AwareDatetime, AfterValidator(_meant)]
"""With its time zone: whose clock it was is not guessed."""
LocalMoment = Annotated[dt.datetime, AfterValidator(_meant)]
"""On the shop's own clock, as a field for day and time gives it."""
