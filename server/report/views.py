"""A walk-around as a printable page, as PDF from the same template, and its readings and parts as CSV."""

import csv
import uuid
from collections.abc import Callable, Sequence
from functools import lru_cache, wraps
from pathlib import Path
from typing import Any
from urllib.parse import quote

from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse, HttpResponseRedirect
from django.template.loader import render_to_string

from inspection import books, queries
from inspection.models import WalkAround
from lumvek_core.catalogue.model import RuleBook as CoreBook
from shops.access import NotFoundHere
from shops.models import Member

from . import build

STYLE = Path(__file__).parent / "report.css"
View = Callable[[HttpRequest, WalkAround, CoreBook, Member], HttpResponse]


def _of_walk_around(view: View) -> Callable[..., HttpResponse]:
    """Give a view the walk-around, if the member's shop has it; send strangers to the sign-in page."""

    @wraps(view)
    def opened(request: HttpRequest, walk_around_id: uuid.UUID) -> HttpResponse:
        if not request.user.is_authenticated:
            return HttpResponseRedirect(f"/sign-in?next={quote(request.path)}")
        member = Member.objects.select_related("shop", "user").filter(user=request.user).first()
        try:
            if member is None:
                raise NotFoundHere
            found = queries.walk_around_for(member, walk_around_id)
        except NotFoundHere:
            raise Http404 from None
        return view(request, found, books.opened(found.rule_book_id), member)

    return opened


@lru_cache(maxsize=1)
def _fonts() -> dict[str, str]:
    """The product's font files by weight, as they lie in the built front end."""
    found = {}
    for weight in ("400", "600"):
        file = next((settings.WEB_DIST / "assets").glob(f"source-sans-3-latin-{weight}-normal-*.woff2"), None)
        if file:
            found[weight] = file.name
    return found


def _html(found: WalkAround, book: CoreBook, member: Member, *, for_pdf: bool, nonce: str = "") -> str:
    base = (settings.WEB_DIST / "assets").as_uri() if for_pdf else "/static/assets"
    context: dict[str, Any] = {
        "report": build.build(found, book, member),
        "style": STYLE.read_text(encoding="utf-8"),
        "fonts": {weight: f"{base}/{name}" for weight, name in _fonts().items()},
        "for_pdf": for_pdf,
        "nonce": nonce,
    }
    return render_to_string("report/report.html", context)


@_of_walk_around
def page(request: HttpRequest, found: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The printable page."""
    return HttpResponse(_html(found, book, member, for_pdf=False, nonce=str(request.csp_nonce)))  # type: ignore[attr-defined]


@_of_walk_around
def pdf(request: HttpRequest, found: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The same page as PDF."""
    from weasyprint import HTML  # loads Pango: only when somebody wants a PDF

    content = HTML(string=_html(found, book, member, for_pdf=True), base_url="about:blank").write_pdf()
    response = HttpResponse(content, content_type="application/pdf")
    response["Content-Disposition"] = f'inline; filename="{_file_name(found, "report", "pdf")}"'
    return response


@_of_walk_around
def readings_csv(request: HttpRequest, found: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """Every reading, also those that were replaced."""
    return _csv(_file_name(found, "readings", "csv"), build.readings_rows(found, book, member))


@_of_walk_around
def parts_csv(request: HttpRequest, found: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The merged parts list."""
    return _csv(_file_name(found, "parts", "csv"), build.parts_rows(found, book))


def _file_name(found: WalkAround, what: str, ending: str) -> str:
    machine = "".join(c if c.isascii() and c.isalnum() else "-" for c in found.machine.name.lower())
    return f"{machine}-{found.started_at:%Y-%m-%d}-{what}.{ending}"


def _csv(name: str, rows: Sequence[Sequence[str]]) -> HttpResponse:
    response = HttpResponse(content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{name}"'
    response.write("\ufeff")  # spreadsheets take UTF-8 for granted only with this mark
    csv.writer(response).writerows([[_harmless(cell) for cell in row] for row in rows])
    return response


def _harmless(cell: str) -> str:
    """A spreadsheet would run a cell that begins like a formula."""
    return f"'{cell}" if cell[:1] in ("=", "+", "-", "@", "\t", "\r") else cell
