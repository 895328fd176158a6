"""In which order a machine is brought into its postures, so that it is moved least."""

import heapq
from collections.abc import Callable, Sequence
from dataclasses import dataclass, field
from functools import cache
from math import inf
from typing import Annotated, Any

from ..bounds import AtMost
from ..errors import BadInput
from ..registry import calculator_at_length
from .shortest import RouteMove, shortest


@dataclass(frozen=True)
class RouteCheck:
    """after: ids of checks that must be done before this one."""

    id: str
    posture: str
    station: int
    after: Annotated[list[str], AtMost(60)] = field(default_factory=list)


@dataclass(frozen=True)
class RouteGiven:
    checks: Annotated[list[RouteCheck], AtMost(600)]
    moves: Annotated[list[RouteMove], AtMost(300)]
    start: str


@dataclass(frozen=True)
class Visit:
    """One stay in a posture. via: postures passed through on the way there. minutes: of the way. ids: checks done, in order."""

    posture: str
    via: list[str]
    minutes: float
    ids: list[str]


@dataclass(frozen=True)
class Route:
    """minutes_station_order: None where plain station order comes to a posture from which no way leads on."""

    order: list[str]
    visits: list[Visit]
    minutes: float
    minutes_station_order: float | None


@calculator_at_length()
def posture_route(given: RouteGiven) -> Route:
    """The order of postures with the least moving time, and what plain station order would take.

    Moves are one-way; a missing one goes by the shortest path. On each visit every check whose `after` is done is done, by
    station, then in the order given. The search is exact (A* over posture and what is done); on a tie fewer visits win, then
    the visits that reach earlier stations first. Checks allowed where the machine stands at the start cost no move and no visit
    of their own order: they are the first visit. Station order for comparison: always the allowed check of the lowest station.
    Where one-way moves make a dead end, orders that run into it are none. Bad input: a cycle in `after`, unknown ids, an id
    twice, a posture no move leads to, and moves by which no order reaches everything.
    """
    return _Problem(given).solve()


class _Problem:
    """Checks of one posture that wait for the same things are one block; a state is (posture, blocks done)."""

    def __init__(self, given: RouteGiven) -> None:
        self.given = given
        self.ids = [check.id for check in given.checks]
        by_id = {check.id: check for check in given.checks}
        if len(by_id) < len(self.ids):
            raise BadInput("checks", "an id stands there twice")
        for i, check in enumerate(given.checks):
            for other in check.after:
                if other not in by_id:
                    raise BadInput(f"checks.{i}.after", f"there is no check {other}")
        self.by_id = by_id
        self.depth = self._ordered()
        self.ways = shortest(given.moves, [given.start, *(check.posture for check in given.checks)])
        self.blocks, self.waits = self._blocks()
        self.at: dict[str, list[tuple[int, int]]] = {}
        for i, (block, waits) in enumerate(zip(self.blocks, self.waits, strict=True)):
            self.at.setdefault(block[0].posture, []).append((1 << i, waits))

    def _ordered(self) -> dict[str, int]:
        """How many checks stand before each in the longest chain of `after`; refuses cycles."""
        left = {check.id: set(check.after) for check in self.given.checks}
        depth: dict[str, int] = {}
        while left:
            ready = [key for key, waits in left.items() if not waits & left.keys()]
            if not ready:
                raise BadInput("checks", f"wait for each other: {', '.join(sorted(left)[:5])}")
            for key in ready:
                depth[key] = 1 + max((depth[other] for other in left[key]), default=-1)
            for key in ready:
                del left[key]
        return depth

    def _blocks(self) -> tuple[list[list[RouteCheck]], list[int]]:
        """Groups of checks that are always done together, and for each the mask of the groups it waits for."""
        waits_on: dict[str, frozenset[str]] = {}
        for key in sorted(self.by_id, key=self.depth.__getitem__):
            check = self.by_id[key]
            # What must be done in *other* postures first decides when a check can be done; the same posture is no obstacle.
            elsewhere: set[str] = set()
            for other in check.after:
                elsewhere |= waits_on[other]
                if self.by_id[other].posture != check.posture:
                    elsewhere.add(other)
            waits_on[key] = frozenset(elsewhere)
        groups: dict[tuple[str, frozenset[str]], list[RouteCheck]] = {}
        for check in self.given.checks:
            groups.setdefault((check.posture, waits_on[check.id]), []).append(check)
        number = {check.id: i for i, group in enumerate(groups.values()) for check in group}
        masks = [sum({1 << number[other] for other in waits}) for _, waits in groups]
        return list(groups.values()), masks

    def _done_at(self, posture: str, done: int) -> int:
        """What is done after everything allowed in this posture is."""
        before = -1
        while before != done:
            before = done
            for bit, waits in self.at.get(posture, ()):
                if not waits & ~done:
                    done |= bit
        return done

    def solve(self) -> Route:
        start, everything = self.given.start, (1 << len(self.blocks)) - 1
        first_of = [min(check.station for check in block) for block in self.blocks]
        postures = list(dict.fromkeys(block[0].posture for block in self.blocks))
        for p in postures:
            if p not in self.ways[start]:
                raise BadInput("moves", f"no way leads to {p}")
        self._no_dead_ends(postures)
        masks = {p: sum(1 << i for i, block in enumerate(self.blocks) if block[0].posture == p) for p in postures}
        numbers = {p: [i for i in range(len(self.blocks)) if masks[p] >> i & 1] for p in postures}

        @cache
        def remaining(done: int) -> int:
            """The postures with anything left, as bits."""
            return sum(1 << i for i, p in enumerate(postures) if masks[p] & ~done)

        first = self._done_at(start, 0)
        at_least = self._bound(postures, masks, first, remaining)
        opening = (start,) if first else ()
        # (least total, least visits, stations reached in order) puts ties as promised; the path is carried along.
        heap: list[tuple[float, int, tuple[int, ...], float, str, int, tuple[str, ...]]] = []
        heapq.heappush(heap, (at_least(start, first), 0, (), 0.0, start, first, opening))
        seen: set[tuple[str, int]] = set()
        while heap:
            _, _, stations, minutes, posture, done, path = heapq.heappop(heap)
            if (posture, done) in seen:
                continue
            seen.add((posture, done))
            if done == everything:
                return self._route(path, minutes)
            for p in postures:
                if p == posture or not masks[p] & ~done or p not in self.ways[posture]:
                    continue
                then = self._done_at(p, done)
                if then == done:
                    continue
                new = then & ~done
                reached = min(first_of[i] for i in numbers[p] if new >> i & 1)
                cost = minutes + self.ways[posture][p][0]
                visits = len(path) + 1 + remaining(then).bit_count()
                total = round(cost + at_least(p, then), 9)
                if total == inf:
                    continue  # a dead end: something is left that no way leads to
                heapq.heappush(heap, (total, visits, (*stations, reached), cost, p, then, (*path, p)))
        raise BadInput("moves", "lead into a dead end: in no order is everything reached")

    def _no_dead_ends(self, postures: Sequence[str]) -> None:
        """Both of any two postures must be taken up, so one must lead to the other. Found here, before every order is tried."""
        for i, p in enumerate(postures):
            for q in postures[:i]:
                if q not in self.ways[p] and p not in self.ways[q]:
                    raise BadInput("moves", f"lead into a dead end: neither from {q} to {p} nor back")

    def _bound(
        self, postures: list[str], masks: dict[str, int], first: int, remaining: Callable[[int], int]
    ) -> Callable[[str, int], float]:
        """Minutes that are certainly still to come: visiting every posture that has anything left once, in the best order.

        A posture whose checks wait for nothing is left done at its first visit, so one that waits for it has its last visit
        later; other waiting is left out of the bound. It is exact or nearly so on real machines, and never too much.
        """
        nodes = [*postures, *([] if self.given.start in postures else [self.given.start])]
        index = {name: i for i, name in enumerate(nodes)}
        costs = [[self._cost(p, q) for q in postures] for p in nodes]
        if len(postures) <= TABLE_UP_TO:
            table = _least_to_visit(costs, self._before(postures, masks, first))
            return lambda posture, done: float(table[remaining(done), index[posture]])
        into = [min(row[q] for i, row in enumerate(costs) if i != q) for q in range(len(postures))]
        return lambda posture, done: sum(into[i] for i, p in enumerate(postures) if masks[p] & ~done and p != posture)

    def _before(self, postures: list[str], masks: dict[str, int], first: int) -> list[int]:
        """For each posture the set (as bits) of postures that must have been visited before its last visit."""
        waits = {p: [self.waits[i] & ~first for i in range(len(self.blocks)) if masks[p] >> i & 1] for p in postures}
        free = [p for p in postures if not any(waits[p])]
        return [
            sum(1 << i for i, p in enumerate(postures) if p in free and any(wait & masks[p] for wait in waits[q]))
            for q in postures
        ]

    def _cost(self, start: str, end: str) -> float:
        way = self.ways.get(start, {}).get(end)
        return inf if way is None else way[0]

    def _route(self, path: Sequence[str], minutes: float) -> Route:
        visits: list[Visit] = []
        done: set[str] = set()
        at = self.given.start
        for posture in path:
            cost, via = self.ways[at][posture]
            ids = self._ids_at(posture, done)
            done |= set(ids)
            visits.append(Visit(posture, via, cost, ids))
            at = posture
        return Route([key for visit in visits for key in visit.ids], visits, minutes, self._station_order())

    def _ids_at(self, posture: str, done: set[str]) -> list[str]:
        """Allowed checks of a posture, by station, then as given; one that waits for another of the same visit follows it."""
        found: list[str] = []
        rank = {key: (self.by_id[key].station, i) for i, key in enumerate(self.ids)}
        left = [key for key in self.ids if self.by_id[key].posture == posture and key not in done]
        while left:
            ready = [key for key in left if all(other in done or other in found for other in self.by_id[key].after)]
            if not ready:
                break
            pick = min(ready, key=rank.__getitem__)
            found.append(pick)
            left.remove(pick)
        return found

    def _station_order(self) -> float | None:
        """Moving time of whoever goes strictly from station to station; None where that ends in a dead end."""
        rank = {key: (self.by_id[key].station, i) for i, key in enumerate(self.ids)}
        waiting = {key: set(self.by_id[key].after) for key in self.ids}
        followers: dict[str, list[str]] = {}
        for key, before in waiting.items():
            for other in before:
                followers.setdefault(other, []).append(key)
        ready = [(rank[key], key) for key, before in waiting.items() if not before]
        heapq.heapify(ready)
        at, minutes = self.given.start, 0.0
        while ready:
            _, key = heapq.heappop(ready)
            posture = self.by_id[key].posture
            if posture != at:
                if posture not in self.ways[at]:
                    return None
                minutes += self.ways[at][posture][0]
                at = posture
            for follower in followers.get(key, ()):
                waiting[follower].discard(key)
                if not waiting[follower]:
                    heapq.heappush(ready, (rank[follower], follower))
        return minutes


TABLE_UP_TO = 16
"""Postures for which the table of all remainders is made; it doubles with each. No machine has more than fifteen."""


def _least_to_visit(costs: Sequence[Sequence[float]], before: Sequence[int]) -> Any:
    """Least cost of visiting a set of targets, for every set and every node to begin at: [set as bits][node].

    costs: from each node to each target; the targets are the first nodes. before: for each target the targets (as bits) that go
    before it. Sets are worked off by size, all of a size at once.
    """
    import numpy as np  # here, so that judging a reading never loads it

    way = np.array(costs)
    n = way.shape[1]
    table = np.full((1 << n, way.shape[0]), np.inf)
    table[0] = 0.0
    every, targets = np.arange(1 << n), np.arange(n)
    member = (every[:, None] >> targets) & 1 == 1
    size = member.sum(axis=1)
    for k in range(1, n + 1):
        of_size = every[size == k]
        # What is left to pay after going to each target next; none where the target is not in the set or must come later.
        after = table[of_size[:, None] ^ (1 << targets) * member[of_size], targets]
        after[~member[of_size] | (of_size[:, None] & np.array(before) != 0)] = np.inf
        for node, cost in enumerate(way):
            table[of_size, node] = (after + cost).min(axis=1)
    return table
