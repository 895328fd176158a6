"""What else lies open while a part is renewed, and where."""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass

from .. import positions
from ..catalogue.lists import Reach, StripDown
from .companions import place_at


@dataclass(frozen=True)
class LaidOpen:
    """A part reached by a strip-down. because, at: the slot and position whose renewal opens it."""

    strip_down: StripDown
    reach: Reach
    position: str
    because: str
    at: str


Placed = Callable[[str], Sequence[str]]
"""The places at which a check is made on this machine."""


def laid_open(strip_downs: Sequence[StripDown], renewed: Iterable[tuple[str, str]], places: Placed) -> list[LaidOpen]:
    """Parts that lie open while these (slot, position) are renewed, and are not on the list anyway; each once, in their order.

    Slots as the family calls them, without a header's prefix: a strip-down belongs to one machine. A piece for the whole
    machine is there at every place.
    """
    renewed = list(dict.fromkeys(renewed))
    found: dict[tuple[str, str], LaidOpen] = {}
    for slot, position in renewed:
        for down in strip_downs:
            if slot not in down.for_:
                continue
            for reach in down.reaches:
                for where in _where(reach, position, places):
                    if not {(reach.slot, where), (reach.slot, positions.WHOLE.key)} & set(renewed):
                        found.setdefault((reach.slot, where), LaidOpen(down, reach, where, slot, position))
    return list(found.values())


def _where(reach: Reach, position: str, places: Placed) -> list[str]:
    at = positions.find(position)
    if reach.at == "each":
        return list(places(reach.check))
    if reach.at == "across":
        return list(dict.fromkeys([at.key, at.across.key]))
    return [place_at(at, reach.at).key]


def p_fail(reach: Reach, severity: str) -> float:
    """Chance in a season that this part would call for the strip-down again, as it was found; not seen counts as watched."""
    return reach.p_fail if severity == "sound" else reach.p_fail_watch


def life_left(severity: str, used: float | None) -> float:
    """Share of life left: as measured, else half of a sound part's and a quarter of any other's."""
    if used is not None:
        return max(0.0, 1 - used)
    return 0.5 if severity == "sound" else 0.25
