"""Reading what a shop says of itself."""

from lumvek_core import opening_hours, units
from lumvek_core.units import System

from ..access import NotFoundHere
from ..days import zones
from ..models import DayForm, Invitation, Mark, Member, Workplace
from ..schemas import ShopOut, WorkplaceOut


def shop_of(member: Member) -> ShopOut:
    """The member's shop, and how far its first day is. Four queries."""
    shop = member.shop
    return ShopOut(
        name=shop.name,
        address=shop.address,
        has_mark=Mark.objects.of(member).exists(),
        time_zone=shop.time_zone,
        zones=sorted(zones()),
        units=shop.units,  # type: ignore[arg-type]
        day_form=shop.day_form,  # type: ignore[arg-type]
        day_forms=dict(DayForm.choices),
        hours=opening_hours.shown(shop.openings),
        closed=", ".join(shop.closed),
        crops=shop.crops,
        seasons=shop.seasons,
        places=[_place(member, one) for one in Workplace.objects.of(member).filter(removed_at=None)],
        second_factor=shop.second_factor,
        described=shop.described,
        people=Member.objects.of(member).filter(left_at=None).count(),
        asked=Invitation.objects.of(member).filter(used_at=None, withdrawn_at=None).count(),
    )


def _place(member: Member, one: Workplace) -> WorkplaceOut:
    system: System = "in" if member.units == "in" else "mm"
    return WorkplaceOut(
        uuid=one.uuid,
        kind=one.kind,  # type: ignore[arg-type]
        kind_name=one.get_kind_display(),
        name=one.name,
        many=one.many,
        door_width="" if one.door_width_mm is None else units.show_length(one.door_width_mm, system),
        door_height="" if one.door_height_mm is None else units.show_length(one.door_height_mm, system),
        note=one.note,
    )


def mark_of(member: Member) -> bytes:
    """The picture at the head of reports, as JPEG. Raises NotFoundHere."""
    mark = Mark.objects.of(member).first()
    if mark is None:
        raise NotFoundHere("There is no picture.")
    return bytes(mark.image)
