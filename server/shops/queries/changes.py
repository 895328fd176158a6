"""Reading what was changed of all that is the shop's own."""

from django.db.models import Q

from tabular.paging import page_of_query

from ..models import Change, Member
from ..schemas import ChangesAsked, ChangesOut, LoggedChangeOut

PAGE = 50


def changes(member: Member, asked: ChangesAsked) -> ChangesOut:
    """A page of the log, the newest first: of one kind, and with all words somewhere in what was changed, to what, or by whom.

    Two queries, whatever there is.
    """
    found = Change.objects.of(member).select_related("by")
    if asked.about:
        found = found.filter(about=asked.about)
    for word in asked.words():
        told = Q(what__icontains=word) | Q(before__icontains=word) | Q(after__icontains=word)
        found = found.filter(told | Q(by__first_name__icontains=word) | Q(by__last_name__icontains=word))
    listed, page = page_of_query(found, asked.page, PAGE)
    return ChangesOut(
        about={key: str(name) for key, name in Change.About.choices},
        page=page,
        changes=[
            LoggedChangeOut(
                at=one.at,
                by=one.by.get_full_name() or one.by.get_username(),
                about=one.about,
                what=one.what,
                before=one.before,
                after=one.after,
            )
            for one in listed
        ],
    )
