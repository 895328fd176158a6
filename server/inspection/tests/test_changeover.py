"""Changing a machine from one crop to another: what is listed, what is caught, and changing back."""

import uuid

import pytest

from fleet.models import Machine, MachineModel
from inspection.actions import closing, recording, shop_rules, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import Verdict, WalkAround
from inspection.queries import preparing
from lumvek_core.errors import BadInput

GRAIN = {"drum-position": "down", "header-speed": "high", "accelerator-speed": "high", "concave-type": "small-wire",
         "spacers": "out", "rotor-range": "high", "sieve-type": "small", "stationary-knives": "sharp", "chopper-speed": "high",
         "cob-deflector": "up", "rethresher-position": "grain"}  # fmt: skip
"""How a combine stands for barley."""


@pytest.fixture
def yard(yard):
    """The yard with a combine that stands for small grain throughout, a platform and a row-crop header."""

    def made(maker, name, family, **more):
        model = MachineModel.objects.create(shop=yard.shop, maker=maker, name=name, family=family)
        return Machine.objects.create(shop=yard.shop, model=model, name=name, **more)

    yard.combine = made("Tavric", "Heron 4", "rotary-combine", hours=3870, options=["accelerator", "rethresher"])
    yard.platform = made("Lorne", "Sill 61", "auger-platform")
    yard.rowcrop = made("Maddow", "Maddow 8", "row-crop-header")
    yard.platform.goes_with.set([yard.combine])
    stand(yard, GRAIN)
    return yard


def stand(yard, states):
    """Read once round how everything stands."""
    winter = starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted("winter", headers=[yard.platform.pk]))
    for check, place in places(winter, states):
        record(yard, winter, check, place, states[check])
    closing.finish(yard.technician, winter.pk, uuid.uuid4())
    return winter


def places(walk_around, checks):
    per = {
        "drum-position": ("L", "R"),
        "concave-type": ("concave-1", "concave-2", "concave-3"),
        "sieve-type": ("chaffer", "sieve"),
    }
    return [(check, place) for check in checks for place in per.get(check, ("all",))]


def record(yard, walk_around, check, place, state):
    recording.record_reading(yard.technician, walk_around.pk, NewReading(uuid.uuid4(), check, place, raw=[state]))


def asked(yard, as_, crop, headers=(), **more):
    answer = as_(yard.technician).send(
        f"/api/machines/{yard.combine.pk}/changeover", crop=crop, headers=[one.pk for one in headers], **more
    )
    assert answer.status_code == 200, answer.content
    return answer.json()


def items(found):
    return {item["check"]: item for visit in found["visits"] for item in visit["items"]}


def to_set(found):
    return {check for check, item in items(found).items() if item["todo"] == "set"}


def change(yard, crop, headers=(), **more):
    wanted = preparing.Wanted("changeover", crop, headers=[one.pk for one in headers], **more)
    return starting.start(yard.technician, yard.combine, uuid.uuid4(), wanted)


EAR = {"drum-position": "up", "accelerator-speed": "low", "concave-type": "round-bar", "spacers": "in", "rotor-range": "low",
       "sieve-type": "closed", "stationary-knives": "out", "chopper-speed": "low", "cob-deflector": "down",
       "rethresher-position": "open"}  # fmt: skip
"""What barley to sunflower sets otherwise; the header drive speed is per manual."""


def test_barley_to_sunflower_lists_the_difference_and_nothing_that_stands_right(yard, as_):
    found = asked(yard, as_, "ear", [yard.rowcrop])
    assert to_set(found) == set(EAR)
    drum = items(found)["drum-position"]
    assert [(one["label"], one["now"], one["to"]) for one in drum["places"]] == [
        ("Left", "Down", "Up"),
        ("Right", "Down", "Up"),
    ]
    assert items(found)["stationary-knives"]["grave"] and drum["mends"] == "Drum up, both sides in the same hole."
    assert {item["todo"] for key, item in items(found).items() if key.startswith("crop-")} == {"do"}
    assert {one["key"] for one in found["calibrations"]} >= {
        "raise-speed",
        "header-height",
        "deck-plates",
        "sieve-opening",
        "concave-zero",
        "yield",
    }
    order = [one["key"] for one in found["calibrations"]]
    assert order.index("raise-speed") < order.index("header-height") < order.index("cut-heights")


def test_to_a_crop_of_the_same_group_only_what_is_done_at_every_change_is_listed(yard, as_):
    found = asked(yard, as_, "small-grain", [yard.platform])
    assert to_set(found) == set() and set(items(found)) >= {"crop-display", "crop-alarms", "crop-settings", "spread-width"}
    assert "Feeder drum fitted" in found["right"]
    assert "header" not in " ".join(one["because"] for one in found["calibrations"])


def test_what_was_never_looked_at_is_asked(yard, as_):
    yard.combine.options = [*yard.combine.options, "windrow-door"]
    yard.combine.save()
    other = Machine.objects.create(shop=yard.shop, model=yard.combine.model, name="Heron 6")
    yard.combine = other
    found = asked(yard, as_, "ear")
    assert items(found)["drum-position"]["todo"] == "ask" and not to_set(found)


def test_the_changeover_is_walked_like_any_round_and_catches_the_forgotten_side(yard, as_):
    walk = change(yard, "ear", [yard.rowcrop])
    planned = {key for visit in walk.plan["visits"] for key in visit["checks"]}
    assert set(EAR) <= planned and "float-lock" not in planned
    assert items(asked(yard, as_, "ear"))["header-speed"]["todo"] == "manual", "for ears the manual alone says it"
    for check, place in places(walk, EAR):
        if (check, place) != ("drum-position", "R"):
            record(yard, walk, check, place, EAR[check])
    record(yard, walk, "drum-position", "R", "down")
    drum = Verdict.objects.get(walk_around=walk, check_key="drum-position", position_key="R")
    assert drum.severity == "due" and "Down" in drum.reason
    record(yard, walk, "drum-position", "R", "up")
    again = asked(yard, as_, "ear", [yard.rowcrop])
    assert to_set(again) == set(), "what was set stands right"


def test_right_without_another_word_is_what_the_crop_would_have(yard, as_):
    walk = change(yard, "ear", [yard.rowcrop])
    checks = {one["key"]: one for one in as_(yard.technician).get(f"/api/walk-arounds/{walk.pk}").json()["checks"]}
    right = {key: [one["key"] for one in check["options"] if one["right"]] for key, check in checks.items()}
    assert (right["drum-position"], right["sieve-type"], right["header-speed"]) == (["up"], ["closed", "open"], [])
    assert checks["drum-position"]["bulk"] and not checks["header-speed"]["bulk"], "for ears the manual alone says it"
    in_bulk = NewReading(uuid.uuid4(), "drum-position", "L", raw=["down"], bulk=True)
    with pytest.raises(BadInput, match="by itself"):
        recording.record_reading(yard.technician, walk.pk, in_bulk)
    recording.record_reading(yard.technician, walk.pk, NewReading(uuid.uuid4(), "drum-position", "L", raw=["up"], bulk=True))


def test_stationary_knives_left_in_for_an_ear_crop_stop_the_machine(yard):
    walk = change(yard, "ear", [yard.rowcrop])
    record(yard, walk, "stationary-knives", "all", "sharp")
    assert Verdict.objects.get(walk_around=walk, check_key="stationary-knives").severity == "stop"


def test_back_to_barley_asks_for_the_same_items(yard, as_):
    walk = change(yard, "ear", [yard.rowcrop])
    for check, place in places(walk, EAR):
        record(yard, walk, check, place, EAR[check])
    closing.finish(yard.technician, walk.pk, uuid.uuid4())
    back = asked(yard, as_, "small-grain", [yard.platform])
    assert to_set(back) == set(EAR)
    assert {place["to"] for place in items(back)["sieve-type"]["places"]} == {"1 1/8 in (29 mm)"}


def test_a_thing_left_undone_says_why_and_is_listed_again(yard, as_):
    walk = change(yard, "ear", [yard.rowcrop])
    new = NewReading(uuid.uuid4(), "spacers", "all", state="not-seen", reason="no second pair of hands")
    recording.record_reading(yard.technician, walk.pk, new)
    assert "spacers" in to_set(asked(yard, as_, "ear", [yard.rowcrop]))


def test_spacers_stay_out_for_one_field_where_the_shop_does_so(yard, as_):
    then = {"then_crop": "small-grain", "then_days": 8}
    assert "spacers" in to_set(asked(yard, as_, "ear", **then)) and items(asked(yard, as_, "ear", **then))["spacers"]["back"]
    shop_rules.set_school(yard.lead, "rotor-spacers", "no-switching")
    assert asked(yard, as_, "ear", **then)["kept"] == ["Separator spacers fitted"]
    assert "spacers" in to_set(asked(yard, as_, "ear", then_crop="small-grain", then_days=60))
    begun = str(uuid.uuid4())
    answer = as_(yard.technician).send(
        f"/api/machines/{yard.combine.pk}/walk-arounds", id=begun, phase="changeover", crop="ear", **then
    )
    assert answer.status_code == 200
    assert "spacers" in {key for one in WalkAround.objects.get(pk=begun).left_out for key in one["checks"]}


def test_without_a_crop_there_is_only_what_to_choose_from(yard, as_):
    found = asked(yard, as_, "")
    assert (found["visits"], found["coupled"]) == ([], [yard.platform.pk])
    assert found["headers"][0]["name"] == "Sill 61", "the machine's own first"


def test_one_under_way_is_gone_on_with(yard, as_):
    assert asked(yard, as_, "")["running"] is None
    walk = change(yard, "ear")
    assert asked(yard, as_, "")["running"] == str(walk.pk)


def test_another_shops_machine_is_not_there(yard, neighbour, as_):
    answer = as_(neighbour.technician).send(f"/api/machines/{yard.combine.pk}/changeover", crop="ear")
    assert answer.status_code == 404
    assert as_(yard.technician).send(f"/api/machines/{yard.combine.pk}/changeover", crop="mud").status_code == 422


def test_a_planter_from_sorghum_to_lupins_wants_strip_eliminator_bowl_and_rate(yard, as_):
    yard.combine = yard.machine
    yard.machine.options = ["meter-bowl", "electric-drive"]
    yard.machine.save()
    walk = starting.start(yard.technician, yard.machine, uuid.uuid4(), preparing.Wanted("winter"))
    for row in range(1, 7):
        for check, state in (
            ("bowl-crop", "ear"),
            ("agitator-strip", "rough"),
            ("doubles-mark", "middle"),
            ("meter-crop", "ear"),
        ):
            if check != "meter-crop":
                record(yard, walk, check, str(row), state)
    found = asked(yard, as_, "pod")
    assert to_set(found) >= {"bowl-crop", "agitator-strip", "doubles-mark"}
    assert {place["to"] for place in items(found)["agitator-strip"]["places"]} == {"Smooth"}
    assert items(found)["rate-set"]["todo"] == "do"
