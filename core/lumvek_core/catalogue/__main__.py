"""Check the shipped catalogue and write its schema for editors: ``./lumvek catalogue``."""

import json
import sys
from typing import Any

from .. import structure
from ..errors import BadInput
from .load import SHIPPED, load
from .model import Family


def family_schema() -> dict[str, Any]:
    """JSON Schema of a family file."""
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "A family of machines",
        **structure.schema(Family),
    }


def main() -> int:
    try:
        catalogue = load()
    except BadInput as problem:
        print(f"{problem.field}: {problem.message}", file=sys.stderr)
        return 2
    (SHIPPED / "schema.json").write_text(json.dumps(family_schema(), indent=1) + "\n", encoding="utf-8")
    for family in catalogue.families.values():
        print(f"{family.name}: {len(family.stations)} stations, {len(family.checks)} checks, {len(family.slots)} parts")
    return 0


if __name__ == "__main__":
    sys.exit(main())
