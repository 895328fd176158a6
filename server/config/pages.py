"""Pages outside the API: the front end's one page, the health check, and what a fault looks like."""

import sys
from functools import lru_cache

from django.conf import settings
from django.db import DatabaseError, InterfaceError, OperationalError, connection
from django.http import HttpRequest, HttpResponse, JsonResponse

from guarding.refusing import refused
from shops.access import FORGED, TOKEN

UNREADABLE = "What was sent cannot be read."
NONCE_MARK = "__CSP_NONCE__"


@lru_cache(maxsize=1)
def _index() -> str:
    return (settings.WEB_DIST / "index.html").read_text(encoding="utf-8")


def front_end(request: HttpRequest) -> HttpResponse:
    """The front end; its router shows the view that belongs to the address."""
    if request.method not in ("GET", "HEAD"):
        return HttpResponse(status=405)
    nonce = str(request.csp_nonce)  # type: ignore[attr-defined]
    response = HttpResponse(_index().replace(NONCE_MARK, nonce))
    response["Cache-Control"] = "no-cache"
    return response


def health(request: HttpRequest) -> JsonResponse:
    """200 while the database answers, else 503."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except (DatabaseError, InterfaceError):
        return JsonResponse({"database": "away"}, status=503)
    return JsonResponse({"database": "ready"})


def no_such_address(request: HttpRequest, rest: str) -> JsonResponse:
    """What is no address of the API."""
    return refused(404, "There is nothing of that name.")


def unreadable(request: HttpRequest, exception: Exception) -> JsonResponse:
    """A form that breaks off, or a host that is not ours."""
    return refused(400, UNREADABLE)


def forged(request: HttpRequest, reason: str = "") -> JsonResponse:
    """A write without its token, or from somewhere else."""
    return refused(403, FORGED, TOKEN)


def fault(request: HttpRequest) -> JsonResponse:
    """An error nobody foresaw, or a database that went away before the API was reached: sessions need it too."""
    if isinstance(sys.exc_info()[1], (OperationalError, InterfaceError)):
        message, status = "The database does not answer. What was typed is kept and sent again.", 503
    else:
        message, status = "Something went wrong on the server. It is written down in its log.", 500
    return refused(status, message)
