"""What a browser may keep of what was answered."""

from collections.abc import Callable

from django.http import HttpRequest, HttpResponse


def keep_nothing(get_response: Callable[[HttpRequest], HttpResponse]) -> Callable[[HttpRequest], HttpResponse]:
    """Nothing, unless the answer says otherwise: devices go from hand to hand, and what waits is kept by the product itself."""

    def middleware(request: HttpRequest) -> HttpResponse:
        response = get_response(request)
        response.headers.setdefault("Cache-Control", "no-store")
        return response

    return middleware
