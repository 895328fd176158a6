"""Finishing, opening again, discarding, and what could not be taken: each once, by whom it belongs to, and in the log."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from inspection.actions import closing, decisions, notes, postures, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import HandOver, OperatorNote, PostureHold, SetAside, Verdict, WalkAroundEvent
from inspection.queries import preparing, serializers, walk_arounds
from logbook.queries import timeline
from lumvek_core.errors import BadInput
from parts.models import PartsLine
from shops.access import Conflict, NotAllowed

DISC = "opener-disc-diameter"


def finish(yard, event=None):
    closing.finish(yard.technician, yard.walk_around.pk, event or uuid.uuid4())


def test_a_finish_that_comes_a_second_time_after_it_was_opened_again_changes_nothing(yard):
    late = uuid.uuid4()
    finish(yard, late)
    closing.reopen(yard.lead, yard.walk_around.pk, uuid.uuid4(), "six figures were still on a phone")
    finish(yard, late)
    yard.walk_around.refresh_from_db()
    assert yard.walk_around.finished_at is None
    assert yard.walk_around.version == 2


def test_opened_again_it_takes_readings_and_its_report_says_so(yard, read, as_):
    finish(yard)
    with pytest.raises(Conflict):
        read(DISC, "3L", "390")
    closing.reopen(yard.lead, yard.walk_around.pk, uuid.uuid4(), "row 3 was forgotten")
    read(DISC, "3L", "385")
    report = as_(yard.lead).get(f"/walk-arounds/{yard.walk_around.pk}/report").content.decode()
    assert "Version 2" in report
    assert "row 3 was forgotten" in report


def test_who_was_not_at_it_may_not_open_it_again_and_a_reason_is_wanted(yard):
    finish(yard)
    closing.reopen(yard.technician, yard.walk_around.pk, uuid.uuid4(), "mine")
    finish(yard)
    yard.walk_around.people.clear()
    with pytest.raises(NotAllowed):
        closing.reopen(yard.technician, yard.walk_around.pk, uuid.uuid4(), "not mine")
    with pytest.raises(BadInput) as problem:
        closing.reopen(yard.lead, yard.walk_around.pk, uuid.uuid4(), " ")
    assert problem.value.field == "reason"


def test_one_begun_by_mistake_leaves_every_list_and_can_be_brought_back(yard, read, as_):
    read(DISC, "3L", "385")
    browser = as_(yard.technician)
    closing.discard(yard.technician, yard.walk_around.pk, uuid.uuid4(), "the wrong planter")
    assert browser.get("/api/machines").json()["machines"][0]["newest"] is None
    assert browser.get(f"/api/machines/{yard.machine.pk}/start").json()["running"] == []
    assert not Verdict.objects.exists()
    assert not PartsLine.objects.exists()
    with pytest.raises(Conflict):
        read(DISC, "3L", "390")
    told = [entry.title + entry.text for entry in timeline.entries(yard.lead, yard.machine)]
    assert any("discarded" in one and "the wrong planter" in one for one in told)
    closing.restore(yard.technician, yard.walk_around.pk, uuid.uuid4())
    assert Verdict.objects.get().severity == "due"
    assert PartsLine.objects.filter(slot="opener-disc").exists()
    assert browser.get("/api/machines").json()["machines"][0]["newest"]


def test_what_was_decided_upon_is_no_mistake(yard, read):
    read(DISC, "3L", "385")
    decisions.decide(yard.lead, yard.walk_around.pk, uuid.uuid4(), DISC, ["3L"], "do")
    with pytest.raises(Conflict):
        closing.discard(yard.lead, yard.walk_around.pk, uuid.uuid4(), "a mistake")


@pytest.mark.parametrize("page", ["report", "owner"])
def test_one_finished_with_nothing_seen_never_says_that_nothing_was_found(page, yard, as_):
    finish(yard)
    text = as_(yard.lead).get(f"/walk-arounds/{yard.walk_around.pk}/{page}").content.decode()
    assert "Nothing found" not in text
    assert "othing was looked at" in text


def not_taken(uuid_=None, **more):
    about = {"check": DISC, "position": "3L", "shown": "388.5", "refused": "This walk-around is finished."}
    return closing.NotTaken(uuid_ or uuid.uuid4(), **{**about, **more}, taken_at=timezone.now() - dt.timedelta(hours=1))


def test_what_could_not_be_taken_is_kept_in_the_logbook_in_words(yard):
    finish(yard)
    what = not_taken()
    for _ in range(2):
        closing.set_aside(yard.technician, yard.walk_around.pk, what, "logbook", "")
    assert SetAside.objects.count() == 1
    entry = next(one for one in timeline.entries(yard.lead, yard.machine) if one.kind == "set-aside")
    assert "row 3 left: 388.5, kept in the logbook" in entry.title
    assert "This walk-around is finished." in entry.text


def test_it_is_discarded_with_a_word_only_and_never_when_it_was_taken_after_all(yard, read):
    with pytest.raises(BadInput) as problem:
        closing.set_aside(yard.technician, yard.walk_around.pk, not_taken(), "discarded", "")
    assert problem.value.field == "word"
    taken = uuid.uuid4()
    read(DISC, "3L", "390", uuid=taken)
    with pytest.raises(Conflict):
        closing.set_aside(yard.technician, yard.walk_around.pk, not_taken(taken), "discarded", "typed twice")


@pytest.fixture
def elsewhere(yard):
    """A second walk-around of the same planter."""
    return starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))


def test_a_uuid_of_another_walk_around_is_refused_the_same_everywhere(yard, elsewhere, read):
    """Answering 200 and storing nothing would lose what was typed."""
    here, there, posture = yard.walk_around.pk, elsewhere.pk, "unfolded, raised and locked"
    same = uuid.uuid4()
    writes = {
        "hold": lambda at: postures.confirm_posture(yard.technician, at, same, posture),
        "hand over": lambda at: postures.hand_over(yard.technician, at, same, yard.lead.pk),
        "finish": lambda at: closing.finish(yard.technician, at, same),
        "set aside": lambda at: closing.set_aside(yard.technician, at, not_taken(same), "logbook", ""),
    }
    for name, write in writes.items():
        write(here)
        with pytest.raises(BadInput) as problem:
            write(there)
        assert problem.value.field == "uuid", name
    assert PostureHold.objects.get().walk_around_id == HandOver.objects.get().walk_around_id == here
    assert WalkAroundEvent.objects.get().walk_around_id == here


def test_a_decision_and_a_note_with_a_uuid_from_elsewhere_are_refused_too(yard, elsewhere, neighbour, read):
    same = uuid.uuid4()
    read(DISC, "3L", "385")
    recording.record_reading(
        yard.technician, elsewhere.pk, NewReading(uuid=uuid.uuid4(), check=DISC, position="3L", raw=["385"])
    )
    decisions.decide(yard.lead, yard.walk_around.pk, same, DISC, ["3L"], "do")
    with pytest.raises(BadInput):
        decisions.decide(yard.lead, elsewhere.pk, same, DISC, ["3L"], "do")
    notes.note(yard.lead, yard.machine, same, "rattles")
    with pytest.raises(BadInput):
        notes.note(neighbour.lead, neighbour.machine, same, "rattles")
    assert OperatorNote.objects.count() == 1


def test_a_discarded_walk_around_still_opens_and_says_what_it_is(yard, as_):
    closing.discard(yard.technician, yard.walk_around.pk, uuid.uuid4(), "the wrong planter")
    answer = as_(yard.technician).get(f"/api/walk-arounds/{yard.walk_around.pk}").json()
    assert (answer["walk_around"]["discarded"], answer["may_record"]) == (True, False)
    assert walk_arounds.previous(starting.start(yard.technician, yard.machine, uuid.uuid4())) is None
    assert serializers.brief(yard.walk_around).version == 1
