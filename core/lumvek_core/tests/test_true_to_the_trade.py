"""What technicians corrected, each by its own name: verdicts, cures, causes and the parts they call for."""

import datetime as dt

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.judgement.companions import Called, parts_for
from lumvek_core.judgement.context import Context, Past
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.judgement.strip_downs import laid_open
from lumvek_core.judgement.verdicts import judge

CATALOGUE = load.load()
BOOKS = {family: in_force.rule_book(CATALOGUE, family) for family in CATALOGUE.families}
SCHOOLS = BOOKS["rotary-combine"].schools


def check_of(family, key):
    return BOOKS[family].family.checks[key]


def verdict(family, key, where, *typed, others=None, crop="", schools=None):
    """others: what was read at the other places, by position."""
    check = check_of(family, key)
    read = {place: parse_reading(check, [text], "", "mm") for place, text in (others or {}).items()}
    value = parse_reading(check, list(typed), "", "mm")
    context = Context(others={key: read}, crop=crop, schools=SCHOOLS | (schools or {}))
    return judge(check, positions.find(where), value, context)


def parts(family, key, where, action, option=""):
    return {need.slot for need in parts_for(BOOKS[family], [Called(key, where, action, option, 1)])}


def test_two_sides_are_worded_as_two_sides():
    """Left and right, never “the others”."""
    found = verdict("rotary-combine", "sieve-opening-chaffer", "L", "16", others={"R": "14"})
    assert found.reason == "left 16 mm, right 14 mm: both belong at 15 mm, correct by −1 mm."


def test_a_gap_between_header_and_feeder_says_its_cure():
    found = verdict("draper-header", "draper.header-seal", "all", "4")
    assert (found.severity, found.action) == ("due", "adjust")
    assert found.reason.endswith("Adjust or renew the seal.")


@pytest.mark.parametrize("state", ["matted", "frayed"])
def test_a_matted_or_frayed_meter_brush_is_renewed_for_seed_leaves_the_pool(state):
    assert verdict("row-crop-planter", "meter-brushes", "3", state).action == "replace"
    assert "meter-brush" in parts("row-crop-planter", "meter-brushes", "3", "replace", state)
    assert "leaves the pool" in check_of("row-crop-planter", "meter-brushes").why


def test_worn_unloading_splines_are_renewed_with_their_part():
    found = verdict("rotary-combine", "spline-lash", "all", "9")
    assert (found.severity, found.action) == ("due", "replace")
    assert parts("rotary-combine", "spline-lash", "all", "replace") == {"unload-splines"}


def test_more_clearance_of_the_reel_than_wanted_is_no_finding():
    assert verdict("draper-header", "draper.reel-clearance", "L", "150").severity == "sound"
    close = verdict("draper-header", "draper.reel-clearance", "L", "12")
    assert close.reason == "12 mm, 8 mm under the 20 mm wanted at least. Raise the minimum-height stop."


def test_the_inner_doubles_eliminator_has_no_invented_size_when_new():
    check = check_of("row-crop-planter", "doubles-inner")
    assert not hasattr(check.rule, "new")
    assert "confirm" in check.how
    assert verdict("row-crop-planter", "doubles-inner", "1", "9").severity == "sound"
    assert verdict("row-crop-planter", "doubles-inner", "1", "7").action == "replace"


@pytest.mark.parametrize("typed", ["-5", "below 5", "5 mm below", "−5"])
def test_a_pinch_point_below_seed_depth_can_be_entered_and_is_due(typed):
    found = verdict("row-crop-planter", "pinch-point", "4", typed)
    assert (found.severity, found.ask) == ("due", "")
    assert found.reason.startswith("−5 mm, 5 mm under the wanted 0 mm to 15 mm. Raise the wheels")
    assert [verdict("row-crop-planter", "pinch-point", "4", typed).severity for typed in ("0", "8")] == ["sound", "sound"]


def test_stationary_knives_are_looked_at_with_a_windrow_door_too_and_may_be_out():
    check = check_of("rotary-combine", "stationary-knives")
    assert check.unless == []
    assert verdict("rotary-combine", "stationary-knives", "all", "out").severity == "sound"


@pytest.mark.parametrize(("state", "severity"), [("at", "sound"), ("short", "due"), ("past", "due")])
def test_a_spring_indicator_stands_at_short_of_or_past_its_bar(state, severity):
    assert verdict("rotary-combine", "elevator-drive-indicator", "all", state).severity == severity
    assert check_of("rotary-combine", "elevator-drive-chain").unless == ["drive-chain-indicator"]


def test_a_stripper_header_is_walked_without_a_reel_lock():
    postures = {check.posture for check in BOOKS["stripper-header"].family.checks.values()}
    assert not any("reel" in posture for posture in postures)
    hood = next(posture for posture in postures if "hood" in posture)
    assert "propped" in BOOKS["stripper-header"].postures[hood].lock
    assert check_of("stripper-header", "stripper.hood-latches").posture == "header down, engine off"


def test_the_reel_is_measured_to_the_knife_with_the_cutterbar_on_the_ground():
    for key in ("draper.reel-clearance", "draper.reel-clearance-block"):
        assert check_of("draper-header", key).posture == "header down, engine off"
    how = check_of("draper-header", "draper.reel-clearance").how
    assert "by its controls" in how and "engine off, key out" in how


def test_four_equally_slack_corners_of_the_centre_belts_are_four_findings():
    places = BOOKS["draper-header"].family.things["draper.bracket"].places
    assert places == ["left-belt-left", "left-belt-right", "right-belt-left", "right-belt-right"]
    slack = dict.fromkeys(places, "9")
    found = [verdict("draper-header", "draper.centre-belt-bolts", place, "9", others=slack) for place in places]
    assert [one.severity for one in found] == ["due"] * 4
    assert "until both edges are level" in found[0].reason


def test_the_school_of_light_drag_changes_the_verdict_on_the_hub_height():
    by_habit = in_force.rule_book(CATALOGUE, "row-crop-planter", schools={"hub-height": "light-drag"}).family.checks[
        "hub-height"
    ]
    said = [
        {state.key: state.severity for state in check.rule.states()}
        for check in (check_of("row-crop-planter", "hub-height"), by_habit)
    ]
    assert said == [
        {"tight": "sound", "light": "due", "loose": "due"},
        {"light": "sound", "tight": "due", "loose": "due"},
    ]


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


def test_wrong_pins_are_counted_by_the_headers_own_number_of_runners():
    book = in_force.rule_book(CATALOGUE, "draper-header", counts={"draper.runner": 12, "draper.reel-bar": 5})
    pins, followers = book.family.checks["draper.float-pins"], book.family.checks["draper.cam-followers"]
    assert (pins.rule.of, followers.rule.of) == (12, 5)
    found = judge(pins, positions.WHOLE, parse_reading(pins, ["2: 3, 7"], "", "mm"), Context())
    assert (found.action, found.reason) == ("adjust", "2 of 12 (3, 7): set these right.")
    assert book.limits["draper.float-pins"]["of"].source == "machine"


@pytest.mark.parametrize(
    ("options", "made"),
    [
        (["flex"], "float-preload-foot"),
        (["flex", "cab-float"], "float-preload-foot-cab"),
        (["flex", "float-gauge"], "float-preload"),
        (["flex", "cab-float", "float-gauge"], "float-preload-cab"),
        ([], ""),
    ],
)
def test_float_preload_is_felt_or_measured_as_its_adjuster_wants(options, made):
    checks = BOOKS["draper-header"].family.checks
    there = [f"draper.{option}" for option in options]
    found = [key for key, check in checks.items() if "float-preload" in key and check.made_with(there)]
    assert found == ([f"draper.{made}"] if made else [])


def test_no_preload_is_due_by_hand_and_wanted_with_the_cab_relaxed():
    assert verdict("draper-header", "draper.float-preload-foot", "runner-3", "none").severity == "due"
    assert verdict("draper-header", "draper.float-preload-foot-cab", "runner-3", "none").severity == "sound"
    assert verdict("draper-header", "draper.float-preload-foot-cab", "runner-3", "firm").severity == "due"
    even = dict.fromkeys(["runner-1", "runner-2"], "10")
    assert verdict("draper-header", "draper.float-preload", "runner-3", "10", others=even).reason.startswith(
        "10 N, wanted 40 N at least."
    )
    assert verdict("draper-header", "draper.float-preload-cab", "runner-3", "10", others=even).severity == "sound"
    assert verdict("draper-header", "draper.float-preload-cab", "runner-3", "90").severity == "due"


SHARP = {f"knife-{n}": "sharp" for n in range(1, 41)}


def test_the_balance_says_which_knives_it_takes_as_sound():
    found = verdict("rotary-combine", "chopper-knives", "knife-3", "broken", others={"knife-1": "sharp", "knife-2": "sharp"})
    assert found.reason.endswith("37 knives not looked at yet taken as sound.")
    assert "taken as sound" not in verdict("rotary-combine", "chopper-knives", "knife-3", "broken", others=SHARP).reason


def test_two_missing_knives_whose_pulls_cancel_out_are_never_sound():
    found = verdict("rotary-combine", "chopper-knives", "knife-3", "broken", others=SHARP | {"knife-1": "broken"})
    now = found.advice.rows[0]
    assert found.severity == "stop" and now.mark == "due"
    assert now.shown == "0 g·mm: the pulls cancel out, but 2 knives are gone"


def test_the_balanced_set_has_the_size_the_model_states_and_is_asked_for_while_unknown():
    asked = verdict("rotary-combine", "chopper-knives", "knife-3", "broken", others=SHARP)
    assert {row.name: row.shown for row in asked.advice.rows}["Balanced set"].startswith("not stated for this model yet")
    stated = in_force.rule_book(CATALOGUE, "rotary-combine", [LimitOverride("chopper-knives", "set_size", 8, "manual")])
    check = stated.family.checks["chopper-knives"]
    read = {place: parse_reading(check, [state], "", "mm") for place, state in SHARP.items()}
    context = Context(others={"chopper-knives": read}, schools={"chopper-knife": "set"})
    found = judge(check, positions.find("knife-11"), parse_reading(check, ["broken"], "", "mm"), context)
    assert "Renew 8 (balanced set)" in found.reason


@pytest.mark.parametrize(
    ("now", "severity"), [("63 mbar", "sound"), ("61 mbar", "sound"), ("55 mbar", "due"), ("22 in", "due")]
)
def test_a_fall_of_the_gauge_from_last_season_is_the_finding(now, severity):
    check = check_of("air-seeder", "fan-gauge")
    log = [Past("fan-gauge", "all", parse_reading(check, ["64 mbar"], "", "mm"), "last year")]
    value = parse_reading(check, [now], "", "mm")
    found = judge(check, positions.WHOLE, value, Context(log=log, visit="now"))
    assert found.severity == severity and "last time" in found.reason
    assert now.split()[1].replace("in", "inH2O") in found.reason, "in the unit that stands on the gauge"


def test_a_bare_figure_is_in_the_unit_the_machines_gauge_had():
    check = check_of("air-seeder", "fan-gauge")
    value = parse_reading(check, ["26"], "", "mm", gauge="inH2O")
    assert (value.text, round(value.numbers[0], 1)) == ("inH2O", 64.8)


def test_the_school_of_the_card_has_answers_of_its_own():
    by_card = in_force.rule_book(CATALOGUE, "draper-header", schools={"hold-down-clearance": "card"})
    check = by_card.family.checks["draper.hold-down"]
    assert [state.key for state in check.rule.states()] == ["drag", "loose", "tight"]
    found = judge(check, positions.find("hold-down-4"), parse_reading(check, ["loose"], "", "mm"), Context())
    assert (found.severity, found.facts.state) == ("due", "too-wide")
    assert not check.rule.alike(check_of("draper-header", "draper.hold-down").rule)


def test_the_frame_is_shaken_raised_and_only_the_centre_line_is_drawn_on_concrete():
    checks = BOOKS["row-crop-planter"].family.checks
    on_concrete = [key for key, check in checks.items() if "concrete" in check.posture]
    assert on_concrete == ["closing-centre"]
    assert "pulls ahead" in checks["closing-centre"].how and "people clear" in checks["closing-centre"].how
    assert any(
        "tractor running, people clear" in one
        for one in BOOKS["row-crop-planter"].postures["on concrete, units just touching"].cautions
    )


def test_looking_down_through_the_sieves_the_gate_and_the_check_say_the_same():
    check = check_of("rotary-combine", "sieve-holes")
    gate = BOOKS["rotary-combine"].postures[check.posture]
    for said in (check.how, gate.lock):
        assert "fully from the cab" in said and "board laid" in said


def test_horizontal_auger_and_rotor_splines_are_reached_where_they_are():
    assert check_of("rotary-combine", "horizontal-flighting").posture.startswith("unloading tube swung out")
    assert "horizontal" not in BOOKS["rotary-combine"].family.things["auger"].places
    assert check_of("rotary-combine", "spline-grease").posture == check_of("rotary-combine", "rotor-gear-oil").posture


@pytest.mark.parametrize("key", ["rotor-bearing-play", "rotor-gear-oil", "spline-grease"])
def test_two_rotors_have_play_oil_and_splines_each(key):
    check = check_of("rotary-combine", key)
    layout = in_force.layout(BOOKS["rotary-combine"], {"rotor": 2})
    assert [place.label for place in positions.expand(check.per, layout)] == ["Rotor 1", "Rotor 2"]


def test_places_of_their_own_where_things_are_several():
    things = BOOKS["rotary-combine"].family.things
    assert things["elevator-drive"].places == ["outside", "inside"]
    assert things["sieve-half"].places == ["chaffer-left", "chaffer-right", "sieve-left", "sieve-right"]
    assert things["tube"].places[0] == "fill" == things["auger"].places[0]


def test_a_fan_with_a_hydraulic_motor_has_no_belt_to_look_at():
    checks = BOOKS["rotary-combine"].family.checks
    hydraulic = {key for key in ("fan-belt", "fan-thrust", "fan-motor-seal") if checks[key].made_with(["fan-hydraulic"])}
    assert hydraulic == {"fan-motor-seal"} and not checks["fan-motor-seal"].made_with([])


def test_the_bar_is_judged_by_eye_in_motion_and_a_figure_is_optional():
    checks = BOOKS["row-crop-planter"].family.checks
    eye, angle, picture = (checks[key] for key in ("bar-by-eye", "bar-angle", "bar-level"))
    assert not eye.optional and angle.optional and picture.optional
    assert {check.posture for check in (eye, angle, picture)} == {"planting in the field"}
    assert not any("tape" in tool for check in (eye, angle, picture) for tool in check.tools)
    assert verdict("row-crop-planter", "bar-angle", "all", "-1").reason.endswith("Raise the hitch and look again in work.")


@pytest.mark.parametrize("key", ["feeder-chain-stretch", "grain-chain-stretch"])
def test_three_per_cent_may_be_pushed_together_and_pulled_apart(key):
    where = "strand-1" if key == "feeder-chain-stretch" else "all"
    assert verdict("rotary-combine", key, where, "1031 / 1000").severity == "due"
    assert verdict("rotary-combine", key, where, "1010 / 1000").reason.startswith("1 % stretch")
    with pytest.raises(BadInput, match="pulled length comes first"):
        verdict("rotary-combine", key, where, "1000 / 1010")


@pytest.mark.parametrize("meter", ["meter-vacuum", "meter-bowl", "meter-brush", "meter-finger"])
def test_seals_brushes_and_crop_parts_of_a_meter_are_asked_once(meter):
    checks = BOOKS["row-crop-planter"].family.checks
    made = {key for key, check in checks.items() if check.made_with([meter])}
    for same in (("meter-brushes", "drop-brushes", "brush-compare"), ("meter-crop", "bowl-crop")):
        assert len(made & set(same)) == 1, same
    assert ("meter-seals" in made) == (not made & {"vacuum-seal", "door-seal"})
    assert "driveline-shear" not in str(BOOKS["stripper-header"].family.checks)


def test_the_suction_half_of_a_meter_comes_before_its_seed_half():
    order = list(BOOKS["row-crop-planter"].family.checks)
    assert order.index("vacuum-seal") < order.index("disc-cells") < order.index("singulator")


@pytest.mark.parametrize("key", ["closing-stagger", "gauge-wheel-hole"])
def test_holes_are_compared_over_the_rows_left_with_left_and_right_with_right(key):
    others = {"1L": "2", "2L": "2", "1R": "3", "2R": "3"}
    assert verdict("row-crop-planter", key, "3R", "3", others=others).severity == "sound"
    assert verdict("row-crop-planter", key, "3L", "3", others=others).severity == "due"


@pytest.mark.parametrize("key", ["accelerator-speed", "rotor-range", "chopper-speed", "road-lock", "tailboard-louvres"])
def test_what_had_no_check_has_one(key):
    assert key in BOOKS["rotary-combine"].family.checks


@pytest.mark.parametrize("state", ["weak-left", "weak-right", "gone-left", "gone-right"])
def test_the_hand_of_a_firmer_spring_is_asked_at_the_machine(state):
    (need,) = parts_for(BOOKS["air-seeder"], [Called("firmer-springs", "12", "replace", state, 1)])
    assert (need.slot, need.side) == ("firmer-spring", "L" if state.endswith("left") else "R")


def test_no_handed_part_is_called_for_without_its_hand():
    for family, book in BOOKS.items():
        for check in book.family.checks.values():
            for place in positions.expand(check.per, in_force.layout(book, {})):
                for option in check.rule.states():
                    for need in parts_for(book, [Called(check.key, place.key, option.action, option.key, 1)]):
                        assert need.side or not book.family.slots[need.slot].handed, (family, check.key, need.slot)


def test_a_hooked_boot_sprocket_buys_itself_the_chain_and_the_top_one():
    called = [
        Called("grain-sprockets", "bottom", "replace", "hooked", 1),
        Called("grain-chain-stretch", "all", "replace", "", 1),
    ]
    needs = parts_for(BOOKS["rotary-combine"], called)
    assert sorted((need.slot, need.position) for need in needs) == [
        ("boot-sprocket", "all"), ("elevator-chain", "all"), ("top-sprocket", "all"),
    ]  # fmt: skip


def test_cupping_that_has_begun_is_bought_with_a_new_chain():
    chain = [Called("grain-chain-stretch", "all", "replace", "", 1)]
    slots = {need.slot for need in parts_for(BOOKS["rotary-combine"], chain, {("grain-sprockets", "bottom"): "begun"})}
    assert slots == {"elevator-chain", "top-sprocket", "boot-sprocket"}
    assert "boot-sprocket" not in {need.slot for need in parts_for(BOOKS["rotary-combine"], chain)}


OWN_SLOTS = [
    ("rotary-combine", "tailings-sprockets", "bottom", "hooked", {"tailings-boot-sprocket", "tailings-chain", "tailings-top-sprocket"}),
    ("rotary-combine", "tailings-paddles", "all", "", {"tailings-paddle"}),
    ("rotary-combine", "propeller", "all", "rubs", {"propeller", "propeller-bearing"}),
    ("rotary-combine", "propeller-bearings", "all", "rough", {"engine-fan-bearing"}),
    ("rotary-combine", "fan-sheaves", "all", "ridged", {"engine-fan-sheave"}),
    ("rotary-combine", "fan-belt", "all", "ridged", {"fan-belt", "fan-sheave"}),
    ("rotary-combine", "shoe-bearings", "L", "rough", {"shoe-bearing"}),
    ("rotary-combine", "shoe-pillow-blocks", "L", "rough", {"pillow-block"}),
    ("rotary-combine", "shoe-idlers", "all", "rough", {"shoe-idler"}),
    ("rotary-combine", "shoe-tensioner", "all", "worn", {"shoe-tensioner"}),
    ("rotary-combine", "top-auger-seat", "all", "driver", {"top-auger-driver"}),
    ("rotary-combine", "top-auger-seat", "all", "gearbox", {"top-auger-gearbox"}),
    ("rotary-combine", "shoe-auger-edges", "all", "thin", {"shoe-auger"}),
    ("row-crop-planter", "ejector", "3", "spring", {"ejector-spring"}),
    ("row-crop-planter", "feeder-wheel-reach", "3", "comb", {"feeder-comb"}),
    ("row-crop-planter", "feeder-wheels", "3", "small", {"feeder-wheel-small"}),
    ("row-crop-planter", "brush-guides", "3", "grooved", {"brush-guide"}),
    ("row-crop-planter", "brush-pulleys", "3", "worn", {"brush-pulley"}),
    ("row-crop-planter", "brush-bearings", "3", "rough", {"brush-bearing"}),
    ("row-crop-planter", "row-wiring", "3", "controller", {"row-controller"}),
    ("row-crop-planter", "closing-play", "3", "axle", {"closing-axle"}),
    ("row-crop-planter", "ties", "all", "white", {"cable-ties"}),
    ("row-crop-planter", "transmission-tighteners", "L", "broken", {"chain-tightener"}),
    ("row-crop-planter", "springs", "all", "weak", {"frame-spring"}),
    ("row-crop-planter", "parallel-arm-play", "3", "loose", {"arm-bushing-set", "arm-bolt-set", "arm-seal-set", "grease"}),
    ("draper-header", "draper.belt-rollers", "all", "rough", {"draper.draper-roller"}),
]  # fmt: skip


@pytest.mark.parametrize(("family", "key", "where", "state", "wanted"), OWN_SLOTS)
def test_the_right_part_is_bought(family, key, where, state, wanted):
    assert parts(family, key, where, "replace", state) == wanted


def test_the_chopper_gearbox_takes_what_the_manual_names_and_never_silently_gear_oil():
    assert parts("rotary-combine", "chopper-gearbox-oil", "all", "lubricate", "low") == {"chopper-gearbox-fill"}
    assert "semi-fluid" in BOOKS["rotary-combine"].family.slots["chopper-gearbox-fill"].note


def test_a_fixed_depth_stop_is_built_up_and_orders_no_rocker():
    found = verdict("row-crop-planter", "arm-stop-face", "3L", "3.2")
    assert (found.severity, found.action) == ("due", "repair")
    assert parts("row-crop-planter", "arm-stop-face", "3L", "repair") == set()
    assert parts("row-crop-planter", "arm-stop-pocket", "3L", "replace") == {"depth-rocker", "depth-rocker-bolt"}


@pytest.mark.parametrize("family", BOOKS)
def test_whatever_is_to_be_renewed_calls_for_a_part(family):
    """Every state, and every figure far out to either side."""
    rules = {key: check.rule for key, check in BOOKS[family].family.checks.items()}
    context = Context(confirmed=True, counter_h=1e5, today=dt.date(2026, 11, 28), rules=rules)
    for check in BOOKS[family].family.checks.values():
        place = positions.expand(check.per, in_force.layout(BOOKS[family], {}))[0]
        for value in _far_out(check):
            found = judge(check, place, value, context)
            if found.action == "replace":
                assert parts(family, check.key, place.key, "replace", value.choice), (check.key, value)


def _far_out(check):
    if states := check.rule.states():
        return [Value(choice=state.key) for state in states]
    if check.kind in ("note", "interval"):
        return []
    ends = check.rule.ends() or check.plausible or (0, 1000)
    figures = len(check.values) or 1
    return [Value(numbers=[float(end)] * figures, feeler_mm=0.3) for end in (min(ends), max(ends), 2 * max(ends))]


REPLACED = [("jack-bearing", "outboard", "inboard"), ("jack-bearing", "inboard", "outboard")]


@pytest.mark.parametrize(("slot", "renewed", "open_"), REPLACED)
def test_the_other_bearing_of_the_jack_shaft_lies_open(slot, renewed, open_):
    found = {(one.reach.slot, one.position) for one in laid_open(CATALOGUE.strip_downs, [(slot, renewed)], places)}
    assert (slot, open_) in found and (slot, renewed) not in found
    assert ("elevator-drive-chain", "inside") in found


def test_an_eccentric_bearing_opens_the_others_of_its_shaft_and_never_what_is_on_the_list():
    listed = [("shoe-bearing", "L"), ("pillow-block", "R")]
    found = {(one.reach.slot, one.position) for one in laid_open(CATALOGUE.strip_downs, listed, places)}
    assert found == {("shoe-bearing", "R"), ("pillow-block", "L")}


def places(check):
    book = BOOKS["rotary-combine"]
    return [place.key for place in positions.expand(book.family.checks[check].per, in_force.layout(book, {}))]
