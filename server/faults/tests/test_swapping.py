"""A row reports a fault: parts are swapped and followed, two swaps prove the motor, and a new one is fitted where it sits."""

import uuid

import pytest

from faults.models import SwapRun, SwapTest
from fleet.models import Fitment


@pytest.fixture
def tech(yard, as_):
    return as_(yard.technician)


@pytest.fixture
def path(yard):
    return f"/api/faults/machines/{yard.machine.pk}/swap-tests"


def send(browser, path, status=200, **body):
    answer = browser.send(path, **({"uuid": str(uuid.uuid4())} | body))
    assert answer.status_code == status, answer.content
    return answer.json()


def begin(browser, path, **more):
    return send(browser, path, **({"rows": ["2", "3"]} | more))


def at(test):
    return f"/api/faults/swap-tests/{test['uuid']}"


def ran(browser, test, a, b, swap=None, status=200, **more):
    swapped = {"swapped": swap["slots"], "row_a": swap["row_a"], "row_b": swap["row_b"]} if swap else {}
    return send(browser, f"{at(test)}/runs", status, faults={"2": a, "3": b}, **(swapped | more))


def test_two_swaps_prove_the_motor_and_a_new_one_is_fitted_where_it_sits(yard, tech, path):
    test = begin(tech, path, parts={"2": {"meter-motor": "M-1180"}})
    assert test["seats"]["2"]["motor"] == "M-1180" and test["seats"]["3"]["motor"] == "of row 3"
    found = ran(tech, test, True, False)
    first = found["next_swap"]
    assert (first["names"], first["row_a"], first["row_b"]) == (["controller"], "2", "3")
    found = ran(tech, test, True, False, first)
    assert "controller of row 2" in found["cleared"]
    second = found["next_swap"]
    assert second["names"] == ["motor"]
    found = ran(tech, test, False, True, second)
    assert (found["proven"], found["words"], found["proven_row"]) == ("motor M-1180", "moved with the motor", "3")
    assert found["runs"][2]["sat"]["3"] == {"controller": "of row 2", "motor": "M-1180", "sensor": "of row 3"}
    ended = send(tech, f"{at(test)}/end", renewed=True)
    fitted = Fitment.objects.get(machine=yard.machine, slot="meter-motor")
    assert ended["fitted"] and fitted.position_key == "3"
    book = tech.get(f"/api/logbook/machines/{yard.machine.pk}/logbook?kind=fault").json()["entries"]
    assert book[0]["title"] == "Swap test, rows 2 and 3" and "moved with the motor" in book[0]["text"]
    again = send(tech, f"{at(test)}/go-on")
    assert not again["ended_at"] and not Fitment.objects.filter(slot="meter-motor", taken_back_at=None).exists()
    used = str(Fitment.objects.get(slot="meter-motor").fitting)
    assert send(tech, f"{at(test)}/end", 422, renewed=True, uuid=used)["error"]["field"] == "uuid", "that one was taken off"
    assert send(tech, f"{at(test)}/end", renewed=True)["fitted"]


def test_it_stays_on_the_row_or_is_intermittent(yard, tech, path):
    test = begin(tech, path)
    ran(tech, test, True, False)
    everything = {"slots": ["row-controller", "meter-motor", "seed-tube-sensor"], "row_a": "2", "row_b": "3"}
    found = ran(tech, test, True, False, everything)
    assert (found["proven"], found["words"]) == ("row 2", "stayed on the row")
    assert send(tech, f"{at(test)}/end", 422, renewed=True)["error"]["field"] == "renewed"
    found = ran(tech, test, False, False)
    assert found["words"] == "intermittent, a plug cured by handling, or two faults" and not found["proven"]


def test_a_run_is_taken_back_from_the_last(yard, tech, path):
    test = begin(tech, path)
    first, second = str(uuid.uuid4()), str(uuid.uuid4())
    for _ in range(2):
        ran(tech, test, True, False, uuid=first)
    ran(tech, test, True, False, {"slots": ["meter-motor"], "row_a": "2", "row_b": "3"}, uuid=second)
    assert SwapRun.objects.count() == 2
    send(tech, f"/api/faults/swap-runs/{first}/take-back", 409)
    found = send(tech, f"/api/faults/swap-runs/{second}/take-back")
    assert len(found["runs"]) == 1 and found["seats"]["2"]["motor"] == "of row 2"


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"rows": ["2", "99"]}, "rows.1"),
        ({"rows": ["2", "2"]}, "rows.1"),
        ({"rows": ["2", "x"]}, "rows.1"),
        ({"parts": {"5": {"meter-motor": "A"}}}, "parts.5.meter-motor"),
        ({"parts": {"2": {"disc": "A"}}}, "parts.2.disc"),
        ({"parts": {"2": {"meter-motor": "A"}, "3": {"meter-motor": "A "}}}, "parts.3.meter-motor"),
    ],
)
def test_what_cannot_begin_is_refused_at_its_place(body, field, yard, tech, path):
    assert send(tech, path, 422, **({"rows": ["2", "3"]} | body))["error"]["field"] == field


@pytest.mark.parametrize(
    ("body", "field"),
    [
        ({"faults": {"2": True}}, "faults"),
        ({"swapped": ["disc"], "row_a": "2", "row_b": "3"}, "swapped.0"),
        ({"swapped": ["meter-motor"], "row_a": "2", "row_b": "2"}, "row_a"),
        ({"swapped": ["meter-motor"], "row_a": "2", "row_b": "9"}, "row_a"),
    ],
)
def test_a_run_that_cannot_be_is_refused_at_its_place(body, field, yard, tech, path):
    test = begin(tech, path)
    assert send(tech, f"{at(test)}/runs", 422, **({"faults": {"2": True, "3": False}} | body))["error"]["field"] == field


def test_another_shops_test_is_not_there(yard, tech, path, neighbour, as_):
    test = begin(tech, path)
    stranger = as_(neighbour.technician)
    assert stranger.get(at(test)).status_code == 404
    ran(stranger, test, True, False, status=404)
    assert SwapTest.objects.count() == 1 and not SwapRun.objects.exists()
