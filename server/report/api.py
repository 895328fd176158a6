"""Endpoints of links to a report."""

import uuid

from django.http import HttpRequest
from ninja import Router

from inspection.queries.walk_arounds import walk_around_for
from shops.access import member_of
from shops.endpoints import allowed

from . import actions, queries
from .schemas import LinkIn, LinkOut

router = Router(tags=["links"])


@router.get("/{uuid:walk_around_id}/links", response=list[LinkOut], **allowed(actions.make))
def working(request: HttpRequest, walk_around_id: uuid.UUID) -> list[LinkOut]:
    """The links that work now."""
    return [queries.link_out(link) for link in queries.of(walk_around_for(member_of(request), walk_around_id))]


@router.post("/{uuid:walk_around_id}/links", response=LinkOut, **allowed(actions.make))
def share(request: HttpRequest, walk_around_id: uuid.UUID, new: LinkIn) -> LinkOut:
    """Make a link that ends by itself. Its address is shown once."""
    return queries.link_out(*actions.make(member_of(request), walk_around_id, new.days, new.uuid))


@router.post("/{uuid:walk_around_id}/links/{int:link_id}/revoke", response=list[LinkOut], **allowed(actions.revoke))
def revoke(request: HttpRequest, walk_around_id: uuid.UUID, link_id: int) -> list[LinkOut]:
    """End a link now."""
    actions.revoke(member_of(request), walk_around_id, link_id)
    return working(request, walk_around_id)
