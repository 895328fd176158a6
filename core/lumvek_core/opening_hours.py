"""Opening hours as people write them: ``Mon–Fri 07:30–12:00, 12:45–17:00, Sat 08:00–12:00``.

Hours without days belong to the days that were named last.
"""

import datetime as dt
import re
from typing import Any

from .errors import BadInput

DAYS = ("Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun")
_SPAN = re.compile(
    r"(?:([A-Za-z]{3})[a-z]*(?:\s*[-–]\s*([A-Za-z]{3})[a-z]*)?\s+)?(\d{1,2}[:.]\d{2})\s*[-–]\s*(\d{1,2}[:.]\d{2})"
)


def shown(openings: list[dict[str, Any]]) -> str:
    """Days of the same hours together; empty where nobody can come."""
    days: dict[str, list[int]] = {}
    for one in sorted(openings, key=lambda o: (int(o["weekday"]), o["from"])):
        days.setdefault(f"{one['from']}–{one['to']}", []).append(int(one["weekday"]))
    spans = [(run[0], run[-1], time) for time, of_time in days.items() for run in _runs(of_time)]
    said, before = list[str](), None
    for first, last, time in sorted(spans, key=lambda span: (span[0], -span[1], span[2])):
        of_days = f"{DAYS[first]}–{DAYS[last]} " if last > first else f"{DAYS[first]} "
        said.append(time if (first, last) == before else of_days + time)
        before = first, last
    return ", ".join(said)


def _runs(days: list[int]) -> list[list[int]]:
    found: list[list[int]] = []
    for day in days:
        if found and found[-1][-1] == day - 1:
            found[-1].append(day)
        else:
            found.append([day])
    return found


def read(text: str) -> list[dict[str, Any]]:
    """The same, read back. Raises BadInput with field ``hours``."""
    found: list[dict[str, Any]] = []
    first = last = -1
    for part in filter(None, (part.strip() for part in re.split(r"[,;\n]", text))):
        match = _SPAN.fullmatch(part)
        if match is None or (match[1] is None and first < 0):
            raise BadInput("hours", f"“{part}” is not like Mon–Fri 07:30–17:00")
        if match[1]:
            first, last = _day(match[1]), _day(match[2] or match[1])
        if last < first:
            raise BadInput("hours", f"“{part}” runs backwards: write the days from Monday on")
        opens, closes = _time(match[3]), _time(match[4])
        if closes <= opens:
            raise BadInput("hours", f"“{part}” closes before it opens")
        found += [{"weekday": day, "from": opens, "to": closes} for day in range(first, last + 1)]
    return found


def _day(word: str) -> int:
    if word.capitalize() not in DAYS:
        raise BadInput("hours", f"“{word}” is no day; write Mon, Tue, Wed, Thu, Fri, Sat or Sun")
    return DAYS.index(word.capitalize())


def _time(text: str) -> str:
    try:
        return dt.time.fromisoformat(text.replace(".", ":").zfill(5)).isoformat(timespec="minutes")
    except ValueError:
        raise BadInput("hours", f"“{text}” is no time of day") from None


def days(text: str) -> list[str]:
    """Closed days: ``2026-12-24, 2026-12-31``. Raises BadInput with field ``closed``."""
    found = []
    for part in filter(None, (part.strip() for part in re.split(r"[,;\n]", text))):
        try:
            found.append(dt.date.fromisoformat(part).isoformat())
        except ValueError:
            raise BadInput("closed", f"“{part}” is not a day such as 2026-12-24") from None
    return found
