"""A lane of its own for what costs much: files that are made or read, plans, searches.

At most two at once a member and four a shop, and in one web worker two of its many threads: readings always find one. What
takes the processor is done in a process that gives way (`apart`). Who comes later is answered at once with their place in line,
holds no thread, and asks again by itself. Seats are locks on files: all web workers of a machine share them, and the kernel
gives them back when one dies.
"""

import fcntl
import hashlib
import os
import re
import time
from collections.abc import Callable, Iterable, Iterator
from contextlib import ExitStack, contextmanager
from dataclasses import dataclass
from pathlib import Path
from threading import BoundedSemaphore
from typing import cast

from django.conf import settings
from django.http import HttpRequest, HttpResponse, HttpResponseBase, StreamingHttpResponse

from guarding.pace import COSTLY, too_fast, who_asks
from guarding.refusing import refused
from lumvek_core import apart, registry
from report import paper
from shops.access import signed_in

A_MEMBER, A_SHOP = 2, 4
IN_ONE_WORKER = apart.AT_ONCE
PLACE = "X-Lumvek-Place"
"""Header of an answer that is none yet: asked again after `Retry-After`, it comes to its turn."""
AGAIN_S = 1
FORGOTTEN_S = 12
"""Who has not asked for so long has gone."""
AHEAD = 2
"""As many of a line may try for a seat: one of them may have gone."""
_AT_LENGTH = "|".join(name for name, entry in registry.calculators().items() if entry.at_length)
_MADE = re.compile(r"\.(pdf|xlsx|csv|zip|yaml)$|[-/]file$")
_WORKED_OUT = re.compile(rf"^/api/(supply|season)/plans$|^/api/calc/({_AT_LENGTH})$")
_here = BoundedSemaphore(IN_ONE_WORKER)


def costs(request: HttpRequest) -> bool:
    """Files made or read, and what is worked out at length; to look at what was worked out costs little."""
    return bool(_MADE.search(request.path) or (request.method == "POST" and _WORKED_OUT.search(request.path)))


@dataclass(frozen=True)
class Asking:
    """Who asks: `one` the member, or the address of somebody unknown, `house` the shop. ticket: the same when asked again."""

    one: str
    house: str
    ticket: str

    @classmethod
    def of(cls, request: HttpRequest) -> "Asking":
        member = signed_in(request) if request.user.is_authenticated else None
        one = who_asks(request)
        house = f"shop-{member.shop_id}" if member else one
        what = f"{one} {request.method} {request.get_full_path()}"
        return cls(_plain(one), _plain(house), _plain(what))


def in_turn(get_response: Callable[[HttpRequest], HttpResponseBase]) -> Callable[[HttpRequest], HttpResponseBase]:
    """429 with the place in line for what has to wait; its seat is held until the last of the answer is out."""

    def middleware(request: HttpRequest) -> HttpResponseBase:
        if not costs(request):
            return get_response(request)
        asking = Asking.of(request)
        with ExitStack() as seat:
            place = take(asking, seat)
            if place:
                return _wait(request, place)
            response = too_fast(COSTLY, who_asks(request)) or get_response(request)
            if isinstance(response, StreamingHttpResponse):
                held = seat.pop_all()
                response.streaming_content = _until_told(cast(Iterable[bytes], response.streaming_content), held)
                response._resource_closers.append(held.close)  # type: ignore[attr-defined]
            return response

    return middleware


def _until_told(lines: Iterable[bytes], held: ExitStack) -> Iterator[bytes]:
    """Its lines as they come; the seat is free after the last."""
    with held:
        yield from lines


def take(asking: Asking, seat: ExitStack) -> int:
    """A seat, given back when `seat` is closed; or the place in the line that has to be waited in, from 1."""
    with ExitStack() as taken:
        for many, whose in ((A_MEMBER, asking.one), (A_SHOP, asking.house)):
            line = Line(_folder(), f"{whose}-{many}")
            if line.before(asking.ticket) >= AHEAD or not any(_locked(f"{whose}-{many}-{n}", taken) for n in range(many)):
                return line.wait(asking.ticket)
        line = Line(_folder(), "everybody")
        if line.before(asking.ticket) >= AHEAD * IN_ONE_WORKER or not _here.acquire(blocking=False):
            return line.wait(asking.ticket)
        taken.callback(_here.release)
        leave(asking)
        seat.push(taken.pop_all())
    return 0


def leave(asking: Asking) -> None:
    """Out of every line that was waited in."""
    for one in _folder().glob(f"*.{asking.ticket}"):
        one.unlink(missing_ok=True)


@dataclass(frozen=True)
class Line:
    """Who waits for one thing, as empty files called after the moment they came; touched each time they ask again."""

    folder: Path
    name: str

    def before(self, ticket: str) -> int:
        """How many wait that came before; of a newcomer: how many wait."""
        waiting = list(self._waiting())
        return waiting.index(ticket) if ticket in waiting else len(waiting)

    def wait(self, ticket: str) -> int:
        """Go on waiting, or begin to. Returns the place, from 1."""
        mine = next(self.folder.glob(f"{self.name}.*.{ticket}"), None)
        if mine:
            mine.touch()
        else:
            (self.folder / f"{self.name}.{time.time_ns():020}.{ticket}").touch()
        return self.before(ticket) + 1

    def _waiting(self) -> Iterator[str]:
        for one in sorted(self.folder.glob(f"{self.name}.*")):
            try:
                gone = time.time() - one.stat().st_mtime > FORGOTTEN_S
            except FileNotFoundError:
                continue
            if gone:
                one.unlink(missing_ok=True)
            else:
                yield one.name.rpartition(".")[2]


@contextmanager
def _lock(path: Path) -> Iterator[None]:
    """Raises BlockingIOError where somebody has it."""
    held = os.open(path, os.O_RDWR | os.O_CREAT, 0o600)
    try:
        fcntl.flock(held, fcntl.LOCK_EX | fcntl.LOCK_NB)
        yield
    finally:
        os.close(held)


def _locked(name: str, taken: ExitStack) -> bool:
    try:
        taken.enter_context(_lock(_folder() / name))
    except BlockingIOError:
        return False
    return True


def _folder() -> Path:
    """Of this installation: several may share a machine."""
    database = settings.DATABASES["default"]
    folder = Path(settings.LANE) / _plain(f"{database['HOST']} {database['PORT']} {database['NAME']}")
    folder.mkdir(parents=True, exist_ok=True)
    return folder


def _plain(text: str) -> str:
    return hashlib.sha256(text.encode()).hexdigest()[:16]


def _wait(request: HttpRequest, place: int) -> HttpResponse:
    """As JSON to what asks by itself; as a page that asks again to somebody who opened a file."""
    words = f"Others come first: this is number {place} in line. It goes on by itself."
    if "text/html" in request.headers.get("Accept", "") and request.method == "GET":
        response = HttpResponse(paper.page("in_line", {"words": words}, nonce=paper.nonce_of(request)), status=429)
        response["Refresh"] = str(2 * AGAIN_S)
    else:
        response = refused(429, words)
    response["Retry-After"] = str(AGAIN_S)
    response[PLACE] = str(place)
    return response
