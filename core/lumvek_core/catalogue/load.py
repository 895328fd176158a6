"""Reading the catalogue's folder: a folder a family, a file a station. What does not resolve is refused (`resolve`)."""

import functools
from dataclasses import dataclass, fields
from pathlib import Path
from typing import Any

from ..coupled import long
from ..errors import BadInput, nearest
from . import files, resolve
from .calibration import Calibrations
from .field_settings import FieldSettings
from .files import Written
from .lists import Catalogue, Companion, Renamed, Safety, School, Service, StripDown, WorkTimes
from .model import Family, FamilyHead, SharedHead, Station
from .qualify import qualified
from .shafts import Shafts
from .symptoms import Symptoms

SHIPPED = Path(__file__).resolve().parents[3] / "catalogue"


@functools.cache
def shipped() -> Catalogue:
    """The catalogue that lies beside this package, read once. Raises BadInput as `load` does."""
    return load(SHIPPED)


def load(folder: Path) -> Catalogue:
    """The catalogue in `folder`. Raises BadInput with file and line of the first thing that is wrong, or of all that leads
    nowhere."""
    read = [_family(path.parent, folder) for path in sorted((folder / "families").glob("*/family.yaml"))]
    lists: dict[str, Written[Any]] = {
        "companions": files.read(list[Companion], folder / "companions.yaml", folder),
        "schools": files.read(list[School], folder / "schools.yaml", folder),
        "strip-downs": files.read(list[StripDown], folder / "strip-downs.yaml", folder),
        "services": files.read(list[Service], folder / "services.yaml", folder),
    }
    safety: Written[Safety] = files.read(Safety, folder / "safety.yaml", folder)
    work: Written[WorkTimes] = files.read(WorkTimes, folder / "work.yaml", folder)
    renamed: Written[Renamed] = files.read(Renamed, folder / "renamed.yaml", folder)
    calibrations: Written[Calibrations] = files.read(Calibrations, folder / "calibrations.yaml", folder)
    field_settings: Written[FieldSettings] = files.read(FieldSettings, folder / "field-settings.yaml", folder)
    symptoms: Written[Symptoms] = files.read(Symptoms, folder / "symptoms.yaml", folder)
    shafts: Written[Shafts] = files.read(Shafts, folder / "shafts.yaml", folder)
    catalogue = Catalogue(
        families={one.family.family: one.family for one in read},
        companions=lists["companions"].value,
        schools={school.subject: school for school in lists["schools"].value},
        safety=safety.value,
        work=work.value,
        strip_downs=lists["strip-downs"].value,
        services=lists["services"].value,
        renamed=renamed.value,
        calibrations=calibrations.value,
        field_settings=field_settings.value,
        symptoms=symptoms.value,
        shafts=shafts.value,
    )
    written = {
        **lists,
        "safety": safety,
        "work": work,
        "renamed": renamed,
        "calibrations": calibrations,
        "field-settings": field_settings,
        "symptoms": symptoms,
        "shafts": shafts,
    }
    places = resolve.Places({one.family.family: one.places for one in read}, written)
    problems = list(resolve.unresolved(catalogue, places))
    if problems:
        raise BadInput("catalogue", "\n".join(problems))
    return catalogue


@dataclass(frozen=True)
class _Read:
    """A family with where its parts were written: ``""`` for its head, stations and checks by their full keys."""

    family: Family
    places: dict[str, str]


def _family(folder: Path, root: Path) -> _Read:
    head: Written[FamilyHead] = files.read(FamilyHead, folder / "family.yaml", root)
    shared = [_shared(root / "shared" / name, root) for name in head.value.include]
    own = _stations(folder, head.value.route, head, root)
    written = [station for one, stations in shared for station in stations] + own
    slots, options, things = dict(head.value.slots), dict(head.value.options), dict(head.value.things)
    for one, _ in reversed(shared):
        slots, options, things = one.slots | slots, one.options | options, one.things | things
    given = {field.name: getattr(head.value, field.name) for field in fields(FamilyHead)}
    family = Family(**given | {"slots": slots, "options": options, "things": things}, stations=[one.value for one in written])
    places = {"": head.at()}
    for station in written:
        places[long(family.prefix, station.value.key)] = station.at("key")
        for i, check in enumerate(station.value.checks):
            places[long(family.prefix, check.key)] = station.at(f"checks.{i}")
    places |= {long(family.prefix, slot): head.at(f"slots.{slot}") for slot in head.value.slots}
    return _Read(qualified(family), places)


def _shared(folder: Path, root: Path) -> tuple[SharedHead, list[Written[Station]]]:
    """Stations that several families have alike; they stand where `include` names them: before the family's own, in that
    order.
    """
    head: Written[SharedHead] = files.read(SharedHead, folder / "shared.yaml", root)
    return head.value, _stations(folder, head.value.route, head, root)


def _stations(
    folder: Path, route: list[str], head: Written[FamilyHead] | Written[SharedHead], root: Path
) -> list[Written[Station]]:
    """The stations of a route, each from the file of its name; a file that is in no route is refused, and so is another key."""
    there = {path.stem for path in folder.glob("*.yaml")} - {Path(head.name).stem}
    for key in sorted(there - set(route)):
        raise BadInput(head.at("route"), f"{key}.yaml lies in this folder and is not in the route{nearest(key, route)}")
    found = []
    for i, key in enumerate(route):
        if key not in there:
            raise BadInput(head.at(f"route.{i}"), f"there is no file {key}.yaml{nearest(key, there)}")
        station: Written[Station] = files.read(Station, folder / f"{key}.yaml", root)
        if station.value.key != key:
            raise BadInput(station.at("key"), f"the key must be the name of the file, {key}")
        found.append(station)
    return found
