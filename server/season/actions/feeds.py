"""The address at which a calendar reads somebody's own work."""

import datetime as dt
import uuid

from django.utils import timezone
from django.utils.crypto import salted_hmac

from shops.actions.log import log_change
from shops.models import Change, Member
from shops.rights import action

from ..models import Feed
from ..queries.calendar_feeds import digest_of

HOUR = dt.timedelta(hours=1)


@action("work by the plan")
def make(member: Member, uuid_: uuid.UUID) -> str:
    """A new secret, given out here and kept only as its hash; the one before opens nothing any more. Asked again with the same
    UUID it is the same secret, so that a lost answer loses no address."""
    secret = salted_hmac("calendar feed", f"{member.pk} {uuid_}", algorithm="sha256").hexdigest()
    if not Feed.objects.filter(member=member, uuid=uuid_).exists():
        kept = {"uuid": uuid_, "digest": digest_of(secret), "made_at": timezone.now(), "used_at": None}
        Feed.objects.update_or_create(member=member, defaults=kept)
        log_change(member, Change.About.PLAN, f"{member.name}: calendar address", "", "a new one")
    return secret


@action("work by the plan")
def end(member: Member) -> None:
    """Nothing is opened by the secret any more; ended again it stays so."""
    if Feed.objects.filter(member=member).delete()[0]:
        log_change(member, Change.About.PLAN, f"{member.name}: calendar address", "one", "ended")


def used(feed: Feed) -> None:
    """A calendar has read it; once an hour is written down."""
    now = timezone.now()
    if feed.used_at is None or now - feed.used_at >= HOUR:
        Feed.objects.filter(pk=feed.pk).update(used_at=now)
