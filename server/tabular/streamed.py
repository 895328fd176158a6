"""What takes its time, told step by step: a line of JSON for each step, and one with what came of it."""

import json
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from queue import SimpleQueue
from threading import Thread
from typing import Any, Generic, TypeVar

from django.db import connection
from django.http import StreamingHttpResponse

from lumvek_core import apart
from lumvek_core.errors import BadInput

from .schemas import TableReportOut
from .tables import Table

T = TypeVar("T")


@dataclass(frozen=True)
class Step:
    """What is at hand, how much of it is done, of how much."""

    what: str
    steps: int
    of: int


def told(lines: Iterator[dict[str, Any]]) -> StreamingHttpResponse:
    """The lines as they come. What is refused before the first of them is refused as everywhere else, later by a last line."""
    response = StreamingHttpResponse(_written(next(lines), lines), content_type="application/x-ndjson")
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"  # a proxy in front passes each line on as it comes
    return response


def _written(first: dict[str, Any], lines: Iterator[dict[str, Any]]) -> Iterator[str]:
    yield json.dumps(first) + "\n"
    try:
        for line in lines:
            yield json.dumps(line) + "\n"
    except (BadInput, apart.Busy) as problem:
        yield json.dumps((problem if isinstance(problem, BadInput) else BadInput("", str(problem))).as_dict()) + "\n"


@dataclass(frozen=True)
class _Done(Generic[T]):
    value: T


def alongside(work: Callable[[Callable[[dict[str, Any]], None]], T], keep: Callable[[T], None]) -> Iterator[dict[str, Any]]:
    """Have something worked out while somebody looks on: what is told of each step, as it is told. keep: takes what came of
    it, also where nobody looks on any more. Raises what the work raises.
    """
    steps: SimpleQueue[dict[str, Any] | _Done[T] | BaseException] = SimpleQueue()

    def run() -> None:
        try:
            steps.put(_Done(work(steps.put)))
        except BaseException as problem:  # told to whoever waits, who would wait for ever otherwise
            steps.put(problem)
        finally:
            connection.close()

    Thread(target=run, daemon=True).start()
    looked_on = True
    while True:
        match steps.get():
            case dict() as step if looked_on:
                try:
                    yield step
                except GeneratorExit:
                    looked_on = False
            case _Done(value):
                keep(value)
                return
            case BaseException() as problem:
                raise problem


def table_told(steps: Iterator[Step | Table], *, dry: bool) -> StreamingHttpResponse:
    """A file that is being taken: its steps, then ``done`` with the report."""

    def lines() -> Iterator[dict[str, Any]]:
        for step in steps:
            match step:
                case Step():
                    yield {"what": step.what, "steps": step.steps, "of": step.of, "done": False}
                case Table():
                    report = TableReportOut.of(step, dry=dry).model_dump(mode="json")
                    yield {"what": "", "steps": 1, "of": 1, "done": True, "report": report}

    return told(lines())
