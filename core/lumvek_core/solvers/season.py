"""The season's plan as a model for OR-Tools' CP-SAT. Loaded only when somebody plans.

Time is in slots of working time (`planning/season/working_time.py`). Works that are not free stand where the draft has them, so
that the same model improves a whole plan or a part of one.
"""

from collections.abc import Callable
from itertools import pairwise

from ..planning.season.problem import Placed, Work
from ..planning.season.rules import WITHOUT, Draft
from .season_rules import SeasonRules
from .season_variables import Var


class SeasonModel(SeasonRules):
    """The whole: where the free works may stand, and what is to be made least, in order."""

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
