"""The trade's worked examples: what goes in, what must come out."""

import pytest

from lumvek_core import registry
from lumvek_core.errors import BadInput


def run(name, **given):
    return registry.find(name).run(given)


@pytest.mark.parametrize(
    ("text", "default", "mm", "inches", "shown_mm"),
    [
        ("14 5/8", "mm", 371.475, "14 5/8 in", "371.5 mm"),
        ("14-5/8", "mm", 371.475, "14 5/8 in", "371.5 mm"),
        ("14½", "mm", 368.3, "14 1/2 in", "368.3 mm"),
        ('5/8"', "mm", 15.875, "5/8 in", "15.9 mm"),
        (".025", "in", 0.635, "25 thou", "0.64 mm"),
        ("25 thou", "mm", 0.635, "25 thou", "0.64 mm"),
        ("371 mm", "in", 371, "14 19/32 in", "371 mm"),
        ("37.1cm", "in", 371, "14 19/32 in", "371 mm"),
        ("37,1 cm", "mm", 371, "14 19/32 in", "371 mm"),
        ("1' 2 1/2\"", "mm", 368.3, "14 1/2 in", "368.3 mm"),
        ("1 ft 2 in", "mm", 355.6, "14 in", "355.6 mm"),
        ("1 FT 2IN", "mm", 355.6, "14 in", "355.6 mm"),
        ("15 3/8", "mm", 390.525, "15 3/8 in", "390.5 mm"),
        ("390", "mm", 390, "15 11/32 in", "390 mm"),
        ("39,1 cm", "mm", 391, "15 13/32 in", "391 mm"),
        ("5.9 m", "mm", 5900, "232 9/32 in", "5900 mm"),
        ("25", "thou", 0.635, "25 thou", "0.64 mm"),
        ("0,625 in", "mm", 15.875, "5/8 in", "15.9 mm"),
        ("0", "mm", 0, "0 thou", "0 mm"),
    ],
)
def test_a_length_is_understood_in_every_notation(text, default, mm, inches, shown_mm):
    found = run("parse_length", text=text, default_unit=default)
    assert found["value_mm"] == pytest.approx(mm, abs=1e-9)
    assert (found["inches_text"], found["mm_text"]) == (inches, shown_mm)


@pytest.mark.parametrize(
    ("text", "because"),
    [
        ("", "empty"),
        ("   ", "empty"),
        ("14 14", "not one length"),
        ("5/0", "0 below"),
        ("14 8/8", "one or more beside"),
        ("3 mil", "different things"),
        ("1,250", "thousands comma"),
        (",625", "thousands comma"),
        ("-5", "negative"),
        ("5 8/9 mm", "cannot carry mm"),
        ("5/8 cm", "cannot carry cm"),
        ("5/8 m", "cannot carry m"),
        ("14.5 5/8", "decimal and a fraction"),
        ("1 ft 14 in", "under 12"),
        ("14-", "ends in a dash"),
        ("12 rods", "not a unit"),
        ("abc", "not a length"),
        ("9" * 70, "too long"),
        ("99999999", "kilometre"),
    ],
)
def test_what_can_be_read_two_ways_is_refused_with_the_reason(text, because):
    with pytest.raises(BadInput, match=because) as problem:
        run("parse_length", text=text)
    assert problem.value.field == "text"


def test_wear_used():
    found = run("wear_used", new=381, limit=368, reading=371.5)
    assert found["used"] == pytest.approx(0.7308, abs=5e-5)
    assert found["remaining"] == pytest.approx(1 - found["used"])
    assert (found["state"], found["beyond_new"]) == ("sound", False)


@pytest.mark.parametrize(
    ("new", "limit", "reading", "state"),
    [
        (400, 386, 386, "due"),
        (400, 386, 386.00000001, "due"),
        (400, 386, 386.1, "watch"),
        (400, 386, 389.5, "watch"),
        (400, 386, 389.6, "sound"),
        (0, 3, 3, "due"),
        (0, 3, 2.25, "watch"),
    ],
)
def test_the_limit_itself_counts_as_reached(new, limit, reading, state):
    assert run("wear_used", new=new, limit=limit, reading=reading)["state"] == state


@pytest.mark.parametrize(("reading", "beyond"), [(381.6, False), (381.66, True), (382, True)])
def test_better_than_new_by_more_than_a_twentieth_is_said(reading, beyond):
    assert run("wear_used", new=381, limit=368, reading=reading)["beyond_new"] is beyond


@pytest.mark.parametrize(
    ("reading", "state", "miss"),
    [(0.5, "in_window", 0), (0.75, "in_window", 0), (0.4, "low", -0.1), (0.8, "high", 0.05), (0.75 + 1e-12, "in_window", 0)],
)
def test_the_ends_of_a_window_are_inside(reading, state, miss):
    found = run("window", reading=reading, low=0.5, high=0.75)
    assert (found["state"], found["turns"]) == (state, None)
    assert found["miss"] == pytest.approx(miss)


def test_turns_lead_from_the_reading_to_the_target():
    assert run("window", reading=10, low=20, high=30, per_turn=2.5)["turns"] == pytest.approx(6)
    assert run("window", reading=10, low=20, high=30, target=20, per_turn=-2)["turns"] == pytest.approx(-5)


def test_even_drum_arms():
    found = run("even", readings={"L": 212, "R": 215.5}, tolerance=2)
    assert (found["spread"], found["target"], found["state"]) == (3.5, 213.75, "uneven")
    assert found["corrections"] == {"L": 1.75, "R": -1.75}
    assert found["worst"] == ["L", "R"]
    assert found["turns"] is None


def test_even_with_a_number_to_hit_can_be_even_and_off_target():
    found = run("even", readings={"a": 14, "b": 14.5}, tolerance=1, target=10, per_turn=0.5)
    assert (found["state"], found["worst"]) == ("off_target", ["b"])
    assert found["turns"] == {"a": -8, "b": -9}


def test_even_with_a_target_each():
    found = run("even", readings={"front": 30, "rear": 25}, tolerance=1, targets={"front": 30, "rear": 24.5})
    assert (found["target"], found["spread"], found["state"]) == (None, 0.5, "even")


def contact(spans, feeler=0.1, diameter=376, band=(38, 64, 0.3), **more):
    readings = [{"span_mm": span, "feeler_mm": feeler} for span in spans]
    low, high, thick = band
    return run(
        "opener_contact",
        readings=readings,
        disc_diameter_mm=diameter,
        band={"low_mm": low, "high_mm": high, "feeler_mm": thick},
        **more,
    )


def test_opener_contact_by_paper_held_against_a_band_by_card():
    found = contact([30, 31, 28])
    assert found["overlap_mm"] == pytest.approx(0.1769, abs=5e-5)
    assert found["true_contact_mm"] == pytest.approx(16.306, abs=5e-4)
    assert found["equivalent_span_mm"] == pytest.approx(45.926, abs=5e-4)
    assert found["spread_mm"] == pytest.approx(1.923, abs=5e-4)
    assert (found["state"], found["overlap_is_upper_bound"]) == ("in_band", False)
    seen = [(b["feeler_mm"], round(b["low_mm"], 2), round(b["high_mm"], 2)) for b in found["band_equivalents"]]
    assert seen == [(0.1, 14.61, 53.64), (0.2, 28.80, 59.05), (0.3, 38.0, 64.0)]


def test_the_schools_of_paper_and_card_are_one():
    found = contact([40], diameter=370, band=(25, 38, 0.1))
    card = found["band_equivalents"][2]
    assert (round(card["low_mm"], 1), round(card["high_mm"], 1)) == (42.8, 51.5)


def test_a_feeler_that_passes_right_through_is_low_whatever_the_rest_shows():
    found = contact([0, 60, 60])
    assert (found["state"], found["overlap_is_upper_bound"]) == ("low", True)


def test_touching_by_feeler_and_not_by_steel():
    found = contact([40], feeler=0.3)
    assert (found["true_contact_mm"], found["state"]) == (0.0, "in_band")


@pytest.mark.parametrize(
    ("given", "stretch", "plus_minus"),
    [
        ({"pitch_mm": 41.4, "pitches": 20, "measured_mm": 846}, 2.1739, 0.1208),
        ({"pushed_mm": 1202, "pulled_mm": 1231}, 2.4126, 0.1177),
        ({"pitch_mm": 41.4, "loop_pitches": 118, "take_up_used_mm": 22, "half_links_removed": 1}, 1.7481, 0.0409),
    ],
)
def test_chain_stretch_in_its_three_forms(given, stretch, plus_minus):
    found = run("chain_stretch", **given)
    assert found["stretch_pct"] == pytest.approx(stretch, abs=5e-5)
    assert found["plus_minus_pct"] == pytest.approx(plus_minus, abs=5e-5)
    assert found["used"] == pytest.approx(found["stretch_pct"] / 3)


BAND = {"low_mm": 38, "high_mm": 64, "feeler_mm": 0.3}


@pytest.mark.parametrize(
    ("name", "given", "field"),
    [
        ("wear_used", {"new": 381, "limit": 381, "reading": 371}, "limit"),
        ("wear_used", {"new": 381, "limit": 368}, "reading"),
        ("wear_used", {"new": 381, "limit": 368, "reading": True}, "reading"),
        ("wear_used", {"new": 381, "limit": 368, "reading": "371.5"}, "reading"),
        ("wear_used", {"new": 381, "limit": 368, "reading": float("nan")}, "reading"),
        ("wear_used", {"new": 381, "limit": 368, "reading": float("inf")}, "reading"),
        ("wear_used", {"new": 381, "limit": 368, "reading": 371, "colour": 1}, "colour"),
        ("wear_used", {"new": 381, "limit": 368, "reading": 371, "watch_from": 1.2}, "watch_from"),
        ("wear_used", [1, 2], ""),
        ("window", {"reading": 1, "low": 3, "high": 2}, "high"),
        ("window", {"reading": 1, "low": 1, "high": 2, "per_turn": 0}, "per_turn"),
        ("window", {"reading": 1, "low": 1, "high": 2, "target": 3}, "target"),
        ("even", {"readings": {"L": 1}, "tolerance": 1}, "readings"),
        ("even", {"readings": {"L": 1, "R": "2"}, "tolerance": 1}, "readings.R"),
        ("even", {"readings": {"L": 1, "R": 2}, "tolerance": -1}, "tolerance"),
        ("even", {"readings": {"L": 1, "R": 2}, "tolerance": 1, "targets": {"L": 1}}, "targets.R"),
        ("even", {"readings": {"L": 1, "R": 2}, "tolerance": 1, "target": "mode"}, "target"),
        ("opener_contact", {"readings": [{"span_mm": 30, "feeler_mm": 0}], "disc_diameter_mm": 376, "band": BAND}, "readings.0.feeler_mm"),
        ("opener_contact", {"readings": [{"span_mm": 376, "feeler_mm": 0.1}], "disc_diameter_mm": 376, "band": BAND}, "readings.0.span_mm"),
        ("opener_contact", {"readings": [{"span_mm": 30, "feeler_mm": 0.1}, {"span_mm": -1, "feeler_mm": 0.1}], "disc_diameter_mm": 376, "band": BAND}, "readings.1.span_mm"),
        ("opener_contact", {"readings": [{"span_mm": 30, "feeler_mm": 0.1}], "disc_diameter_mm": 376, "band": BAND, "included_angle_deg": 41}, "included_angle_deg"),
        ("opener_contact", {"readings": [{"span_mm": 30, "feeler_mm": 0.1}], "disc_diameter_mm": 376, "band": BAND | {"feeler_mm": 90}}, "band.feeler_mm"),
        ("opener_contact", {"readings": [], "disc_diameter_mm": 376, "band": BAND}, "readings"),
        ("chain_stretch", {"pitch_mm": 0, "pitches": 20, "measured_mm": 846}, "pitch_mm"),
        ("chain_stretch", {"pushed_mm": 1231, "pulled_mm": 1202}, "pulled_mm"),
        ("chain_stretch", {"pitch_mm": 41.4, "pitches": 20, "pulled_mm": 1231}, "pulled_mm"),
        ("chain_stretch", {"pitch_mm": 41.4}, ""),
        ("chain_stretch", {"pitch_mm": 41.4, "loop_pitches": 118, "take_up_used_mm": 2, "half_links_removed": 0.5}, "half_links_removed"),
    ],
)  # fmt: skip
def test_bad_input_names_its_field(name, given, field):
    with pytest.raises(BadInput) as problem:
        registry.find(name).run(given)
    assert problem.value.field == field
    assert problem.value.message


def test_knife_register():
    found = run("knife_register", short_left_mm=3, short_right_mm=-1, tolerance_mm=1)
    assert (found["centring_mm"], found["stroke_error_mm"], found["state"]) == (2, 2, "both")
