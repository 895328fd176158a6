"""Writes every look that the catalogue calls for, for the front end: ``python -m lumvek_core.looks``."""

import json

from ..catalogue import load
from .motif import look, motifs
from .wanted import looks_of


def as_json() -> str:
    """Motif → what is counted of it, what fingers and ears tell, and of each state the strokes as [role, d]. A line a motif."""
    wanted: dict[str, set[str]] = {}
    for family in load.shipped().families.values():
        for check in family.checks.values():
            for one in looks_of(check):
                wanted.setdefault(one.motif, set()).add(one.state)
    lines = []
    for name, states in sorted(wanted.items()):
        drawn = {state: [[stroke.role, stroke.d] for stroke in look(name, state)] for state in sorted(states)}
        written = {"counted": motifs()[name].counted, "words": motifs()[name].words, "states": drawn}
        lines.append(f'"{name}": {json.dumps(written, ensure_ascii=False, separators=(",", ":"))}')
    return "{\n" + ",\n".join(lines) + "\n}\n"


if __name__ == "__main__":
    print(as_json(), end="")
