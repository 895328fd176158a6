"""Who is there when and when it is dry, for the screen."""

from django.utils import timezone

from inspection.queries import rule_books
from lumvek_core import opening_hours
from shops.models import Member

from ..schemas import AwayOut, DrySpellOut, HandsOut, SeasonHandsOut
from . import hands


def shown(member: Member) -> SeasonHandsOut:
    """Everybody who can work on machines, days off and dry spells that are not over."""
    persons, today = hands.people(member), timezone.localdate()
    return SeasonHandsOut(
        forecast=hands.forecast_connected(),
        people=[
            HandsOut(
                member=one.member.pk,
                name=one.member.name,
                planned=one.planned,
                hours=opening_hours.shown(one.week),
                usual_hours=not one.own_week,
                skills=one.skills,
                away=[
                    AwayOut(uuid=away.uuid, first=away.first, last=away.last, note=away.note)
                    for away in one.away
                    if away.last >= today
                ],
            )
            for one in persons
        ],
        dry=[
            DrySpellOut(
                uuid=spell.uuid,
                start=hands.local(spell.start),
                end=hands.local(spell.end),
                source=spell.get_source_display(),
            )
            for spell in hands.dry_spells(member)
            if timezone.localdate(spell.end) >= today
        ],
        skills=hands.skills_known(persons, rule_books.shipped().work.skills),
    )
