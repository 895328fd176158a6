"""Endpoints of faults."""

import uuid
from typing import Annotated, Literal

from django.http import HttpRequest
from ninja import File, Form, Query, Router, UploadedFile
from pydantic import Field

from fleet.queries.machines import machine_for
from lumvek_core.faults.symptom_search import Shows
from shops.access import member_of
from shops.endpoints import allowed

from .actions import recording as shaking
from .actions import swapping as swaps
from .actions import tracing as acts
from .queries import recordings, swapping, tracing
from .schemas import (
    FaultsOut,
    LookAnswerIn,
    RecordingOut,
    RecordingsOut,
    ShaftIn,
    SimulatedIn,
    SwapEndIn,
    SwapRunIn,
    SwapTestIn,
    SwapTestOut,
    TraceEndIn,
    TraceIn,
    TraceOut,
)

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


@router.get("/machines/{int:machine_id}/recordings", response=RecordingsOut)
def recordings_of_machine(request: HttpRequest, machine_id: int) -> RecordingsOut:
    """How a machine shook, and what turns in it."""
    member = member_of(request)
    return recordings.of_machine(member, machine_for(member, machine_id))


@router.post("/machines/{int:machine_id}/recordings-file", response=RecordingOut, **allowed(shaking.from_file))
def keep_recordings_file(
    request: HttpRequest,
    machine_id: int,
    file: File[UploadedFile],
    told: Form[Annotated[str, Field(max_length=4000)]],
    source: Form[Literal["phone", "file"]] = "file",
) -> RecordingOut:
    """A recording from a WAV or CSV file, or from the phone's own sensor. told: how the machine ran, a RecordingIn as JSON."""
    member = member_of(request)
    new = shaking.told_of(told)
    content = file.read(shaking.LARGEST + 1)
    kept = shaking.from_file(member, machine_for(member, machine_id), new, source, file.name or "", content)
    return recordings.page(member, kept)


@router.post("/machines/{int:machine_id}/recordings", response=RecordingOut, **allowed(shaking.simulate))
def simulate_recording(request: HttpRequest, machine_id: int, new: SimulatedIn) -> RecordingOut:
    """What the simulated recorder records. The same UUID twice is once."""
    member = member_of(request)
    return recordings.page(member, shaking.simulate(member, machine_for(member, machine_id), new))


@router.get("/recordings/{uuid:recording_id}", response=RecordingOut)
def fault_recording(request: HttpRequest, recording_id: uuid.UUID, beside: uuid.UUID | None = None) -> RecordingOut:
    """One recording, analysed; with another one of the machine beside it."""
    member = member_of(request)
    found = shaking.recording_for(member, recording_id)
    other = shaking.recording_for(member, beside) if beside else None
    return recordings.page(member, found, other if other and other.machine_id == found.machine_id else None)


@router.post("/recordings/{uuid:recording_id}/take-back", response=RecordingOut, **allowed(shaking.take_back))
def take_back_recording(request: HttpRequest, recording_id: uuid.UUID) -> RecordingOut:
    """It counts no more."""
    member = member_of(request)
    return recordings.page(member, shaking.take_back(member, recording_id))


@router.post("/machines/{int:machine_id}/shafts", response=RecordingsOut, **allowed(shaking.write_shaft))
def write_shaft(request: HttpRequest, machine_id: int, new: ShaftIn) -> RecordingsOut:
    """A shaft as the manual of the machine's model has it."""
    member = member_of(request)
    machine = machine_for(member, machine_id)
    shaking.write_shaft(member, machine, new)
    return recordings.of_machine(member, machine)
