"""The season's plan as a model for OR-Tools' CP-SAT. Loaded only when somebody plans.

Time is in slots of working time (`planning/season/working_time.py`). Works that are not free stand where the draft has them, so
that the same model improves a whole plan or a part of one.
"""

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence
from itertools import combinations, pairwise
from typing import Any

from ortools.sat.python import cp_model

from ..planning.season.pins import Pinned
from ..planning.season.problem import Placed, Problem, Work
from ..planning.season.rules import WITHOUT, Draft, late_of
from ..planning.season.working_time import Crew

Var = Any
"""A variable of CP-SAT, or a number that stands for one."""


class SeasonModel:
    """Where the free works of a draft may stand, and what is to be made least."""

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
        self._people()
        self._machines()
        self._spots()
        self._lifts()
        self._after()
        self._lateness()

    # Variables

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
        longest = max(ends[slot] - slot for ends in kinds.values() for slot in starts if slot in ends)
        end = self._number(min(lasts), max(lasts), f"e{n}", at.end if at else None)
        if at:
            self.hints.append((start, at.start))
        there = self._truth(f"there{n}", at is not None) if self.tight else 1
        if len(work.ends) == 1:
            crews = dict.fromkeys(work.ends, there)
        else:
            crews = {crew: self._truth(f"c{n}.{crew}", at is not None and at.crew == crew) for crew in work.ends}
            model.add(sum(crews.values()) == there)
        size = work.slots if longest == work.slots else self._number(
            work.slots, longest, f"d{n}", at.end - at.start if at else None)  # fmt: skip
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

    # Rules

    def _people(self) -> None:
        everybody: list[tuple[Var, Var]] = []
        for person in range(len(self.problem.given.technicians)):
            mine = []
            fixed: list[tuple[int, int]] = []
            for work in self.works:
                taken = self.person[work.number].get(person)
                if taken is None:
                    continue
                if work.number not in self.free:
                    fixed.append((self.start[work.number], self.end[work.number]))
                else:
                    mine.append(self._interval(work, taken, f"i{work.number}.{person}"))
            mine += [self.model.new_fixed_size_interval_var(start, end - start, "") for start, end in _joined(fixed)]
            self.model.add_no_overlap(mine)
        for work in self.works:
            if work.number in self.free:
                everybody.append((self._interval(work, self.there[work.number], f"a{work.number}"), work.job.hands))
        if len(self.free) == len(self.works):
            # Said again of all together: it bounds what can be done by when.
            self.model.add_cumulative([one for one, _ in everybody], [hands for _, hands in everybody],
                                      len(self.problem.given.technicians))  # fmt: skip

    def _interval(self, work: Work, present: Var, name: str) -> Var:
        n = work.number
        if isinstance(present, int):
            return self.model.new_interval_var(self.start[n], self.size[n], self.end[n], name)
        return self.model.new_optional_interval_var(self.start[n], self.size[n], self.end[n], present, name)

    def _machines(self) -> None:
        for machine, works in self.problem.of_machine.items():
            mine = [work for work in works if work.number in self.start and work.at_machine]
            for one, other in combinations(mine, 2):
                if one.number in self.free or other.number in self.free:
                    self._on_machine(one, other)
            self._hands(machine, mine)

    def _hands(self, machine: int, mine: list[Work]) -> None:
        most = self.problem.given.machines[machine].max_hands
        if sum(work.job.hands for work in mine) > most:
            self._crowd([(work, work.job.hands) for work in mine], most)

    def _crowd(self, loads: list[tuple[Work, int]], most: int) -> None:
        """At most so many at once. What is held there by pins counts for no more than there is room for."""
        intervals, demands = [], []
        fixed = []
        for work, many in loads:
            if work.number in self.free:
                intervals.append(self._interval(work, self.there[work.number], ""))
                demands.append(many)
            else:
                fixed.append((self.start[work.number], self.end[work.number], many))
        for start, end, many in _levels(fixed, most):
            intervals.append(self.model.new_fixed_size_interval_var(start, end - start, ""))
            demands.append(many)
        if intervals:
            self.model.add_cumulative(intervals, demands, most)

    def _on_machine(self, one: Work, other: Work) -> None:
        same = self.problem.together(one, other)
        apart = self._apart(one, other)
        if apart is False and same:
            return
        if isinstance(apart, bool):
            first, second = self.problem.gap(one, other, apart), self.problem.gap(other, one, apart)
            self._one_then_other(one, other, first, second, [])
            return
        moved = self.problem.shunt * apart
        first, second = self.problem.gap(one, other, False) + moved, self.problem.gap(other, one, False) + moved
        self._one_then_other(one, other, first, second, [apart] if same else [])

    def _apart(self, one: Work, other: Work) -> Var:
        """Whether two works are at different spots; True or False where that is known."""
        here, there = self.spot[one.number], self.spot[other.number]
        common = set(here) & set(there)
        if not common:
            return True
        if len(here) == 1 and len(there) == 1:
            return False
        found = self._truth(f"x{one.number}.{other.number}", self._differ(one, other))
        for spot in set(here) | set(there):
            self.model.add(found >= here.get(spot, 0) - there.get(spot, 0))
            self.model.add(found >= there.get(spot, 0) - here.get(spot, 0))
        return found

    def _differ(self, one: Work, other: Work) -> bool | None:
        first, second = self.draft.placed.get(one.number), self.draft.placed.get(other.number)
        return first.spot != second.spot if first and second else None

    def _one_then_other(self, one: Work, other: Work, first: Var, second: Var, where: list[Var]) -> None:
        """One ends before the other begins, with a gap that depends on which is first. where: it holds only if these do."""
        a, b = one.number, other.number
        widest = self.problem.gap(one, other, True) + self.problem.gap(other, one, True) + self.problem.shunt
        if self.reach[a][1] + widest <= self.reach[b][0] or self.reach[b][1] + widest <= self.reach[a][0]:
            return
        before = self._before(a, b)
        present = [*where, *(self.there[n] for n in (a, b) if not isinstance(self.there[n], int))]
        if not isinstance(before, bool):
            self.model.add(self.start[b] >= self.end[a] + first).only_enforce_if([before, *present])
            self.model.add(self.start[a] >= self.end[b] + second).only_enforce_if([before.negated(), *present])
        elif before:
            self.model.add(self.start[b] >= self.end[a] + first).only_enforce_if(present)
        else:
            self.model.add(self.start[a] >= self.end[b] + second).only_enforce_if(present)

    def _before(self, a: int, b: int) -> Var:
        """Whether `a` is done before `b`, where only one of them can be under way."""
        if b in self._ancestors(a):
            return False
        if a in self._ancestors(b):
            return True
        if (a, b) not in self.order:
            first, second = self.draft.placed.get(a), self.draft.placed.get(b)
            self.order[a, b] = self._truth(f"b{a}.{b}", first.start < second.start if first and second else None)
        return self.order[a, b]

    def _ancestors(self, number: int) -> frozenset[int]:
        if not hasattr(self, "_above"):
            self._above: dict[int, frozenset[int]] = {}
            for work in self.problem.works:
                # A pin may begin too soon: then what comes before it says nothing of the order.
                above = [] if work.pinned is not None else [*work.after]
                self._above[work.number] = frozenset(above).union(*(self._above[one] for one in above))
        return self._above[number]

    def _spots(self) -> None:
        for spot, at in enumerate(self.problem.spots):
            if not at.alone:
                continue
            here = [work for work in self.works if spot in self.spot[work.number]]
            for one, other in combinations(here, 2):
                if one.machine == other.machine or not {one.number, other.number} & self.free:
                    continue
                where = [self.spot[n][spot] for n in (one.number, other.number)]
                sure = [chosen for chosen in where if not isinstance(chosen, int)]
                self._one_then_other(one, other, self.problem.shunt, self.problem.shunt, sure)

    def _lifts(self) -> None:
        lifting = [(work, 1) for work in self.works if work.job.lift]
        if lifting:
            self._crowd(lifting, self.problem.given.lifts)

    def _after(self) -> None:
        for work in self.works:
            for before in work.after:
                n = work.number
                if before not in self.start or not {before, n} & self.free:
                    if before not in self.start and n in self.free:
                        self.model.add(self.there[n] == 0)
                    continue
                if frozenset((before, n)) in self.pinned.at_odds:
                    continue
                present = [self.there[x] for x in (before, n) if not isinstance(self.there[x], int)]
                if self.tight and work.pinned is not None:
                    kept = self._truth(f"k{before}.{n}", (before, n) not in self.draft.broken)
                    self.kept.append(kept)
                    present.append(kept)
                self.model.add(self.start[n] >= self.end[before]).only_enforce_if(present)
                if not isinstance(self.there[n], int):
                    self.model.add(self.there[n] <= self.there[before])

    def _lateness(self) -> None:
        self.late: dict[int, Var] = {}
        now = late_of(self.problem, self.draft.placed)
        most = len(self.problem.time)
        for machine, table in enumerate(self.problem.late):
            works = self.problem.of_machine.get(machine, [])
            if table is None:
                continue
            if machine in self.problem.never_ready or not any(work.number in self.free for work in works):
                self.late[machine] = now[machine]
                continue
            ends = [self.draft.placed[work.number].end if work.number in self.draft.placed else most for work in works]
            done = self._number(0, most, f"done{machine}", max(ends))
            self.late[machine] = self._number(0, table[-1], f"late{machine}", now[machine])
            self._late(done, table, self.late[machine], max(ends))
            for work in works:
                n = work.number
                if n not in self.start:
                    self.model.add(done == most)
                    continue
                self.model.add(done >= self.end[n])
                if not isinstance(self.there[n], int):
                    self.model.add(done == most).only_enforce_if(self.there[n].negated())

    def _late(self, done: Var, table: list[int], late: Var, hint: int) -> None:
        """Lateness on the clock grows with working time, and by a night at the end of each shift."""
        most = len(table) - 1
        due = next((slot for slot in range(most, -1, -1) if table[slot] == 0), 0)
        self.model.add(late >= done - due)
        before = None
        for slot in range(due + 1, most + 1):
            if table[slot] == table[slot - 1] + 1:
                continue
            past = self._truth("", hint >= slot)
            self.model.add(done < slot).only_enforce_if(past.negated())
            self.model.add(late >= done + (table[slot] - slot)).only_enforce_if(past)
            if before is not None:
                self.model.add_implication(past, before)
            before = past

    # What is to be least

    def missing(self) -> Var:
        """Works without a place, and pins that begin too soon."""
        absent = [1 - one for one in self.there.values() if not isinstance(one, int)]
        return WITHOUT * sum(absent) + sum(1 - kept for kept in self.kept)

    def lateness(self) -> Var:
        return sum(self.problem.weights[machine] * late for machine, late in self.late.items())

    def moved(self) -> Var:
        total: Var = 0
        for number, (start, crew) in self.problem.before.items():
            if number not in self.free:
                continue
            chosen = self.crews[number].get(crew)
            if chosen is None or start < 0:
                total += 1
                continue
            at = self.draft.placed.get(number)
            still = self._truth(f"still{number}", at is not None and (at.start, at.crew) == (start, crew))
            self.model.add(self.start[number] == start).only_enforce_if(still)
            if not isinstance(chosen, int):
                self.model.add_implication(still, chosen)
            total += 1 - still
        return total

    def posture_moves(self) -> Var:
        total: Var = 0
        for machine, works in self.problem.of_machine.items():
            mine = [work for work in works if work.posture and work.number in self.start]
            if any(work.number in self.free for work in mine):
                total += self._changes(machine, mine)
        return total

    def _changes(self, machine: int, mine: list[Work]) -> Var:
        """How often a machine's posture changes: its works in the order they begin, as a circle."""
        at = self.problem.given.machines[machine].posture
        if len({work.posture for work in mine} | ({at} if at else set())) < 2:
            return 0
        placed = self.draft.placed
        ordered = sorted((work for work in mine if work.number in placed), key=lambda w: (placed[w.number].start, w.number))
        follows = {a.number: b.number for a, b in pairwise(ordered)}
        arcs: list[tuple[int, int, Var]] = []
        total: Var = 0
        for i, work in enumerate(mine):
            n = work.number
            first = self._truth("", bool(ordered) and ordered[0] is work)
            arcs.append((0, i + 1, first))
            arcs.append((i + 1, 0, self._truth("", bool(ordered) and ordered[-1] is work)))
            if at and work.posture != at:
                total += first
            if not isinstance(self.there[n], int):
                arcs.append((i + 1, i + 1, self.there[n].negated()))
            for k, other in enumerate(mine):
                if other is work or other.number in self._ancestors(n):
                    continue
                arc = self._truth("", follows.get(n) == other.number)
                arcs.append((i + 1, k + 1, arc))
                if work.posture != other.posture:
                    total += arc
                    self._arc_order(work, other, arc)
                else:
                    self.model.add(self.start[other.number] >= self.start[n]).only_enforce_if(arc)
        if any(not isinstance(self.there[work.number], int) for work in mine):
            arcs.append((0, 0, self._truth("", not ordered)))
        self.model.add_circuit(arcs)
        return total

    def _arc_order(self, work: Work, other: Work, arc: Var) -> None:
        a, b = sorted((work.number, other.number))
        order = self.order.get((a, b))
        if order is None:
            self.model.add(self.start[other.number] >= self.start[work.number]).only_enforce_if(arc)
        else:
            self.model.add_implication(arc, order if a == work.number else order.negated())

    def last(self) -> Var:
        ends = [self.end[n] for n in self.start if n in self.free]
        fixed = [self.end[n] for n in self.start if n not in self.free]
        most = len(self.problem.time)
        found = self._number(max(fixed, default=0), most, "last",
                             max((placed.end for placed in self.draft.placed.values()), default=0))  # fmt: skip
        for work in self.works:
            n = work.number
            if n in self.free:
                limit = self.model.add(found >= self.end[n])
                if not isinstance(self.there[n], int):
                    limit.only_enforce_if(self.there[n])
        return found if ends else max(fixed, default=0)

    # Reading back

    def read(self, value: Callable[[Var], int]) -> Draft:
        """The plan of a solution."""

        def of(variable: Var) -> int:
            return variable if isinstance(variable, int) else value(variable)

        found = Draft()
        for work in self.works:
            n = work.number
            if not of(self.there[n]):
                continue
            crew = next(crew for crew, chosen in self.crews[n].items() if of(chosen))
            spot = next((spot for spot, chosen in self.spot[n].items() if of(chosen)), None)
            found.placed[n] = Placed(of(self.start[n]), of(self.end[n]), crew, spot)
        for work in self.problem.works:
            for before in work.after:
                pair, placed = frozenset((before, work.number)), found.placed
                if pair in self.pinned.at_odds or not pair <= set(placed):
                    continue
                if placed[before].end > placed[work.number].start:
                    found.broken.add((before, work.number))
        return found


def _joined(spans: Iterable[tuple[int, int]]) -> list[tuple[int, int]]:
    found: list[tuple[int, int]] = []
    for start, end in sorted(spans):
        if found and start < found[-1][1]:
            found[-1] = (found[-1][0], max(end, found[-1][1]))
        elif end > start:
            found.append((start, end))
    return found


def _levels(loads: Sequence[tuple[int, int, int]], most: int) -> list[tuple[int, int, int]]:
    """What several take together, as stretches that take no more than there is."""
    edges = sorted({at for start, end, _ in loads for at in (start, end)})
    found = []
    for start, end in pairwise(edges):
        level = sum(many for s, e, many in loads if s <= start and end <= e)
        if level:
            found.append((start, end, min(level, most)))
    return found
