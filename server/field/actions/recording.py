"""Keeping how machines were set in the field, and ticking daily cards. The same UUID twice is once."""

import datetime as dt
import uuid

from django.utils import timezone

from fleet.actions.holding import hold
from fleet.models import Machine
from inspection.actions import notes
from inspection.queries.serializers import system_of
from inspection.queries.stands_now import coupled_at, coupled_now, crops_now
from lumvek_core import field_lengths
from lumvek_core.catalogue.field_settings import FieldSetting
from lumvek_core.errors import BadInput
from lumvek_core.units import System
from shops import taken_back
from shops.access import kept_already, there
from shops.actions.log import log_change
from shops.days import not_to_come
from shops.models import Change, Member
from shops.rights import action

from ..models import DailyTick, SetInField
from ..queries import cards, daily
from ..schemas import DailyTickIn, SetInFieldIn

FIELD, DAILY = "keep field settings", "tick daily cards"


@action(FIELD)
def keep(member: Member, machine: Machine, new: SetInFieldIn) -> None:
    """Keep how a machine was set. Raises BadInput with field ``values.<key>`` and so on."""
    hold(machine)
    if kept_already(member, SetInField, new.uuid):
        return
    header = coupled_at(machine, new.at)
    known = {one.key: one for one in cards.settings_of(machine, header)}
    for key in new.values:
        if key not in known:
            raise BadInput(f"values.{key}", "is not set on this machine")
    system: System = new.units or system_of(member)
    values = {key: _kept(known[key], text, system) for key, text in new.values.items() if text.strip()}
    if not values and not (new.place.strip() or new.condition.strip()):
        raise BadInput("values", "say how at least one thing was set, which field it is, or how it is there")
    at = not_to_come(new.at) if new.at else timezone.now()
    SetInField.objects.create(
        uuid=new.uuid,
        machine=machine,
        header=header,
        crop=new.crop.strip(),
        place=new.place.strip(),
        condition=new.condition.strip(),
        values=values,
        why=new.why.strip(),
        at=at,
        by=member.user,
    )


def _kept(setting: FieldSetting, text: str, system: System) -> str:
    try:
        return field_lengths.kept(text, system) if setting.is_length else text.strip()
    except BadInput as problem:
        raise BadInput(f"values.{setting.key}", problem.message) from None


@action(FIELD)
def say_worked(member: Member, uuid_: uuid.UUID, worked: bool) -> Machine:
    """Say whether a setting worked; said again it is what was said last. Raises NotFoundHere."""
    found = there(SetInField.objects.of(member).filter(uuid=uuid_, taken_back_at=None)).select_related("machine__model")
    row: SetInField = found.get()
    words = {None: "nobody said", True: "worked", False: "did not work"}
    log_change(member, Change.About.MACHINE, f"{row.machine.name}: set in the field", words[row.worked], words[worked])
    row.worked = worked
    row.save(update_fields=["worked"])
    machine: Machine = row.machine
    return machine


@action(FIELD)
def take_back(member: Member, uuid_: uuid.UUID) -> Machine:
    """It was not set so. Raises NotFoundHere."""
    found = there(SetInField.objects.of(member).filter(uuid=uuid_)).select_related("machine__model")
    taken_back.take_back(member, found)
    machine: Machine = found.get().machine
    return machine


@action(DAILY)
def tick(member: Member, machine: Machine, new: DailyTickIn) -> None:
    """Tick things of a daily card. What is not right says what is wrong; that is kept as a note at its station, which comes
    back with the next walk-around. Raises BadInput."""
    hold(machine)
    if DailyTick.objects.filter(uuid=_each(new.uuid, new.keys[0])).exists():
        kept_already(member, DailyTick, _each(new.uuid, new.keys[0]))
        return
    crop = crops_now([machine]).get(machine.pk, "")
    listed = {one.check.key: one for one in daily.checks_of(member.shop, machine, coupled_now(machine), crop)}
    for i, key in enumerate(new.keys):
        if key not in listed:
            raise BadInput(f"keys.{i}", "is not on this machine's card")
    today = timezone.localdate()
    day = new.day or today
    if not today - dt.timedelta(days=7) <= day <= today:
        raise BadInput("day", "must be one of the last seven days")
    words = new.words.strip()
    if not new.right and not words:
        raise BadInput("words", "say what is wrong: it stands at its place in the next walk-around")
    for key in dict.fromkeys(new.keys):
        DailyTick.objects.create(
            uuid=_each(new.uuid, key), machine=machine, day=day, key=key, right=new.right, words=words, by=member.user
        )
        if not new.right:
            one = listed[key]
            notes.note(member, one.machine, _each(new.uuid, f"note {key}"), f"{one.check.name}: {words}", one.station.key)


def _each(uuid_: uuid.UUID, key: str) -> uuid.UUID:
    """One of several that are written at once."""
    return uuid.uuid5(uuid_, key)
