"""Endpoints of faults that are traced, and of swap tests."""

import uuid
from typing import Annotated

from django.http import HttpRequest
from ninja import Query, Router

from fleet.queries.machines import machine_for
from lumvek_core.faults.symptom_search import Shows
from shops.access import member_of
from shops.endpoints import allowed

from .actions import swapping as swaps
from .actions import tracing as acts
from .queries import swapping, tracing
from .schemas import FaultsOut, LookAnswerIn, TraceEndIn, TraceIn, TraceOut
from .schemas_swapping import SwapEndIn, SwapRunIn, SwapTestIn, SwapTestOut

router = Router(tags=["faults"])
Word = Annotated[str, Query(max_length=40)]


@router.get("/machines/{int:machine_id}", response=FaultsOut)
def faults_of_machine(
    request: HttpRequest,
    machine_id: int,
    words: Annotated[str, Query(max_length=300)] = "",
    station: Word = "",
    when: Word = "",
    sound: Word = "",
    follows: Word = "",
) -> FaultsOut:
    """Symptoms that words and signs lead to, what the operator said, traces under way and past."""
    member = member_of(request)
    return tracing.start(member, machine_for(member, machine_id), words, Shows(station, when, sound, follows))


@router.post("/machines/{int:machine_id}/traces", response=TraceOut, **allowed(acts.begin))
def begin_trace(request: HttpRequest, machine_id: int, new: TraceIn) -> TraceOut:
    """Begin a trace at a symptom. The same UUID twice is once."""
    member = member_of(request)
    return tracing.page(member, acts.begin(member, machine_for(member, machine_id), new))


@router.get("/traces/{uuid:trace_id}", response=TraceOut)
def fault_trace(request: HttpRequest, trace_id: uuid.UUID) -> TraceOut:
    """What it may still be, what was looked at, and what to look at next."""
    member = member_of(request)
    return tracing.page(member, acts.trace_for(member, trace_id))


@router.post("/traces/{uuid:trace_id}/answers", response=TraceOut, **allowed(acts.answer))
def answer_look(request: HttpRequest, trace_id: uuid.UUID, new: LookAnswerIn) -> TraceOut:
    """What a look showed. The same UUID twice is once."""
    member = member_of(request)
    acts.answer(member, acts.trace_for(member, trace_id), new)
    return tracing.page(member, acts.trace_for(member, trace_id))


@router.post("/answers/{uuid:look_answer_id}/take-back", response=TraceOut, **allowed(acts.take_back_answer))
def take_back_look(request: HttpRequest, look_answer_id: uuid.UUID) -> TraceOut:
    """It was not so."""
    member = member_of(request)
    return tracing.page(member, acts.take_back_answer(member, look_answer_id))


@router.post("/traces/{uuid:trace_id}/end", response=TraceOut, **allowed(acts.end))
def end_trace(request: HttpRequest, trace_id: uuid.UUID, said: TraceEndIn) -> TraceOut:
    """Found, not found, or to be watched."""
    member = member_of(request)
    acts.end(member, acts.trace_for(member, trace_id), said)
    return tracing.page(member, acts.trace_for(member, trace_id))


@router.post("/traces/{uuid:trace_id}/go-on", response=TraceOut, **allowed(acts.go_on))
def go_on_with_trace(request: HttpRequest, trace_id: uuid.UUID) -> TraceOut:
    """That was not it."""
    member = member_of(request)
    acts.go_on(member, acts.trace_for(member, trace_id))
    return tracing.page(member, acts.trace_for(member, trace_id))


@router.post("/traces/{uuid:trace_id}/take-back", response=TraceOut, **allowed(acts.take_back))
def take_back_trace(request: HttpRequest, trace_id: uuid.UUID) -> TraceOut:
    """It was begun by mistake."""
    member = member_of(request)
    acts.take_back(member, acts.trace_for(member, trace_id))
    return tracing.page(member, acts.trace_for(member, trace_id))


@router.post("/machines/{int:machine_id}/swap-tests", response=SwapTestOut, **allowed(swaps.begin))
def begin_swap_test(request: HttpRequest, machine_id: int, new: SwapTestIn) -> SwapTestOut:
    """Begin a swap test. The same UUID twice is once."""
    member = member_of(request)
    return swapping.page(member, swaps.begin(member, machine_for(member, machine_id), new))


@router.get("/swap-tests/{uuid:swap_test_id}", response=SwapTestOut)
def fault_swap_test(request: HttpRequest, swap_test_id: uuid.UUID) -> SwapTestOut:
    """Who sits where, what the runs say, and what to swap next."""
    member = member_of(request)
    return swapping.page(member, swaps.swap_test_for(member, swap_test_id))


@router.post("/swap-tests/{uuid:swap_test_id}/runs", response=SwapTestOut, **allowed(swaps.run))
def run_swap_test(request: HttpRequest, swap_test_id: uuid.UUID, new: SwapRunIn) -> SwapTestOut:
    """One run. The same UUID twice is once."""
    member = member_of(request)
    swaps.run(member, swaps.swap_test_for(member, swap_test_id), new)
    return swapping.page(member, swaps.swap_test_for(member, swap_test_id))


@router.post("/swap-runs/{uuid:swap_run_id}/take-back", response=SwapTestOut, **allowed(swaps.take_back_run))
def take_back_swap_run(request: HttpRequest, swap_run_id: uuid.UUID) -> SwapTestOut:
    """It was not so."""
    member = member_of(request)
    return swapping.page(member, swaps.take_back_run(member, swap_run_id))


@router.post("/swap-tests/{uuid:swap_test_id}/end", response=SwapTestOut, **allowed(swaps.end))
def end_swap_test(request: HttpRequest, swap_test_id: uuid.UUID, said: SwapEndIn) -> SwapTestOut:
    """End it with what was proven."""
    member = member_of(request)
    swaps.end(member, swaps.swap_test_for(member, swap_test_id), said)
    return swapping.page(member, swaps.swap_test_for(member, swap_test_id))


@router.post("/swap-tests/{uuid:swap_test_id}/go-on", response=SwapTestOut, **allowed(swaps.go_on))
def go_on_with_swap_test(request: HttpRequest, swap_test_id: uuid.UUID) -> SwapTestOut:
    """That was not it."""
    member = member_of(request)
    swaps.go_on(member, swaps.swap_test_for(member, swap_test_id))
    return swapping.page(member, swaps.swap_test_for(member, swap_test_id))
