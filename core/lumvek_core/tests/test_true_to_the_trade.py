"""What technicians corrected, each by its own name: verdicts, cures and causes."""

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.judgement.context import Context
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import judge

from .trade_helpers import BOOKS, CATALOGUE, SCHOOLS, check_of, parts, verdict


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


@pytest.mark.parametrize(
    ("family", "key", "where", "short", "low", "high", "long"),
    [
        ("stripper-header", "stripper.rotor-height", "L", "126", "127", "152.4", "153"),
        ("stripper-header", "stripper.sheave-width", "all", "84", "84.2", "87.3", "87.5"),
        ("draper-header", "draper.divider-height", "L", "31.5", "31.8", "44.4", "44.6"),
        ("rotary-combine", "header-variator-gap", "all", "2.3", "2.4", "3.9", "4.1"),
        ("row-crop-planter", "bar-angle", "all", "-0.5", "0", "2", "2.5"),
        ("row-crop-planter", "pinch-point", "1", "-1", "0", "15", "16"),
    ],
)
def test_a_band_ends_where_the_trade_says(family, key, where, short, low, high, long):
    unit = check_of(family, key).unit
    found = [verdict(family, key, where, typed, unit=unit).severity for typed in (short, low, high, long)]
    assert found == ["due", "sound", "sound", "due"]


@pytest.mark.parametrize(("typed", "severity"), [("38", "due"), ("38.2", "sound"), ("63.4", "sound"), ("63.6", "due")])
def test_opener_discs_meet_over_an_inch_and_a_half_to_two_and_a_half_by_the_card(typed, severity):
    check = check_of("row-crop-planter", "opener-contact")
    read = parse_reading(check, [typed] * 3, "card", "mm")
    discs = {"opener-disc-diameter": check_of("row-crop-planter", "opener-disc-diameter").rule}
    assert judge(check, positions.find("1"), read, Context(schools=SCHOOLS, rules=discs)).severity == severity
