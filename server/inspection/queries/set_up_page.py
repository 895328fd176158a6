"""The page of how one machine is set up: each item with its places, what each crop wants of it, and when it changed."""

from itertools import groupby

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.judgement import describe
from lumvek_core.rules.fitted import FittedRule
from lumvek_core.units import System
from lumvek_core.vocabulary import CROP_NAMES
from shops.models import Member

from ..schemas_set_up import CropWantsOut, SetUpChangeOut, SetUpItemOut, SetUpOut, SetUpPlaceOut
from . import coupled, rule_books, set_up
from .serializers import system_of
from .set_up import Stands
from .walk_arounds import names_in


def page(member: Member, machine: Machine) -> SetUpOut:
    """Everything that sets this machine up, in working order; what was never recorded is there, without a state."""
    book = rule_books.now_of(machine, member.shop)
    options = {coupled.long(machine, option) for option in machine.options}
    checks = [check for check in set_up.checks_of(book) if check.made_with(options)]
    stands = set_up.read([machine], checks)
    names, system = names_in(member.shop_id), system_of(member)
    items = []
    for check in checks:
        mine = [one for one in stands if one.check == check.key]
        items.append(
            SetUpItemOut(
                check=check.key,
                name=check.name,
                station=book.station_of[check.key].name,
                how=check.how,
                places=_places(check, mine, names, system),
                wants=_wants(check, book.schools),
                changes=_changes(check, mine, names, system),
            )
        )
    return SetUpOut(machine=machine.name, items=items)


def _places(check: Check, stands: list[Stands], names: dict[int, str], system: System) -> list[SetUpPlaceOut]:
    """How each place stands by its newest reading."""
    newest = {one.position: one for one in stands}
    return [
        SetUpPlaceOut(
            label=positions.find(one.position).label,
            state=one.value.choice,
            shown=describe.full(check, one.value, system),
            day=one.at.date(),
            by=names.get(one.by, ""),
            walk_around=one.walk_around,
        )
        for one in sorted(newest.values(), key=lambda one: positions.reading_order(one.position))
    ]


def _wants(check: Check, schools: dict[str, str]) -> list[CropWantsOut]:
    """What each crop wants of it; crops that ask for nothing are left out."""
    if not isinstance(check.rule, FittedRule):
        return []
    by_crop = {crop: check.rule.wanted(crop, schools) for crop in CROP_NAMES}
    return [
        CropWantsOut(
            crop=crop,
            states=[one.key for one in wanted],
            names=[one.name for one in wanted if one.severity == "sound"],
        )
        for crop, wanted in by_crop.items()
        if wanted
    ]


def _changes(check: Check, stands: list[Stands], names: dict[int, str], system: System) -> list[SetUpChangeOut]:
    """Where a place was read otherwise than the time before, the newest first."""
    found = []
    by_place = sorted(stands, key=lambda one: one.position)
    for place, read in groupby(by_place, key=lambda one: one.position):
        before = ""
        for one in sorted(read, key=lambda one: one.at):
            shown = describe.full(check, one.value, system)
            if shown != before:
                label = positions.find(place).label
                found.append(SetUpChangeOut(label=label, before=before, after=shown, at=one.at, by=names.get(one.by, "")))
            before = shown
    return sorted(found, key=lambda one: one.at, reverse=True)
