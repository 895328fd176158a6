"""Rules of the season's plan for OR-Tools' CP-SAT: people, machines, places, order, and how late each machine is."""

from collections.abc import Collection, Iterable, Sequence
from itertools import combinations, pairwise

from ..planning.season.pins import Pinned
from ..planning.season.problem import Problem, Work
from ..planning.season.rules import Draft, late_of
from .season_variables import SeasonVariables, Var


class SeasonRules(SeasonVariables):
    """What no plan may break."""

    def __init__(
        self, problem: Problem, pinned: Pinned, draft: Draft, free: Collection[int], window: tuple[int, int] | None = None
    ) -> None:
        """window: slots that placed free works begin and end between."""
        super().__init__(problem, pinned, draft, free, window)
        self._people()
        self._machines()
        self._spots()
        self._lifts()
        self._after()
        self._lateness()

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
