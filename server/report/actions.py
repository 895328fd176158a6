"""Links that show one report, in the owner's words, to somebody without an account."""

import datetime as dt
import secrets
import uuid

from django.utils import timezone

from inspection.queries.walk_arounds import walk_around_for
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action

from .models import ReportLink
from .queries import _digest

LONGEST_DAYS = 90


@action("share a report")
def make(member: Member, walk_around_id: uuid.UUID, days: int) -> tuple[ReportLink, str]:
    """A new link and its secret, which is given out here once and kept only as its hash. Raises BadInput, NotFoundHere."""
    walk_around = walk_around_for(member, walk_around_id)
    if not 1 <= days <= LONGEST_DAYS:
        raise BadInput("days", f"must be 1 to {LONGEST_DAYS}")
    secret = secrets.token_urlsafe(32)
    expires = timezone.now() + dt.timedelta(days=days)
    link = ReportLink.objects.create(
        walk_around=walk_around, digest=_digest(secret), expires_at=expires, made_by=member.user, units=member.units
    )
    return link, secret


@action("share a report")
def revoke(member: Member, walk_around_id: uuid.UUID, link_id: int) -> None:
    """End a link now. Raises NotFoundHere."""
    walk_around = walk_around_for(member, walk_around_id)
    links = ReportLink.objects.filter(walk_around=walk_around, pk=link_id)
    if not links.exists():
        raise NotFoundHere("There is no such link.")
    links.filter(revoked_at=None).update(revoked_at=timezone.now())
