"""Every endpoint with generated input, right and wrong by its own description: whatever comes, it is answered, and never by a
fault.

The names in the address are those of things that are there, so that what is generated reaches what works with them. So many of
each, always the same: ``LUMVEK_GENERATED=200 LUMVEK_SEED=7`` makes more and others.
"""

import json
import os
import uuid
from urllib.parse import urlencode

import pytest
import schemathesis
from django.core.files.uploadedfile import SimpleUploadedFile
from endpoints import ALL, BODIES, filled, names_of
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import seed as seeded
from hypothesis import strategies as st
from schemathesis import GenerationMode
from schemathesis.core import NotSet

from config.api import api

EXAMPLES = int(os.environ.get("LUMVEK_GENERATED", "6"))
SEED = int(os.environ.get("LUMVEK_SEED", "17"))
DESCRIBED = schemathesis.openapi.from_dict(json.loads(json.dumps(api.interface)))
ANSWERS = {200, 400, 401, 403, 404, 409, 413, 415, 422, 429}
"""What may be said of input; 500 and 503 may not."""


def send(browser, case, path):
    headers = {name: str(value) for name, value in (case.headers or {}).items()}
    if case.query:
        path += "?" + urlencode(case.query, doseq=True)
    if case.method == "GET":
        return browser.get(path, headers=headers)
    kind = case.media_type or "application/json"
    if kind == "multipart/form-data" and isinstance(case.body, dict):
        return browser.post(path, {name: _field(value) for name, value in case.body.items()})
    return browser.post(path, _body(case.body), content_type=kind, headers=headers)


def _field(value):
    return SimpleUploadedFile("f", value) if isinstance(value, bytes) else str(value)


def _body(body):
    if isinstance(body, NotSet):
        return b""
    return body if isinstance(body, bytes) else json.dumps(body).encode()


@pytest.mark.parametrize(("path", "method", "operation"), ALL)
def test_it_is_answered(path, method, operation, everything, as_, something_to_find):
    described = DESCRIBED[path][method]
    browser = as_(everything.lead)
    address = filled(path, names_of(everything) | {"secret": "x" * 24})

    @seeded(SEED)
    @settings(
        max_examples=EXAMPLES,
        deadline=None,
        database=None,
        phases=[Phase.explicit, Phase.generate],
        suppress_health_check=list(HealthCheck),
    )
    @given(st.one_of(*(described.as_strategy(generation_mode=mode) for mode in GenerationMode)))
    def tried(case):
        answer = send(browser, case, address)
        assert answer.status_code in ANSWERS, answer.content
        if answer.status_code != 200:
            assert answer["Content-Type"].startswith("application/json"), answer.content
            assert set(answer.json()["error"]) >= {"field", "message"}, answer.content
            assert " should " not in answer.json()["error"]["message"], "a library speaks to whoever typed it"

    tried()


DAYS = ["0001-01-01", "9999-12-31", "2026-02-30", "1582-10-10"]
MOMENTS = [
    "2026-11-29T10:00:00",  # nobody's clock
    "0001-01-01T00:00:00Z",
    "9999-12-31T23:59:59+14:00",
    "0001-01-01T00:00:00-14:00",
    "2026-11-29T25:00:00Z",
]
FIGURES = [1e300, -1e300, 1e-300, 9007199254740993]


def odd_values(schema):
    """What the texts and figures of a body could be set to that no calendar and no machine has; their names with them."""
    shapes = DESCRIBED.raw_schema["components"]["schemas"]
    schema = shapes[schema["$ref"].rpartition("/")[2]] if "$ref" in schema else schema
    for name, of in schema.get("properties", {}).items():
        for kind in [of, *of.get("anyOf", [])]:
            if kind.get("format") in ("date", "date-time"):
                yield from ((name, value) for value in (DAYS if kind["format"] == "date" else MOMENTS))
            elif kind.get("type") in ("number", "integer"):
                yield from ((name, value) for value in FIGURES)


def body_of(operation):
    content = operation.get("requestBody", {}).get("content", {})
    return content.get("application/json", {}).get("schema", {})


DATED = [row for row in ALL if row.values[1] == "post" and list(odd_values(body_of(row.values[2])))]


@pytest.mark.parametrize(("path", "method", "operation"), DATED)
def test_days_that_no_calendar_has_and_figures_that_no_machine_has_are_answered(
    path, method, operation, everything, as_, something_to_find
):
    browser = as_(everything.lead)
    named = [name for name in BODIES if operation["operationId"].endswith(f"_{name}") or operation["operationId"] == name]
    usual = BODIES[max(named, key=len)] if named else {}
    address = filled(path, names_of(everything) | {"secret": "x" * 24})
    for name, value in odd_values(body_of(operation)):
        body = usual | {name: value} | ({"uuid": str(uuid.uuid4())} if "uuid" in usual else {})
        answer = browser.send(address, **body)
        assert answer.status_code in ANSWERS, (name, value, answer.content)
