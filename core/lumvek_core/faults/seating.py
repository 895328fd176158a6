"""Which part sits on which row, as parts are swapped, and what the runs of a swap test say of them."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from .swapping import Observation, SwapGiven, SwapSlot, SwapTest, swap_test

Seats = dict[str, dict[str, str]]
"""Row → slot → number of the part that sits there."""


@dataclass(frozen=True)
class Swap:
    """What was exchanged between two rows."""

    slots: list[str]
    row_a: str
    row_b: str


@dataclass(frozen=True)
class Run:
    """swap: before it; None: as it stood. faults: row → whether the fault showed there."""

    swap: Swap | None
    faults: dict[str, bool]


def named(rows: Sequence[str], slots: Sequence[str], told: Mapping[str, Mapping[str, str]]) -> Seats:
    """Who sits where at the beginning. told: numbers that somebody typed; a part without one is called after its row."""
    return {row: {slot: (told.get(row, {}).get(slot) or "").strip() or f"of row {row}" for slot in slots} for row in rows}


def after(seats: Seats, swap: Swap | None) -> Seats:
    """Who sits where once these were exchanged."""
    if swap is None:
        return seats
    found = {row: dict(parts) for row, parts in seats.items()}
    for slot in swap.slots:
        found[swap.row_a][slot], found[swap.row_b][slot] = seats[swap.row_b][slot], seats[swap.row_a][slot]
    return found


def seatings(seats: Seats, runs: Sequence[Run]) -> list[Seats]:
    """Who sat where in each run."""
    found: list[Seats] = []
    for run in runs:
        seats = after(seats, run.swap)
        found.append(seats)
    return found


def tested(seats: Seats, runs: Sequence[Run], slots: Sequence[SwapSlot]) -> SwapTest:
    """What the runs say."""
    observations = [
        Observation(row, sat[row], fault)
        for sat, run in zip(seatings(seats, runs), runs, strict=True)
        for row, fault in run.faults.items()
    ]
    return swap_test(SwapGiven(observations, list(slots)))
