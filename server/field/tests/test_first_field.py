"""The first field: what was seen behind the machine, when it is looked at again, and what comes back in winter."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from field.models import SetInField
from fleet.models import Machine, MachineModel
from inspection.actions import closing, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import OperatorNote, WalkAround
from inspection.queries import preparing


@pytest.fixture
def yard(yard):
    """The yard with a planter of four rows and a combine."""
    model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name="Heron 6", family="rotary-combine")
    yard.combine = Machine.objects.create(shop=yard.shop, model=model, name="Heron 6")
    yard.planter = yard.machine
    return yard


@pytest.fixture
def tech(yard, as_):
    return as_(yard.technician)


def walked(yard, machine, phase, readings, finish=True, ago=0.0):
    """A walk-around in the field with these readings: (check, place, as typed)."""
    walk = starting.start(yard.technician, machine, uuid.uuid4(), preparing.Wanted(phase))
    for check, place, *raw in readings:
        recording.record_reading(yard.technician, walk.pk, NewReading(uuid.uuid4(), check, place, raw=raw))
    if finish:
        closing.finish(yard.technician, walk.pk, uuid.uuid4())
        at = timezone.now() - dt.timedelta(days=ago)
        WalkAround.objects.filter(pk=walk.pk).update(started_at=at, finished_at=at)
    return walk


def card(browser, machine):
    answer = browser.get(f"/api/field/machines/{machine.pk}/card")
    assert answer.status_code == 200
    return answer.json()


def set_on(browser, machine, **body):
    answer = browser.send(f"/api/field/machines/{machine.pk}/card", uuid=str(uuid.uuid4()), **body)
    assert answer.status_code == 200, answer.content
    return answer.json()


def open_notes(machine):
    return list(OperatorNote.objects.filter(machine=machine, taken_back_at=None).values_list("station_key", "text"))


def test_losses_and_spread_are_choices_in_a_combines_first_field(yard, tech):
    walked(yard, yard.combine, "first-field", [
        ("field-losses", "all", "behind"), ("field-spread", "all", "even"), ("tank-sample", "all", "chaff"),
    ])  # fmt: skip
    seen = card(tech, yard.combine)["seen"][0]
    assert (seen["phase"], seen["running"]) == ("first-field", False)
    assert seen["found"] == ["Sample in the tank: chaff in it", "Grain lost, and where: behind it, loose"]
    assert [station for station, _ in open_notes(yard.combine)] == ["tank", "residue"]


def test_late_rows_come_back_in_winter_where_the_depth_is_made(yard, tech):
    walked(yard, yard.planter, "emergence", [
        ("late-rows", "1", "even"), ("late-rows", "2", "late"), ("late-rows", "3", "late"), ("late-rows", "4", "thin"),
        ("row-depth", "2", "38", "39", "40"), ("behind-wheels", "all", "yes"),
    ])  # fmt: skip
    notes = dict(open_notes(yard.planter))
    assert set(notes) == {"depth"}
    texts = [text for _, text in open_notes(yard.planter)]
    assert "Emergence: Rows that come late, thin or uneven: rows 2, 3 late; row 4 thin or gappy" in texts
    assert any("Seed depth by digging: row 2 38 · 39 · 40 mm" in text for text in texts), texts
    winter = starting.start(yard.technician, yard.planter, uuid.uuid4(), preparing.Wanted("winter"))
    shown = tech.get(f"/api/walk-arounds/{winter.pk}").json()
    assert {one["station"] for one in shown["notes"]} == {"depth"}


def test_opened_and_finished_again_the_notes_say_what_stands(yard):
    walk = walked(yard, yard.combine, "first-field", [("field-spread", "all", "narrow"), ("field-losses", "all", "under")])
    closing.reopen(yard.lead, walk.pk, uuid.uuid4(), "looked at again")
    recording.record_reading(yard.technician, walk.pk, NewReading(uuid.uuid4(), "field-spread", "all", raw=["side"]))
    recording.record_reading(yard.technician, walk.pk, NewReading(uuid.uuid4(), "field-losses", "all", raw=["few"]))
    closing.finish(yard.technician, walk.pk, uuid.uuid4())
    assert open_notes(yard.combine) == [
        ("residue", "First field: Straw and chaff behind the machine: heavier to one side")
    ]  # fmt: skip


def test_a_walk_around_in_the_shed_leaves_no_notes(yard):
    walked(yard, yard.planter, "winter", [("depth-handle-state", "1", "worn")])
    assert not open_notes(yard.planter)


def test_it_is_asked_for_when_it_works_and_again_a_few_days_later(yard, tech, as_):
    assert card(tech, yard.combine)["first_field"]["state"] == "idle"
    assert set_on(tech, yard.combine, values={"rotor": "450"})["first_field"]["state"] == "first"
    walked(yard, yard.combine, "first-field", [], ago=4)
    found = card(tech, yard.combine)["first_field"]
    assert (found["state"], found["words"]) == ("again", "looked at 4 days ago, and once only")
    assert tech.get(f"/api/field/machines/{yard.combine.pk}/daily").json()["first_field"]["state"] == "again"
    fleet = as_(yard.lead).get("/api/field/daily").json()
    assert {one["machine"]["name"]: one["first_field"]["state"] for one in fleet}["Heron 6"] == "again"
    walked(yard, yard.combine, "first-field", [])
    assert card(tech, yard.combine)["first_field"]["state"] == "right"


def test_another_field_or_other_ground_asks_for_a_look(yard, tech):
    set_on(tech, yard.combine, place="Mill field", condition="dry", values={})
    SetInField.objects.update(at=timezone.now() - dt.timedelta(days=2))
    walked(yard, yard.combine, "first-field", [], ago=1)
    assert card(tech, yard.combine)["first_field"]["state"] == "right"
    assert set_on(tech, yard.combine, values={"rotor": "450"})["first_field"]["state"] == "right", "the field is as it was"
    assert set_on(tech, yard.combine, condition="dry")["first_field"]["state"] == "right"
    found = set_on(tech, yard.combine, place="Long acre", condition="dry")
    assert found["first_field"]["state"] == "changed"
    assert found["first_field"]["words"] == "Long acre, dry; it was looked at on Mill field, dry"
    assert found["places"] == ["Long acre", "Mill field"]


def test_one_under_way_is_gone_on_with(yard, tech):
    walk = walked(yard, yard.combine, "first-field", [("field-spread", "all", "clumps")], finish=False)
    seen = card(tech, yard.combine)["seen"][0]
    assert (seen["walk_around"], seen["running"]) == (str(walk.pk), True) and not open_notes(yard.combine)
