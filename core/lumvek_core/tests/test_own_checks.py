"""A shop's own checks stand in its rule book like shipped ones, and a newer catalogue does not break them."""

import dataclasses

import pytest

from lumvek_core import structure
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.own import Altered, OwnCheck, OwnChecks, key_for, misfits, offered
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.judgement.companions import Called, parts_for

CATALOGUE = load.shipped()
PLANTER = CATALOGUE.families["row-crop-planter"]
CAMERA = {
    "station": "opener",
    "check": {
        "key": "own-camera-bracket",
        "name": "Camera bracket",
        "per": "row",
        "kind": "choice",
        "how": "Shake the bracket.",
        "rule": {
            "kind": "choice",
            "options": [
                {"key": "firm", "name": "Firm"},
                {"key": "loose", "name": "Loose", "severity": "due", "action": "repair"},
            ],
        },
    },
}
RAIL = {
    "station": "hitch",
    "check": {
        "key": "own-rail",
        "name": "Rail gap",
        "per": "machine",
        "kind": "measure",
        "unit": "mm",
        "how": "Feeler between rail and block.",
        "rule": {"kind": "window", "low": 2, "high": "1/4 in"},
    },
}


def own(*checks, altered=(), family="row-crop-planter"):
    return {family: OwnChecks(family, [structure.read(OwnCheck, one) for one in checks], list(altered))}


def planter(own_checks, overrides=()):
    return in_force.rule_book(CATALOGUE, "row-crop-planter", overrides, own=own_checks)


def made(book, phase="winter"):
    return [check.key for check in in_force.applicable(book, in_force.Scope((), phase))]


def test_it_stands_at_its_station_after_the_shipped_ones():
    book = planter(own(CAMERA))
    opener = next(station for station in book.family.stations if station.key == "opener")
    assert opener.checks[-1].key == "own-camera-bracket"
    assert opener.checks[-1].posture == opener.posture
    assert "own-camera-bracket" in made(book)
    assert in_force.from_json(in_force.to_json(book)) == book


def test_its_limits_can_be_replaced_for_a_model_and_are_forgotten_with_it():
    manual = LimitOverride("own-rail", "high", 7.0, "manual")
    assert planter(own(RAIL), [manual]).family.checks["own-rail"].rule.high == 7.0
    assert planter({}, [manual]).limits.keys() == planter({}).limits.keys()


def test_a_header_s_own_check_goes_with_it_to_the_combine():
    bat = {**RAIL, "station": next(s.key for s in CATALOGUE.families["draper-header"].stations).removeprefix("draper.")}
    mine = own(bat, family="draper-header")
    combine = in_force.rule_book(CATALOGUE, "rotary-combine", headers=["draper-header"], own=mine)
    assert combine.family.checks["draper.own-rail"].name == "Rail gap"
    assert "own-rail" not in in_force.rule_book(CATALOGUE, "rotary-combine", own=mine).family.checks


def test_a_part_of_its_own_is_a_part_like_any_other():
    brings = {"own-bracket": {"name": "Camera bracket"}}
    check = {**CAMERA["check"], "parts": [{"slot": "own-bracket", "when": ["repair"]}]}
    book = planter(own({**CAMERA, "slots": brings, "check": check}))
    assert book.family.slots["own-bracket"].name == "Camera bracket"
    (need,) = parts_for(book, [Called("own-camera-bracket", "3", "repair", "loose", 1)], {})
    assert (need.slot, need.position) == ("own-bracket", "3")
    station = next(one.key for one in CATALOGUE.families["draper-header"].stations).removeprefix("draper.")
    header = own({**RAIL, "station": station, "slots": brings}, family="draper-header")
    coupled = in_force.rule_book(CATALOGUE, "rotary-combine", headers=["draper-header"], own=header)
    assert [slot for slot in coupled.family.slots if slot.endswith("own-bracket")] == ["draper.own-bracket"]


def test_a_shipped_check_is_worded_otherwise():
    check = planter(own(altered=[Altered("parallel-arm-play", "our bolts are Torx", how="Torx 50, then shake.")]))
    assert check.family.checks["parallel-arm-play"].how == "Torx 50, then shake."
    assert check.family.checks["parallel-arm-play"].name == PLANTER.checks["parallel-arm-play"].name


def test_a_shipped_check_is_left_out_but_never_a_safety_item():
    combine = CATALOGUE.families["rotary-combine"]
    without = own(altered=[Altered("parallel-arm-play", "done by the maker", left_out=True)])
    assert "parallel-arm-play" not in made(planter(without))
    assert planter(without).left_out == {"parallel-arm-play": "done by the maker"}
    safety = next(check.key for check in combine.checks.values() if check.safety)
    without = own(altered=[Altered(safety, "no time", left_out=True)], family="rotary-combine")
    assert safety in made(in_force.rule_book(CATALOGUE, "rotary-combine", own=without), "everything")


def test_what_a_newer_catalogue_has_no_more_leaves_the_rest_alone():
    gone = own({**RAIL, "station": "seat"}, CAMERA, altered=[Altered("gone-since", "x", left_out=True)])
    book = planter(gone)
    assert "own-rail" not in book.family.checks
    assert "own-camera-bracket" in book.family.checks
    assert book.left_out == {}


@pytest.mark.parametrize(
    ("change", "complaint"),
    [
        ({"key": "parallel-arm-play"}, "begins with own-"),
        ({"per": "wing"}, "is made per wing"),
        ({"posture": "hanging"}, "unknown posture hanging"),
        ({"hazards": ["bees"]}, "unknown hazard bees"),
        ({"after": ["nothing"]}, "comes after a check that is not there"),
        ({"kind": "measure"}, "judges kind choice"),
        ({"parts": [{"slot": "sail"}]}, "unknown slot sail"),
        ({"how": " "}, "how must say"),
    ],
)
def test_it_is_held_to_what_shipped_ones_are(change, complaint):
    wrong = {**CAMERA, "check": {**CAMERA["check"], **change}}
    found = [said for _, said in misfits(CATALOGUE, PLANTER, structure.read(OwnCheck, wrong))]
    assert any(complaint in said for said in found), found


def test_what_looks_at_other_checks_is_not_offered():
    for name, kind in offered().items():
        assert not [f for f in dataclasses.fields(kind) if f.name in ("against", "other")], name
    assert "contact" not in offered()


def test_keys_are_made_from_names():
    assert key_for("Wheel nuts, torqued!") == "own-wheel-nuts-torqued"
    assert key_for("Wheel nuts", ["own-wheel-nuts", "own-wheel-nuts-2"]) == "own-wheel-nuts-3"
    assert key_for("…") == "own-check"
    assert len(key_for("a" * 200, ["own-" + "a" * 36])) <= 40


def test_own_keys_are_nowhere_shipped():
    keys = [key for family in CATALOGUE.families.values() for key in family.checks]
    assert not [key for key in keys if ".own-" in key or key.startswith("own-")]
