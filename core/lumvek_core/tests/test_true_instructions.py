"""What technicians corrected, each by its own name: what is asked, where, in which posture, by which school."""

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.judgement.context import Context, Past
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import judge

from .trade_helpers import BOOKS, CATALOGUE, check_of, verdict


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


@pytest.mark.parametrize(
    ("typed", "unit", "severity"),
    [
        ("39 3/4 / 39 3/8", "in", "sound"),
        ("39 3/4 / 38 1/2", "in", "due"),
        ("39.75 in / 38 1/2 in", "mm", "due"),
        ("1031/ 1000", "mm", "due"),
    ],
)
def test_pulled_and_pushed_lengths_are_read_with_their_inch_fractions(typed, unit, severity):
    assert verdict("rotary-combine", "grain-chain-stretch", "all", typed, unit=unit).severity == severity


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


def test_cards_come_first_with_the_discs_on_and_what_lies_behind_a_disc_while_it_is_off():
    opener = next(station for station in BOOKS["row-crop-planter"].family.stations if station.key == "opener")
    assert [check.key for check in opener.checks] == [
        "opener-contact", "opener-bearing", "outer-scraper", "shank",
        "opener-disc-diameter", "disc-axle", "washers", "hub-nuts", "seed-tube-swing", "tube-wear-plates",
    ]  # fmt: skip
    assert check_of("row-crop-planter", "opener-contact").after == [], "nothing asks for a disc to go back on"
