"""Pages for printing: one frame with the product's fonts and style, as HTML or as PDF."""

from base64 import b64decode
from collections.abc import Callable
from functools import lru_cache, wraps
from pathlib import Path
from typing import Any, TypeVar, cast
from urllib.parse import quote

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.http.response import HttpResponseBase
from django.template.loader import render_to_string

from lumvek_core import apart
from shops.access import NotAllowed, NotFoundHere, code_first, signed_in

from .drawn_pdf import draw

Answer = TypeVar("Answer", bound=HttpResponseBase)
PDF = apart.Limits(seconds=60, megabytes=1000)
"""What drawing one may cost, whatever is in it."""
STYLE = Path(__file__).parent / "report.css"


@lru_cache(maxsize=1)
def _fonts() -> dict[str, str]:
    """The product's font files by weight, as they lie in the built front end."""
    found = {}
    for weight in ("400", "600"):
        file = next((settings.WEB_DIST / "assets").glob(f"source-sans-3-latin-{weight}-normal-*.woff2"), None)
        if file:
            found[weight] = file.name
    return found


def page(template: str, context: dict[str, Any], *, for_pdf: bool = False, nonce: str = "") -> str:
    """A template of this app in the common frame."""
    base = (settings.WEB_DIST / "assets").as_uri() if for_pdf else "/static/assets"
    frame: dict[str, Any] = {
        "style": STYLE.read_text(encoding="utf-8"),
        "fonts": {weight: f"{base}/{name}" for weight, name in _fonts().items()},
        "for_pdf": for_pdf,
        "nonce": nonce,
    }
    return render_to_string(f"report/{template}.html", frame | context)


def pdf(template: str, context: dict[str, Any], name: str) -> HttpResponse:
    """A template as ``name.pdf``, drawn in a process of its own: readings do not wait for it."""
    content = b64decode(apart.call(draw, page(template, context, for_pdf=True), limits=PDF))
    response = HttpResponse(content, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{name}.pdf"'
    return response


def nonce_of(request: HttpRequest) -> str:
    return str(request.csp_nonce)  # type: ignore[attr-defined]


def for_members(view: Callable[..., Answer]) -> Callable[..., Answer]:
    """Give a view the signed-in member after the request; strangers go to the sign-in page, and what is not there is a 404."""

    @wraps(view)
    def opened(request: HttpRequest, **given: Any) -> HttpResponseBase:
        if not request.user.is_authenticated:
            return HttpResponseRedirect(f"/sign-in?next={quote(request.get_full_path())}")
        member = signed_in(request)
        try:
            if member is None:
                raise NotFoundHere
            code_first(member)
            return view(request, member, **given)
        except (NotFoundHere, NotAllowed):
            raise Http404 from None

    return cast(Callable[..., Answer], opened)
