"""The same write eight times at one instant: one row, and eight answers that say the same."""

import threading
import uuid

import pytest
from django.db import connection

from fleet.models import CounterReading
from inspection.models import Decision, OperatorNote, PostureHold, Reading
from logbook.models import PutAwayTick, ServiceDone
from testing.yard import record

EIGHT = 8


def at_once(browsers, path, body):
    """(status, body) of every answer."""
    gate, answers = threading.Barrier(len(browsers)), []

    def send(browser):
        try:
            gate.wait()
            answer = browser.send(path, **body)
            answers.append((answer.status_code, answer.json() if answer.content else None))
        finally:
            connection.close()

    threads = [threading.Thread(target=send, args=(browser,)) for browser in browsers]
    for one in threads:
        one.start()
    for one in threads:
        one.join()
    return answers


WRITES = {
    "note": (OperatorNote, "/api/machines/{machine}/notes", {"text": "squeals in row 3"}),
    "service": (ServiceDone, "/api/logbook/machines/{machine}/services", {"key": "arm-bolts"}),
    "put away": (
        PutAwayTick,
        "/api/logbook/machines/{machine}/put-away",
        {"key": "meters-empty", "season": 2024, "done": True},
    ),
    "counter": (CounterReading, "/api/logbook/machines/{machine}/counters", {"shown": 2950}),
    "reading": (
        Reading,
        "/api/walk-arounds/{walk_around}/readings",
        {"check": "opener-disc-diameter", "position": "3L", "raw": ["391"]},
    ),
    "decision": (
        Decision,
        "/api/walk-arounds/{walk_around}/decisions",
        {"check": "opener-disc-diameter", "positions": ["2L"], "choice": "do"},
    ),
    "lock": (PostureHold, "/api/walk-arounds/{walk_around}/postures", {"posture": "unfolded, raised and locked"}),
}


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("name", WRITES)
def test_eight_at_once_are_one(name, yard, as_):
    model, path, body = WRITES[name]
    record(yard, "opener-disc-diameter", "2L", "384")
    before = model.objects.count()
    browsers = [as_(yard.technician) for _ in range(EIGHT)]
    where = path.format(machine=yard.machine.pk, walk_around=yard.walk_around.pk)
    answers = at_once(browsers, where, {"uuid": str(uuid.uuid4()), **body})
    assert {status for status, _ in answers} == {200}, answers
    assert model.objects.count() == before + 1
