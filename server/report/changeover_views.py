"""The changeover as a card to take along."""

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
def card(request: HttpRequest, member: Member, machine_id: int, form: str = "") -> HttpResponse:
    """What is to be set otherwise, with a box to tick at each place. Query: crop, headers (ids, repeated), then_crop,
    then_days."""
    if form not in ("", "pdf"):
        raise Http404
    machine = machine_for(member, machine_id)
    asked = _asked(request)
    try:
        found = changeover_page.page(member, machine, asked)
    except BadInput:
        raise Http404 from None
    context = {
        "machine": found.machine,
        "headers": [one.name for one in found.headers if one.id in asked.headers],
        "crop": CROP_NAMES[asked.crop],
        "found": found,
        "shop": member.shop,
        "notice": rule_books.shipped().safety.notice,
        "query": request.GET.urlencode(),
    }
    if form == "pdf":
        return paper.pdf("changeover", context, f"changeover-{machine.name.lower().replace(' ', '-')}")
    return HttpResponse(paper.page("changeover", context, nonce=paper.nonce_of(request)))


def _asked(request: HttpRequest) -> ChangeoverAsked:
    query = request.GET
    try:
        asked = ChangeoverAsked.model_validate({
            "crop": query.get("crop", ""),
            "headers": query.getlist("headers"),
            "then_crop": query.get("then_crop", ""),
            "then_days": query.get("then_days") or None,
        })  # fmt: skip
    except ValidationError:
        raise Http404 from None
    if not asked.crop:
        raise Http404
    return asked
