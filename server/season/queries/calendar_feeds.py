"""Whose calendar an address opens."""

import hashlib

from shops.models import Member

from ..models import Feed
from ..schemas import FeedOut


def digest_of(secret: str) -> str:
    return hashlib.sha256(secret.encode()).hexdigest()


def opened_by(secret: str) -> Member | None:
    """Whose work a secret shows; nobody's where it never was, was ended, or they were let go."""
    found = Feed.objects.select_related("member__user", "member__shop").filter(digest=digest_of(secret)).first()
    return found.member if found and found.member.left_at is None else None


def shown(member: Member, secret: str = "") -> FeedOut:
    found = Feed.objects.of(member).filter(member=member).first()
    return FeedOut(path=f"/plan/feed/{secret}.ics" if secret else "", made_at=found.made_at if found else None)
