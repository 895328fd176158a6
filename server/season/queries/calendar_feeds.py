"""Whose calendar an address opens."""

import hashlib

from django.utils import timezone

from shops.models import Member

from ..models import Feed
from ..schemas import FeedOut


def digest_of(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def opened_by(secret: str) -> Feed | None:
    """The address that a secret opens; none where it never was, has ended, or its member was let go."""
    alive = timezone.now() - Feed.LASTS
    feeds = Feed.objects.select_related("member__user", "member__shop")
    return feeds.filter(digest=digest_of(secret), made_at__gt=alive, member__left_at=None).first()


def shown(member: Member, secret: str = "") -> FeedOut:
    found = Feed.objects.of(member).filter(member=member).first()
    return FeedOut(
        path=f"/plan/feed/{secret}.ics" if secret else "",
        made_at=found.made_at if found else None,
        ends_at=found.ends_at if found else None,
        used_at=found.used_at if found else None,
    )
