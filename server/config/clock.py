"""The server's time with every answer: devices measure by it how far their own clocks are off."""

import time
from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

TIME = "X-Lumvek-Time"
"""Header with the server's time in milliseconds since 1970."""


def tell_time(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response[TIME] = str(time.time_ns() // 1_000_000)
        return response

    return middleware
