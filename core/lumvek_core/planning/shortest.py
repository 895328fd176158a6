"""Shortest ways between postures."""

import heapq
from collections.abc import Sequence
from dataclasses import dataclass
from math import inf
from typing import Annotated

from ..bounds import Within


@dataclass(frozen=True)
class RouteMove:
    from_: str
    to: str
    minutes: Annotated[float, Within(0)]


def shortest(moves: Sequence[RouteMove], names: Sequence[str]) -> dict[str, dict[str, tuple[float, list[str]]]]:
    """From each of these postures to each that can be reached: minutes, and the postures passed through."""
    direct: dict[str, dict[str, float]] = {}
    for move in moves:
        ways = direct.setdefault(move.from_, {})
        ways[move.to] = min(move.minutes, ways.get(move.to, inf))
    return {name: _from(name, direct) for name in dict.fromkeys(names)}


def _from(start: str, direct: dict[str, dict[str, float]]) -> dict[str, tuple[float, list[str]]]:
    best: dict[str, tuple[float, list[str]]] = {start: (0.0, [])}
    heap: list[tuple[float, int, str, list[str]]] = [(0.0, 0, start, [])]
    settled: set[str] = set()
    while heap:
        minutes, _, at, path = heapq.heappop(heap)
        if at in settled:
            continue
        settled.add(at)
        best[at] = (minutes, path[:-1])
        for end, more in direct.get(at, {}).items():
            if end not in settled:
                heapq.heappush(heap, (minutes + more, len(path), end, [*path, end]))
    return best
