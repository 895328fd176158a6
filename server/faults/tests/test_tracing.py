"""A fault from words to its cause: what is asked next, what a reading answers, how it ends, and what the shop learns of it."""

import datetime as dt
import uuid

import pytest
from django.utils import timezone

from faults.models import LookAnswer, Trace
from fleet.models import Machine, MachineModel
from inspection.actions import closing, notes, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import OperatorNote, WalkAround, WearForecast
from inspection.queries import preparing
from lumvek_core import positions

INSIDE = "inside rear (tail and sieves), engine off"


@pytest.fixture
def yard(yard):
    """The yard with a combine that shakes."""
    model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    yard.combine = Machine.objects.create(shop=yard.shop, model=model, name="Heron 4", hours=3870)
    yard.path = f"/api/faults/machines/{yard.combine.pk}"
    return yard


@pytest.fixture
def tech(yard, as_):
    return as_(yard.technician)


def send(browser, path, status=200, **body):
    answer = browser.send(path, **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == status, answer.content
    return answer.json()


def begin(yard, browser, symptom="shakes", **more):
    return send(browser, f"{yard.path}/traces", symptom=symptom, **more)


def at(trace):
    return f"/api/faults/traces/{trace['uuid']}"


def share(trace, cause):
    return next(one["share"] for one in trace["causes"] if one["key"] == cause)


def read_knives(yard, trace, **apart):
    """Every chopper knife, sharp but for those that are named: knife_14="broken"."""
    walk = WalkAround.objects.get(pk=trace["walk_around"])
    for place in positions.expand("knife", walk.layout):
        state = apart.get(place.key.replace("-", "_"), "sharp")
        recording.record_reading(yard.technician, walk.pk, NewReading(uuid.uuid4(), "chopper-knives", place.key, raw=[state]))


def test_words_lead_to_symptoms_and_signs_narrow_them(yard, tech):
    found = tech.get(f"{yard.path}?words=it+shakes+when+empty").json()
    assert found["symptoms"][0]["key"] == "shakes" and found["symptoms"][0]["hits"]
    knocks = tech.get(f"{yard.path}?station=shoe&sound=knock").json()
    assert knocks["symptoms"][0]["key"] == "knock-a-stroke"
    everything = tech.get(yard.path).json()
    assert len(everything["symptoms"]) == 20 and {one["of"] for one in everything["symptoms"]} == {"Heron 4"}


def test_it_asks_for_what_tells_most_a_minute_and_says_why(yard, tech):
    trace = begin(yard, tech, words="shakes from 900 rpm")
    first = trace["looks"][0]
    rates = [one["gain_bits"] / (one["minutes"] + one["way_minutes"]) for one in trace["looks"]]
    assert rates == sorted(rates, reverse=True)
    assert first["why"] and first["posture"] and trace["causes"][0]["key"] == "chopper-knife"
    assert sum(one["share"] for one in trace["causes"]) == pytest.approx(1)
    listed = {one["key"]: one for one in trace["looks"]}
    assert listed["chopper-knives"]["check"] == "chopper-knives" and not listed["rotor-residue"]["check"]
    assert listed["chopper-knives"]["lock"], "hands go in: the lock is said"


def test_a_reading_answers_with_its_verdict(yard, tech):
    trace = begin(yard, tech)
    read_knives(yard, trace, knife_14="broken")
    found = tech.get(at(trace)).json()
    assert found["sure"] == "chopper-knife"
    assert [(one["look"], one["bad"], one["uuid"]) for one in found["looked"]] == [("chopper-knives", True, None)]


def test_all_of_them_sound_rules_it_out_and_some_of_them_tell_nothing_yet(yard, tech):
    trace = begin(yard, tech)
    walk = trace["walk_around"]
    recording.record_reading(
        yard.technician, uuid.UUID(walk), NewReading(uuid.uuid4(), "chopper-knives", "knife-1", raw=["sharp"])
    )
    assert tech.get(at(trace)).json()["looked"] == []
    read_knives(yard, trace)
    found = tech.get(at(trace)).json()
    assert share(found, "chopper-knife") == 0 and found["looked"][0]["bad"] is False


def test_a_look_of_its_own_wants_its_lock_confirmed_and_can_be_taken_back(yard, tech):
    trace = begin(yard, tech)
    refused = send(tech, f"{at(trace)}/answers", 422, look="rotor-residue", bad=True)
    assert refused["error"]["field"] == "locked"
    same = str(uuid.uuid4())
    for _ in range(2):
        found = send(
            tech, f"{at(trace)}/answers", uuid=same, look="rotor-residue", bad=True, locked=True, words="straw on one side"
        )
    assert LookAnswer.objects.count() == 1 and found["sure"] == "rotor-residue"
    assert found["looked"][0]["words"] == "straw on one side" and found["stands_in"] == "shields open, engine off"
    found = send(tech, f"/api/faults/answers/{same}/take-back")
    assert found["looked"] == [] and not found["sure"]


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"look": "chopper-knives", "bad": True}, "look"),
        ({"look": "vent", "bad": True}, "look"),
    ],
)
def test_a_look_that_is_answered_elsewhere_is_refused(body, field, yard, tech):
    trace = begin(yard, tech)
    assert send(tech, f"{at(trace)}/answers", 422, **body)["error"]["field"] == field


def test_found_it_closes_the_note_and_notes_what_may_have_come_loose(yard, tech):
    note = uuid.uuid4()
    notes.note(yard.technician, yard.combine, note, "Shakes from 900 rpm", "residue")
    trace = begin(yard, tech, note=str(note))
    assert "the operator: Shakes from 900 rpm" in trace["causes"][0]["because"]
    read_knives(yard, trace, knife_14="broken")
    assert send(tech, f"{at(trace)}/end", 422, outcome="found", cause="wheel")["error"]["field"] == "cause"
    ended = send(tech, f"{at(trace)}/end", outcome="found", cause="chopper-knife", gone="put-right")
    assert ended["outcome"] == "found" and ended["loosens"]
    assert 0 < ended["minutes"] < ended["plain_minutes"] / 3, "from the feeder on it would have been the last look"
    assert OperatorNote.objects.get(uuid=note).cause == "Chopper knife broken or missing"
    open_now = OperatorNote.objects.filter(closed_at=None, taken_back_at=None)
    assert {one.station_key for one in open_now} == {"threshing", "residue"} and open_now.count() == 3
    assert WalkAround.objects.get(pk=trace["walk_around"]).finished_at
    again = send(tech, f"{at(trace)}/go-on")
    assert not again["outcome"] and OperatorNote.objects.get(uuid=note).closed_at is None
    assert OperatorNote.objects.filter(closed_at=None, taken_back_at=None).count() == 1
    assert WalkAround.objects.get(pk=trace["walk_around"]).finished_at is None


def test_gone_after_a_change_of_range_is_not_cured(yard, tech):
    trace = begin(yard, tech)
    refused = send(tech, f"{at(trace)}/end", 422, outcome="found", cause="chopper-knife", gone="other-speed")
    assert refused["error"]["field"] == "outcome"
    ended = send(tech, f"{at(trace)}/end", outcome="watched", gone="other-speed")
    assert ended["outcome"] == "watched" and ended["cause"] == ""
    assert WalkAround.objects.get(pk=trace["walk_around"]).discarded_at, "nothing was read in it"
    for _ in range(2):  # as often as somebody changes their mind
        send(tech, f"{at(trace)}/go-on")
        assert WalkAround.objects.get(pk=trace["walk_around"]).discarded_at is None
        send(tech, f"{at(trace)}/end", outcome="not-found")
        assert WalkAround.objects.get(pk=trace["walk_around"]).discarded_at


def test_not_found_it_says_in_the_logbook_what_was_cleared(yard, tech):
    trace = begin(yard, tech)
    read_knives(yard, trace)
    send(tech, f"{at(trace)}/answers", look="rotor-residue", bad=False, locked=True)
    send(tech, f"{at(trace)}/end", outcome="not-found")
    cleared = "ruled out: chopper knife broken or missing, residue on the rotor"

    def told():
        entries = tech.get(f"/api/logbook/machines/{yard.combine.pk}/logbook").json()["entries"]
        return next(one["text"] for one in entries if one["kind"] == "fault")

    assert cleared in told()
    send(tech, f"{at(trace)}/go-on")
    assert "ruled out" not in told()


def test_begun_by_mistake_its_looks_are_closed_with_it(yard, tech):
    trace = begin(yard, tech)
    send(tech, f"{at(trace)}/take-back")
    assert WalkAround.objects.get(pk=trace["walk_around"]).discarded_at


def test_what_was_found_moves_the_shops_own_weights_openly(yard, tech):
    before = share(begin(yard, tech), "fan-blade")
    for _ in range(2):
        trace = begin(yard, tech)
        send(tech, f"{at(trace)}/end", outcome="found", cause="fan-blade")
    after = begin(yard, tech)
    assert share(after, "fan-blade") > 2 * before
    fan = next(one for one in after["causes"] if one["key"] == "fan-blade")
    assert fan["because"] == ["found here 2 of 2 times"]
    send(tech, f"/api/faults/traces/{trace['uuid']}/take-back")
    assert next(one for one in begin(yard, tech)["causes"] if one["key"] == "fan-blade")["because"] == [
        "found here 1 of 1 times"
    ]


def because(trace, cause):
    return next(one["because"] for one in trace["causes"] if one["key"] == cause)


def test_wear_counts_as_it_is_foreseen_today_not_as_it_was_read_last(yard, tech):
    path = f"/api/faults/machines/{yard.machine.pk}"
    sizes, places = {"new": 400.0, "limit": 386.0}, [{"now": 398.0}, {"now": 385.0}]
    Machine.objects.filter(pk=yard.machine.pk).update(wear_stale=False)
    WearForecast.objects.create(machine=yard.machine, check_key="opener-disc-diameter", sizes=sizes, places=places)
    trace = send(tech, f"{path}/traces", symptom="beside-furrow")
    assert because(trace, "discs-undersize") == ["worn past its limit"], "the worst place speaks"


def test_what_a_service_touched_lately_is_raised(yard, tech):
    assert because(begin(yard, tech, "rumble-feeder"), "chain-loose") == []
    path = f"/api/logbook/machines/{yard.combine.pk}/services"
    done = tech.send(path, uuid=str(uuid.uuid4()), key="chains-oiled", day=timezone.localdate().isoformat())
    assert done.status_code == 200, done.content
    trace = begin(yard, tech, "rumble-feeder")
    assert because(trace, "chain-loose") == ["chains oiled and set, today"] and because(trace, "slat-loose") == []


def test_what_is_usual_at_this_time_of_the_season_is_raised(yard, tech):
    before = begin(yard, tech, "dirty-sample")
    assert because(before, "concave-tight") == []
    Machine.objects.filter(pk=yard.combine.pk).update(season_date=timezone.localdate() + dt.timedelta(days=10))
    after = begin(yard, tech, "dirty-sample")
    assert because(after, "concave-tight") == ["usual when the season begins"] and because(after, "spacers-out") == []
    assert share(after, "concave-tight") > share(before, "concave-tight")


def test_open_findings_raise_their_causes(yard, tech):
    before = share(begin(yard, tech), "shaker-bushing")
    winter = starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted("winter"))
    recording.record_reading(yard.technician, winter.pk, NewReading(uuid.uuid4(), "shaker-arms", "R", raw=["loose"]))
    closing.finish(yard.technician, winter.pk, uuid.uuid4())
    found = begin(yard, tech)
    assert share(found, "shaker-bushing") > before
    assert "open finding: due" in next(one["because"] for one in found["causes"] if one["key"] == "shaker-bushing")


def test_a_recording_speaks_for_the_causes_of_its_shaft(yard, tech):
    before = share(begin(yard, tech), "chopper-knife")
    ran = {"engine_rpm": 2000, "ranges": {"chopper": "high"}}
    send(tech, f"{yard.path}/recordings", shaking=True, **ran)
    found = begin(yard, tech)
    assert share(found, "chopper-knife") > 1.5 * before
    because = next(one["because"] for one in found["causes"] if one["key"] == "chopper-knife")
    assert any(one.startswith("a recording names the chopper (9") for one in because)
    send(tech, f"{yard.path}/recordings", shaking=False, **ran)
    assert share(begin(yard, tech), "chopper-knife") == pytest.approx(before), "the newest rules"


def test_the_looks_of_a_fault_are_no_walk_around_of_the_board(yard, tech, as_):
    begin(yard, tech)
    cards = as_(yard.lead).get("/api/machines").json()["machines"]
    assert next(one for one in cards if one["machine"]["name"] == "Heron 4")["newest"] is None
    start = tech.get(f"/api/machines/{yard.combine.pk}/start").json()
    assert "fault" not in {one["key"] for one in start["phases"]}


def test_an_ended_trace_takes_no_more_answers(yard, tech):
    trace = begin(yard, tech)
    send(tech, f"{at(trace)}/end", outcome="not-found")
    send(tech, f"{at(trace)}/answers", 409, look="rotor-residue", bad=False, locked=True)


def test_the_same_trace_twice_is_once_and_another_shops_is_not_there(yard, tech, neighbour, as_):
    same = str(uuid.uuid4())
    for _ in range(2):
        begin(yard, tech, uuid=same)
    assert Trace.objects.count() == 1
    stranger = as_(neighbour.technician)
    assert stranger.get(f"/api/faults/traces/{same}").status_code == 404
    send(stranger, f"/api/faults/traces/{same}/end", 404, outcome="not-found")
    assert stranger.get(yard.path).status_code == 404


def test_an_owner_sees_the_faults_of_their_own_machines_only(yard, tech, as_):
    trace = begin(yard, tech)
    owner = as_(yard.owner)
    assert owner.get(at(trace)).status_code == 404
    yard.combine.owners.add(yard.owner)
    seen = owner.get(at(trace))
    assert seen.status_code == 200 and seen.json()["may_trace"] is False
    assert owner.send(f"{at(trace)}/end", outcome="not-found").status_code == 403


def test_a_symptom_of_a_header_is_traced_on_the_combine_it_hangs_on(yard, tech):
    model = MachineModel.objects.create(shop=yard.shop, maker="Lorne", name="Weir 107", family="draper-header")
    draper = Machine.objects.create(shop=yard.shop, model=model, name="Weir 107")
    browser = tech
    assert (
        browser.send(
            f"/api/calibration/machines/{yard.combine.pk}/happened", uuid=str(uuid.uuid4()), what="header", header=draper.pk
        ).status_code
        == 200
    )
    trace = begin(yard, browser, "breaks-sections")
    assert trace["header"] == "Weir 107" and {one["check"] for one in trace["looks"]} == {
        "draper.hold-down", "draper.knife-head", "draper.ball-joints", "draper.guards",
    }  # fmt: skip
    begin_other = send(browser, f"{yard.path}/traces", 422, symptom="skips")
    assert begin_other["error"]["field"] == "symptom"


def test_a_page_asks_the_database_as_much_however_much_was_answered(yard, tech, django_assert_max_num_queries):
    trace = begin(yard, tech)
    read_knives(yard, trace)
    for look in ("rotor-residue", "runs-empty", "ear-at-tail"):
        send(tech, f"{at(trace)}/answers", look=look, bad=False, locked=True)
    with django_assert_max_num_queries(30):
        assert tech.get(at(trace)).status_code == 200
