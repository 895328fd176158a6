"""Links that show one report, in the owner's words, to somebody without an account."""

import datetime as dt
import hashlib
import secrets
import uuid

from django.utils import timezone

from inspection.models import WalkAround
from inspection.queries.walk_arounds import walk_around_for
from lumvek_core.errors import BadInput
from shops.access import NotFoundHere
from shops.models import Member

from .models import ReportLink

LONGEST_DAYS = 90


def make(member: Member, walk_around_id: uuid.UUID, days: int) -> tuple[ReportLink, str]:
    """A new link and its secret, which is given out here once and kept only as its hash. Raises BadInput, NotFoundHere."""
    found = walk_around_for(member, walk_around_id)
    if not 1 <= days <= LONGEST_DAYS:
        raise BadInput("days", f"must be 1 to {LONGEST_DAYS}")
    secret = secrets.token_urlsafe(32)
    expires = timezone.now() + dt.timedelta(days=days)
    link = ReportLink.objects.create(
        walk_around=found, digest=_digest(secret), expires_at=expires, made_by=member.user, units=member.units
    )
    return link, secret


def revoke(member: Member, walk_around_id: uuid.UUID, link_id: int) -> None:
    """End a link now. Raises NotFoundHere."""
    found = walk_around_for(member, walk_around_id)
    links = ReportLink.objects.filter(walk_around=found, pk=link_id)
    if not links.exists():
        raise NotFoundHere("There is no such link.")
    links.filter(revoked_at=None).update(revoked_at=timezone.now())


def of(walk_around: WalkAround) -> list[ReportLink]:
    """The links that work now."""
    now = timezone.now()
    return list(
        ReportLink.objects.filter(walk_around=walk_around, revoked_at=None, expires_at__gt=now).select_related("made_by")
    )


def opened_by(secret: str) -> tuple[WalkAround, Member] | None:
    """The walk-around that a secret opens, and who it is shown as: in the units of whoever made the link.

    None for a secret that never was, has ended or was revoked.
    """
    link = (
        ReportLink.objects.select_related("walk_around__machine__model", "walk_around__started_by", "walk_around__finished_by")
        .filter(digest=_digest(secret), revoked_at=None, expires_at__gt=timezone.now())
        .first()
    )
    if link is None:
        return None
    reader = link.walk_around.started_by.member
    reader.units = link.units
    return link.walk_around, reader


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()
