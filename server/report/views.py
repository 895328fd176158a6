"""A walk-around as a printable page, as PDF from the same template, and its readings and parts as CSV."""

import base64
import re
import uuid
from collections.abc import Callable
from functools import wraps

from django.http import Http404, HttpRequest, HttpResponse

from fleet.queries.machines import machine_for
from inspection.models import WalkAround
from inspection.queries import (
    check_files,
    machine_table,
    preparing,
    rule_books,
    rules_in_force,
    serializers,
    walk_arounds,
)
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from lumvek_core.errors import BadInput
from lumvek_core.vocabulary import PHASE_NAMES
from shops import days
from shops.models import Member
from shops.rights import only
from tabular import sheets

from . import build, paper, queries
from .labels import Label, code_of
from .paper import for_members

View = Callable[[HttpRequest, WalkAround, CoreBook, Member], HttpResponse]


def _of_walk_around(view: View) -> Callable[..., HttpResponse]:
    """Give a view the walk-around, if the member's shop has it; send strangers to the sign-in page."""

    @wraps(view)
    def opened(request: HttpRequest, member: Member, walk_around_id: uuid.UUID) -> HttpResponse:
        walk_around = walk_arounds.walk_around_for(member, walk_around_id)
        return view(request, walk_around, rule_books.opened(walk_around.rule_book_id), member)

    return for_members(opened)


def _beside(walk_around: WalkAround) -> Callable[[object], str]:
    return lambda photo: f"/api/walk-arounds/{walk_around.pk}/photos/{photo}"


def _inside(walk_around: WalkAround) -> Callable[[object], str]:
    """Pictures written into the page itself, for a PDF is one file."""
    content = {
        str(one.uuid): base64.b64encode(bytes(one.image)).decode() for one in walk_around.photos.filter(taken_back_at=None)
    }
    return lambda photo: f"data:image/jpeg;base64,{content[str(photo)]}"


@_of_walk_around
def page(request: HttpRequest, walk_around: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The printable page."""
    context = {"report": build.build(walk_around, book, member), "photo_source": _beside(walk_around)}
    return HttpResponse(paper.page("report", context, nonce=paper.nonce_of(request)))


@_of_walk_around
def pdf(request: HttpRequest, walk_around: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The same page as PDF."""
    context = {"report": build.build(walk_around, book, member), "photo_source": _inside(walk_around)}
    return paper.pdf("report", context, _file_name(walk_around, "report"))


@_of_walk_around
def owner(request: HttpRequest, walk_around: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The findings in plain words, for whoever pays for them."""
    context = {"report": build.build(walk_around, book, member), "photo_source": _beside(walk_around), "back": True}
    return HttpResponse(paper.page("owner", context, nonce=paper.nonce_of(request)))


def shared(request: HttpRequest, secret: str) -> HttpResponse:
    """One report in plain words to whoever holds its link, until it ends. No account, and nothing else to be seen from it."""
    opened = queries.opened_by(secret)
    if opened is None:
        return _sealed(HttpResponse(paper.page("ended", {}, nonce=paper.nonce_of(request)), status=404))
    found, reader = opened
    days.as_in(reader.shop)
    report = build.build(found, rule_books.opened(found.rule_book_id), reader)

    def photo(uuid: object) -> str:
        return f"/shared/{secret}/photos/{uuid}"

    return _sealed(HttpResponse(paper.page("owner", {"report": report, "photo_source": photo}, nonce=paper.nonce_of(request))))


def shared_photo(request: HttpRequest, secret: str, photo_id: uuid.UUID) -> HttpResponse:
    """A picture of a shared report."""
    opened = queries.opened_by(secret)
    one = opened[0].photos.filter(uuid=photo_id, taken_back_at=None).first() if opened else None
    if one is None:
        raise Http404
    return _sealed(HttpResponse(bytes(one.image), content_type="image/jpeg"))


def _sealed(response: HttpResponse) -> HttpResponse:
    """Kept by nobody on the way, found by no search, and its address told to nobody."""
    response["Cache-Control"] = "private, no-store"
    response["Referrer-Policy"] = "no-referrer"
    response["X-Robots-Tag"] = "noindex, nofollow"
    return response


@for_members
def machines(request: HttpRequest, member: Member, form: str) -> HttpResponse:
    """The machines in use as CSV or XLSX, with their owners, as they can be read in again elsewhere. For who adds machines."""
    only(member, "add machines")
    if form not in ("csv", "xlsx"):
        raise Http404
    return sheets.table("machines", "csv" if form == "csv" else "xlsx", machine_table.written(member))


@for_members
def model_file(request: HttpRequest, member: Member, model_id: int) -> HttpResponse:
    """A model as the file that other shops read in."""
    only(member, "change models")
    model = rules_in_force.model_of(member, model_id)
    return _yaml(model.full_name, check_files.model_file(model))


@for_members
def own_checks(request: HttpRequest, member: Member, family: str) -> HttpResponse:
    """The shop's own checks of a family, as the catalogue writes them."""
    only(member, "change checks")
    if family not in rule_books.shipped().families:
        raise Http404
    return _yaml(f"own-checks-{family}", check_files.own_check_file(member, family))


def _yaml(name: str, text: str) -> HttpResponse:
    plain = "-".join(re.findall(r"[a-z0-9]+", name.lower())) or "model"
    return sheets.download(f"{plain}.yaml", "application/yaml; charset=utf-8", text.encode())


@for_members
def machine_label(request: HttpRequest, member: Member, machine_id: int) -> HttpResponse:
    """A label for a machine: scanned by a telephone it opens the machine's page."""
    machine = machine_for(member, machine_id)
    lines = [machine.model.full_name, f"Serial {machine.serial}" if machine.serial else "", member.shop.name]
    label = Label(machine.name, lines, code_of(request.build_absolute_uri(f"/machines/{machine.pk}")))
    return paper.pdf("labels", {"labels": [label]}, "label")


@for_members
def card(request: HttpRequest, member: Member, machine_id: int) -> HttpResponse:
    """A list to print: what belongs to a time of the season, in the order of postures, with a box to tick.

    Query: phase (``daily`` unless said), headers (ids, repeated).
    """
    headers = [int(pk) for pk in request.GET.getlist("headers") if pk.isdigit()]
    phase = request.GET.get("phase", "daily")
    if phase not in PHASE_NAMES:
        raise Http404
    try:
        ready = preparing.prepare(member, machine_for(member, machine_id), preparing.Wanted(phase, headers=headers))
    except BadInput:
        raise Http404 from None
    checks = ready.book.family.checks
    visits = [
        (visit.posture, ready.book.postures[visit.posture], [checks[key] for key in visit.ids]) for visit in ready.route.visits
    ]
    context = {
        "machine": ready.machine,
        "headers": ready.headers,
        "phase": PHASE_NAMES[phase],
        "visits": visits,
        "shop": member.shop,
        "tools": ready.tools,
        "notice": ready.book.notice,
        "notes": serializers.notes(ready.machine),
    }
    return HttpResponse(paper.page("card", context, nonce=paper.nonce_of(request)))


@_of_walk_around
def readings_csv(request: HttpRequest, walk_around: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """Every reading, also those that were replaced."""
    return sheets.table(_file_name(walk_around, "readings"), "csv", build.readings_rows(walk_around, book, member))


@_of_walk_around
def readings_xlsx(request: HttpRequest, walk_around: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The same as a workbook."""
    return sheets.table(_file_name(walk_around, "readings"), "xlsx", build.readings_rows(walk_around, book, member))


@_of_walk_around
def parts_csv(request: HttpRequest, walk_around: WalkAround, book: CoreBook, member: Member) -> HttpResponse:
    """The merged parts list."""
    return sheets.table(_file_name(walk_around, "parts"), "csv", build.parts_rows(walk_around, book))


def _file_name(walk_around: WalkAround, what: str) -> str:
    machine = "".join(c if c.isascii() and c.isalnum() else "-" for c in walk_around.machine.name.lower())
    return f"{machine}-{walk_around.started_at:%Y-%m-%d}-{what}"
