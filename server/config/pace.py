"""How much one member may ask of the server in a minute; whoever is not known is counted by address.

Counted in each web worker by itself: with two of them somebody may get twice as much through, and nobody less.
"""

import re
import time
from collections.abc import Callable
from dataclasses import dataclass

from django.core.cache import cache
from django.db import InterfaceError, OperationalError
from django.http import HttpRequest, HttpResponse

from lumvek_core import registry

from .pages import refused

MINUTE = 60


@dataclass(frozen=True)
class Pace:
    """most: requests in a minute."""

    name: str
    most: int


ANYTHING = Pace("anything", 1200)
"""A device that sends a day's readings at once keeps within it, or waits and goes on."""
COSTLY = Pace("costly", 30)
_AT_LENGTH = "|".join(name for name, entry in registry.calculators().items() if entry.at_length)
_MADE = re.compile(r"\.(pdf|xlsx|csv|zip|yaml)$|[-/]file$")
_WORKED_OUT = re.compile(rf"^/api/(supply|season)/plans$|^/api/calc/({_AT_LENGTH})$")


def keep_pace(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """429 for whoever asks for more; what costs much is counted once more by itself."""

    def middleware(request: HttpRequest) -> HttpResponse:
        who = _who(request)
        paces = (ANYTHING, COSTLY) if _costs(request) else (ANYTHING,)
        waits = [pace for pace in paces if not _within(pace, who)]
        if waits:
            left = MINUTE - int(time.time()) % MINUTE
            words = "files and plans" if COSTLY in waits else "requests"
            answer = refused(429, f"Too many {words} in one minute: it goes on in {left} s.")
            answer["Retry-After"] = str(left)
            return answer
        return get_response(request)

    return middleware


def _costs(request: HttpRequest) -> bool:
    """Files made or read, and what is worked out at length; to look at what was worked out costs little."""
    return bool(_MADE.search(request.path) or (request.method == "POST" and _WORKED_OUT.search(request.path)))


def _who(request: HttpRequest) -> str:
    try:
        if request.user.is_authenticated:
            return f"member-{request.user.pk}"
    except (OperationalError, InterfaceError):
        pass  # the page itself opens without the database, and says what waits
    return f"at-{request.META.get('REMOTE_ADDR')}"


def _within(pace: Pace, who: str) -> bool:
    key = f"pace-{pace.name}-{who}-{int(time.time()) // MINUTE}"
    cache.add(key, 0, 2 * MINUTE)
    try:
        return cache.incr(key) <= pace.most
    except ValueError:  # pushed out between the two lines
        return True
