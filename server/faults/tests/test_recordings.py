"""Recordings of a machine that shakes: simulated, from files, held against its drive line, beside each other."""

import json
import math
import uuid

import pytest
from django.core.files.uploadedfile import SimpleUploadedFile

from faults.models import ModelShaft, Recording
from fleet.models import Machine, MachineModel
from shops.models import Change

HIGH = {"chopper": "high", "rotor": "high", "feeder": "high"}


@pytest.fixture
def yard(yard):
    yard.combine_model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    yard.combine = Machine.objects.create(shop=yard.shop, model=yard.combine_model, name="Heron 4")
    yard.path = f"/api/faults/machines/{yard.combine.pk}"
    return yard


@pytest.fixture
def tech(yard, as_):
    return as_(yard.technician)


def send(browser, path, status=200, **body):
    answer = browser.send(path, **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == status, answer.content
    return answer.json()


def simulated(yard, browser, engine=2000, shaking=True, **more):
    return send(browser, f"{yard.path}/recordings", engine_rpm=engine, ranges=HIGH, shaking=shaking, **more)


def upload(yard, browser, name, content, status=200, **told):
    body = {"uuid": str(uuid.uuid4()), "engine_rpm": 2000, "ranges": HIGH} | told
    file = SimpleUploadedFile(name, content)
    answer = browser.post(f"{yard.path}/recordings-file", {"told": json.dumps(body), "file": file, "source": "phone"})
    assert answer.status_code == status, answer.content
    return answer.json()


def csv(hz, seconds=8, rate=100):
    rows = (f"{i / rate:.3f},{math.sin(2 * math.pi * hz * i / rate):.4f},0,9.81" for i in range(seconds * rate))
    return ("time_s,x,y,z\n" + "\n".join(rows)).encode()


def test_the_simulated_recorder_names_the_chopper_and_a_sound_machine_nothing(yard, tech):
    found = simulated(yard, tech, crop="Malting barley", station="residue")
    assert found["says"] == "Chopper" and found["ranked"][0]["score"] > 0.8
    top = found["peaks"][0]
    assert top["hz"] == pytest.approx(2860 / 60, abs=0.1) and top["matches"][0]["shaft"] == "Chopper"
    assert (found["crop"], found["source"], found["seconds"]) == ("Malting barley", "simulated", 30)
    assert simulated(yard, tech, shaking=False)["says"] == "no match"


def test_two_engine_speeds_are_overlaid_by_order(yard, tech):
    fast, slow = simulated(yard, tech), simulated(yard, tech, engine=1600)
    found = tech.get(f"/api/faults/recordings/{fast['uuid']}?beside={slow['uuid']}").json()
    first = found["compared"][0]
    assert (first["follows"], round(first["order"], 2)) == ("engine", 1.43)
    assert first["other_hz"] == pytest.approx(2860 * 0.8 / 60, abs=0.1)
    assert found["beside"]["engine_rpm"] == 1600 and found["beside_spectrum"]["hz"]


def test_a_file_of_the_phone_is_read_and_kept_once(yard, tech):
    same = str(uuid.uuid4())
    for _ in range(2):
        found = upload(yard, tech, "phone.csv", csv(15.7), uuid=same, words="on the left shield")
    assert Recording.objects.count() == 1 and found["source"] == "phone"
    assert found["peaks"][0]["hz"] == pytest.approx(15.7, abs=0.1)
    assert "Chopper" in {one["name"] for one in found["shafts"] if not all(order["observable"] for order in one["orders"])}


@pytest.mark.parametrize(
    ("name", "content", "words"),
    [
        ("a.wav", b"RIFFxx", "no WAV file"),
        ("a.csv", b"time,x\n1,2\n", "goes on"),
        ("big.wav", b"RIFF" + bytes(7 << 20), "larger than"),
    ],
)
def test_a_bad_file_is_refused_at_the_file(name, content, words, yard, tech):
    found = upload(yard, tech, name, content, status=422)
    assert found["error"]["field"] == "file" and words in found["error"]["message"]


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"ranges": {"chopper": "middle"}}, "ranges.chopper"),
        ({"ranges": {"propeller": "high"}}, "ranges.propeller"),
        ({"rpm": {"propeller": 900}}, "rpm.propeller"),
        ({"engine_rpm": 0}, "engine_rpm"),
    ],
)
def test_how_it_ran_must_be_possible(body, field, yard, tech):
    whole = {"engine_rpm": 2000, "ranges": HIGH} | body
    assert send(tech, f"{yard.path}/recordings", 422, **whole)["error"]["field"] == field
    assert upload(yard, tech, "phone.csv", csv(10), status=422, **body)["error"]["field"] == field


OWN_CHOPPER = {
    "key": "chopper",
    "speeds": {"low": 1500, "high": 3000},
    "orders": {"1": "turn", "10": "knives"},
    "source": "manual, 7-12",
}


def chopper(found):
    return next(one for one in found["shafts"] if one["key"] == "chopper")


def test_the_models_own_shaft_goes_before_the_catalogue_and_stands_in_the_log(yard, tech, as_):
    lead, path = as_(yard.lead), f"{yard.path}/shafts"
    send(tech, path, 403, **OWN_CHOPPER)
    found = chopper(send(lead, path, **OWN_CHOPPER))
    assert found["own"] and (found["source"], found["speeds"]["high"]) == ("manual, 7-12", 3000)
    assert simulated(yard, tech)["peaks"][0]["hz"] == pytest.approx(50, abs=0.1)
    assert Change.objects.filter(about=Change.About.MODEL, after__contains="3000 rpm").exists()
    bearing = {"name": "left bearing", "balls": 9, "ball_mm": 9.5, "pitch_mm": 46.4}
    assert chopper(send(lead, path, **(OWN_CHOPPER | {"bearings": [bearing]})))["bearings"][0]["balls"] == 9
    tones = chopper(simulated(yard, tech))["orders"]
    assert "outer ring of left bearing" in {one["what"] for one in tones}
    full = send(lead, path, 422, **(OWN_CHOPPER | {"bearings": [bearing | {"balls": 16}]}))
    assert full["error"]["field"] == "bearings.0.balls"
    assert send(lead, path, 422, **(OWN_CHOPPER | {"orders": {"often": "turn"}}))["error"]["field"] == "orders"


def test_a_shaft_is_written_once_for_its_uuid_and_can_be_taken_back(yard, tech, as_, neighbour):
    lead, path = as_(yard.lead), f"{yard.path}/shafts"
    first, second = str(uuid.uuid4()), str(uuid.uuid4())
    send(lead, path, uuid=first, **OWN_CHOPPER)
    send(lead, path, uuid=second, **(OWN_CHOPPER | {"speeds": {"low": 1500, "high": 3300}}))
    send(lead, path, uuid=first, **OWN_CHOPPER)
    assert chopper(tech.get(f"{yard.path}/recordings").json())["speeds"]["high"] == 3300, "sent late, it changes nothing"
    assert ModelShaft.objects.count() == 2
    send(as_(neighbour.lead), f"{path}/{second}/take-back", 404)
    assert chopper(send(lead, f"{path}/{second}/take-back"))["speeds"]["high"] == 3000
    shipped = chopper(send(lead, f"{path}/{first}/take-back"))
    assert shipped["own"] is None and shipped["source"] == "starting value"
    changes = Change.objects.filter(about=Change.About.MODEL, what__contains="Chopper")
    assert [one.after.split(";")[0] for one in changes.order_by("id")][:3] == [
        "low 1500 rpm, high 3000 rpm", "low 1500 rpm, high 3300 rpm", "low 1500 rpm, high 3000 rpm",
    ]  # fmt: skip


def test_taken_back_it_is_in_no_list_and_another_shop_does_not_see_it(yard, tech, neighbour, as_):
    found = simulated(yard, tech)
    assert as_(neighbour.technician).get(f"/api/faults/recordings/{found['uuid']}").status_code == 404
    assert send(tech, f"/api/faults/recordings/{found['uuid']}/take-back")["taken_back"]
    assert tech.get(f"{yard.path}/recordings").json()["recordings"] == []
