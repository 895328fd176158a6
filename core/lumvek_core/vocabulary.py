"""Words for keys that stand on screens and on paper alike, said once.

``python -m lumvek_core.vocabulary`` writes them as TypeScript for the front end (scripts/api_types.sh).
"""

import json
from collections.abc import Mapping

SEVERITY_WORDS = {
    "sound": "Sound",
    "watch": "Watch",
    "due": "Due",
    "stop": "Stop",
    "not-seen": "Not seen",
    "does-not-apply": "Does not apply",
    "open": "Open",
    "asked": "Question",
}
"""Verdicts and what stands where there is none."""

PHASE_NAMES = {
    "everything": "Full",
    "after-season": "After-season",
    "winter": "Winter",
    "pre-season": "Pre-season",
    "first-field": "First field",
    "daily": "Daily",
    "crop-change": "Crop change",
    "changeover": "Changeover",
    "arrival": "Arrival",
    "emergence": "Emergence",
    "fault": "Fault",
}
"""Times of the year at which a walk-around is made; each reads well before “walk-around”."""

CROP_NAMES = {"small-grain": "small grain", "pod": "pod crops", "ear": "ear crops", "fine-seed": "fine seed"}


def as_typescript() -> str:
    """Every table above as a constant of its own, with its keys as a type."""
    tables: Mapping[str, Mapping[str, str]] = {
        "SEVERITY_WORDS": SEVERITY_WORDS,
        "PHASE_NAMES": PHASE_NAMES,
        "CROP_NAMES": CROP_NAMES,
    }
    lines = ["/** Written from core/lumvek_core/vocabulary.py by scripts/api_types.sh: change it there. */"]
    for name, table in tables.items():
        lines.append(f"export const {name} = {json.dumps(table, indent=2, ensure_ascii=False)} as const")
    return "\n\n".join(lines) + "\n"


if __name__ == "__main__":
    print(as_typescript(), end="")
