"""Endpoints of links to a report."""

import datetime as dt
import uuid

from django.http import HttpRequest
from ninja import Router, Schema

from inspection.queries.serializers import full_name
from inspection.queries.walk_arounds import walk_around_for
from shops.access import INSPECTORS, member_of, only

from . import actions as service
from .models import ReportLink

links = Router(tags=["links"])


class LinkIn(Schema):
    days: int = 14


class LinkOut(Schema):
    """A link that works. path: only when it was just made, for it is not kept."""

    id: int
    expires_at: dt.datetime
    made_by: str
    path: str = ""


def _out(link: ReportLink, secret: str = "") -> LinkOut:
    path = f"/shared/{secret}" if secret else ""
    return LinkOut(id=link.pk, expires_at=link.expires_at, made_by=full_name(link.made_by), path=path)


@links.get("/{uuid:walk_around_id}/links", response=list[LinkOut])
def working(request: HttpRequest, walk_around_id: uuid.UUID) -> list[LinkOut]:
    """The links that work now."""
    member = member_of(request)
    found = walk_around_for(member, walk_around_id)
    only(member, INSPECTORS, "share a report")
    return [_out(link) for link in service.of(found)]


@links.post("/{uuid:walk_around_id}/links", response=LinkOut)
def share(request: HttpRequest, walk_around_id: uuid.UUID, new: LinkIn) -> LinkOut:
    """Make a link that ends by itself. Its address is shown once."""
    member = member_of(request)
    walk_around_for(member, walk_around_id)
    only(member, INSPECTORS, "share a report")
    return _out(*service.make(member, walk_around_id, new.days))


@links.post("/{uuid:walk_around_id}/links/{int:link_id}/revoke", response=list[LinkOut])
def revoke(request: HttpRequest, walk_around_id: uuid.UUID, link_id: int) -> list[LinkOut]:
    """End a link now."""
    member = member_of(request)
    found = walk_around_for(member, walk_around_id)
    only(member, INSPECTORS, "share a report")
    service.revoke(member, walk_around_id, link_id)
    return [_out(link) for link in service.of(found)]
