"""Swap tests: begun, run by run, and ended with what was proven. The same UUID twice is once."""

import uuid

from django.utils import timezone

from fleet.actions.fitments import put_in, take_off
from fleet.models import Fitment, Machine
from lumvek_core.errors import BadInput
from parts.queries import number_for
from shops import taken_back
from shops.access import Conflict, kept_already, there
from shops.models import Member
from shops.rights import action

from ..models import SwapRun, SwapTest
from ..queries import swapping
from ..schemas_swapping import SwapEndIn, SwapRunIn, SwapTestIn

RIGHT = swapping.RIGHT


def swap_test_for(member: Member, uuid_: uuid.UUID) -> SwapTest:
    """One of the shop's swap tests. Raises NotFoundHere."""
    found: SwapTest = there(SwapTest.objects.of(member).filter(uuid=uuid_)).select_related("machine__model", "by").get()
    return found


@action(RIGHT)
def begin(member: Member, machine: Machine, new: SwapTestIn) -> SwapTest:
    """Begin one. Raises BadInput with field ``rows.<i>`` or ``parts.<row>.<slot>``."""
    if kept_already(member, SwapTest, new.uuid):
        return swap_test_for(member, new.uuid)
    slots = {one.slot for one in swapping.parts_of(machine)}
    if not slots:
        raise BadInput("rows", "nothing is swapped between the rows of this machine")
    for i, row in enumerate(new.rows):
        if not (row.isdigit() and 1 <= int(row) <= (machine.rows or 0)):
            raise BadInput(f"rows.{i}", f"must be a row from 1 to {machine.rows or 0}")
        if row in new.rows[:i]:
            raise BadInput(f"rows.{i}", "stands there twice")
    _numbers(new, slots)
    SwapTest.objects.create(uuid=new.uuid, machine=machine, rows=new.rows, parts=new.parts, by=member.user)
    return swap_test_for(member, new.uuid)


def _numbers(new: SwapTestIn, slots: set[str]) -> None:
    seen: dict[tuple[str, str], str] = {}
    for row, told in new.parts.items():
        for slot, number in told.items():
            if row not in new.rows or slot not in slots:
                raise BadInput(f"parts.{row}.{slot}", "takes no part in this test")
            other = seen.get((slot, number.strip()))
            if number.strip() and other:
                raise BadInput(f"parts.{row}.{slot}", f"is the number of row {other}'s")
            seen[slot, number.strip()] = row


@action(RIGHT)
def run(member: Member, test: SwapTest, new: SwapRunIn) -> None:
    """Keep a run. Raises BadInput with field ``faults``, ``swapped`` or ``row_a``, Conflict where it is ended."""
    if kept_already(member, SwapRun, new.uuid):
        return
    _running(test)
    if set(new.faults) != set(test.rows):
        raise BadInput("faults", "say of every row whether the fault showed")
    known = {one.slot for one in swapping.parts_of(test.machine)}
    for i, slot in enumerate(new.swapped):
        if slot not in known:
            raise BadInput(f"swapped.{i}", "is not swapped between rows")
    if new.swapped and (new.row_a == new.row_b or not {new.row_a, new.row_b} <= set(test.rows)):
        raise BadInput("row_a", "must be two rows of this test")
    SwapRun.objects.create(
        uuid=new.uuid,
        test=test,
        swapped=new.swapped,
        row_a=new.row_a if new.swapped else "",
        row_b=new.row_b if new.swapped else "",
        faults=new.faults,
        by=member.user,
    )


@action(RIGHT)
def take_back_run(member: Member, uuid_: uuid.UUID) -> SwapTest:
    """It was not so; only the last one, for those after it stood on it. Raises NotFoundHere, Conflict."""
    rows = there(SwapRun.objects.of(member).filter(uuid=uuid_))
    row: SwapRun = rows.get()
    test = swap_test_for(member, row.test.uuid)
    _running(test)
    if row.taken_back_at is None and swapping.runs_of(test)[-1].pk != row.pk:
        raise Conflict("Later runs stand on this one: take them back first.")
    taken_back.take_back(member, rows)
    return test


@action(RIGHT)
def end(member: Member, test: SwapTest, said: SwapEndIn) -> None:
    """End it with what the runs say; a new part that took the proven one's place is fitted there. Raises BadInput
    with field ``renewed`` or ``uuid``."""
    if test.ended_at:
        return
    found = swapping.page(member, test)
    if said.renewed and not (found.proven_slot and found.proven_row):
        raise BadInput("renewed", "no part is proven that could be renewed")
    test.proven, test.words = found.proven, found.words
    test.ended_at, test.ended_by = timezone.now(), member.user
    if said.renewed:
        if Fitment.objects.filter(fitting=said.uuid).exists():
            raise BadInput("uuid", "fitted a part before, which was taken off again")
        number = number_for(test.machine.model, found.proven_slot)
        put_in(member, said.uuid, test.machine, found.proven_slot, number, [(found.proven_row, 1)])
        test.fitted = said.uuid
    test.save(update_fields=["proven", "words", "ended_at", "ended_by", "fitted"])


@action(RIGHT)
def go_on(member: Member, test: SwapTest) -> None:
    """Open an ended one again; the part that was fitted with it is taken off. Raises Conflict."""
    if test.ended_at is None:
        return
    if test.fitted:
        take_off(member, test.fitted)
    test.proven = test.words = ""
    test.fitted = test.ended_at = test.ended_by = None
    test.save(update_fields=["proven", "words", "ended_at", "ended_by", "fitted"])


def _running(test: SwapTest) -> None:
    if test.ended_at:
        raise Conflict("This swap test is ended. Go on with it first.")
