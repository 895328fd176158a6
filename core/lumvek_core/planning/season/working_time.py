"""The shop's working time as a row of slots: nights and days off are left out, so that work that is left in the evening goes on
in the next slot."""

import datetime as dt
from bisect import bisect_left
from collections.abc import Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property
from math import ceil
from typing import Any, Protocol

from ...calculators.common import day, moment
from ...errors import BadInput
from .model import SeasonGiven, Span

MOST_SLOTS = 6000
"""Of one plan: more cannot be planned in the time there is."""
Moments = tuple[dt.datetime, dt.datetime]
Crew = tuple[int, ...]
"""Technicians by number, ascending."""


class HasEnds(Protocol):
    @property
    def start(self) -> str: ...
    @property
    def end(self) -> str: ...


def span(given: HasEnds, field: str) -> Moments:
    """Beginning and end. Raises BadInput at `field` where there is nothing between them."""
    start, end = moment(given.start, f"{field}.start"), moment(given.end, f"{field}.end")
    if end <= start:
        raise BadInput(f"{field}.end", "must be later than its start")
    return start, end


@dataclass(frozen=True, eq=False)
class Calendar:
    """When certain people can do certain work. open: the slots, ascending."""

    open: tuple[int, ...]

    @cached_property
    def rank(self) -> dict[int, int]:
        return {slot: i for i, slot in enumerate(self.open)}


@dataclass(frozen=True)
class WorkingTime:
    """Slots in which anybody works. clock: each slot's number on the clock, in slots from midnight of the first day."""

    origin: dt.datetime
    now: dt.datetime
    ends: dt.datetime
    slot: dt.timedelta
    clock: tuple[int, ...]
    of_technician: tuple[Calendar, ...]
    dry: frozenset[int]
    known: dict[Hashable, Any] = field(default_factory=dict, compare=False)

    @classmethod
    def of(cls, given: SeasonGiven) -> "WorkingTime":
        """Raises BadInput."""
        now = moment(given.now, "now")
        origin, slot = now.replace(hour=0, minute=0, second=0, microsecond=0), dt.timedelta(minutes=given.slot_min)
        try:
            ends = now + dt.timedelta(days=given.horizon_days)
        except OverflowError:
            raise BadInput("now", "is too late a day to plan from") from None
        works = [_slots_of(one.shifts, f"technicians.{i}.shifts", origin, slot, now, ends)
                 for i, one in enumerate(given.technicians)]  # fmt: skip
        clock = tuple(sorted(set().union(*works)))
        if len(clock) > MOST_SLOTS:
            raise BadInput("slot_min", f"there are {len(clock)} slots to plan, and {MOST_SLOTS} are the most: longer ones do")
        at = {number: i for i, number in enumerate(clock)}
        dry = _slots_of(given.dry, "dry", origin, slot, now, ends)
        return cls(
            origin,
            now,
            ends,
            slot,
            clock,
            tuple(Calendar(tuple(at[number] for number in sorted(mine))) for mine in works),
            frozenset(at[number] for number in dry if number in at),
        )

    def __len__(self) -> int:
        return len(self.clock)

    def begins(self, slot: int) -> dt.datetime:
        return self.origin + self.clock[slot] * self.slot

    def end_of(self, slot: int) -> dt.datetime:
        return self.begins(slot) + self.slot

    def first_from(self, when: dt.datetime) -> int:
        """The first slot that begins at that moment or later; as many as there are slots where none does."""
        return bisect_left(self.clock, ceil((when - self.origin) / self.slot))

    def finished(self, slot: int) -> dt.datetime:
        """When work is done that goes on to just before a slot."""
        return self.end_of(slot - 1) if slot else self.now

    def slots(self, minutes: float) -> int:
        """Whole slots that so many minutes take."""
        return ceil(minutes / (self.slot / dt.timedelta(minutes=1)) - 1e-9)

    def due(self, season_date: str, field: str) -> dt.datetime:
        """The end of the last shift before a day; that day's first minute where nobody works before it."""
        morning = dt.datetime.combine(day(season_date, field), dt.time())
        last = self.first_from(morning)
        return self.finished(last) if last else morning

    def late(self, due: dt.datetime) -> list[int]:
        """For work that is finished before each slot, and after the last one: slots on the clock that it is late."""
        return [max(0, ceil((self.finished(slot) - due) / self.slot)) if slot else 0 for slot in range(len(self) + 1)]

    def stretches(self, calendar: Calendar, start: int, many: int) -> list[tuple[dt.datetime, dt.datetime]]:
        """So many slots of a calendar from `start` on, as stretches on the clock."""
        first = calendar.rank[start]
        found: list[tuple[dt.datetime, dt.datetime]] = []
        for slot in calendar.open[first : first + many]:
            begins, ends = self.begins(slot), self.end_of(slot)
            if found and found[-1][1] == begins:
                found[-1] = (found[-1][0], ends)
            else:
                found.append((begins, ends))
        return found

    def calendar(self, crew: Crew, *, dry_only: bool) -> Calendar:
        """When all of a crew work, in dry weather alone where that matters."""
        key = ("calendar", crew, dry_only)
        if key not in self.known:
            common = set.intersection(*(set(self.of_technician[i].open) for i in crew))
            open_ = tuple(sorted(common & self.dry if dry_only else common))
            # Crews that work at the same times share one.
            self.known[key] = self.known.setdefault(open_, Calendar(open_))
        found: Calendar = self.known[key]
        return found

    def ends_by_start(self, calendar: Calendar, many: int, *, splittable: bool) -> Mapping[int, int]:
        """Where work of so many slots ends that begins in each slot it can begin in, ascending."""
        key = (id(calendar), many, splittable)
        if key not in self.known:
            slots, found = calendar.open, {}
            for first, last in zip(slots, slots[many - 1 :], strict=False):
                if splittable or self.clock[last] - self.clock[first] == many - 1:
                    found[first] = last + 1
            self.known[key] = found
        known: Mapping[int, int] = self.known[key]
        return known


def _slots_of(
    spans: Sequence[Span], field: str, origin: dt.datetime, slot: dt.timedelta, now: dt.datetime, ends: dt.datetime
) -> set[int]:
    """Slots on the clock that lie wholly in one of these, from now to the end of the plan."""
    read = [span(one, f"{field}.{i}") for i, one in enumerate(spans)]
    first, last = ceil((now - origin) / slot), (ends - origin) // slot
    return {
        number
        for start, end in _joined(read)
        for number in range(max(first, ceil((start - origin) / slot)), min(last, (end - origin) // slot))
    }


def _joined(spans: Iterable[Moments]) -> list[Moments]:
    """Without overlaps: what touches is one."""
    found: list[Moments] = []
    for start, end in sorted(spans):
        if found and start <= found[-1][1]:
            found[-1] = (found[-1][0], max(end, found[-1][1]))
        else:
            found.append((start, end))
    return found
