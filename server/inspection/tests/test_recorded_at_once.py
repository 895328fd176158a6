"""Readings that waited on a device and are sent together: what stands then is what would stand had they come one by one."""

import datetime as dt
import uuid

import pytest
from django.db import connection, transaction
from django.test.utils import CaptureQueriesContext
from django.utils import timezone
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from inspection.actions import closing, recording
from inspection.judging import tallies
from inspection.judging.typed_readings import NewReading
from inspection.models import Reading, Verdict, WalkAround

DISC = "opener-disc-diameter"


def typed(position, *raw, check=DISC, **more):
    return {"uuid": str(uuid.uuid4()), "check": check, "position": position, "raw": list(raw), **more}


@pytest.fixture
def send(yard, as_):
    """Send readings together as the technician: send([…]) answers what the server says."""

    def sent(readings, by=None):
        browser = as_(by or yard.technician)
        return browser.send(f"/api/walk-arounds/{yard.walk_around.pk}/readings-at-once", readings=readings)

    return sent


def places(answer):
    return {place["position"]: place["severity"] for place in answer.json()["changed"]["places"]}


def test_each_is_recorded_and_all_that_changed_is_answered(send):
    answer = send([typed("1L", "395"), typed("1R", "389"), typed("2L", "384")])
    assert answer.json()["refused"] == []
    assert places(answer) == {"1L": "sound", "1R": "watch", "2L": "due"}
    assert any(part["slot"] == "opener-disc" for part in answer.json()["changed"]["parts"])
    assert Reading.objects.count() == 3


def test_what_is_refused_is_named_with_its_reason_and_holds_up_none_of_the_others(send):
    wrong, together, right = typed("1L", "14 8/5"), typed("1R", "395.5394.5"), typed("2L", "384")
    answer = send([wrong, together, right])
    assert answer.status_code == 200
    first, second = answer.json()["refused"]
    assert (first["uuid"], first["status"], first["field"]) == (wrong["uuid"], 422, "raw.0")
    assert (second["uuid"], second["figures"]) == (together["uuid"], ["395.5", "394.5"])
    assert places(answer) == {"2L": "due"}
    assert [str(reading.uuid) for reading in Reading.objects.all()] == [right["uuid"]]


def test_sent_again_after_a_lost_answer_it_is_done_once_and_answered_alike(send):
    readings = [typed("1L", "395"), typed("1R", "14 8/5"), typed("2L", "384")]
    first, again = send(readings).json(), send(readings).json()
    assert first == again
    assert Reading.objects.count() == 2


def test_part_of_them_may_have_come_before(send):
    known, fresh = typed("1L", "395"), typed("2L", "384")
    send([known])
    assert places(send([known, fresh])) == {"1L": "sound", "2L": "due"}
    assert Reading.objects.count() == 2


def test_a_place_that_was_typed_twice_has_what_was_typed_last(send):
    now = timezone.now()
    earlier, later = (
        typed("1L", raw, taken_at=(now - dt.timedelta(minutes=minutes)).isoformat())
        for raw, minutes in (("384", 2), ("394", 1))
    )
    assert places(send([later, earlier])) == {"1L": "sound"}
    assert Verdict.objects.get().reading.raw == ["394"]
    assert Reading.objects.count() == 2


def test_into_a_finished_walk_around_none_is_taken_and_each_says_why(yard, send):
    closing.finish(yard.lead, yard.walk_around.pk, uuid.uuid4())
    readings = [typed("1L", "395"), typed("1R", "394")]
    refused = send(readings).json()["refused"]
    assert [(one["uuid"], one["status"]) for one in refused] == [(one["uuid"], 409) for one in readings]
    assert all("finished" in one["message"] for one in refused)


@pytest.mark.parametrize(("readings", "field"), [([], "new.readings"), ([typed("1L", "390")] * 61, "new.readings")])
def test_none_and_too_many_are_refused(send, readings, field):
    answer = send(readings)
    assert answer.status_code == 422
    assert answer.json()["error"]["field"] in (field, field.partition(".")[2])
    assert Reading.objects.count() == 0


def test_forty_cost_hardly_more_questions_than_four(send):
    """On a poor line and in the database alike."""
    positions = [f"{row}{side}" for row in range(1, 7) for side in "LR"]
    counted = []
    for some in (positions[:2], positions[2:]):
        with CaptureQueriesContext(connection) as asked:
            assert send([typed(position, "395") for position in some]).status_code == 200
        counted.append(len(asked))
    assert counted[1] <= counted[0] + 3


CHECKS = {
    DISC: (
        [f"{row}{side}" for row in "123" for side in "LR"],
        st.sampled_from(["384", "389", "395", "14 8/5", "15 1/4", "500"]),
    ),
    "seed-tube-guard": (["1", "2", "3"], st.sampled_from(["18", "21", "24", "x"])),
    "row-spacing": (["1", "2"], st.sampled_from(["750", "762", "700"])),
}


@st.composite
def walks(draw):
    """What somebody types within a few minutes: places again, corrected, opened again, refused."""
    everywhere = st.sampled_from([(check, position) for check, (positions, _) in CHECKS.items() for position in positions])
    somewhere = draw(st.lists(everywhere, min_size=2, max_size=8, unique=draw(st.booleans())))
    states = st.sampled_from(["seen", "seen", "seen", "not-seen", "withdrawn"])
    return [(check, position, draw(states), draw(CHECKS[check][1])) for check, position in somewhere]


def readings_of(walk):
    begun = timezone.now() - dt.timedelta(hours=1)
    return [
        NewReading(
            uuid=uuid.uuid4(), check=check, position=position, state=state, raw=[raw] if state == "seen" else [],
            reason="mud" if state == "not-seen" else "", taken_at=begun + dt.timedelta(minutes=minute),
        )
        for minute, (check, position, state, raw) in enumerate(walk)
    ]  # fmt: skip


def stands(walk_around):
    """What stands at every place, what stations are said to have, and what was refused."""
    columns = ("check_key", "position_key", "severity", "reason", "ask", "reading__uuid", "overtaken__uuid")
    now = WalkAround.objects.get(pk=walk_around.pk)
    assert now.tallies == tallies.counted(now)
    return sorted(map(repr, Verdict.objects.filter(walk_around=walk_around).values_list(*columns))), now.tallies


@settings(max_examples=25, deadline=None, database=None, suppress_health_check=list(HealthCheck))
@given(walks())
def test_together_they_come_to_what_they_come_to_one_by_one(yard, walk):
    readings = readings_of(walk)
    outcomes = []
    for parts in ([[one] for one in readings], [readings]):
        with transaction.atomic():
            refused = set()
            for part in parts:
                refused |= set(recording.record_each(yard.technician, yard.walk_around.pk, part)[1])
            outcomes.append((refused, *stands(yard.walk_around)))
            transaction.set_rollback(True)
    assert outcomes[0] == outcomes[1]
