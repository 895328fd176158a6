"""The one way to a supplier's desk: plain JSON over HTTP, with time-outs, and repeated without ordering twice.

An order carries its own UUID as key. The desk answers the same key with the same answer, so that it may be asked again after a
lost answer, a killed server, or whenever nobody knows whether it arrived. What it says is held against what it can say before
anything is done by it.
"""

import datetime as dt
import json
import uuid
from collections.abc import Sequence
from contextlib import suppress
from decimal import Decimal
from typing import Annotated, Any, Literal, TypeVar
from urllib.parse import quote as escaped

import urllib3
from django.conf import settings
from django.utils import timezone
from pydantic import BaseModel, Field, ValidationError
from urllib3.util import Retry, Timeout

from outside import background, calls, lines
from outside.models import Line

TIMES = Timeout(connect=1.0, read=2.5)
# Every call may be repeated: reading changes nothing, and an order is known by its key.
AGAIN = Retry(total=2, backoff_factor=0.15, allowed_methods=None, status_forcelist=(502, 503, 504), raise_on_status=False)
ONCE = Retry(0)
_pool = urllib3.PoolManager(timeout=TIMES, retries=AGAIN)
LOOK_AGAIN = dt.timedelta(seconds=20)
FARTHEST = dt.timedelta(days=3 * 365)
"""Nobody promises a part for later than this."""
MOST_BYTES = 2_000_000


class DeskAway(Exception):
    """The desk does not answer, or not sensibly. What was asked may or may not have arrived."""


class DeskOdd(DeskAway):
    """The desk answers something that cannot be."""


class DeskSaysNo(Exception):
    """The desk understood and refuses, with its reason."""


Pieces = Annotated[int, Field(ge=0, le=1_000_000)]


class Quoted(BaseModel):
    """What a supplier says of a number."""

    number: Annotated[str, Field(min_length=1, max_length=40)]
    unit_price: Annotated[Decimal, Field(ge=0, lt=10**8, decimal_places=4, allow_inf_nan=False)]
    pack: Annotated[int, Field(ge=1, le=1000)] = 1
    stock: Pieces = 0
    p_stock: Annotated[float, Field(ge=0, le=1)] = 1.0
    restock_days: Annotated[int, Field(ge=0, le=365)] | None = None
    status: Literal["supported", "scarce"] = "supported"


class AnswerLine(BaseModel):
    """What becomes of one number of an order."""

    number: Annotated[str, Field(max_length=40)]
    accepted: Pieces = 0
    follows: Pieces = 0
    promised: dt.date | None = None
    follows_on: dt.date | None = None


class Answer(BaseModel):
    """What the desk made of an order."""

    state: Literal["accepted", "short", "refused"]
    reference: Annotated[str, Field(max_length=40, coerce_numbers_to_str=True)]
    lines: list[AnswerLine]


Said = TypeVar("Said", bound=BaseModel)


def quote(desk: str, numbers: Sequence[str]) -> list[Quoted]:
    """Price, stock and chance for the numbers this supplier has. Raises DeskAway, DeskSaysNo."""
    found = _ask("POST", "/quotes", {"supplier": desk, "numbers": list(numbers)}, ONCE)
    if not isinstance(found.get("offers"), list):
        raise DeskOdd("The desk’s answer cannot be understood: it holds no offers.")
    offers = [_read(Quoted, one) for one in found["offers"]]
    return [one for one in offers if one.number in numbers]


def place(
    desk: str,
    key: uuid.UUID,
    on: dt.date,
    wanted: dt.date,
    way: str,
    lines: Sequence[tuple[str, int]],
    *,
    pressed: bool = False,
) -> Answer:
    """Order pieces under a key, asked on one day and wanted on another, and get what the desk made of it.

    pressed: somebody wants it now, whether or not the line rests. Raises DeskAway, DeskSaysNo.
    """
    asked = [{"number": number, "quantity": quantity} for number, quantity in lines]
    body = {"supplier": desk, "on": on.isoformat(), "wanted": wanted.isoformat(), "way": way, "lines": asked}
    answer = _read(Answer, _ask("PUT", f"/orders/{key}", body, pressed=pressed))
    wants = dict(lines)
    for one in answer.lines:
        if one.accepted + one.follows > wants.get(one.number, 0):
            raise DeskOdd(f"The desk’s answer cannot be: more of {one.number} than was ordered. Call them.")
        for day in (one.promised, one.follows_on):
            if day is not None and not on <= day <= on + FARTHEST:
                raise DeskOdd(f"The desk’s answer cannot be: {one.number} on {day.isoformat()}. Call them.")
    return answer


def drop_rest(key: uuid.UUID, number: str) -> dict[str, Any]:
    """Take back what would follow of one number. Raises DeskAway, DeskSaysNo."""
    return _ask("PUT", f"/orders/{key}/rest/{escaped(number, safe='')}", {}, ONCE, pressed=True)


def behave(mode: str) -> None:
    """Make the simulated desk slow, deaf or silent, to see what the product does then. Raises DeskAway."""
    _call("PUT", "/behave", {"mode": mode}, AGAIN)


def answers() -> bool:
    """Whether there was anybody at the desk when it was asked last. It is asked anew beside, and nobody waits for that."""
    line = Line.objects.filter(name=Line.Name.DESK).first()
    if line is None or line.trouble or line.asked_at is None or timezone.now() - line.asked_at > LOOK_AGAIN:
        background.later(look)
        if not settings.BACKGROUND:
            line = Line.objects.filter(name=Line.Name.DESK).first()
    return line is None or not line.trouble


def look() -> None:
    """Ask the desk whether anybody is there; its line says what came of it."""
    with suppress(DeskAway, DeskSaysNo):
        _ask("GET", "/health", None, ONCE, pressed=True)


def _read(kind: type[Said], found: Any) -> Said:
    try:
        return kind.model_validate(found)
    except ValidationError as problem:
        first = problem.errors()[0]
        where = ".".join(map(str, first["loc"])) or "all of it"
        raise DeskOdd(f"The desk’s answer cannot be understood: {where}. Call them.") from problem


def _ask(method: str, path: str, body: dict[str, Any] | None, again: Retry = AGAIN, *, pressed: bool = False) -> dict[str, Any]:
    try:
        return lines.reach(Line.Name.DESK, lambda: _call(method, path, body, again), _Silent, pressed=pressed)
    except lines.Resting as problem:
        raise DeskAway(str(problem)) from problem


class _Silent(DeskAway):
    """Nobody answers: this is what a line rests for."""


def _call(method: str, path: str, body: dict[str, Any] | None, again: Retry) -> dict[str, Any]:
    if not settings.DESK_URL:
        raise DeskAway("No supplier desk is connected.")
    try:
        status, content = calls.call(_pool, method, settings.DESK_URL + path, MOST_BYTES, json=body, retries=again)
    except calls.Silent as problem:
        raise _Silent("The supplier desk does not answer.") from problem
    try:
        found = json.loads(content)
    except ValueError:
        found = None
    if not isinstance(found, dict):
        raise DeskOdd("The desk’s answer cannot be understood.")
    if status >= 400:
        raise DeskSaysNo(str(found.get("error", "The desk refuses this."))[:200])
    return found
