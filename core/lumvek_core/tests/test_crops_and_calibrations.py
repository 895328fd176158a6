"""The shipped catalogue against the trade's own tables: what each group of crops wants of each item, and every calibration."""

import pytest

from lumvek_core.catalogue import load
from lumvek_core.catalogue.rounds import in_round
from lumvek_core.coupled import short

CATALOGUE = load.shipped()
DEFAULTS = {subject: school.default for subject, school in CATALOGUE.schools.items()}
CROPS = ("small-grain", "pod", "ear")

WANTED = {
    # family, item: states for small grain, pod crops, ear crops; the best first
    ("draper-header", "height-arms"): (["down"], ["clipped"], []),
    ("draper-header", "float-lock"): (["locked"], ["free"], []),
    ("rotary-combine", "drum-position"): (["down"], ["down"], ["up"]),
    ("rotary-combine", "header-speed"): (["high"], ["high"], "manual"),
    ("rotary-combine", "accelerator-speed"): (["high"], ["high"], ["low"]),
    ("rotary-combine", "concave-type"): (["small-wire"], ["large-wire", "round-bar"], ["round-bar"]),
    ("rotary-combine", "spacers"): (["out"], ["out"], ["in"]),
    ("rotary-combine", "rotor-range"): (["high"], ["high", "low"], ["low"]),
    ("rotary-combine", "sieve-type"): (["small"], ["closed"], ["closed", "open"]),
    ("rotary-combine", "rethresher-position"): (["grain"], "manual", ["open"]),
    ("rotary-combine", "stationary-knives"): (["sharp"], ["sharp"], ["out"]),
    ("rotary-combine", "chopper-speed"): (["high"], ["high"], ["low"]),
    ("rotary-combine", "cob-deflector"): (["up"], ["up"], ["down"]),
    ("row-crop-planter", "meter-housing"): (["small-grain"], ["pod"], ["ear"]),
    ("row-crop-planter", "meter-crop"): (["small-grain"], ["pod"], ["ear"]),
    ("row-crop-planter", "bowl-crop"): (["small-grain"], ["pod"], ["ear"]),
    ("row-crop-planter", "inner-scraper"): (["fine"], ["coarse"], ["coarse"]),
    ("row-crop-planter", "agitator-strip"): ([], ["smooth"], ["rough"]),
    ("row-crop-planter", "doubles-mark"): ([], ["backed-off"], ["middle"]),
}
EVERY_TIME = {
    # family, item: done at every change of crop, however it stands
    ("rotary-combine", "crop-display"),
    ("rotary-combine", "crop-alarms"),
    ("rotary-combine", "crop-settings"),
    ("rotary-combine", "spread-width"),
    ("rotary-combine", "windrow-door-position"),
    ("draper-header", "dividers"),
    ("row-crop-planter", "singulator-setting"),
    ("row-crop-planter", "seed-door"),
    ("row-crop-planter", "vacuum-set"),
    ("row-crop-planter", "rate-set"),
    ("row-crop-planter", "rate-pair"),
    ("row-crop-planter", "closing-tension"),
}


def check_of(family, key):
    return next(check for full, check in CATALOGUE.families[family].checks.items() if short(full) == key)


@pytest.mark.parametrize(("item", "wants"), WANTED.items(), ids=[key for _, key in WANTED])
def test_each_group_of_crops_wants_it_so(item, wants):
    rule = check_of(*item).rule
    for crop, states in zip(CROPS, wants, strict=True):
        if states == "manual":
            assert crop in rule.by_manual and rule.wanted(crop, DEFAULTS) == []
        else:
            assert [one.key for one in rule.wanted(crop, DEFAULTS) if one.severity == "sound"] == states


def test_nothing_else_is_on_a_changeover():
    listed = {
        (family.family, short(key))
        for family in CATALOGUE.families.values()
        for key, check in family.checks.items()
        if in_round(check, "changeover")
    }
    assert listed == set(WANTED) | EVERY_TIME


def test_knives_left_in_for_ear_crops_are_grave_and_nothing_else_is():
    grave = {(item, one.key) for item in WANTED for one in check_of(*item).rule.options if one.wrong == "stop" and one.crops}
    assert {item for item, _ in grave} == {("rotary-combine", "stationary-knives")}
    assert {state for _, state in grave} == {"sharp", "blunt", "worn"}


def test_spacers_go_by_the_shops_school():
    rule = check_of("rotary-combine", "spacers").rule
    there = DEFAULTS | {"rotor-spacers": "no-switching"}
    assert rule.wanted("ear", there) == [] and [one.key for one in rule.lasting("ear", there)] == ["in"]
    assert rule.lasting("ear", DEFAULTS) == []


CALIBRATIONS = {
    # key: what makes it due, what goes before it, what is kept of it
    "header-type": ({"header", "told:reel-work"}, [], ["width"]),
    "feeder-tilt": ({"header", "told:tilt-work"}, [], []),
    "raise-speed": ({"header", "season", "told:lift-work"}, [], ["raise-value"]),
    "flex-mode": ({"header", "set:float-lock"}, ["raise-speed"], ["flex-low", "flex-high"]),
    "auxiliary-height": ({"set:height-arms", "told:off-ground"}, ["raise-speed"], ["arm-low", "arm-high"]),
    "deck-plates": ({"header"}, [], []),
    "header-height": ({"header", "season", "told:height-sensor", "calibrated:raise-speed"}, ["raise-speed", "flex-mode", "deck-plates"], ["low", "high"]),
    "ground-reference": ({"header"}, [], []),
    "cut-heights": ({"header", "calibrated:header-height"}, ["header-height"], []),
    "rotor-tip": ({"told:tyres"}, [], ["left", "right"]),
    "sieve-opening": ({"set:sieve-type", "told:sieve-work"}, [], ["chaffer", "sieve"]),
    "concave-zero": ({"set:concave-type"}, [], []),
    "moisture-cell": ({"told:moisture-cell", "told:plunger"}, [], []),
    "moisture-offset": ({"told:store-disagrees", "calibrated:moisture-cell"}, ["moisture-cell"], ["offset"]),
    "fixed-moisture": ({"told:cell-dead"}, [], ["moisture"]),
    "moisture-sampling": ({"season", "crop"}, [], []),
    "yield": ({"season", "crop", "told:chain-or-pad", "told:yield-wrong", "fitted:elevator-chain"}, ["moisture-offset"], ["factor"]),
    "totals": ({"season"}, [], []),
    "downforce-zero": ({"season"}, [], []),
    "vacuum-zero": ({"season"}, [], []),
    "seed-sensors": ({"season", "fitted:seed-tube-sensor", "fitted:seed-sensor"}, [], []),
    "ground-speed": ({"season", "told:tyres"}, [], ["pulses"]),
    "planter-rows": ({"season"}, [], []),
}  # fmt: skip


def test_every_calibration_of_the_trade_is_there_with_what_makes_it_due():
    assert [one.key for one in CATALOGUE.calibrations.calibrations] == list(CALIBRATIONS)
    for one in CATALOGUE.calibrations.calibrations:
        due, before, kept = CALIBRATIONS[one.key]
        assert (set(one.due_after), [first.key for first in one.after], [value.key for value in one.values]) == (
            due,
            before,
            kept,
        )


def test_each_says_how_one_sees_that_it_worked_and_what_saving_means():
    unsaved = {one.key for one in CATALOGUE.calibrations.calibrations if not one.save}
    assert unsaved == {"rotor-tip", "seed-sensors"}, "there is nothing to save"
    assert all(one.works and one.steps for one in CATALOGUE.calibrations.calibrations)


@pytest.mark.parametrize(
    ("key", "words"),
    [
        ("raise-speed", "Standing figures: let go, stop, look for the cause"),
        ("raise-speed", "about twenty steps"),
        ("header-height", "bounces by itself"),
        ("header-height", "Save again"),
        ("ground-reference", "five seconds past the bottom"),
        ("ground-reference", "about 300 mm up"),
        ("rotor-tip", "127 to 152 mm"),
        ("moisture-cell", "Engine off"),
        ("moisture-cell", "stroke"),
        ("moisture-offset", "not the bare difference"),
        ("yield", "1,360 kg (3,000 lb)"),
        ("fixed-moisture", "stop-gap"),
        ("cut-heights", "stops the area count"),
        ("flex-mode", "Pressure right down"),
        ("moisture-sampling", "about once a minute"),
    ],
)
def test_what_the_trade_insists_on_stands_in_it(key, words):
    one = CATALOGUE.calibrations.by_key[key]
    steps = [text for step in one.steps for text in (step.do, step.watch)]
    assert words.lower() in " ".join([one.name, *one.before, *steps, one.works, one.save, one.note]).lower()


@pytest.mark.parametrize("key", ["raise-speed", "header-height", "flex-mode", "feeder-tilt", "cut-heights", "deck-plates"])
def test_where_the_header_moves_by_itself_people_are_away(key):
    one = CATALOGUE.calibrations.by_key[key]
    assert "by-itself" in one.hazards and one.posture.startswith("cab")
