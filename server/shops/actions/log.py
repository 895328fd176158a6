"""Keeping what was changed of all that the shop decides for itself."""

import re
from collections.abc import Mapping

from ..models import Change, Member, Shop


def log_change(member: Member, about: Change.About, what: str, before: str, after: str) -> None:
    """Keep that something was changed by a member; nothing where it is as it was."""
    log_of(member.shop, member.user_id, about, what, before, after)


def log_of(shop: Shop, by: int, about: Change.About, what: str, before: str, after: str) -> None:
    """The same for somebody who is no member yet, or no more. by: a user."""
    if before != after:
        Change.objects.create(shop=shop, by_id=by, about=about, what=what[:200], before=before[:400], after=after[:400])


def unname(shop: Shop, instead: Mapping[str, str]) -> None:
    """Somebody is named no more: other words in their place, in what was said of people. When, who and what was done stays."""
    for one in shop.changes.filter(about__in=(Change.About.PERSON, Change.About.PLAN)):
        said = [one.what, one.before, one.after]
        for name, words in instead.items():
            said = [re.sub(rf"\b{re.escape(name)}\b", words, text) for text in said]
        if said != [one.what, one.before, one.after]:
            one.what, one.before, one.after = (text[:length] for text, length in zip(said, (200, 400, 400), strict=True))
            one.save(update_fields=["what", "before", "after"])
