"""The changeover as a card to take along."""

from typing import Any

from django.http import Http404, HttpRequest, HttpResponse
from pydantic import ValidationError

from fleet.queries.machines import machine_for
from inspection.queries import changeover_page, rule_books
from inspection.schemas_changeover import ChangeoverAsked
from lumvek_core.errors import BadInput
from lumvek_core.vocabulary import CROP_NAMES
from shops.models import Member

from . import paper
from .paper import for_members


@for_members
def card(request: HttpRequest, member: Member, machine_id: int) -> HttpResponse:
    """What is to be set otherwise, with a box to tick at each place. Query: crop, headers (ids, repeated), then_crop,
    then_days."""
    context = _context(request, member, machine_id)
    return HttpResponse(paper.page("changeover", context, nonce=paper.nonce_of(request)))


@for_members
def card_pdf(request: HttpRequest, member: Member, machine_id: int) -> HttpResponse:
    """The same as PDF."""
    context = _context(request, member, machine_id)
    return paper.pdf("changeover", context, f"changeover-{context['machine'].name.lower().replace(' ', '-')}")


def _context(request: HttpRequest, member: Member, machine_id: int) -> dict[str, Any]:
    asked = _asked(request)
    try:
        found = changeover_page.page(member, machine_for(member, machine_id), asked)
    except BadInput:
        raise Http404 from None
    return {
        "machine": found.machine,
        "headers": [one.name for one in found.headers if one.id in asked.headers],
        "crop": CROP_NAMES.get(asked.crop, ""),
        "found": found,
        "shop": member.shop,
        "notice": rule_books.shipped().safety.notice,
        "query": request.GET.urlencode(),
    }


def _asked(request: HttpRequest) -> ChangeoverAsked:
    query = request.GET
    try:
        return ChangeoverAsked.model_validate({
            "crop": query.get("crop", ""),
            "headers": query.getlist("headers"),
            "then_crop": query.get("then_crop", ""),
            "then_days": query.get("then_days") or None,
        })  # fmt: skip
    except ValidationError:
        raise Http404 from None
