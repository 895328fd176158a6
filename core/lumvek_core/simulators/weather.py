"""A simulated weather forecast: when it will be dry, the same for whoever asks on the same day."""

import datetime as dt
import random

KNOWN_DAYS = 14
"""As far as a forecast reaches."""


def dry_spells(from_: dt.date, days: int = KNOWN_DAYS) -> list[dict[str, str]]:
    """Dry spells of the coming days, on the clock of whoever asks: ``{start, end}``. A dry day is like the one before it."""
    found: list[dict[str, str]] = []
    for i in range(min(days, KNOWN_DAYS)):
        day = from_ + dt.timedelta(days=i)
        if _wet(day) + _wet(day - dt.timedelta(days=1)) > 1:
            continue
        if found and found[-1]["end"].startswith((day - dt.timedelta(days=1)).isoformat()):
            found[-1]["end"] = f"{day}T20:00"
        else:
            found.append({"start": f"{day}T08:00", "end": f"{day}T20:00"})
    return found


def _wet(day: dt.date) -> float:
    return random.Random(f"weather {day.toordinal()}").random()  # noqa: S311 - made-up weather, not a secret
