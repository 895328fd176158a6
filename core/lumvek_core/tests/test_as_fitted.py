"""What is fitted is recorded, and held against the crop that comes."""

import pytest

from .trade_helpers import BOOKS, check_of, verdict

CROPS = {
    "drum-position": ("down", "up"),
    "spacers": ("out", "in"),
    "cob-deflector": ("up", "down"),
    "chopper-speed": ("high", "low"),
}
"""As small grain wants it, and as ear crops do."""


@pytest.mark.parametrize("key", CROPS)
@pytest.mark.parametrize("crop", ["small-grain", "ear"])
def test_what_is_fitted_is_held_against_the_crop_that_comes(key, crop):
    grain, ear = CROPS[key]
    right, wrong = (grain, ear) if crop == "small-grain" else (ear, grain)
    check = check_of("rotary-combine", key)
    where = "L" if check.per == "side" else "all"
    assert verdict("rotary-combine", key, where, right, crop=crop).severity == "sound"
    found = verdict("rotary-combine", key, where, wrong, crop=crop)
    assert (found.severity, found.action) == ("due", "adjust")
    assert f"{'small grain wants' if crop == 'small-grain' else 'ear crops want'}:" in found.reason
    assert found.facts.wanted == [right]
    assert verdict("rotary-combine", key, where, wrong).severity == "sound", "without a crop it is only recorded"


def test_uneven_sides_are_a_finding_whatever_the_crop():
    for crop in ("", "ear", "small-grain"):
        left = verdict("rotary-combine", "drum-position", "L", "up", others={"R": "down"}, crop=crop)
        right = verdict("rotary-combine", "drum-position", "R", "down", others={"L": "up"}, crop=crop)
        assert {"due"} <= {left.severity, right.severity}
    assert verdict("rotary-combine", "drum-position", "L", "up", others={"R": "down"}).reason == (
        "Left up, right down: both must stand alike."
    )


def test_a_mixed_set_of_agitator_strips_names_the_row_that_differs():
    strips = dict.fromkeys(["1", "2", "4"], "rough")
    odd = verdict("row-crop-planter", "agitator-strip", "3", "smooth", others=strips)
    assert odd.reason == "Smooth; the others: rough. All must stand alike."
    assert (
        verdict("row-crop-planter", "agitator-strip", "4", "rough", others={"1": "rough", "2": "rough", "3": "smooth"}).severity
        == "sound"
    )


def test_stationary_knives_left_in_for_an_ear_crop_are_stop():
    found = verdict("rotary-combine", "stationary-knives", "all", "sharp", crop="ear")
    assert (found.severity, found.action) == ("stop", "adjust") and "Take them out." in found.reason
    assert verdict("rotary-combine", "stationary-knives", "all", "out", crop="ear").severity == "sound"
    assert verdict("rotary-combine", "stationary-knives", "all", "blunt", crop="small-grain").action == "turn"


def test_spacers_are_wanted_by_ear_crops_only_where_the_shops_school_says_always():
    assert verdict("rotary-combine", "spacers", "all", "out", crop="ear").severity == "due"
    free = {"rotor-spacers": "no-switching"}
    assert verdict("rotary-combine", "spacers", "all", "out", crop="ear", schools=free).severity == "sound"


@pytest.mark.parametrize(
    ("fitted", "crop", "severity"),
    [("small", "small-grain", "sound"), ("closed", "small-grain", "due"), ("closed", "ear", "sound"), ("open", "pod", "due")],
)
def test_the_sieve_class_and_slat_form_are_told_by_measure(fitted, crop, severity):
    assert verdict("rotary-combine", "sieve-type", "chaffer", fitted, crop=crop).severity == severity
    assert "1 1/8 in (29 mm)" in check_of("rotary-combine", "sieve-type").how


AS_FITTED = {
    "rotary-combine": "drum-position header-speed accelerator-speed rotor-range spacers concave-type sieve-type cob-deflector "
    "stationary-knives chopper-speed rethresher-position",
    "draper-header": "draper.float-lock draper.height-arms",
    "row-crop-planter": "meter-housing meter-crop bowl-crop agitator-strip doubles-mark inner-scraper",
}


@pytest.mark.parametrize("family", AS_FITTED)
def test_whatever_differs_by_crop_is_recorded_as_fitted_in_winter_and_at_a_change_of_crop(family):
    fitted = {key: check for key, check in BOOKS[family].family.checks.items() if check.rule.kind == "fitted"}
    assert set(fitted) == set(AS_FITTED[family].split())
    for check in fitted.values():
        assert {"winter", "pre-season", "crop-change"} <= set(check.phases)
