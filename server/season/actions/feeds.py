"""The address at which a calendar reads somebody's own work."""

import secrets

from django.utils import timezone

from shops.models import Member
from shops.rights import action

from ..models import Feed
from ..queries.calendar_feeds import digest_of


@action("work by the plan")
def make(member: Member) -> str:
    """A new secret, given out here once and kept only as its hash; the one before opens nothing any more."""
    secret = secrets.token_urlsafe(32)
    Feed.objects.update_or_create(member=member, defaults={"digest": digest_of(secret), "made_at": timezone.now()})
    return secret


@action("work by the plan")
def end(member: Member) -> None:
    """Nothing is opened by the secret any more; ended again it stays so."""
    Feed.objects.filter(member=member).delete()
