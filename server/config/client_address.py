"""Whose request it is, behind a proxy: believed of the proxies that are stated, and of nobody else."""

from collections.abc import Callable

from django.conf import settings
from django.http import HttpRequest, HttpResponse

FORWARDED = ("HTTP_X_FORWARDED_FOR", "HTTP_X_FORWARDED_PROTO", "HTTP_X_FORWARDED_HOST", "HTTP_X_REAL_IP", "HTTP_FORWARDED")


def of_stated_proxies(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """``REMOTE_ADDR`` is the client's own from here on; what anybody else says of addresses is dropped."""

    def middleware(request: HttpRequest) -> HttpResponse:
        said = request.META.get("HTTP_X_FORWARDED_FOR", "")
        if request.META.get("REMOTE_ADDR") in settings.PROXIES:
            # Each proxy adds who came to it at the end: the last one that is no proxy of ours is the client.
            came = [one.strip() for one in said.split(",") if one.strip()]
            client = next((one for one in reversed(came) if one not in settings.PROXIES), "")
            if client:
                request.META["REMOTE_ADDR"] = client
        else:
            for name in FORWARDED:
                request.META.pop(name, None)
        return get_response(request)

    return middleware
