"""Who is there when, and what they may do."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

from django.conf import settings
from django.utils import timezone

from lumvek_core.planning.season.model import Span
from shops.models import Member, Role, Shop

from ..models import Away, DrySpell, Hands

USUAL_WEEK = [
    {"weekday": day, "from": start, "to": end} for day in range(5) for start, end in (("07:30", "12:00"), ("12:45", "16:30"))
]
"""Of a shop that has said nothing of its hours."""


@dataclass
class Person:
    """A member as a pair of hands. week: when they work, as the shop does where they say nothing."""

    member: Member
    planned: bool
    week: list[dict[str, Any]]
    own_week: bool
    skills: list[str] = field(default_factory=list)
    away: list[Away] = field(default_factory=list)

    def away_on(self, day: dt.date) -> Away | None:
        return next((one for one in self.away if one.first <= day <= one.last), None)


def people(member: Member) -> list[Person]:
    """Everybody who can work on machines: technicians are planned for, others where they are said to be. Three queries."""
    there = list(Member.objects.of(member).filter(left_at=None).select_related("user").order_by("user__first_name", "pk"))
    said = {one.member_id: one for one in Hands.objects.of(member)}
    away: dict[int, list[Away]] = {}
    for one in Away.objects.of(member).filter(taken_back_at=None):
        away.setdefault(one.member_id, []).append(one)
    usual = member.shop.openings or USUAL_WEEK
    found = []
    for person in there:
        if not {Role.TECHNICIAN, Role.LEAD} & set(person.roles):
            continue
        hands = said.get(person.pk)
        planned = hands.planned if hands else Role.TECHNICIAN in person.roles
        own = hands.openings if hands else []
        found.append(Person(person, planned, own or usual, bool(own), hands.skills if hands else [], away.get(person.pk, [])))
    return found


def names_of(persons: Sequence[Person]) -> dict[int, str]:
    """What each is called in a plan: no two alike."""
    found: dict[int, str] = {}
    for person in persons:
        name = person.member.name
        found[person.member.pk] = name if name not in found.values() else f"{name} ({person.member.pk})"
    return found


def shifts(person: Person, shop: Shop, now: dt.datetime, days: int) -> list[Span]:
    """When somebody works in the coming days: their week, without days off and the shop's closed days."""
    found = []
    for number in range(days + 1):
        day = now.date() + dt.timedelta(days=number)
        if day.isoformat() in shop.closed or person.away_on(day):
            continue
        for one in person.week:
            if one["weekday"] == day.weekday():
                found.append(Span(f"{day}T{one['from']}", f"{day}T{one['to']}"))
    return found


def dry_spells(member: Member) -> list[DrySpell]:
    return list(DrySpell.objects.of(member).filter(taken_back_at=None))


def forecast_connected() -> bool:
    """Whether anybody says when it will be dry."""
    return bool(settings.FORECAST_URL)


def skills_known(persons: Sequence[Person], wanted: Mapping[str, str]) -> list[str]:
    """Skills that somebody has, or that work may want."""
    return sorted({skill for person in persons for skill in person.skills} | set(wanted.values()))


def local(moment: dt.datetime) -> str:
    """A moment on the shop's clock."""
    return timezone.localtime(moment).replace(tzinfo=None).isoformat(timespec="minutes")
