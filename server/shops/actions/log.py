"""Keeping what was changed of all that the shop decides for itself."""

from ..models import Change, Member, Shop


def log_change(member: Member, about: Change.About, what: str, before: str, after: str) -> None:
    """Keep that something was changed by a member; nothing where it is as it was."""
    log_of(member.shop, member.user_id, about, what, before, after)


def log_of(shop: Shop, by: int, about: Change.About, what: str, before: str, after: str) -> None:
    """The same for somebody who is no member yet, or no more. by: a user."""
    if before != after:
        Change.objects.create(shop=shop, by_id=by, about=about, what=what[:200], before=before[:400], after=after[:400])
