"""The field card of one machine: what is set in which order, where one begins, and what worked the last times."""

from fleet.models import Machine
from inspection.queries import rule_books, serializers
from inspection.queries.stands_now import coupled_now
from lumvek_core import field_lengths
from lumvek_core.catalogue.field_settings import FieldSetting
from lumvek_core.units import System
from lumvek_core.workbench.subjects import subject_of
from shops.models import Member
from shops.rights import may

from ..models import SetInField
from ..schemas import FieldCardOut, FieldSettingOut, SetInFieldOut, WorkedBeforeOut
from . import first_field

NEWEST = 40


def settings_of(machine: Machine, header: Machine | None) -> list[FieldSetting]:
    """What is set on a machine with what is coupled to it, in order."""
    families = {machine.model.family, *([header.model.family] if header else [])}
    return rule_books.shipped().field_settings.of(families)


def card(member: Member, machine: Machine, crop: str = "") -> FieldCardOut:
    """The card for a crop, in the shop's words. A constant number of queries."""
    header, system = coupled_now(machine), serializers.system_of(member)
    listed = settings_of(machine, header)
    rows = list(SetInField.objects.filter(machine=machine).select_related("by", "header").order_by("-at", "-id"))
    counting = [row for row in rows if row.taken_back_at is None]
    return FieldCardOut(
        machine=serializers.machine_out(machine),
        header=header.name if header else "",
        crops=[one["name"] for one in member.shop.crops],
        conditions=rule_books.shipped().field_settings.conditions,
        places=list(dict.fromkeys(row.place for row in counting if row.place))[:20],
        first_field=first_field.now(machine),
        seen=first_field.seen(member, machine),
        settings=[
            FieldSettingOut(
                key=one.key,
                name=one.name,
                unit=system if one.is_length else one.unit,
                start=one.start,
                how=one.how,
                worked=_worked(one, counting, crop, header, system),
                bench=subject_of(one.calculator),
                now=next((_typed(one, row.values[one.key], system) for row in counting if one.key in row.values), ""),
                length=one.is_length,
            )
            for one in listed
        ],
        last=[set_out(row, system) for row in rows[:NEWEST]],
        may_set=may(member, "keep field settings"),
    )


def _worked(
    setting: FieldSetting, rows: list[SetInField], crop: str, header: Machine | None, system: System
) -> WorkedBeforeOut | None:
    """The newest that worked: with the same crop and header, else with the same crop, else at all."""
    there = [row for row in rows if row.worked and setting.key in row.values]
    for same in (
        [row for row in there if crop and row.crop == crop and row.header_id == (header.pk if header else None)],
        [row for row in there if crop and row.crop == crop],
        there,
    ):
        if same:
            row = same[0]
            alike = row.crop == crop and row.header_id == (header.pk if header else None)
            return WorkedBeforeOut(
                value=_typed(setting, row.values[setting.key], system),
                shown=_shown(setting, row.values[setting.key], system),
                crop=row.crop,
                condition=row.condition,
                day=row.at.date(),
                same=bool(crop) and alike,
            )
    return None


def _typed(setting: FieldSetting, kept: str, system: System) -> str:
    return field_lengths.typed(kept, system) if setting.is_length else kept


def _shown(setting: FieldSetting, kept: str, system: System) -> str:
    return field_lengths.shown(kept, system) if setting.is_length else f"{kept} {setting.unit}".rstrip()


def set_out(row: SetInField, system: System) -> SetInFieldOut:
    """How a machine was set, in words, for a reader of these units."""
    settings = {one.key: one for one in rule_books.shipped().field_settings.settings}
    shown = [
        f"{settings[key].name} {_shown(settings[key], value, system)}" for key, value in row.values.items() if key in settings
    ]
    return SetInFieldOut(
        uuid=row.uuid,
        crop=row.crop,
        place=row.place,
        condition=row.condition,
        header=row.header.name if row.header else "",
        shown=shown,
        why=row.why,
        worked=row.worked,
        at=row.at,
        by=serializers.full_name(row.by),
        taken_back=row.taken_back_at is not None,
    )
