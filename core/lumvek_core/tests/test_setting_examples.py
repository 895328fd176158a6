"""Worked examples of stand, seed rate, settings and calibrations."""

import pytest

from .test_measuring_examples import run

SPACINGS = [162, 171, 158, 330, 166, 70, 95, 168, 160, 172, 164, 340, 161, 169, 80, 165]


def test_seed_spacing():
    found = run("seed_spacing", spacings_mm=SPACINGS, nominal_mm=165)
    assert (found["multiples"], found["misses"], found["feed"]) == (0.125, 0.125, 0.75)
    assert found["precision"] == pytest.approx(0.1255, abs=5e-5)
    assert (found["n"], found["few"]) == (16, True)


@pytest.mark.parametrize(
    ("spacing", "kind"), [(82.5, "multiples"), (82.6, "feed"), (247.5, "feed"), (247.6, "misses"), (0, "multiples")]
)
def test_on_the_line_of_spacing(spacing, kind):
    assert run("seed_spacing", spacings_mm=[spacing], nominal_mm=165)[kind] == 1


@pytest.mark.parametrize(
    ("skips", "doubles", "advice"), [(6, 4, "good"), (20, 0, "skips"), (1, 30, "doubles"), (15, 15, "both"), (9, 4, "skips"), (6, 6, "both")]
)  # fmt: skip
def test_stand_run(skips, doubles, advice):
    found = run("stand_run", expected=500, skips=skips, doubles=doubles)
    assert found["advice"] == advice
    if (skips, doubles) == (6, 4):
        assert [found[f"{what}_pct"] for what in ("singulation", "skip", "double")] == pytest.approx([98, 1.2, 0.8])


def test_seed_rate():
    found = run("seed_rate", population_per_ha=82000, row_spacing_m=0.75, speed_km_h=8.5, cells=30)
    assert found["spacing_mm"] == pytest.approx(162.60, abs=5e-3)
    assert found["seeds_per_s"] == pytest.approx(14.521, abs=5e-4)
    assert found["disc_rpm"] == pytest.approx(29.042, abs=5e-4)


def test_the_smallest_plate_that_takes_the_largest_seed():
    plates = [{"name": "B", "cell_mm": 11}, {"name": "A", "cell_mm": 11}, {"name": "C", "cell_mm": 10.4}]
    assert run("plate_fit", seed_lengths_mm=[9.8, 10.5], plates=plates, clearance_mm=0.5)["plate"] == "A"
    assert run("plate_fit", seed_lengths_mm=[9.8, 9.9], plates=plates, clearance_mm=0.5)["plate"] == "C"
    none = run("plate_fit", seed_lengths_mm=[12] * 30, plates=plates, clearance_mm=0.5)
    assert (none["plate"], none["cell_mm"], none["few"]) == (None, None, False)


def test_reel_speed():
    assert run("reel_speed", ground_km_h=8, reel_diameter_mm=1050)["rpm"] == pytest.approx(46.483, abs=5e-4)


def test_sieves_are_evened_before_they_are_zeroed():
    def sieve(left, right):
        return {"shown_mm": 6, "gap_mm": {"left": left, "right": right}, "gap_tolerance_mm": 1, "zero_tolerance_mm": 0.5}

    found = run("sieve_zero", sieves={"chaffer": sieve(8, 6.5), "sieve": sieve(7, 7), "pre-sieve": sieve(6, 6.4)})["sieves"]
    assert (found["chaffer"]["left_right_mm"], found["chaffer"]["offset_mm"]) == (1.5, 1.25)
    assert found["chaffer"]["words"].startswith("The left side opens 1.5 mm more: cure the linkage first")
    assert (found["sieve"]["sides"], found["sieve"]["zero"], found["sieve"]["words"]) == (
        "even",
        "off",
        "Add 1 mm to the display.",
    )
    assert (found["pre-sieve"]["sides"], found["pre-sieve"]["zero"]) == ("even", "right")


def test_moisture_offset_is_added_to_the_one_already_stored():
    found = run("moisture_offset", stored_pct=-0.8, pairs=[{"shown_pct": 14.2, "reference_pct": 15.9}])
    assert (found["offset_pct"], found["steady"]) == (pytest.approx(0.9), None)
    two = [{"shown_pct": 14.2, "reference_pct": 15.2}, {"shown_pct": 13.0, "reference_pct": 15.0}]
    assert run("moisture_offset", stored_pct=0, pairs=two)["steady"] is True


LOADS = [(2000, 2080), (1500, 1530), (1200, 1300)]


def test_yield_factor():
    found = run("yield_factor", loads=[{"machine_kg": m, "scale_kg": s} for m, s in LOADS])
    assert found["factor"] == pytest.approx(1.03143, abs=5e-6)
    assert found["per_load_error_pct"] == pytest.approx([-3.846, -1.961], abs=5e-4)
    assert [one["index"] for one in found["rejected"]] == [2]
    assert found["low_flow_factor"] is None


def test_no_load_large_enough_gives_no_factor():
    found = run("yield_factor", loads=[{"machine_kg": 900, "scale_kg": 950}])
    assert (found["factor"], found["spread_pct"], found["per_load_error_pct"]) == (None, None, [])
