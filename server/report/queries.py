"""The links to a report that work, and what a secret opens."""

import hashlib

from django.utils import timezone

from inspection.models import WalkAround
from inspection.queries.serializers import full_name
from shops.models import Member, Role

from .models import ReportLink
from .schemas import LinkOut


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
    here = Member.objects.select_related("user", "shop").in_shop(link.walk_around.shop_id)
    # Whoever began it may be gone from the shop altogether; somebody leads it always.
    reader = here.filter(user=link.walk_around.started_by).first() or next(one for one in here if Role.LEAD in one.roles)
    reader.units = link.units
    return link.walk_around, reader


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def link_out(link: ReportLink, secret: str = "") -> LinkOut:
    """A link as the API gives it, with its address where it was just made."""
    path = f"/shared/{secret}" if secret else ""
    return LinkOut(id=link.pk, expires_at=link.expires_at, made_by=full_name(link.made_by), path=path)
