"""Links that show one report, in the owner's words, to somebody without an account."""

import datetime as dt
import secrets
import uuid

from django.utils import timezone

from inspection.queries.walk_arounds import walk_around_for
from lumvek_core.errors import BadInput
from shops.access import Conflict, NotFoundHere
from shops.models import Member
from shops.rights import action

from .models import ReportLink
from .queries import _digest

LONGEST_DAYS = 90


@action("share a report")
def make(member: Member, walk_around_id: uuid.UUID, days: int, key: uuid.UUID | None = None) -> tuple[ReportLink, str]:
    """A new link and its secret, which is given out here once and kept only as its hash.

    key: asked for again under the same UUID, for the answer was lost, it is the same link with another secret, and the one that
    nobody has seen opens nothing. Raises BadInput, Conflict, NotFoundHere.
    """
    walk_around = walk_around_for(member, walk_around_id)
    if not 1 <= days <= LONGEST_DAYS:
        raise BadInput("days", f"must be 1 to {LONGEST_DAYS}")
    link = ReportLink.objects.filter(uuid=key, uuid__isnull=False).first() or ReportLink(walk_around=walk_around, uuid=key)
    if (link.walk_around_id, link.made_by_id or member.user_id) != (walk_around.pk, member.user_id):
        raise BadInput("uuid", "belongs to another link")
    if link.revoked_at:
        raise Conflict("This link was ended. Make a new one.")
    secret = secrets.token_urlsafe(32)
    link.digest, link.expires_at = _digest(secret), timezone.now() + dt.timedelta(days=days)
    link.made_by, link.units = member.user, member.units
    link.save()
    return link, secret


@action("share a report")
def revoke(member: Member, walk_around_id: uuid.UUID, link_id: int) -> None:
    """End a link now. Raises NotFoundHere."""
    walk_around = walk_around_for(member, walk_around_id)
    links = ReportLink.objects.filter(walk_around=walk_around, pk=link_id)
    if not links.exists():
        raise NotFoundHere("There is no such link.")
    links.filter(revoked_at=None).update(revoked_at=timezone.now())
