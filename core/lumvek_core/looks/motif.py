"""Motifs by name: what draws one from its figures, and which figures each state has."""

import importlib
import pkgutil
from collections.abc import Callable, Mapping
from dataclasses import dataclass, fields
from functools import cache

from .strokes import Stroke


@dataclass(frozen=True)
class Figures:
    """How worn or wrong it is, 0 as it should be and 1 at its worst. place: where something adjustable stands, 0 to 1.

    wear: material lost; hook: lost to one side; crack, bend, tear, hole, gone, loose, dirt, rust, hard: as the words say;
    drops: how many of oil; many: how many of several are so.
    """

    wear: float = 0.0
    hook: float = 0.0
    crack: float = 0.0
    bend: float = 0.0
    tear: float = 0.0
    hole: float = 0.0
    gone: float = 0.0
    loose: float = 0.0
    dirt: float = 0.0
    rust: float = 0.0
    hard: float = 0.0
    drops: float = 0.0
    many: float = 0.0
    place: float = 0.5


def _figures(told: str) -> dict[str, float]:
    """``wear 1 hook 1`` as figures."""
    words = told.split()
    return {name: float(figure) for name, figure in zip(words[::2], words[1::2], strict=True)}


def told(table: str) -> dict[str, dict[str, float]]:
    """States with their figures as they are written down: ``right place 0.35, tight, kinked bend 1``."""
    rows = (row.strip().partition(" ") for row in table.split(","))
    return {state: _figures(figures) for state, _, figures in rows}


KNOWN = frozenset(field.name for field in fields(Figures))
Draw = Callable[[Figures], list[Stroke]]

USUAL = {
    state: _figures(figures)
    for figures, states in {
        "": "whole sound right good new full sharp tight firm smooth free none round "
        "straight dry clean clear close flat soft even hold holds there alike square",
        "wear 1": "worn short end",
        "wear 0.45": "begun slight rounded",
        "wear 0.7": "thin",
        "wear 0.6": "side",
        "wear 1 hook 1": "hooked hook",
        "crack 1": "cracked crack",
        "crack 1 gone 0.5": "broken",
        "gone 1": "missing gone",
        "bend 1": "bent warped",
        "tear 1": "torn splice",
        "wear 0.7 hole 1": "holed hole through",
        "loose 1": "loose play wiggle wobble seen",
        "loose 0.45": "felt light",
        "dirt 1": "dirty matted",
        "rust 1": "rust surface dust stiff stuck",
        "drops 1": "weep wet",
        "drops 4": "leak",
        "hard 1": "hard brittle",
        "loose 0.7": "weak",
    }.items()
    for state in states.split()
}
"""States that mean the same on every motif."""


@dataclass(frozen=True)
class Motif:
    """states: its own, before the usual ones. counted: what is counted of it, the sound one first. words: what fingers and ears
    tell, by state.
    """

    draw: Draw
    states: Mapping[str, Mapping[str, float]]
    counted: tuple[str, ...]
    words: Mapping[str, str]

    def figures(self, state: str) -> Figures | None:
        """The figures of a state; None for one that this motif does not know."""
        found = self.states.get(state, USUAL.get(state))
        return None if found is None else Figures(**found)


_MOTIFS: dict[str, Motif] = {}


def motif(
    *,
    counted: tuple[str, ...] = (),
    words: Mapping[str, str] | None = None,
    states: Mapping[str, Mapping[str, float]] | None = None,
    name: str = "",
) -> Callable[[Draw], Draw]:
    """Register a drawing as the motif of its function's name."""

    def registered(draw: Draw) -> Draw:
        _MOTIFS[(name or draw.__name__).replace("_", "-")] = Motif(draw, states or {}, counted, words or {})
        return draw

    return registered


@cache
def motifs() -> dict[str, Motif]:
    """All motifs by name."""
    from .. import looks

    for module in pkgutil.iter_modules(looks.__path__):
        if module.name not in ("__main__", "motif", "strokes"):
            importlib.import_module(f"{looks.__name__}.{module.name}")
    return dict(sorted(_MOTIFS.items()))


def look(name: str, state: str) -> list[Stroke]:
    """The strokes of a motif in one state; none where either is not known."""
    found = motifs().get(name)
    figures = found.figures(state) if found else None
    return found.draw(figures) if found and figures else []
