"""The calculations against a second way to the same answer: another derivation, brute force, or what the answer promises."""

import datetime as dt
import math
from statistics import median

import pytest
from hypothesis import assume, given
from hypothesis import strategies as st

from lumvek_core import registry


def run(name, **fields):
    return registry.find(name).run(fields)


def close(value, **kw):
    return pytest.approx(value, **({"rel": 1e-7, "abs": 1e-7} | kw))


@given(
    contact=st.floats(0, 120), gain=st.floats(0.5, 40), low=st.floats(0, 60), width=st.floats(0, 40),
    counts=st.tuples(*[st.integers(0, 4)] * 4),
)  # fmt: skip
def test_no_possible_move_lands_nearer_the_middle(contact, gain, low, width, counts):
    inside, outside = counts[:2], counts[2:]
    band = {"low_mm": low, "high_mm": low + width, "feeler_mm": 0.3}
    assume(not low <= contact <= low + width)
    found = run(
        "opener_shim", contact_mm=contact, band=band, disc_diameter_mm=380, disc_limit_mm=368, gain_mm=gain, gain_sd_mm=1,
        inside={"left": inside[0], "right": inside[1]}, outside={"left": outside[0], "right": outside[1]},
    )  # fmt: skip
    misses = {move: abs(max(0, contact + move * gain) - low - width / 2) for move in range(-sum(outside), sum(inside) + 1)}
    best = min(misses.values())
    assert misses[found["move"]] == close(best, abs=1e-6)
    assert abs(found["move"]) == min(abs(move) for move, miss in misses.items() if miss <= misses[found["move"]] + 1e-12)
    donors = inside if found["move"] > 0 else outside
    assert found["left"] + found["right"] == found["move"]
    assert abs(found["left"]) <= donors[0] and abs(found["right"]) <= donors[1]


@given(
    st.lists(st.tuples(st.integers(-2, 2), st.floats(0, 60), st.floats(0, 60)), max_size=4), st.floats(2, 12), st.floats(1, 8)
)
def test_the_gain_is_where_a_grid_of_gains_has_its_mean(trials, prior_sd, noise):
    pairs = [{"moved": m, "before_mm": b, "after_mm": a} for m, b, a in trials]
    found = run("shim_gain", pairs=pairs, prior_sd_mm=prior_sd, noise_sd_mm=noise)
    centre, sd = found["gain_mm"], found["gain_sd_mm"]
    grid = [centre + sd * (i - 800) / 100 for i in range(1601)]

    def log_weight(gain):
        return -(((gain - 14) / prior_sd) ** 2) / 2 - sum(((a - b - m * gain) / noise) ** 2 for m, b, a in trials) / 2

    peak = max(map(log_weight, grid))
    weights = [math.exp(log_weight(gain) - peak) for gain in grid]
    mean = sum(w * g for w, g in zip(weights, grid, strict=True)) / sum(weights)
    variance = sum(w * (g - mean) ** 2 for w, g in zip(weights, grid, strict=True)) / sum(weights)
    assert mean == close(centre, abs=1e-3 * sd)
    assert math.sqrt(variance) == close(sd, rel=1e-3)


@given(pitch=st.floats(20, 60), loop=st.integers(60, 160), stretch=st.floats(0, 4), removed=st.integers(0, 2))
def test_take_up_and_stretch_tell_the_same_chain(pitch, loop, stretch, removed):
    """A chain that has grown by so much hangs over a take-up that stands where geometry puts it."""
    grown = pitch * loop * stretch / 100
    used = (grown - removed * pitch) / 2
    assume(used >= 0)
    found = run("chain_stretch", pitch_mm=pitch, loop_pitches=loop, take_up_used_mm=used, half_links_removed=removed)
    assert found["stretch_pct"] == close(stretch, abs=1e-9)


@given(used=st.floats(0, 60), rate=st.floats(0.001, 1), season=st.just(0.0) | st.floats(0.1, 800))
def test_the_bolt_reaches_its_end_after_so_many_hours(used, rate, season):
    found = run("take_up", pitch_mm=41.4, travel_mm=60, used_mm=used, half_links_removed=0, wear_mm_per_h=rate, season_h=season)
    assert used + rate * found["hours_to_end"] == close(60)
    assert found["lasts_season"] == (used + rate * season <= 60 * (1 + 1e-8))
    if found["can_remove"]:
        assert found["used_after_mm"] == close(used - 41.4 / 2)


knives = st.lists(st.tuples(st.floats(0, 360), st.floats(100, 400), st.floats(100, 600)), min_size=1, max_size=12)


@given(knives, st.floats(-720, 720))
def test_turning_the_rotor_turns_only_the_heavy_angle(places, turn):
    def balance(by):
        positions = [{"name": str(i), "angle_deg": a + by, "radius_mm": r, "mass_g": m} for i, (a, r, m) in enumerate(places)]
        return run("rotor_balance", positions=positions, rotor_mass_kg=96, speed_rpm=2900)

    still, turned = balance(0), balance(turn)
    size = sum(r * m for _, r, m in places)
    assert turned["unbalance_g_mm"] == close(still["unbalance_g_mm"], abs=1e-9 * size)
    if still["unbalance_g_mm"] > 1e-6 * size:
        off = (turned["heavy_angle_deg"] - still["heavy_angle_deg"] - turn) % 360
        assert min(off, 360 - off) < 1e-3


@given(knives)
def test_the_force_is_what_the_knives_pull_in_newton(places):
    positions = [{"name": str(i), "angle_deg": a, "radius_mm": r, "mass_g": m} for i, (a, r, m) in enumerate(places)]
    found = run("rotor_balance", positions=positions, rotor_mass_kg=96, speed_rpm=2900)
    speed = 2900 / 60 * math.tau
    pulls = [(m / 1000 * r / 1000 * speed**2, math.radians(a)) for a, r, m in places]
    force = math.hypot(sum(f * math.cos(a) for f, a in pulls), sum(f * math.sin(a) for f, a in pulls))
    assert found["force_n"] == close(force, abs=1e-6 * sum(f for f, _ in pulls))


@given(st.lists(st.floats(300, 500), min_size=2, max_size=6))
def test_a_whole_new_set_on_even_angles_balances(masses):
    n = len(masses)
    names = [str(i) for i in range(n)]
    positions = [
        {"name": name, "angle_deg": 360 * i / n, "radius_mm": 260, "mass_g": masses[i]} for i, name in enumerate(names)
    ]
    plans = [{"name": "set", "renew": names, "new_mass_g": 460}]
    plan = run("rotor_balance", positions=positions, rotor_mass_kg=96, speed_rpm=2900, plans=plans)["plans"][0]
    assert plan["within"] and plan["unbalance_g_mm"] < 1e-3


@given(front=st.floats(300, 800), slope=st.floats(-80, 80), base=st.floats(600, 3000), lever=st.floats(1500, 6000))
def test_raising_the_hitch_as_told_brings_the_bar_level(front, slope, base, lever):
    """Turn the bar about its wheels by what the raise means over the lever; both heights then agree."""
    rear = front + slope
    found = run("bar_level", front_mm=front, rear_mm=rear, base_mm=base, hitch_lever_mm=lever)
    tilt = found["raise_hitch_mm"] / lever
    assert front + tilt * base == close(rear)
    assert math.tan(math.radians(found["pitch_deg"])) == close(tilt)


digs = st.dictionaries(st.sampled_from("12345678"), st.lists(st.floats(20, 80), min_size=1, max_size=5), min_size=1)


@given(digs, st.floats(1, 15))
def test_planting_everything_deeper_moves_only_the_offset(rows, more):
    def check(by):
        return run("depth_check", rows={n: [d + by for d in r] for n, r in rows.items()}, target_mm=100, tolerance_mm=5)

    here, deeper = check(0), check(more)
    assert deeper["offset_mm"] - here["offset_mm"] == close(more)
    assert deeper["uneven"] == here["uneven"]
    assert deeper["planter_median_mm"] == close(median(row["mean"] for row in deeper["rows"].values()))
    assert set(deeper["flagged"]).isdisjoint(deeper["unsure"])


@given(st.lists(st.floats(0, 500), min_size=1, max_size=60))
def test_spacing_shares_make_one_whole_and_wilson_ends_solve_their_equation(spacings):
    found = run("seed_spacing", spacings_mm=spacings, nominal_mm=165)
    assert found["multiples"] + found["misses"] + found["feed"] == close(1)
    n, share, z = found["n"], found["misses"], 1.959963984540054
    half = found["plus_minus_pct"]["misses"] / 100
    centre = (share + z * z / (2 * n)) / (1 + z * z / n)
    for end in (centre - half, centre + half):
        assert (share - end) ** 2 == close(z * z * end * (1 - end) / n, abs=1e-9)


@given(st.integers(20000, 500000), st.floats(0.15, 1), st.floats(2, 16), st.integers(10, 120))
def test_a_hectare_planted_at_this_rate_holds_its_seeds(population, row, speed, cells):
    found = run("seed_rate", population_per_ha=population, row_spacing_m=row, speed_km_h=speed, cells=cells)
    metres = 10000 / row
    seconds = metres / (speed / 3.6)
    assert metres * 1000 / found["spacing_mm"] == close(population)
    assert seconds * found["seeds_per_s"] == close(population)
    assert found["disc_rpm"] / 60 * cells * seconds == close(population)


@given(st.floats(2, 12), st.floats(600, 1600), st.floats(1, 1.5))
def test_tine_tips_run_ahead_of_the_ground_by_the_index(ground, diameter, index):
    rpm = run("reel_speed", ground_km_h=ground, reel_diameter_mm=diameter, index=index)["rpm"]
    tip_km_h = rpm * 60 * math.pi * diameter / 1e6
    assert tip_km_h == close(index * ground)


@given(st.floats(0, 30), st.floats(0, 30), st.floats(0, 30))
def test_a_display_that_was_put_right_is_right(shown, left, right):
    def sieve(shows):
        one = {"shown_mm": shows, "gap_mm": {"left": left, "right": right}, "gap_tolerance_mm": 100, "zero_tolerance_mm": 0.1}
        return run("sieve_zero", sieves={"sieve": one})["sieves"]["sieve"]

    wanted = shown + sieve(shown)["offset_mm"]
    assert sieve(wanted)["zero"] == "right"


@given(st.floats(-3, 3), st.lists(st.tuples(st.floats(8, 25), st.floats(8, 25)), min_size=1, max_size=8))
def test_with_the_new_offset_the_machine_shows_what_the_store_says_on_average(stored, pairs):
    given_pairs = [{"shown_pct": s, "reference_pct": r} for s, r in pairs]
    offset = run("moisture_offset", stored_pct=stored, pairs=given_pairs)["offset_pct"]
    raw = [s - stored for s, _ in pairs]
    assert sum(one + offset for one in raw) == close(sum(r for _, r in pairs))


@given(st.lists(st.tuples(st.floats(1400, 9000), st.floats(1400, 9000)), min_size=1, max_size=8))
def test_with_the_factor_the_machine_has_weighed_what_the_scale_did(loads):
    found = run("yield_factor", loads=[{"machine_kg": m, "scale_kg": s} for m, s in loads])
    assert sum(m * found["factor"] for m, _ in loads) == close(sum(s for _, s in loads))


@given(
    hours=st.floats(1, 20), every_h=st.integers(10, 500), run_h=st.integers(0, 400), every_days=st.integers(1, 400), days=st.integers(0, 400)
)  # fmt: skip
def test_the_service_falls_on_the_first_day_that_it_is_up(hours, every_h, run_h, every_days, days):
    """Walk the calendar day by day until one interval is full."""
    today = dt.date(2026, 6, 1)
    last = today - dt.timedelta(days=days)
    service = {"name": "oil", "every_h": every_h, "last_h": 1000, "every_days": every_days, "last_date": last.isoformat()}
    found = run(
        "services_due", counter_now=1000 + run_h, date_now=today.isoformat(), counter_per_day=hours, services=[service]
    )["services"][0]
    assume(found["state"] in ("soon", "later"))
    day = 0
    while run_h + day * hours < every_h * (1 - 1e-12) and days + day < every_days:
        day += 1
    assert found["left_days"] == day
    assert found["state"] == ("soon" if day <= 14 else "later")


@given(p=st.floats(0, 1), cost=st.floats(1, 500), remaining=st.floats(0, 1), teardown=st.floats(0.5, 12))
def test_at_the_break_even_chance_both_ways_cost_the_same(p, cost, remaining, teardown):
    rates = {"teardown_h": teardown, "labour_rate": 62, "downtime_h": 3, "downtime_rate": 100}

    def ask(chance):
        part = {"name": "x", "part_cost": cost, "p_fail": chance, "remaining": remaining, "p_fail_new": 0.02}
        return run("while_apart", parts=[part], **rates)["parts"][0]

    even = ask(p)["break_even"]
    assume(even <= 1)
    there = ask(even)
    assert there["cost_now"] == close(there["cost_later"], abs=1e-6)
    assert there["advice"] == "either"


@given(st.lists(st.floats(0, 2), min_size=1, max_size=10))
def test_feelers_and_a_measuring_eye_agree_on_hold_downs(clearances):
    low, high = 0.5, 0.75
    measured = [{"name": str(i), "measured_mm": c} for i, c in enumerate(clearances)]
    felt = [{"name": str(i), "go": c >= low, "no_go": c > high} for i, c in enumerate(clearances)]
    assume(all(abs(c - low) > 1e-6 and abs(c - high) > 1e-6 for c in clearances))
    one, other = (run("hold_down", low_mm=low, high_mm=high, results=results) for results in (measured, felt))
    assert one == other
