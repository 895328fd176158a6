"""Swap tests: which part a fault moved with, what is cleared, and which swap tells most."""

import itertools
import math
from collections import defaultdict
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import AtMost, AtMostNamed, Over, Within
from ..errors import BadInput
from ..registry import calculator

ROW = "row"
"""What stands for everything of a row that is not listed: its wiring, its place."""


@dataclass(frozen=True)
class Observation:
    """One run of one row. parts: slot → serial of what sat there. fault: whether it showed."""

    row: str
    parts: Annotated[dict[str, str], AtMostNamed(10)]
    fault: bool


@dataclass(frozen=True)
class SwapSlot:
    """weight: how often it is this one. minutes: to swap it between two rows."""

    slot: str
    weight: Annotated[float, Over(0), Within(0, 1e6)] = 1
    minutes: Annotated[float, Over(0), Within(0, 1000)] = 5


@dataclass(frozen=True)
class SwapGiven:
    observations: Annotated[list[Observation], AtMost(400)]
    slots: Annotated[list[SwapSlot], AtMost(10)] = field(default_factory=list)


@dataclass(frozen=True)
class NextSwap:
    """What is exchanged between two rows."""

    slots: list[str]
    row_a: str
    row_b: str


@dataclass(frozen=True)
class SwapTest:
    """A part is ``slot:serial``; ``row:<n>`` is everything of a row that is not listed."""

    suspects: list[str]
    cleared: list[str]
    proven: str | None
    next_swap: NextSwap | None
    words: str


@calculator
def swap_test(given: SwapGiven) -> SwapTest:
    """Which part of electric rows has the fault, from runs in which parts were swapped.

    Suspect is what was in every faulty run and in no healthy one, cleared whatever else was seen. Proven is the only suspect,
    once there was a healthy run. “Moved with the motor” is said only where it was faulty on two rows, “stayed on the row” only
    where the row was faulty with two serials in every slot. The next swap is the set of slots that splits the suspects' weights
    with most entropy per minute (on a tie fewer slots, then by name), from the row that was faulty last to one that was healthy
    last. Bad input: a slot twice, an empty row or serial.
    """
    _checked(given)
    faulty = [_parts(one) for one in given.observations if one.fault]
    healthy = [_parts(one) for one in given.observations if not one.fault]
    seen = list(dict.fromkeys(part for one in given.observations for part in _parts(one)))
    if not faulty:
        return SwapTest([], [], None, None, "no fault recorded")
    fine = set(itertools.chain.from_iterable(healthy))
    suspects = [part for part in seen if all(part in one for one in faulty) and part not in fine]
    cleared = [part for part in seen if part not in suspects]
    if not suspects:
        return SwapTest([], cleared, None, None, "intermittent, a plug cured by handling, or two faults")
    proven = suspects[0] if len(suspects) == 1 and healthy else None
    if proven:
        return SwapTest(suspects, cleared, proven, None, _proof(given, proven))
    return SwapTest(suspects, cleared, None, _next(given, suspects), _left(suspects))


def _parts(one: Observation) -> list[str]:
    return [*(f"{slot}:{serial}" for slot, serial in one.parts.items()), f"{ROW}:{one.row}"]


def _slot(part: str) -> str:
    return part.partition(":")[0]


def _proof(given: SwapGiven, proven: str) -> str:
    runs = [one for one in given.observations if one.fault]
    slot = _slot(proven)
    if slot != ROW:
        moved = len({one.row for one in runs}) > 1
        return f"moved with the {slot}" if moved else f"only the {slot} is left"
    serials: dict[str, set[str]] = defaultdict(set)
    for one in runs:
        for name, serial in one.parts.items():
            serials[name].add(serial)
    stayed = bool(serials) and all(len(serials[name]) > 1 for name in _slots(given))
    return "stayed on the row" if stayed else "only the row is left"


def _left(suspects: Sequence[str]) -> str:
    names = list(dict.fromkeys(_slot(part) for part in suspects))
    if len(suspects) == 1:
        return f"the {names[0]}, once another row has run without the fault"
    return f"it may be the {', the '.join(names[:-1])} or the {names[-1]}"


def _slots(given: SwapGiven) -> list[str]:
    named = [one.slot for one in given.slots if one.slot != ROW]
    return named or list(dict.fromkeys(slot for one in given.observations for slot in one.parts))


def _next(given: SwapGiven, suspects: Iterable[str]) -> NextSwap | None:
    """The swap that tells most for its time."""
    known = {one.slot: one for one in given.slots}
    weight = {name: known.get(name, SwapSlot(name)).weight for name in dict.fromkeys(map(_slot, suspects))}
    slots = sorted(name for name in weight if name != ROW)
    last: dict[str, bool] = {one.row: one.fault for one in given.observations}
    row_a = next(one.row for one in reversed(given.observations) if one.fault)
    row_b = next((row for row, fault in last.items() if not fault and row != row_a), None)
    if row_b is None:
        return None
    best: tuple[float, int, tuple[str, ...]] | None = None
    for size in range(1, len(slots) + 1):
        for chosen in itertools.combinations(slots, size):
            minutes = math.fsum(known.get(name, SwapSlot(name)).minutes for name in chosen)
            told = _split(weight, chosen) / minutes
            if told > 0 and (best is None or (-told, size, chosen) < best):
                best = (-told, size, chosen)
    return NextSwap(list(best[2]), row_a, row_b) if best else None


def _split(weight: Mapping[str, float], chosen: Iterable[str]) -> float:
    """Entropy, in bits, of whether the fault moves with these."""
    share = math.fsum(weight[name] for name in chosen) / math.fsum(weight.values())
    return -math.fsum(p * math.log2(p) for p in (share, 1 - share) if p > 0)


def _checked(given: SwapGiven) -> None:
    names = [one.slot for one in given.slots]
    if len(set(names)) < len(names):
        raise BadInput("slots", "a slot stands there twice")
    for i, one in enumerate(given.observations):
        if not one.row.strip():
            raise BadInput(f"observations.{i}.row", "say which row it was")
        for slot, serial in one.parts.items():
            if not serial.strip() or ":" in slot:
                raise BadInput(f"observations.{i}.parts.{slot}", "needs the number of the part that sat there")
