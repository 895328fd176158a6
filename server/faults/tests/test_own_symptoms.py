"""A shop adds what it has found to the trade's list: it is searched, weighed and traced like any other, and can be taken away."""

import uuid

import pytest

from faults.models import OwnCause, OwnSymptom
from fleet.models import Machine, MachineModel
from shops.models import Change

INSIDE = "inside rear (tail and sieves), engine off"
PULLEY = {
    "symptom": "shakes",
    "name": "Chopper pulley cracked",
    "weight": 4,
    "look": "Pulley of the chopper",
    "posture": INSIDE,
    "how": "Lamp on the hub: a crack from the keyway.",
    "minutes": 6,
}


@pytest.fixture
def yard(yard):
    model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name="Heron 4", family="rotary-combine")
    yard.combine = Machine.objects.create(shop=yard.shop, model=model, name="Heron 4")
    yard.path = f"/api/faults/machines/{yard.combine.pk}"
    return yard


@pytest.fixture
def lead(yard, as_):
    return as_(yard.lead)


def send(browser, path, status=200, **body):
    answer = browser.send(path, **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == status, answer.content
    return answer.json()


def causes(page, symptom):
    return next(one["causes"] for one in page["symptoms"] if one["key"] == symptom)


def test_a_cause_that_the_shop_found_is_looked_for_the_next_time(yard, lead):
    before = send(lead, f"{yard.path}/traces", symptom="shakes")
    same = str(uuid.uuid4())
    for _ in range(2):
        found = send(lead, f"{yard.path}/own-causes", uuid=same, **PULLEY)
    assert OwnCause.objects.count() == 1 and causes(found, "shakes")[-1]["own"] == same
    assert causes(found, "shakes")[-1]["shown_by"] == "Pulley of the chopper"
    trace = send(lead, f"{yard.path}/traces", symptom="shakes")
    look = next(one for one in trace["looks"] if one["name"] == "Pulley of the chopper")
    assert look["how"] == PULLEY["how"] and look["lock"], "hands go in: the lock is said"
    at = f"/api/faults/traces/{trace['uuid']}"
    send(lead, f"{at}/answers", 422, look=look["key"], bad=True)
    sure = send(lead, f"{at}/answers", look=look["key"], bad=True, locked=True)["sure"]
    assert sure == look["key"]
    assert send(lead, f"{at}/end", outcome="found", cause=sure)["cause"] == sure
    running = lead.get(f"/api/faults/traces/{before['uuid']}").json()
    assert len(running["causes"]) == 9, "what had begun goes on as it began"
    assert Change.objects.filter(about=Change.About.CHECK, what__contains="Chopper pulley cracked").count() == 1


def test_taken_away_it_is_looked_for_no_more_and_what_was_traced_keeps_it(yard, lead):
    own = str(uuid.uuid4())
    send(lead, f"{yard.path}/own-causes", uuid=own, **PULLEY)
    trace = send(lead, f"{yard.path}/traces", symptom="shakes")
    key = next(one["key"] for one in trace["causes"] if one["name"] == PULLEY["name"])
    send(lead, f"/api/faults/traces/{trace['uuid']}/end", outcome="found", cause=key)
    found = send(lead, f"{yard.path}/own-causes/{own}/take-away")
    assert len(causes(found, "shakes")) == 8
    assert len(send(lead, f"{yard.path}/traces", symptom="shakes")["causes"]) == 9, "eight and something else"
    past = next(one for one in lead.get(yard.path).json()["traces"] if one["uuid"] == trace["uuid"])
    assert past["was"] == PULLEY["name"]
    assert PULLEY["name"] in lead.get(f"/api/logbook/machines/{yard.combine.pk}/logbook").content.decode()


def test_a_symptom_of_the_shops_own_is_searched_and_traced(yard, lead, as_):
    own = str(uuid.uuid4())
    body = {"family": "rotary-combine", "name": "Squeals on a cold morning", "also": "chirps, whines", "stations": ["shoe"]}
    found = send(lead, f"{yard.path}/own-symptoms", uuid=own, **body)
    key = next(one["key"] for one in found["symptoms"] if one["own"] == own)
    assert send(lead, f"{yard.path}/own-symptoms", 422, **body)["error"] == {"field": "name", "message": "stands there already"}
    send(lead, f"{yard.path}/own-causes", symptom=key, name="Fan belt glazed", check="fan-belt")
    technician = as_(yard.technician)
    hits = technician.get(f"{yard.path}?words=it+chirps").json()["symptoms"]
    assert hits[0]["key"] == key and hits[0]["causes"] == 1
    trace = send(technician, f"{yard.path}/traces", symptom=key)
    assert trace["looks"][0]["check"] == "fan-belt" and trace["walk_around"]
    send(lead, f"{yard.path}/own-symptoms/{own}/take-away", 409)
    cause = causes(lead.get(f"{yard.path}/own-symptoms").json(), key)[0]["own"]
    send(lead, f"{yard.path}/own-causes/{cause}/take-away")
    send(lead, f"{yard.path}/own-symptoms/{own}/take-away")
    assert technician.get(f"/api/faults/traces/{trace['uuid']}").json()["symptom"] == body["name"]
    assert key not in {one["key"] for one in technician.get(yard.path).json()["symptoms"]}


def test_a_symptom_without_a_cause_is_not_traced(yard, lead):
    body = {"family": "rotary-combine", "name": "Squeals on a cold morning"}
    found = send(lead, f"{yard.path}/own-symptoms", **body)
    key = next(one["key"] for one in found["symptoms"] if one["own"])
    assert send(lead, f"{yard.path}/traces", 422, symptom=key)["error"]["field"] == "symptom"
    assert key not in {one["key"] for one in lead.get(yard.path).json()["symptoms"]}


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"symptom": "flies"}, "symptom"),
        ({"name": " "}, "name"),
        ({"name": "Residue on the rotor"}, "name"),
        ({"posture": "on its head"}, "posture"),
        ({"check": "vent"}, "check"),
    ],
)
def test_a_cause_that_nobody_could_look_for_is_refused_at_its_field(change, field, yard, lead):
    assert send(lead, f"{yard.path}/own-causes", 422, **(PULLEY | change))["error"]["field"] == field


def test_only_a_lead_adds_and_only_for_the_own_shop(yard, lead, as_, neighbour):
    own = str(uuid.uuid4())
    send(as_(yard.technician), f"{yard.path}/own-causes", 403, **PULLEY)
    send(lead, f"{yard.path}/own-causes", uuid=own, **PULLEY)
    stranger = as_(neighbour.lead)
    theirs = f"/api/faults/machines/{neighbour.machine.pk}"
    send(stranger, f"{theirs}/own-causes/{own}/take-away", 404)
    assert OwnCause.objects.in_shop(neighbour.shop.pk).count() == OwnSymptom.objects.count() == 0
    assert as_(yard.technician).get(f"{yard.path}/own-symptoms").json()["may_change"] is False
