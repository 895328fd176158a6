"""Machines as a table: written for a spreadsheet, and the lines of one from outside understood."""

import datetime as dt
import uuid
from collections.abc import Iterable, Mapping
from typing import Literal, TypeVar

from django.db.models import QuerySet

from fleet.models import Machine, MachineModel
from fleet.queries.machines import machines_for
from lumvek_core.catalogue.model import Family
from lumvek_core.coupled import short
from lumvek_core.errors import BadInput
from lumvek_core.units import show_mm
from shops.models import Member
from tabular.tables import day_in, whole_in

from ..schemas_machines import ModelIn, NewMachineIn, ParticularsIn
from . import rule_books

WANTED = ("kind", "maker", "model", "name")
COLUMNS = (
    *WANTED,
    "serial",
    "rows",
    "row spacing",
    "behind wheels",
    "options",
    "counter",
    "season date",
    "late counts",
    "folded width",
    "folded height",
    "goes with",
    "owners",
)
BETWEEN = ";"
T = TypeVar("T")


def written(member: Member) -> list[list[str]]:
    """The machines in use, a line each under `COLUMNS`. Four queries."""
    machines = machines_for(member).prefetch_related("owners__user", "goes_with")
    return [list(COLUMNS), *(_line(machine) for machine in machines)]


def _line(machine: Machine) -> list[str]:
    family = rule_books.shipped().families[machine.model.family]
    names = {short(key): name for key, name in family.options.items()}
    counter = machine.hours if family.counter == "h" else machine.area_ha
    told = {
        "kind": family.name,
        "maker": machine.model.maker,
        "model": machine.model.name,
        "name": machine.name,
        "serial": machine.serial,
        "rows": str(machine.rows or ""),
        "row spacing": _shown(machine.row_spacing_mm),
        "behind wheels": _together(map(str, machine.track_rows)),
        "options": _together(names.get(one, one) for one in machine.options),
        "counter": "" if counter is None else f"{counter:g}",
        "season date": machine.season_date.isoformat() if machine.season_date else "",
        "late counts": str(machine.priority),
        "folded width": _shown(machine.folded_width_mm),
        "folded height": _shown(machine.folded_height_mm),
        "goes with": _together(one.name for one in machine.goes_with.all()),
        "owners": _together(one.name for one in machine.owners.all()),
    }
    return [told[column] for column in COLUMNS]


class Lines:
    """Lines of a table from outside, in the light of what the shop has: models and combines may be of a line before."""

    def __init__(self, member: Member) -> None:
        self.member = member
        families = rule_books.shipped().families
        self.kinds = {word.lower(): family for family in families.values() for word in (family.name, family.family)}
        self.people = _by_name(Member.objects.of(member).filter(left_at=None).select_related("user"))
        self.names = {name.lower(): name for name in Machine.objects.of(member).values_list("name", flat=True)}
        self.models = {_called(one): one for one in MachineModel.objects.of(member)}
        self._in_use = {one.name.lower(): one.pk for one in machines_for(member)}

    def has(self, machine: Machine) -> None:
        """A line has added this one: later ones may be of its model, or go with it."""
        self.names[machine.name.lower()] = machine.name
        self.models[_called(machine.model)] = machine.model
        self._in_use[machine.name.lower()] = machine.pk

    def family(self, cells: Mapping[str, str]) -> Family:
        """What kind of machine a line is of. Raises BadInput with field ``kind``."""
        found = self.kinds.get(cells["kind"].lower())
        if found is None:
            known = ", ".join(family.name for family in rule_books.shipped().families.values())
            raise BadInput("kind", f"“{cells['kind']}” is none of {known}")
        return found

    def wanted(self, cells: Mapping[str, str]) -> NewMachineIn:
        """A line as a machine to add; the same line is the same machine. Raises BadInput with a column as field."""
        family = self.family(cells)
        model = self.models.get((cells["maker"].lower(), cells["model"].lower()))
        if model is not None and model.family != family.family:
            raise BadInput("model", f"{model.full_name} is a {rule_books.shipped().families[model.family].name.lower()} here")
        options = {word.lower(): short(key) for key, name in family.options.items() for word in (name, short(key))}
        return NewMachineIn(
            uuid=uuid.uuid5(uuid.NAMESPACE_OID, f"{self.member.shop_id} {cells['name'].lower()}"),
            model=ModelIn(
                id=model.pk if model else None, family=family.family, maker=cells["maker"][:60], name=cells["model"][:60]
            ),
            machine=ParticularsIn(
                name=cells["name"][:80],
                serial=cells.get("serial", "")[:60],
                rows=whole_in(cells["rows"], "rows", 0, 400) if cells.get("rows") else 0,
                track_rows=[whole_in(one, "behind wheels", 1, 400) for one in _apart(cells, "behind wheels")],
                options=[_known(options, one, "options") for one in _apart(cells, "options")],
                season_date=_day(cells.get("season date", "")),
                priority=_priority(cells.get("late counts", "")),
                row_spacing=cells.get("row spacing", ""),
                folded_width=cells.get("folded width", ""),
                folded_height=cells.get("folded height", ""),
                owners=[_known(self.people, one, "owners") for one in _apart(cells, "owners")],
                goes_with=[_known(self._in_use, one, "goes with") for one in _apart(cells, "goes with")],
            ),
            counter=cells.get("counter", ""),
        )


def _called(model: MachineModel) -> tuple[str, str]:
    return model.maker.lower(), model.name.lower()


def _by_name(members: QuerySet[Member]) -> dict[str, int]:
    return {word.lower(): one.pk for one in members for word in (one.name, one.user.get_username())}


def _known(there: Mapping[str, T], word: str, column: str) -> T:
    if word.lower() not in there:
        raise BadInput(column, f"“{word}” is not known")
    return there[word.lower()]


def _apart(cells: Mapping[str, str], column: str) -> list[str]:
    return [one.strip() for one in cells.get(column, "").split(BETWEEN) if one.strip()]


def _together(words: Iterable[str]) -> str:
    return f"{BETWEEN} ".join(words)


def _shown(length: float | None) -> str:
    return "" if length is None else show_mm(length)


def _priority(text: str) -> Literal[1, 2, 4]:
    known: dict[str, Literal[1, 2, 4]] = {"": 1, "1": 1, "2": 2, "4": 4}
    if text not in known:
        raise BadInput("late counts", "must be 1, 2 or 4: how many times as bad it is when it is late")
    return known[text]


def _day(text: str) -> dt.date | None:
    return day_in(text, "season date").date() if text else None
