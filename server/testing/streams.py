"""What is told step by step, read by a test."""

import json
from typing import Any

from django.http import HttpResponse, StreamingHttpResponse


def steps(response: StreamingHttpResponse) -> list[dict[str, Any]]:
    """Every line of it."""
    return [json.loads(line) for line in b"".join(response.streaming_content).splitlines()]  # type: ignore[arg-type]


def report(response: StreamingHttpResponse | HttpResponse) -> dict[str, Any]:
    """What came of it at the end, or how it was refused at once."""
    if isinstance(response, StreamingHttpResponse):
        found: dict[str, Any] = steps(response)[-1]["report"]
        return found
    refused: dict[str, Any] = json.loads(response.content)
    return refused
