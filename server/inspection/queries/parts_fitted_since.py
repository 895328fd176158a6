"""Where a part was renewed since it was read: its wear starts anew, and the older reading says nothing about it."""

import datetime as dt
from dataclasses import dataclass

from fleet.models import Fitment
from fleet.queries.machines import fitments_of
from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.judgement.companions import place_at
from shops.days import said

from ..models import WalkAround
from . import coupled


@dataclass(frozen=True)
class Renewed:
    """What is on record as fitted on the machine of a walk-around and its headers: (slot with prefix, position) → fitment."""

    fitted: dict[tuple[str, str], Fitment]

    def at(self, check: Check, position: str, read_at: dt.datetime) -> Fitment | None:
        """The part that this check looks at, if it was fitted after `read_at`."""
        for part in check.own_parts:
            found = self.fitted.get((part.slot, place_at(positions.find(position), part.at).key))
            if found and found.fitted_at > read_at:
                return found
        return None


NOTHING = Renewed({})


def of(walk_around: WalkAround) -> Renewed:
    """One query, two with headers."""
    there = coupled.of(walk_around)
    by_machine = {machine.pk: machine for _, machine in there}
    return Renewed(
        {
            (there.key(by_machine[machine], slot), position): one
            for (machine, slot, position), one in fitments_of(by_machine).items()
        }
    )


def in_words(fitment: Fitment) -> str:
    """``Fitted 23 Nov 2026 at 2860 ha: 0 % worn.``"""
    unit = "h" if fitment.machine.hours is not None else "ha"
    at = f" at {fitment.counter:g} {unit}" if fitment.counter is not None else ""
    return f"New part fitted {said(fitment.fitted_at)}{at}: 0 % worn."
