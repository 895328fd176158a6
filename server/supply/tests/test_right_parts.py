"""What a walk-around of a combine buys: each piece once, and what lies open read as it is and weighed by the shop's school."""

import uuid

import pytest
from django.utils import timezone

from fleet.models import Machine, MachineModel
from inspection.actions import recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.queries import preparing
from parts.models import PartNumber
from supply.queries import net_requirements, strip_down_offers


@pytest.fixture
def combine(yard):
    """The yard with a combine that has a number for every part, and a winter walk-around of it."""
    model = MachineModel.objects.create(shop=yard.shop, maker="Tavric", name="Heron 6", family="rotary-combine")
    yard.combine = Machine.objects.create(shop=yard.shop, model=model, name="Heron 6", hours=2140)
    for slot in ("boot-sprocket", "top-sprocket", "elevator-chain", "jack-bearing", "elevator-drive-chain"):
        PartNumber.objects.create(model=model, slot=slot, number=f"TH-{slot}")
    yard.winter = begun(yard, "winter")
    return yard


def begun(yard, phase):
    return starting.start(yard.technician, yard.combine, uuid.uuid4(), preparing.Wanted(phase))


def told(yard, check, place, raw, walk_around=None):
    new = NewReading(uuid.uuid4(), check, place, raw=[raw])
    recording.record_reading(yard.technician, (walk_around or yard.winter).pk, new)


def needed(yard):
    return {line.number: line.needed for line in net_requirements.build(yard.parts, timezone.now()).lines if line.number}


def offered(yard):
    groups = strip_down_offers.build(yard.lead, yard.winter)
    return {(part.slot, part.position): part for group in groups for part in group.parts}


def test_a_hooked_boot_sprocket_is_on_the_list_once_whatever_calls_for_it(combine):
    told(combine, "grain-sprockets", "bottom", "hooked")
    told(combine, "grain-sprockets", "top", "hooked")
    told(combine, "grain-chain-stretch", "all", "795")
    again = begun(combine, "pre-season")
    told(combine, "grain-sprockets", "bottom", "hooked", again)
    assert needed(combine) == {"TH-boot-sprocket": 1, "TH-top-sprocket": 1, "TH-elevator-chain": 1}


def test_cupping_that_has_begun_is_bought_once_the_chain_is_whichever_was_read_first(combine):
    told(combine, "grain-sprockets", "bottom", "begun")
    assert needed(combine) == {}
    told(combine, "grain-chain-stretch", "all", "795")
    assert needed(combine) == {"TH-boot-sprocket": 1, "TH-top-sprocket": 1, "TH-elevator-chain": 1}


def test_cupping_found_after_the_chain_joins_the_list(combine):
    told(combine, "grain-chain-stretch", "all", "795")
    assert "TH-boot-sprocket" not in needed(combine)
    told(combine, "grain-sprockets", "bottom", "begun")
    assert needed(combine)["TH-boot-sprocket"] == 1
    told(combine, "grain-sprockets", "bottom", "full")
    assert "TH-boot-sprocket" not in needed(combine)


def test_what_lies_open_is_read_place_by_place_and_never_what_is_on_the_list(combine):
    told(combine, "jack-bearings", "outboard", "rough")
    told(combine, "jack-bearings", "inboard", "smooth")
    told(combine, "elevator-drive-links", "inside", "firm")
    found = offered(combine)
    assert ("jack-bearing", "outboard") not in found
    assert found["jack-bearing", "inboard"].state == "sound" == found["elevator-drive-chain", "inside"].state
    assert found["elevator-drive-chain", "outside"].state == "not seen"


@pytest.mark.parametrize(("school", "advice"), [("only-bad", "leave"), ("while-apart", "renew"), ("by-cost", "price")])
def test_the_school_of_bearings_changes_what_is_proposed(combine, as_, school, advice):
    as_(combine.lead).send("/api/rules/schools", subject="bearings", choice=school)
    combine.technician.shop.refresh_from_db()
    combine.winter = begun(combine, "winter")
    told(combine, "jack-bearings", "outboard", "rough")
    told(combine, "jack-bearings", "inboard", "smooth")
    part = offered(combine)["jack-bearing", "inboard"]
    assert (part.advice, part.by_school) == (advice, school != "by-cost")
    assert offered(combine)["elevator-drive-chain", "inside"].advice == "price", "a chain is no bearing"
