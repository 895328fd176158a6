"""Check the shipped catalogue and write the schemas of its files for editors: ``./lumvek catalogue``."""

import json
import sys
from typing import Any

from .. import reference, structure
from ..errors import BadInput
from .calibration import Calibrations
from .field_settings import FieldSettings
from .lists import Companion, Renamed, Safety, School, Service, StripDown, WorkTimes
from .load import SHIPPED, load
from .model import FamilyHead, SharedHead, Station
from .model_file import ModelFile
from .own import OwnChecks
from .shafts import Shafts
from .symptoms import Symptoms

FILES: dict[str, Any] = {
    "family": FamilyHead,
    "shared": SharedHead,
    "station": Station,
    "companions": list[Companion],
    "schools": list[School],
    "safety": Safety,
    "strip-downs": list[StripDown],
    "services": list[Service],
    "work": WorkTimes,
    "calibrations": Calibrations,
    "field-settings": FieldSettings,
    "symptoms": Symptoms,
    "shafts": Shafts,
    "renamed": Renamed,
    "own-checks": OwnChecks,
    "model": ModelFile,
}
"""What each kind of file may say."""


def schemas() -> dict[str, dict[str, Any]]:
    """JSON Schema of each kind of file."""
    draft = "https://json-schema.org/draft/2020-12/schema"
    return {
        name: {"$schema": draft, "title": f"Lumvek catalogue: {name}", **structure.schema(kind)} for name, kind in FILES.items()
    }


def main() -> int:
    try:
        catalogue = load(SHIPPED)
    except BadInput as problem:
        print(problem.message if problem.field == "catalogue" else f"{problem.field}: {problem.message}", file=sys.stderr)
        return 2
    folder = SHIPPED / "schemas"
    folder.mkdir(exist_ok=True)
    for name, schema in schemas().items():
        (folder / f"{name}.json").write_text(json.dumps(schema, indent=1) + "\n", encoding="utf-8")
    reference.main()
    for family in catalogue.families.values():
        print(f"{family.name}: {len(family.stations)} stations, {len(family.checks)} checks, {len(family.slots)} parts")
    return 0


if __name__ == "__main__":
    sys.exit(main())
