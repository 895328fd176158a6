"""The same write eight times at one instant: one row, and eight answers that say the same."""

import threading
import uuid
from types import SimpleNamespace

import pytest
from django.db import IntegrityError, OperationalError, connection

from calibration.models import CollectedLoad, Happened
from faults.models import OwnCause, OwnSymptom, Trace
from field.models import SetInField
from fleet.models import CounterReading
from guarding import circles
from inspection.models import Decision, OperatorNote, PostureHold, Reading
from logbook.models import PutAwayTick, ServiceDone
from season.models import Away, OwnJob
from shops.access import Conflict
from shops.rights import Action
from supply.models import Plan
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
    "happened": (Happened, "/api/calibration/machines/{machine}/happened", {"what": "tyres"}),
    "load": (CollectedLoad, "/api/calibration/machines/{machine}/loads", {"machine_kg": 8200}),
    "field setting": (SetInField, "/api/field/machines/{machine}/card", {"crop": "Lupins", "values": {"depth": "45"}}),
    "own symptom": (
        OwnSymptom,
        "/api/faults/machines/{machine}/own-symptoms",
        {"family": "row-crop-planter", "name": "Hums in a hollow"},
    ),
    "own cause": (
        OwnCause,
        "/api/faults/machines/{machine}/own-causes",
        {"symptom": "skips", "name": "Fan screen blown full", "check": "vent"},
    ),
    "trace": (Trace, "/api/faults/machines/{machine}/traces", {"symptom": "skips"}),
    "away": (Away, "/api/season/hands/{lead}/away", {"first": "2026-12-07", "last": "2026-12-08"}),
    "own job": (OwnJob, "/api/season/jobs", {"machine": "{machine}", "name": "Weld the step", "minutes": 40}),
    "lock": (PostureHold, "/api/walk-arounds/{walk_around}/postures", {"posture": "unfolded, raised and locked"}),
}


@pytest.mark.django_db(transaction=True)
@pytest.mark.parametrize("name", WRITES)
def test_eight_at_once_are_one(name, yard, as_):
    model, path, body = WRITES[name]
    record(yard, "opener-disc-diameter", "2L", "384")
    before = model.objects.count()
    browsers = [as_(yard.lead) for _ in range(EIGHT)]
    where = path.format(machine=yard.machine.pk, walk_around=yard.walk_around.pk, lead=yard.lead.pk)
    body = {key: yard.machine.pk if value == "{machine}" else value for key, value in body.items()}
    answers = at_once(browsers, where, {"uuid": str(uuid.uuid4()), **body})
    assert {status for status, _ in answers} == {200}, answers
    assert model.objects.count() == before + 1


@pytest.mark.django_db(transaction=True)
def test_eight_take_the_same_job_back_at_once(yard, as_):
    """Each was answered that the database does not answer: they waited for each other in a circle."""
    browsers, job = [as_(yard.lead) for _ in range(EIGHT)], str(uuid.uuid4())
    assert (
        browsers[0].send("/api/season/jobs", uuid=job, machine=yard.machine.pk, name="Weld the step", minutes=40).status_code
        == 200
    )
    for _ in range(3):
        answers = at_once(browsers, f"/api/season/jobs/{job}/take-back", {})
        assert {status for status, _ in answers} == {200}, answers


# What an action does with what the database says


@pytest.fixture
def acting(yard, monkeypatch):
    """An action that fails as told, one failure a run, and then does it: acting([problem, …])."""
    monkeypatch.setattr(circles, "connection", SimpleNamespace(in_atomic_block=False))
    runs = []

    def made(failures):
        left = list(failures)

        def write(member):
            runs.append(member)
            if left:
                raise left.pop(0)
            return "done"

        return Action(write, "write notes", atomic=True)(yard.lead)

    monkeypatch.setattr(Action, "_whole", lambda self, member: self.write(member))
    made.runs = runs
    return made


CIRCLE = OperationalError(1213, "Deadlock found when trying to get lock; try restarting transaction")


def test_what_gave_way_is_done_again_three_times_at_most_and_written_down(acting, caplog):
    assert acting([CIRCLE, CIRCLE]) == "done" and len(acting.runs) == 3
    assert caplog.text.count("write notes waited in a circle with somebody") == 2
    with pytest.raises(OperationalError):
        acting([CIRCLE] * 3)
    assert len(acting.runs) == 6


def test_within_another_transaction_the_whole_of_that_one_is_done_again(acting, monkeypatch):
    monkeypatch.setattr(circles, "connection", SimpleNamespace(in_atomic_block=True))
    with pytest.raises(OperationalError):
        acting([CIRCLE])
    assert len(acting.runs) == 1


@pytest.mark.parametrize("key", ["uuid", "PRIMARY", "decision_once_per_position", "season_ownjob.uuid"])
def test_only_the_same_uuid_is_looked_at_again(key, acting):
    assert acting([IntegrityError(1062, f"Duplicate entry 'x' for key '{key}'")]) == "done"


@pytest.mark.parametrize(
    "problem",
    [IntegrityError(1062, "Duplicate entry 'x' for key 'one_machine_per_name'"), IntegrityError(1452, "a foreign key fails")],
)
def test_what_may_be_there_once_and_was_just_written_is_said(problem, acting):
    with pytest.raises(Conflict, match="Somebody has just written the same"):
        acting([problem])
    assert len(acting.runs) == 1


def test_nobody_plans_under_the_uuid_of_another_shop(yard, neighbour, as_):
    """It broke off in the middle of the answer."""
    theirs = Plan.objects.create(uuid=uuid.uuid4(), shop=neighbour.shop, asked={}, answer={}, by=neighbour.lead.user)
    record(yard, "opener-disc-diameter", "2L", "360")
    assert as_(yard.lead).send("/api/supply/plans", uuid=str(theirs.uuid)).status_code == 404
