"""How much one request may bring: said before anything of it is read."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse

from guarding.refusing import refused

LARGEST_BODY = 2 * 1024 * 1024
LARGEST_FILE = 8 * 1024 * 1024
"""Bytes with a file in it; what a picture or a table may have is less, and said where it is dropped."""


def refuse_large(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """413 for what says that it is larger. A body that does not say its length is taken for empty."""

    def middleware(request: HttpRequest) -> HttpResponse:
        length = request.META.get("CONTENT_LENGTH") or "0"
        most = LARGEST_FILE if request.content_type == "multipart/form-data" else LARGEST_BODY
        if not length.isdecimal() or int(length) > most:
            return refused(413, f"What was sent is larger than {most // 1024 // 1024} MB.")
        return get_response(request)

    return middleware
