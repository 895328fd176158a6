"""What a shop says of itself, each change in the log."""

import datetime as dt
import uuid
from collections.abc import Mapping, Sequence
from typing import Any

from django.utils import timezone

from lumvek_core import opening_hours, units
from lumvek_core.errors import BadInput
from lumvek_core.vocabulary import CROP_NAMES

from ..access import NotFoundHere
from ..days import zones
from ..models import Change, DayForm, Mark, Member, Shop, Units, Workplace
from ..pictures import clean
from ..rights import action
from .log import log_change

MARK_SIDE = 600
"""Pixels: it stands small at the head of a page."""
MOST = 60
"""Crops, seasons, workplaces: each of these."""


@action("change the shop")
def change(member: Member, name: str, address: str, second_factor: bool) -> None:
    """Its name and address, and whether everybody has to have a second factor. Raises BadInput with field ``name``."""
    if not name.strip():
        raise BadInput("name", "say what the shop is called")
    _set(
        member,
        {"Name": ("name", name.strip()[:120]), "Address": ("address", address.strip()[:300])},
        second_factor=second_factor,
        described=True,
    )


@action("change the shop")
def set_ways(member: Member, time_zone: str, units_read: str, day_form: str) -> None:
    """Its time zone (empty: the server's), the units of those who join, how days are written. Raises BadInput at the field."""
    if time_zone and time_zone not in zones():
        raise BadInput("time_zone", "is not known; pick one of the list")
    if units_read not in Units.values:
        raise BadInput("units", "are mm or in")
    if day_form not in DayForm.values:
        raise BadInput("day_form", "is none of the forms")
    _set(
        member,
        {
            "Time zone": ("time_zone", time_zone),
            "Units of who joins": ("units", units_read),
            "How days are written": ("day_form", day_form),
        },
    )


@action("change the shop")
def set_hours(member: Member, hours: str, closed: str) -> None:
    """When it works: ``Mon–Fri 07:30–17:00``; closed on days. Raises BadInput with field ``hours`` or ``closed``."""
    _set(
        member,
        {
            "Working hours": ("openings", opening_hours.read(hours)),
            "Closed on": ("closed", sorted(set(opening_hours.days(closed)))),
        },
    )


@action("change the shop")
def set_crops(member: Member, crops: Sequence[Mapping[str, str]], seasons: Sequence[Mapping[str, str]]) -> None:
    """The crops grown with their group, and the seasons with their days. Raises BadInput at ``crops.<n>.name`` and so on."""
    for what, listed in (("crops", crops), ("seasons", seasons)):
        if len(listed) > MOST:
            raise BadInput(what, f"are at most {MOST}")
        names = [one["name"].strip().lower() for one in listed]
        for i, name in enumerate(names):
            if not name:
                raise BadInput(f"{what}.{i}.name", "say what it is called")
            if names.index(name) < i:
                raise BadInput(f"{what}.{i}.name", "stands there twice")
    for i, one in enumerate(crops):
        if one["group"] not in CROP_NAMES:
            raise BadInput(f"crops.{i}.group", "is no group of crops")
    for i, one in enumerate(seasons):
        for end in ("first", "last"):
            _day_of_year(f"seasons.{i}.{end}", one[end])
    _set(
        member,
        {
            "Crops": ("crops", [{"name": one["name"].strip(), "group": one["group"]} for one in crops]),
            "Seasons": (
                "seasons",
                [{"name": one["name"].strip(), "first": one["first"], "last": one["last"]} for one in seasons],
            ),
        },
    )


@action("change the shop")
def set_mark(member: Member, data: bytes) -> None:
    """The picture at the head of its reports. Raises BadInput with field ``photo``."""
    image, width, height = clean(data, MARK_SIDE)
    had = Mark.objects.of(member).exists()
    Mark.objects.update_or_create(shop=member.shop, defaults={"image": image, "width": width, "height": height})
    log_change(member, Change.About.SHOP, "Mark for reports", "one before" if had else "none", f"{width} × {height} pixels")


@action("change the shop")
def remove_mark(member: Member) -> None:
    """Reports go without a picture."""
    if Mark.objects.of(member).delete()[0]:
        log_change(member, Change.About.SHOP, "Mark for reports", "one before", "none")


@action("change the shop")
def keep_workplace(member: Member, place: uuid.UUID, typed: Mapping[str, Any]) -> None:
    """Add a bay, yard, lift or bench under the client's UUID, or change it. typed: as it comes, door sizes as texts.

    Raises BadInput at the field, NotFoundHere for another shop's.
    """
    hold(member)
    there = Workplace.objects.filter(uuid=place).first()
    if there is not None and there.shop_id != member.shop_id:
        raise NotFoundHere("There is no such place.")
    name = typed["name"].strip()
    if not name:
        raise BadInput("name", "say what it is called")
    others = Workplace.objects.of(member).filter(removed_at=None).exclude(uuid=place)
    if others.filter(name__iexact=name).exists():
        raise BadInput("name", f"you have a {name} already")
    if there is None and others.count() >= MOST:
        raise BadInput("name", f"there are {MOST} places already")
    before = _place(there) if there is None or there.removed_at is None else "removed"
    values = {
        "kind": typed["kind"],
        "name": name,
        "many": typed["many"],
        "door_width_mm": _door(member, "door_width", typed["door_width"]),
        "door_height_mm": _door(member, "door_height", typed["door_height"]),
        "note": typed["note"].strip(),
        "removed_at": None,
    }
    kept, _ = Workplace.objects.update_or_create(uuid=place, shop=member.shop, defaults=values)
    log_change(member, Change.About.SHOP, f"{kept.get_kind_display()} {name}", before, _place(kept))


@action("change the shop")
def remove_workplace(member: Member, place: uuid.UUID) -> None:
    """It is there no more. Raises NotFoundHere."""
    there = Workplace.objects.of(member).filter(uuid=place).first()
    if there is None:
        raise NotFoundHere("There is no such place.")
    if there.removed_at is None:
        there.removed_at = timezone.now()
        there.save(update_fields=["removed_at"])
        log_change(member, Change.About.SHOP, f"{there.get_kind_display()} {there.name}", _place(there), "removed")


@action("change the shop")
def begin(member: Member) -> None:
    """The first day is over: the pages that lead through it are put away."""
    Shop.objects.filter(pk=member.shop_id).update(begun=True)
    member.shop.begun = True


def hold(member: Member) -> None:
    """What is the shop's own is changed by one at a time: whoever comes second waits until the first is through."""
    Shop.objects.select_for_update().only("pk").get(pk=member.shop_id)


def _set(member: Member, said: Mapping[str, tuple[str, Any]], **quiet: Any) -> None:
    """Put values in their columns, each in the log under its name where it is another now."""
    shop = Shop.objects.select_for_update().get(pk=member.shop_id)
    before, logging_in = {what: _shown(shop, column) for what, (column, _) in said.items()}, _logging_in(shop)
    for column, value in said.values():
        setattr(shop, column, value)
    for column, value in quiet.items():
        setattr(shop, column, value)
    shop.save(update_fields=[*(column for column, _ in said.values()), *quiet])
    for what, (column, _) in said.items():
        log_change(member, Change.About.SHOP, what, before[what], _shown(shop, column))
    log_change(member, Change.About.SHOP, "Logging in", logging_in, _logging_in(shop))
    member.shop = shop


def _shown(shop: Shop, column: str) -> str:
    value = getattr(shop, column)
    if column == "openings":
        return opening_hours.shown(value) or "none"
    if column == "crops":
        return ", ".join(f"{one['name']} ({CROP_NAMES[one['group']]})" for one in value) or "none"
    if column == "seasons":
        return ", ".join(f"{one['name']} {one['first']} to {one['last']}" for one in value) or "none"
    if column == "day_form":
        return str(DayForm(value).label)
    if isinstance(value, list):
        return ", ".join(value) or "none"
    return value or "none"


def _logging_in(shop: Shop) -> str:
    return "password and a code" if shop.second_factor else "password alone"


def _day_of_year(field: str, text: str) -> None:
    try:
        dt.date.fromisoformat(f"2028-{text}")  # a leap year: 29 February is a day
    except ValueError:
        raise BadInput(field, "is no day such as 04-15") from None


def _door(member: Member, field: str, text: str) -> float | None:
    if not text.strip():
        return None
    try:
        value = units.parse_length(text, "in" if member.units == "in" else "mm")
    except BadInput as problem:
        raise BadInput(field, problem.message) from None
    if not 500 <= value <= 50_000:
        asked = units.show_length(value, "mm")
        raise BadInput(field, f"means {asked}: write it with its unit, for example 4.2 m")
    return value


def _place(one: Workplace | None) -> str:
    if one is None:
        return ""
    doors = [
        f"{units.show_mm(size)} {what}" for size, what in ((one.door_width_mm, "wide"), (one.door_height_mm, "high")) if size
    ]
    return ", ".join(filter(None, [f"{one.many} of them" if one.many > 1 else "one", *doors, one.note]))
