"""Who is there when, what they may do, and when it is dry."""

import datetime as dt
import uuid

from django.utils import timezone

from lumvek_core import opening_hours
from lumvek_core.errors import BadInput
from shops import taken_back
from shops.access import kept_already, there
from shops.actions.log import log_change
from shops.models import Change, Member
from shops.queries.people import member_here
from shops.rights import action

from ..models import Away, DrySpell, Hands

LONGEST_AWAY = dt.timedelta(days=400)
MOST_SKILLS = 12


@action("say who is there")
def set_hands(member: Member, whose: int, *, planned: bool, hours: str, skills: str) -> None:
    """Say when somebody works and what they may do. Raises BadInput, NotFoundHere."""
    other = member_here(member, whose)
    named = list(dict.fromkeys(filter(None, (one.strip().lower() for one in skills.split(",")))))
    if len(named) > MOST_SKILLS or any(len(one) > 40 for one in named):
        raise BadInput("skills", f"name at most {MOST_SKILLS}, each no longer than 40 characters")
    openings = opening_hours.read(hours)
    had = Hands.objects.of(member).filter(member=other).first()
    before = _words(had.planned, opening_hours.shown(had.openings), had.skills) if had else ""
    Hands.objects.update_or_create(member=other, defaults={"planned": planned, "openings": openings, "skills": named})
    after = _words(planned, opening_hours.shown(openings), named)
    log_change(member, Change.About.PERSON, f"{other.name}: hands", before, after)


def _words(planned: bool, hours: str, skills: list[str]) -> str:
    return "; ".join(
        [hours or "the shop's hours", ", ".join(skills) or "no skill of their own"] if planned else ["not planned for"]
    )


@action("say who is there")
def set_away(member: Member, whose: int, uuid_: uuid.UUID, first: dt.date, last: dt.date, note: str) -> None:
    """Keep that somebody is not there on some days. The same UUID twice is once. Raises BadInput, NotFoundHere."""
    other = member_here(member, whose)
    if kept_already(member, Away, uuid_):
        return
    if last < first:
        raise BadInput("last", "lies before the first day")
    if last - first > LONGEST_AWAY:
        raise BadInput("last", f"is more than {LONGEST_AWAY.days} days later")
    made = Away.objects.create(uuid=uuid_, member=other, first=first, last=last, note=note.strip(), by=member.user)
    log_change(member, Change.About.PLAN, f"{other.name}: away", "", made.words)


@action("say who is there")
def take_back_away(member: Member, uuid_: uuid.UUID) -> None:
    """Somebody is there after all. Raises NotFoundHere."""
    found = there(Away.objects.of(member).filter(uuid=uuid_))
    if taken_back.take_back(member, found):
        off = found.select_related("member__user").get()
        log_change(member, Change.About.PLAN, f"{off.member.name}: away", off.words, "there after all")


@action("say when it is dry")
def add_dry(member: Member, uuid_: uuid.UUID, start: dt.datetime, end: dt.datetime) -> None:
    """Keep a dry spell, on the shop's clock. The same UUID twice is once. Raises BadInput."""
    if kept_already(member, DrySpell, uuid_):
        return
    if end <= start:
        raise BadInput("end", "must be later than its start")
    zone = timezone.get_current_timezone()
    moments = {"start": start.replace(tzinfo=zone), "end": end.replace(tzinfo=zone)}
    made = DrySpell.objects.create(uuid=uuid_, shop=member.shop, by=member.user, **moments)
    log_change(member, Change.About.PLAN, "Dry spell", "", made.words)


@action("say when it is dry")
def take_back_dry(member: Member, uuid_: uuid.UUID) -> None:
    """It will not be dry then. Raises NotFoundHere."""
    found = there(DrySpell.objects.of(member).filter(uuid=uuid_))
    if taken_back.take_back(member, found):
        log_change(member, Change.About.PLAN, "Dry spell", found.get().words, "taken back")
