"""How much one member may ask of the server in a minute; whoever is not known is counted by address.

Counted for all web workers together, in the database: requests that cost little by the score, so that most of them cost nothing
more, and what costs much one by one. With several workers somebody may get a score more through in each, and nobody less.
"""

import time
from collections.abc import Callable
from dataclasses import dataclass
from threading import Lock

from django.db import DatabaseError, InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse

from .models import Asked
from .refusing import refused

MINUTE = 60
KEPT_MINUTES = 3


@dataclass(frozen=True)
class Pace:
    """most: requests in a minute. words: what they are called. by: so many are counted here before all workers hear of it."""

    name: str
    most: int
    words: str
    by: int = 1


ANYTHING = Pace("anything", 1200, "requests", by=20)
"""A device that sends a day's readings at once keeps within it, or waits and goes on."""
COSTLY = Pace("costly", 30, "files and plans")


@dataclass
class _Here:
    """In this worker: told to all, and not yet told."""

    known: int = 0
    untold: int = 0


_here: dict[tuple[str, int], _Here] = {}
_lock = Lock()


def keep_pace(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """429 for whoever asks for more."""

    def middleware(request: HttpRequest) -> HttpResponse:
        return too_fast(ANYTHING, who_asks(request)) or get_response(request)

    return middleware


def too_fast(pace: Pace, who: str) -> HttpResponse | None:
    """One more of somebody; the answer to it where that is more than may be."""
    if _within(pace, who):
        return None
    left = MINUTE - int(time.time()) % MINUTE
    answer = refused(429, f"Too many {pace.words} in one minute: it goes on in {left} s.")
    answer["Retry-After"] = str(left)
    return answer


def who_asks(request: HttpRequest) -> str:
    try:
        if request.user.is_authenticated:
            return f"member-{request.user.pk}"
    except (OperationalError, InterfaceError):
        pass  # the page itself opens without the database, and says what waits
    return f"at-{request.META.get('REMOTE_ADDR')}"


def forget() -> None:
    """What was counted in this worker."""
    with _lock:
        _here.clear()


def _within(pace: Pace, who: str) -> bool:
    what, minute = f"{pace.name} {who}", int(time.time()) // MINUTE
    with _lock:
        new = (what, minute) not in _here
        for old in [key for key in _here if key[1] != minute] if new else []:
            del _here[old]
        here = _here.setdefault((what, minute), _Here())
        here.untold += 1
        asked = here.known + here.untold
        tell = here.untold if here.untold >= min(pace.by, pace.most) and asked <= pace.most else 0
        here.untold -= tell
        here.known += tell
    if not tell:
        return asked <= pace.most
    try:
        every = _tell(what, minute, tell)
    except (DatabaseError, InterfaceError):
        return True  # what needs the database says so itself
    with _lock:
        here.known = max(here.known, every)
        return here.known + here.untold <= pace.most


def _tell(what: str, minute: int, many: int) -> int:
    """Add to what all workers know. Returns what they counted together."""
    table = connection.ops.quote_name(Asked._meta.db_table)
    with connection.cursor() as cursor:
        cursor.execute(
            f"INSERT INTO {table} (what, minute, many) VALUES (%s, %s, %s) "  # noqa: S608 - a name of our own
            "ON DUPLICATE KEY UPDATE many = many + VALUES(many) RETURNING many",
            [what, minute, many],
        )
        (every,) = cursor.fetchone()
    if every == many:  # somebody's first of a minute: now and then the old ones go
        Asked.objects.filter(minute__lt=minute - KEPT_MINUTES).delete()
    return int(every)
