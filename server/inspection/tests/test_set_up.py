"""How a machine is set up: recorded at walk-arounds, shown the next time, held against the crop, kept with its history."""

import uuid

import pytest

from fleet.models import Machine, MachineModel
from inspection.actions import closing, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import Verdict
from inspection.queries import preparing


@pytest.fixture
def yard(yard):
    """The yard with a combine and a draper."""

    def made(maker, name, family, **more):
        counts = more.pop("counts", {})
        model = MachineModel.objects.create(shop=yard.shop, maker=maker, name=name, family=family, counts=counts)
        return Machine.objects.create(shop=yard.shop, model=model, name=name, **more)

    yard.combine = made("Tavric", "Heron 6", "rotary-combine", hours=2140)
    yard.draper = made("Lorne", "Weir 107", "draper-header", options=["flex"], counts={"runner": 12})
    return yard


def begun(yard, crop="", headers=(), machine=None):
    wanted = preparing.Wanted("winter", crop, headers=[one.pk for one in headers])
    return starting.start(yard.technician, machine or yard.combine, uuid.uuid4(), wanted)


def told(yard, walk_around, *readings):
    for check, place, *raw in readings:
        new = NewReading(uuid.uuid4(), check, place, raw=list(raw))
        recording.record_reading(yard.technician, walk_around.pk, new)


def severity(walk_around, check, place):
    return Verdict.objects.get(walk_around=walk_around, check_key=check, position_key=place).severity


def item(yard, as_, machine, check):
    page = as_(yard.lead).get(f"/api/machines/{machine.pk}/set-up").json()
    return next(one for one in page["items"] if one["check"] == check)


@pytest.mark.parametrize(("crop", "wrong"), [("ear", "due"), ("small-grain", "sound"), ("", "sound")])
def test_the_crop_at_the_start_changes_what_is_judged_wrong(yard, crop, wrong):
    winter = begun(yard, crop)
    told(yard, winter, ("drum-position", "L", "down"), ("drum-position", "R", "down"))
    assert {severity(winter, "drum-position", side) for side in "LR"} == {wrong}


def test_both_sides_are_judged_again_when_the_other_differs(yard):
    winter = begun(yard)
    told(yard, winter, ("drum-position", "L", "down"))
    assert severity(winter, "drum-position", "L") == "sound"
    told(yard, winter, ("drum-position", "R", "up"))
    assert {severity(winter, "drum-position", side) for side in "LR"} == {"due"}


def test_the_last_state_is_shown_the_next_winter(yard, as_):
    first = begun(yard)
    told(yard, first, ("spacers", "all", "in"))
    closing.finish(yard.technician, first.pk, uuid.uuid4())
    again = begun(yard)
    checks = {one["key"]: one for one in as_(yard.technician).get(f"/api/walk-arounds/{again.pk}").json()["checks"]}
    assert [(one["position"], one["shown"]) for one in checks["spacers"]["last"]] == [("all", "In")]
    assert checks["rotor-range"]["last"] == []


def test_a_header_takes_its_set_up_along_to_whatever_carries_it(yard, as_):
    coupled = begun(yard, headers=[yard.draper])
    told(yard, coupled, ("draper.float-lock", "all", "free"))
    other = Machine.objects.create(shop=yard.shop, model=yard.draper.model, name="Weir 108", options=["flex"])
    assert item(yard, as_, yard.draper, "draper.float-lock")["places"][0]["state"] == "free"
    assert item(yard, as_, other, "draper.float-lock")["places"] == []
    alone = begun(yard, machine=yard.draper)
    last = next(
        one for one in as_(yard.lead).get(f"/api/walk-arounds/{alone.pk}").json()["checks"] if one["key"] == "draper.float-lock"
    )
    assert last["last"][0]["shown"] == "Free"


def test_the_page_says_what_each_crop_wants_and_when_it_changed(yard, as_):
    for state in ("up", "down", "down"):
        told(yard, begun(yard), ("cob-deflector", "all", state))
    found = item(yard, as_, yard.combine, "cob-deflector")
    assert [(place["label"], place["state"], place["by"]) for place in found["places"]] == [
        ("Whole machine", "down", "Technician")
    ]
    assert {one["crop"]: one["names"] for one in found["wants"]}["ear"] == ["Down"]
    assert [(one["before"], one["after"]) for one in found["changes"]] == [("Up", "Down"), ("", "Up")]


def test_what_was_withdrawn_sets_nothing_up(yard, as_):
    winter = begun(yard)
    told(yard, winter, ("cob-deflector", "all", "down"))
    new = NewReading(uuid.uuid4(), "cob-deflector", "all", state="withdrawn")
    recording.record_reading(yard.technician, winter.pk, new)
    assert item(yard, as_, yard.combine, "cob-deflector")["places"] == []


def test_a_bare_figure_of_a_gauge_is_in_the_unit_it_had_and_a_fall_is_due(yard, as_):
    planter = yard.machine
    told(yard, begun(yard, machine=planter), ("fan-gauge", "all", "26 in"))
    spring = begun(yard, machine=planter)
    check = next(
        one for one in as_(yard.lead).get(f"/api/walk-arounds/{spring.pk}").json()["checks"] if one["key"] == "fan-gauge"
    )
    assert (check["unit_shown"], check["last"][0]["shown"]) == ("inH2O", "26 inH2O")
    told(yard, spring, ("fan-gauge", "all", "22"))
    row = Verdict.objects.get(walk_around=spring, check_key="fan-gauge")
    assert row.severity == "due" and row.reason.startswith("22 inH2O, last time 26 inH2O: 15 % lost.")


def test_wrong_pins_are_of_the_headers_own_number(yard):
    wanted = preparing.Wanted("pre-season", headers=[yard.draper.pk])
    found = starting.start(yard.technician, yard.combine, uuid.uuid4(), wanted)
    told(yard, found, ("draper.float-pins", "all", "2: 3, 7"))
    row = Verdict.objects.get(walk_around=found, check_key="draper.float-pins")
    assert row.reason == "2 of 12 (3, 7): set these right."


def test_another_shops_set_up_is_not_there(yard, neighbour, as_):
    assert as_(neighbour.lead).get(f"/api/machines/{yard.combine.pk}/set-up").status_code == 404
