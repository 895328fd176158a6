"""Variables of the season's plan for OR-Tools' CP-SAT: when each work begins and ends, by whom, and where."""

from collections.abc import Collection, Mapping, Sequence
from typing import Any

from ortools.sat.python import cp_model

from ..planning.season.pins import Pinned
from ..planning.season.problem import Placed, Problem, Work
from ..planning.season.rules import Draft
from ..planning.season.working_time import Crew

Var = Any
"""A variable of CP-SAT, or a number that stands for one."""


class SeasonVariables:
    """Where the free works of a draft may stand, and who may do them; the others stand where the draft has them."""

    def __init__(
        self, problem: Problem, pinned: Pinned, draft: Draft, free: Collection[int], window: tuple[int, int] | None = None
    ) -> None:
        """window: slots that placed free works begin and end between."""
        self.problem, self.pinned, self.draft, self.window = problem, pinned, draft, window
        self.free = {number for number in free if number not in pinned.held}
        # Only where a draft found no room for something may works be left out, and pins begin too soon.
        self.tight = bool(draft.broken) or len(draft.placed) < len(problem.works)
        self.works = [work for work in problem.works if work.number in self.free or work.number in draft.placed]
        self.model = cp_model.CpModel()
        self.hints: list[tuple[Var, int]] = []
        self.start: dict[int, Var] = {}
        self.end: dict[int, Var] = {}
        self.size: dict[int, Var] = {}
        self.reach: dict[int, tuple[int, int]] = {}
        self.there: dict[int, Var] = {}
        self.crews: dict[int, dict[Crew, Var]] = {}
        self.person: dict[int, dict[int, Var]] = {}
        self.spot: dict[int, dict[int, Var]] = {}
        self.order: dict[tuple[int, int], Var] = {}
        self.kept: list[Var] = []
        for work in self.works:
            if work.number in self.free:
                self._free_work(work)
            else:
                self._fixed_work(work)

    def _number(self, low: int, high: int, name: str, hint: int | None) -> Var:
        found = self.model.new_int_var(low, high, name)
        if hint is not None:
            self.hints.append((found, hint))
        return found

    def _truth(self, name: str, hint: bool | None) -> Var:
        found = self.model.new_bool_var(name)
        if hint is not None:
            self.hints.append((found, int(hint)))
        return found

    def _fixed_work(self, work: Work) -> None:
        at, n = self.draft.placed[work.number], work.number
        self.start[n], self.end[n], self.size[n], self.there[n] = at.start, at.end, at.end - at.start, 1
        self.reach[n] = at.start, at.end
        self.crews[n], self.person[n] = {at.crew: 1}, dict.fromkeys(at.crew, 1)
        self.spot[n] = {} if at.spot is None else {at.spot: 1}

    def _free_work(self, work: Work) -> None:
        n, model, at = work.number, self.model, self.draft.placed.get(work.number)
        starts = self._starts(work, at)
        start = model.new_int_var_from_domain(cp_model.Domain.from_values(starts), f"s{n}")
        kinds = {id(ends): ends for ends in work.ends.values()}
        lasts = [ends[slot] for ends in kinds.values() for slot in starts if slot in ends]
        sizes = {ends[slot] - slot for ends in kinds.values() for slot in starts if slot in ends}
        end = self._number(min(lasts), max(lasts), f"e{n}", at.end if at else None)
        if at:
            self.hints.append((start, at.start))
        there = self._truth(f"there{n}", at is not None) if self.tight else 1
        if len(work.ends) == 1:
            crews = dict.fromkeys(work.ends, there)
        else:
            crews = {crew: self._truth(f"c{n}.{crew}", at is not None and at.crew == crew) for crew in work.ends}
            model.add(sum(crews.values()) == there)
        size = min(sizes) if len(sizes) == 1 else self._number(
            min(sizes), max(sizes), f"d{n}", at.end - at.start if at else None)  # fmt: skip
        model.add(end == start + size)
        for key, ends in kinds.items():
            mine = [crews[crew] for crew, its in work.ends.items() if id(its) == key]
            self._ends(work, starts, ends, start, size, mine, only=len(kinds) == 1)
        self.start[n], self.end[n], self.size[n], self.there[n], self.crews[n] = start, end, size, there, crews
        self.reach[n] = min(starts), max(lasts)
        people: dict[int, list[Var]] = {}
        for crew, chosen in crews.items():
            for person in crew:
                people.setdefault(person, []).append(chosen)
        self.person[n] = {
            person: chosen[0] if len(chosen) == 1 else self._any(chosen, f"p{n}.{person}", at, person)
            for person, chosen in people.items()
        }
        self.spot[n] = self._where(work, there, at)

    def _starts(self, work: Work, at: Placed | None) -> list[int]:
        if work.pinned is not None:
            return [work.pinned]
        if at is None or self.window is None:
            return list(work.starts)
        low, high = self.window
        return [
            start for start in work.starts
            if (low <= start and any(ends.get(start, high + 1) <= high for ends in work.ends.values())) or start == at.start
        ]  # fmt: skip

    def _any(self, chosen: Sequence[Var], name: str, at: Placed | None, person: int) -> Var:
        found = self._truth(name, at is not None and person in at.crew)
        self.model.add(sum(chosen) == found)
        return found

    def _where(self, work: Work, there: Var, at: Placed | None) -> dict[int, Var]:
        if len(work.spots) <= 1:
            return dict.fromkeys(work.spots, there)
        found = {spot: self._truth(f"w{work.number}.{spot}", at is not None and at.spot == spot) for spot in work.spots}
        self.model.add(sum(found.values()) == there)
        return found

    def _ends(
        self, work: Work, starts: list[int], ends: Mapping[int, int], start: Var, size: Var, chosen: list[Var], *, only: bool
    ) -> None:
        """How long it takes by when it begins, of the crews with one calendar: it goes on behind what lies between."""
        by_size: dict[int, list[int]] = {}
        for slot in starts:
            if slot in ends:
                by_size.setdefault(ends[slot] - slot, []).append(slot)
        at = self.draft.placed.get(work.number)
        mine = at is not None and any(id(ends) == id(work.ends[crew]) for crew in work.ends if crew == at.crew)
        if only and len(by_size) == 1:
            return
        found = []
        for many, slots in by_size.items():
            this = self._truth(f"z{work.number}.{id(ends)}.{many}", mine and at is not None and at.start in slots)
            domain = cp_model.Domain.from_values(slots)
            self.model.add_linear_expression_in_domain(start, domain).only_enforce_if(this)
            if not isinstance(size, int):
                self.model.add(size == many).only_enforce_if(this)
            found.append(this)
        self.model.add(sum(found) == sum(chosen))
