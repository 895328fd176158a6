"""What takes its time, told step by step: a line of JSON for each step, and one with what came of it."""

import json
from collections.abc import Iterator
from dataclasses import dataclass
from itertools import chain
from typing import Any

from django.http import StreamingHttpResponse

from .schemas import TableReportOut
from .tables import Table


@dataclass(frozen=True)
class Step:
    """What is at hand, how much of it is done, of how much."""

    what: str
    steps: int
    of: int


def told(lines: Iterator[dict[str, Any]]) -> StreamingHttpResponse:
    """The lines as they come. What is refused before the first of them is refused as everywhere else."""
    first = next(lines)
    response = StreamingHttpResponse(
        (json.dumps(one) + "\n" for one in chain([first], lines)), content_type="application/x-ndjson"
    )
    response["Cache-Control"] = "no-store"
    response["X-Accel-Buffering"] = "no"  # a proxy in front passes each line on as it comes
    return response


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
