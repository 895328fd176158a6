"""The one way to a supplier's desk: plain JSON over HTTP, with time-outs, and repeated without ordering twice.

An order carries its own UUID as key. The desk answers the same key with the same answer, so that it may be asked again after a
lost answer, a killed server, or whenever nobody knows whether it arrived.
"""

import datetime as dt
import json
import uuid
from collections.abc import Sequence
from typing import Any
from urllib.parse import quote as escaped

import urllib3
from django.conf import settings
from urllib3.util import Retry, Timeout

TIMES = Timeout(connect=1.0, read=2.5)
# Every call may be repeated: reading changes nothing, and an order is known by its key.
AGAIN = Retry(total=2, backoff_factor=0.15, allowed_methods=None, status_forcelist=(502, 503, 504), raise_on_status=False)
_pool = urllib3.PoolManager(timeout=TIMES, retries=AGAIN)


class DeskAway(Exception):
    """The desk does not answer, or not sensibly. What was asked may or may not have arrived."""


class DeskSaysNo(Exception):
    """The desk understood and refuses, with its reason."""


def quote(desk: str, numbers: Sequence[str]) -> list[dict[str, Any]]:
    """Price, stock and chance for the numbers this supplier has. Raises DeskAway, DeskSaysNo."""
    found: list[dict[str, Any]] = _ask("POST", "/quotes", {"supplier": desk, "numbers": list(numbers)})["offers"]
    return found


def place(
    desk: str, key: uuid.UUID, on: dt.date, wanted: dt.date, way: str, lines: Sequence[tuple[str, int]]
) -> dict[str, Any]:
    """Order pieces under a key, asked on one day and wanted on another, and get what the desk made of it.

    Raises DeskAway, DeskSaysNo.
    """
    asked = [{"number": number, "quantity": quantity} for number, quantity in lines]
    body = {"supplier": desk, "on": on.isoformat(), "wanted": wanted.isoformat(), "way": way, "lines": asked}
    return _ask("PUT", f"/orders/{key}", body)


def drop_rest(key: uuid.UUID, number: str) -> dict[str, Any]:
    """Take back what would follow of one number. Raises DeskAway, DeskSaysNo."""
    return _ask("PUT", f"/orders/{key}/rest/{escaped(number, safe='')}", {})


def behave(mode: str) -> None:
    """Make the simulated desk slow, deaf or silent, to see what the product does then. Raises DeskAway."""
    _ask("PUT", "/behave", {"mode": mode})


def answers() -> bool:
    """Whether there is anybody at the desk."""
    try:
        _ask("GET", "/health", None, retries=Retry(0))
    except (DeskAway, DeskSaysNo):
        return False
    return True


def _ask(method: str, path: str, body: dict[str, Any] | None, retries: Retry = AGAIN) -> dict[str, Any]:
    if not settings.DESK_URL:
        raise DeskAway("No supplier desk is connected.")
    try:
        answer = _pool.request(method, settings.DESK_URL + path, json=body, retries=retries)
        found = json.loads(answer.data)
    except (urllib3.exceptions.HTTPError, ValueError) as problem:
        raise DeskAway("The supplier desk does not answer.") from problem
    if answer.status >= 500 or not isinstance(found, dict):
        raise DeskAway("The supplier desk does not answer.")
    if answer.status >= 400:
        raise DeskSaysNo(str(found.get("error", "The desk refuses this.")))
    return found
