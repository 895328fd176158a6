"""How those outside answered last, and what came of an inquiry."""

import uuid

from django.conf import settings

from outside import inquiries, mails
from outside import lines as outside_lines
from outside.models import Inquiry, Line

from ..access import NotFoundHere
from ..models import Member
from ..schemas import InquiryOut, OutsideLineOut, ToldOut


def lines() -> list[OutsideLineOut]:
    """Each of them, in the same order. One query."""
    there = {one.name: one for one in Line.objects.all()}
    connected = {
        Line.Name.MAIL: mails.can_send(),
        Line.Name.DESK: bool(settings.DESK_URL),
        Line.Name.MODEMS: bool(settings.TELEMATICS_URL),
        Line.Name.FORECAST: bool(settings.FORECAST_URL),
    }
    return [_line(name, there.get(name), connected[name]) for name in Line.Name]


def _line(name: Line.Name, line: Line | None, connected: bool) -> OutsideLineOut:
    return OutsideLineOut(
        key=name.value,  # type: ignore[arg-type]
        name=str(name.label),
        connected=connected,
        trouble=line.trouble if line else "",
        rests=outside_lines.resting_words(line) if line and line.rests_until else "",
        asked_at=line.asked_at if line else None,
    )


def inquiry_of(member: Member, inquiry: uuid.UUID) -> InquiryOut:
    """How it stands. Raises NotFoundHere for what is not the member's own."""
    try:
        found = inquiries.of_member(member.pk, inquiry)
    except Inquiry.DoesNotExist:
        raise NotFoundHere("Nothing of that name was asked.") from None
    return InquiryOut(
        uuid=found.uuid,
        under_way=found.answered_at is None,
        told=[ToldOut(**one) for one in found.told],
        trouble=found.trouble,
        field=found.field,
    )
