"""What is due on a machine, going through it, and what is kept: by hand, from walk-arounds, from loads."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from calibration.models import CalibrationRun, CollectedLoad
from fleet.models import Machine, MachineModel
from inspection.actions import recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.queries import preparing


@pytest.fixture
def yard(yard):
    """The yard with a combine far from its season, a draper and a row-crop header."""

    def made(maker, name, family, **more):
        model = MachineModel.objects.create(shop=yard.shop, maker=maker, name=name, family=family)
        return Machine.objects.create(shop=yard.shop, model=model, name=name, **more)

    yard.combine = made("Tavric", "Heron 4", "rotary-combine", hours=3870)
    yard.draper = made("Lorne", "Weir 107", "draper-header", options=["flex"])
    yard.rowcrop = made("Maddow", "Maddow 8", "row-crop-header")
    yard.path = f"/api/calibration/machines/{yard.combine.pk}"
    return yard


@pytest.fixture
def tech(yard, as_):
    return as_(yard.technician)


def due(found):
    return [one["key"] for one in found["calibrations"] if one["state"] == "due"]


def one(found, key):
    return next(one for one in found["calibrations"] if one["key"] == key)


def send(browser, path, status=200, **body):
    answer = browser.send(path, **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == status, answer.content
    return answer.json()


def went_through(yard, browser, key, outcome="saved", status=200, **more):
    now = timezone.now()
    times = {"begun_at": (now - dt.timedelta(minutes=5)).isoformat(), "at": now.isoformat()}
    return send(browser, f"{yard.path}/runs", status, key=key, outcome=outcome, **(times | more))


def coupled(yard, browser, header):
    return send(browser, f"{yard.path}/happened", what="header", header=header.pk if header else None)


def test_nothing_is_due_on_a_machine_nothing_happened_to(yard, tech):
    found = tech.get(yard.path).json()
    assert due(found) == [] and one(found, "raise-speed")["state"] == "never"
    assert "deck-plates" not in {row["key"] for row in found["calibrations"]}, "there is no row-crop header on it"


def test_another_header_makes_its_calibrations_due_in_the_right_order(yard, tech):
    found = coupled(yard, tech, yard.draper)
    order = due(found)
    assert order.index("raise-speed") < order.index("flex-mode") < order.index("header-height") < order.index("cut-heights")
    assert "deck-plates" not in order and found["header"] == yard.draper.pk
    height = one(found, "header-height")
    assert height["because"][0]["words"] == "Weir 107 coupled"
    assert {first["name"] for first in height["first"]} == {"Feeder raise speed", "Cutterbar pressure and flex mode"}
    assert "deck-plates" in due(coupled(yard, tech, yard.rowcrop))


def test_a_walk_around_with_a_header_tells_that_it_is_coupled(yard, tech):
    starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted("winter", headers=[yard.rowcrop.pk]))
    found = tech.get(yard.path).json()
    assert found["header"] == yard.rowcrop.pk and "deck-plates" in due(found)


def test_saved_it_is_right_and_what_rests_on_it_comes_due(yard, tech):
    coupled(yard, tech, yard.draper)
    found = went_through(yard, tech, "header-height")
    assert "header-height" not in due(found) and one(found, "header-height")["saved_by"] == "Technician"
    found = went_through(yard, tech, "raise-speed")
    assert "header-height" in due(found), "height rests on the raise speed"
    assert one(found, "header-height")["because"][0]["words"] == "Feeder raise speed saved"


@pytest.mark.parametrize(("outcome", "words"), [("aborted", "figures stood still"), ("unsaved", "")])
def test_aborted_or_left_unsaved_it_stays_due_and_in_the_log(outcome, words, yard, tech):
    coupled(yard, tech, yard.draper)
    found = went_through(yard, tech, "raise-speed", outcome, steps=2, words=words)
    assert "raise-speed" in due(found)
    log = found["runs"][0]
    assert (log["outcome"], log["steps"], log["of_steps"], log["words"], log["header"]) == (outcome, 2, 3, words, "Weir 107")


def test_the_same_run_twice_is_once_and_taken_back_it_counts_no_more(yard, tech):
    coupled(yard, tech, yard.draper)
    same = str(uuid.uuid4())
    for _ in range(2):
        found = went_through(yard, tech, "raise-speed", uuid=same)
    assert CalibrationRun.objects.count() == 1 and "raise-speed" not in due(found)
    found = send(tech, f"/api/calibration/runs/{same}/take-back")
    assert "raise-speed" in due(found) and found["runs"][0]["taken_back"]


def test_a_run_that_is_sent_late_belongs_to_the_header_it_was_done_with(yard, tech):
    coupled(yard, tech, yard.rowcrop)
    then = timezone.now()
    coupled(yard, tech, yard.draper)
    times = {"begun_at": then.isoformat(), "at": then.isoformat()}
    found = went_through(yard, tech, "deck-plates", **times)
    assert found["header"] == yard.draper.pk and found["runs"][0]["header"] == "Maddow 8"


def test_sieves_of_another_class_are_told_and_zeroed(yard, tech):
    for state in ("small", "closed"):
        walk = starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted("winter"))
        for place in ("chaffer", "sieve"):
            recording.record_reading(yard.technician, walk.pk, NewReading(uuid.uuid4(), "sieve-type", place, raw=[state]))
    found = tech.get(yard.path).json()
    assert one(found, "sieve-opening")["because"][0]["words"] == "Sieve class and slat form fitted: set otherwise"
    assert one(found, "concave-zero")["state"] == "never"


def test_the_season_and_another_crop_make_theirs_due(yard, tech):
    yard.combine.season_date = timezone.localdate() + dt.timedelta(days=30)
    yard.combine.save()
    assert set(due(tech.get(yard.path).json())) == {"raise-speed", "header-height", "moisture-sampling", "yield", "totals"}
    yard.combine.season_date = timezone.localdate() + dt.timedelta(days=200)
    yard.combine.save()
    starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted("winter", "ear"))
    assert set(due(tech.get(yard.path).json())) == {"moisture-sampling", "yield"}


def test_what_somebody_says_was_done_makes_it_due_until_it_is_taken_back(yard, tech):
    found = send(tech, f"{yard.path}/happened", what="moisture-cell")
    assert due(found) == ["moisture-cell"] and found["said"][0]["words"] == "Moisture cell replaced"
    assert due(went_through(yard, tech, "moisture-cell")) == ["moisture-offset"], "a new cell reads otherwise"
    found = send(tech, f"/api/calibration/happened/{found['said'][0]['uuid']}/take-back")
    assert found["said"] == []


def test_a_planter_has_its_own(yard, as_):
    found = as_(yard.technician).get(f"/api/calibration/machines/{yard.machine.pk}").json()
    assert {row["key"] for row in found["calibrations"]} == {"downforce-zero", "seed-sensors", "ground-speed", "planter-rows"}
    assert found["headers"] == []


PAIRS = [{"shown_pct": 14.2, "reference_pct": 15.9}]


def test_the_bare_difference_is_never_typed_over_a_stored_offset(yard, tech):
    given = {"stored_pct": -0.8, "pairs": PAIRS}
    answer = went_through(yard, tech, "moisture-offset", status=422, values={"offset": "1.7"}, given=given)
    assert answer["error"]["field"] == "values.offset"
    assert "bare difference" in answer["error"]["message"] and "+0.9 %" in answer["error"]["message"]
    went_through(yard, tech, "moisture-offset", values={"offset": "0.9"}, given=given)
    found = went_through(yard, tech, "moisture-offset", values={"offset": "1.2"}, given={"stored_pct": 0, "pairs": PAIRS})
    assert one(found, "moisture-offset")["values"][0]["last"] == 1.2
    series = found["series"][0]
    assert (series["name"], [point["value"] for point in series["points"]]) == ("Moisture offset: offset", [0.9, 1.2])


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"values": {"offset": "40"}}, "values.offset"),
        ({"values": {"offset": "about one"}}, "values.offset"),
        ({"values": {"depth": "1"}}, "values.depth"),
        ({"at": "2199-01-01T00:00:00Z"}, "at"),
        ({"begun_at": "2099-01-01T00:00:00Z"}, "begun_at"),
        ({"key": "deck-plates"}, "key"),
        ({"values": {"offset": "0.9"}, "given": {"stored_pct": 0}}, "pairs"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(body, field, yard, tech):
    answer = went_through(yard, tech, **({"key": "moisture-offset", "status": 422} | body))
    assert answer["error"]["field"] == field and not CalibrationRun.objects.exists()


def test_lengths_are_typed_and_read_in_the_technician_s_own_units(yard, tech):
    assert [one(tech.get(yard.path).json(), "sieve-opening")["values"][i]["unit"] for i in (0, 1)] == ["mm", "mm"]
    yard.technician.units = "in"
    yard.technician.save()
    found = went_through(yard, tech, "sieve-opening", values={"chaffer": "-1/8", "sieve": "2 mm"})
    chaffer, sieve = one(found, "sieve-opening")["values"]
    assert (chaffer["unit"], chaffer["last"], chaffer["last_words"], sieve["last_words"]) == (
        "in",
        -3.175,
        "−1/8 in",
        "79 thou",
    )
    assert found["runs"][0]["values"] == "Chaffer to add −1/8 in, Sieve to add 79 thou"
    found = went_through(yard, tech, "sieve-opening", values={"chaffer": "-3.5", "sieve": " "}, units="mm")
    assert CalibrationRun.objects.latest("id").values == {"chaffer": -3.5}
    (series,) = found["series"]
    assert [point["words"] for point in series["points"]] == ["−1/8 in", "−1/8 in"]
    answer = went_through(yard, tech, "sieve-opening", status=422, values={"chaffer": "2"})
    assert answer["error"] == {"field": "values.chaffer", "message": "must lie between −1 3/16 and 1 3/16 in"}


def test_a_load_is_collected_now_and_weighed_later(yard, tech):
    found = send(tech, f"{yard.path}/loads", name="Long Drain, 2", crop="Malting barley", machine_kg=2080, shown_pct=14.2)
    load = found["loads"][0]
    assert (load["machine_kg"], load["scale_kg"]) == (2080, None)
    found = tech.send(f"/api/calibration/loads/{load['uuid']}/weigh", scale_kg=2000).json()
    found = tech.send(f"/api/calibration/loads/{load['uuid']}/weigh", reference_pct=15.9).json()
    assert (found["loads"][0]["scale_kg"], found["loads"][0]["reference_pct"]) == (2000, 15.9)
    assert tech.send(f"/api/calibration/loads/{load['uuid']}/weigh").status_code == 422
    assert send(tech, f"/api/calibration/loads/{load['uuid']}/take-back")["loads"] == []
    assert send(tech, f"{yard.path}/loads", 422, name="empty")["error"]["field"] == "machine_kg"
    assert CollectedLoad.objects.count() == 1


def test_only_who_inspects_calibrates_and_nobody_elsewhere(yard, neighbour, as_):
    assert as_(yard.parts).get(yard.path).json()["may_calibrate"] is False
    assert send(as_(yard.parts), f"{yard.path}/happened", 403, what="plunger")
    assert as_(neighbour.technician).get(yard.path).status_code == 404
    assert send(as_(neighbour.technician), f"{yard.path}/happened", 404, what="plunger")
    assert send(as_(yard.technician), f"{yard.path}/happened", 422, what="rain")["error"]["field"] == "what"
    assert (
        send(as_(yard.technician), f"{yard.path}/happened", 422, what="header", header=yard.combine.pk)["error"]["field"]
        == "header"
    )


def test_the_page_asks_as_much_however_much_happened(yard, tech):
    from django.db import connection
    from django.test.utils import CaptureQueriesContext

    coupled(yard, tech, yard.draper)
    went_through(yard, tech, "raise-speed", values={"raise-value": "10"})
    with CaptureQueriesContext(connection) as before:
        tech.get(yard.path)
    for _ in range(3):
        coupled(yard, tech, yard.rowcrop)
        coupled(yard, tech, yard.draper)
        went_through(yard, tech, "raise-speed", values={"raise-value": "12"})
        send(tech, f"{yard.path}/loads", machine_kg=2000)
    with CaptureQueriesContext(connection) as after:
        tech.get(yard.path)
    assert len(after) <= len(before)
