"""Bearing tones, and which shaft a recording speaks of: found, not found, not to be seen."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lumvek_core.errors import BadInput
from lumvek_core.registry import find
from lumvek_core.simulators.recorder import Speeds, Tone, recorded, tones_of

SHAFTS = [
    {"name": "rotor", "rpm": 900, "multiples": [1, 8]},
    {"name": "fan", "rpm": 1100, "multiples": [1, 6]},
    {"name": "chopper", "rpm": 2900, "multiples": [1, 2]},
    {"name": "shaker", "rpm": 305, "multiples": [1, 2]},
]


def match(**given):
    return find("vibration_match").run({"sample_hz": 400, "shafts": SHAFTS} | given)


def test_bearing_tones_as_worked_by_hand():
    found = find("bearing_tones").run({"balls": 9, "ball_mm": 9.5, "pitch_mm": 46.4, "angle_deg": 0, "rpm": 1450})
    assert [found[key] for key in ("bpfo", "bpfi", "bsf", "ftf")] == pytest.approx([86.484, 131.016, 56.544, 9.609], abs=5e-4)
    outer = find("bearing_tones").run(
        {"balls": 9, "ball_mm": 9.5, "pitch_mm": 46.4, "angle_deg": 0, "rpm": 1450, "turning": "outer"}
    )
    assert outer["ftf"] == pytest.approx(1450 / 60 / 2 * (1 + 9.5 / 46.4))


def test_balls_must_fit_on_their_circle():
    with pytest.raises(BadInput) as refused:
        find("bearing_tones").run({"balls": 16, "ball_mm": 9.5, "pitch_mm": 46.4, "angle_deg": 0, "rpm": 1450})
    assert refused.value.field == "balls"


def test_inner_and_outer_tones_add_up_to_the_balls():
    found = find("bearing_tones").run({"balls": 11, "ball_mm": 8, "pitch_mm": 50, "angle_deg": 12, "rpm": 600})
    assert found["bpfo"] + found["bpfi"] == pytest.approx(11 * 10)


def test_a_shaking_chopper_is_named():
    samples = recorded([Tone(2900 / 60, 2.5), Tone(2900 / 30, 0.8), Tone(15, 0.2)], 30, seed=4)
    found = match(samples=samples)
    assert found["words"] == "chopper" and found["ranked"][0]["score"] > 0.8
    top = found["peaks"][0]
    assert top["hz"] == pytest.approx(48.33, abs=0.05) and top["matches"][0]["shaft"] == "chopper"


def test_a_sound_machine_matches_nothing():
    found = match(samples=recorded([], 60, seed=7))
    assert (found["words"], found["ranked"]) == ("no match", [])


def test_what_no_shaft_gives_is_named_as_unmatched():
    found = match(samples=recorded([Tone(71.3, 2)], 20, seed=1))
    assert found["words"] == "no match" and found["unmatched"][0] == pytest.approx(71.3, abs=0.1)


def test_peaks_from_elsewhere_and_what_they_score():
    found = match(peaks=[{"hz": 15.15, "amplitude": 2}, {"hz": 99, "amplitude": 1}])
    # 1 % off where 2 % are allowed: half of it counts, of 4 in 5.
    assert found["ranked"] == [{"shaft": "rotor", "score": pytest.approx(0.5 * 4 / 5)}]
    assert found["peaks"][0]["matches"] == [{"shaft": "rotor", "order": 1, "off_pct": pytest.approx(1.0)}]
    assert found["unmatched"] == [99]


def test_orders_over_half_the_sample_rate_cannot_be_seen():
    found = match(sample_hz=200, peaks=[{"hz": 15, "amplitude": 1}])
    assert [(one["shaft"], one["order"]) for one in found["not_observable"]] == [("rotor", 8), ("fan", 6)]


@pytest.mark.parametrize(
    ("given", "field"),
    [
        ({}, "samples"),
        ({"samples": [0.0] * 5}, "samples"),
        ({"samples": [1, 2, "x"]}, "samples.2"),
        ({"peaks": [{"hz": 0, "amplitude": 1}]}, "peaks.0.hz"),
        ({"peaks": [], "shafts": [SHAFTS[0], SHAFTS[0]]}, "shafts"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(given, field):
    with pytest.raises(BadInput) as refused:
        match(**given)
    assert refused.value.field == field


@settings(max_examples=20, deadline=None)
@given(st.sampled_from(["rotor", "fan", "chopper", "shaker"]), st.floats(0.8, 1.2), st.integers(0, 10**6))
def test_whichever_shaft_shakes_is_named_at_any_speed_of_the_engine(shaft, engine, seed):
    rpm = {one["name"]: one["rpm"] * engine for one in SHAFTS}
    shafts = [one | {"rpm": rpm[one["name"]]} for one in SHAFTS]
    samples = recorded(tones_of(Speeds(2000 * engine, rpm), {shaft: {1.0: 2.0}}, {7.7: 0.3}), 16, seed)
    found = match(samples=samples, shafts=shafts)
    assert found["words"] == shaft
    assert all(0 <= one["score"] <= 1 + 1e-9 for one in found["ranked"])


def test_silence_is_no_match():
    found = match(samples=[0.0] * 4000)
    assert found["words"] == "no match" and not found["peaks"]
