"""A swap test: who sits where, what the runs say, what to swap next."""

from collections.abc import Iterable

from fleet.models import Machine
from inspection.queries import rule_books, serializers
from lumvek_core.catalogue.symptoms import SwapPart
from lumvek_core.faults.seating import Run, Seats, Swap, after, named, seatings, tested
from lumvek_core.faults.swapping import ROW, SwapSlot
from lumvek_core.faults.swapping import SwapTest as Tested
from shops.models import Member
from shops.rights import may

from ..models import SwapRun, SwapTest
from ..schemas_swapping import NextSwapOut, SwapBriefOut, SwapRunOut, SwapSlotOut, SwapTestOut

RIGHT = "trace faults"


def parts_of(machine: Machine) -> list[SwapPart]:
    """What can be swapped between a machine's rows."""
    return [one for one in rule_books.shipped().symptoms.swaps if machine.model.family in one.families]


def standing(test: SwapTest, rows: Iterable[SwapRun]) -> tuple[Seats, list[Seats], Tested]:
    """Who sits where now, who sat where in each run, and what the runs say; slots by the names of their parts."""
    parts = parts_of(test.machine)
    name_of = {one.slot: one.name for one in parts}
    typed = {
        row: {name_of[slot]: number for slot, number in told.items() if slot in name_of} for row, told in test.parts.items()
    }
    begun = named(test.rows, list(name_of.values()), typed)
    runs = [_run(row, name_of) for row in rows]
    sat = seatings(begun, runs)
    found = tested(begun, runs, [SwapSlot(one.name, one.weight, one.minutes) for one in parts])
    return (sat[-1] if sat else begun), sat, found


def runs_of(test: SwapTest) -> list[SwapRun]:
    """Those that count, in order. One query."""
    return list(test.runs.filter(taken_back_at=None).select_related("by").order_by("id"))


def brief(test: SwapTest) -> SwapBriefOut:
    return SwapBriefOut(
        uuid=test.uuid,
        rows=test.rows,
        words=test.words,
        begun_at=test.begun_at,
        ended_at=test.ended_at,
        by=serializers.full_name(test.by),
    )


def page(member: Member, test: SwapTest) -> SwapTestOut:
    """One swap test. A constant number of queries."""
    rows, parts = runs_of(test), parts_of(test.machine)
    seats, sat, found = standing(test, rows)
    slot_of, minutes = {one.name: one.slot for one in parts}, {one.name: one.minutes for one in parts}
    name, _, number = (found.proven or "").partition(":")
    swap = found.next_swap
    return SwapTestOut(
        uuid=test.uuid,
        machine=serializers.machine_out(test.machine),
        rows=test.rows,
        slots=[SwapSlotOut(slot=one.slot, name=one.name, minutes=one.minutes) for one in parts],
        seats=seats,
        runs=[
            SwapRunOut(
                uuid=row.uuid,
                swapped=[one.name for one in parts if one.slot in row.swapped],
                row_a=row.row_a,
                row_b=row.row_b,
                faults=row.faults,
                sat=there,
                at=row.at,
                by=serializers.full_name(row.by),
            )
            for row, there in zip(rows, sat, strict=True)
        ],
        suspects=[_said(one) for one in found.suspects],
        cleared=[_said(one) for one in found.cleared],
        proven=_said(found.proven) if found.proven else "",
        proven_slot=slot_of.get(name, ""),
        proven_row=number if name == ROW else next((row for row in test.rows if seats[row].get(name) == number), ""),
        words=found.words,
        next_swap=NextSwapOut(
            slots=[slot_of[one] for one in swap.slots],
            names=swap.slots,
            row_a=swap.row_a,
            row_b=swap.row_b,
            minutes=sum(minutes[one] for one in swap.slots),
        )
        if swap and not test.ended_at
        else None,
        ended_at=test.ended_at,
        fitted=test.fitted is not None,
        by=serializers.full_name(test.by),
        begun_at=test.begun_at,
        may_trace=may(member, RIGHT),
    )


def would_sit(seats: Seats, swapped: Iterable[str], row_a: str, row_b: str) -> Seats:
    """Who sits where once these slots' parts were exchanged."""
    return after(seats, Swap(list(swapped), row_a, row_b))


def _run(row: SwapRun, name_of: dict[str, str]) -> Run:
    swapped = [name_of[slot] for slot in row.swapped if slot in name_of]
    return Run(Swap(swapped, row.row_a, row.row_b) if swapped else None, row.faults)


def _said(part: str) -> str:
    name, _, number = part.partition(":")
    return f"row {number}" if name == ROW else f"{name} {number}"
