"""Worked examples of the measuring calculations, their schools and their edges."""

import pytest

from lumvek_core import registry
from lumvek_core.errors import BadInput


def run(name, **given):
    return registry.find(name).run(given)


BAND = {"low_mm": 38, "high_mm": 64, "feeler_mm": 0.3}
PAIRS = [{"moved": 1, "before_mm": 24, "after_mm": 43}, {"moved": 2, "before_mm": 20, "after_mm": 51}]


def shim(contact, **other):
    given = {"band": BAND, "disc_diameter_mm": 376, "disc_limit_mm": 368, "inside": {"left": 1, "right": 1}}
    given |= {"outside": {"left": 2, "right": 2}, "gain_mm": 16.02, "gain_sd_mm": 1.714}
    return run("opener_shim", contact_mm=contact, **(given | other))


def test_a_washer_gains_what_this_machines_own_trials_say():
    found = run("shim_gain", prior_sd_mm=6, pairs=PAIRS)
    assert found["gain_mm"] == pytest.approx(16.020, abs=5e-4)
    assert found["gain_sd_mm"] == pytest.approx(1.714, abs=5e-4)


def test_without_trials_the_prior_stands():
    assert run("shim_gain", pairs=[]) == {"gain_mm": pytest.approx(14), "gain_sd_mm": pytest.approx(10)}


def test_one_washer_brings_low_contact_into_the_band():
    found = shim(29)
    assert (found["move"], found["left"], found["right"], found["advice"]) == (1, 1, 0, "move")
    assert (found["predicted_mm"], found["predicted_sd_mm"]) == (pytest.approx(45.02), pytest.approx(1.714))
    assert found["lands_in_band"] is True


@pytest.mark.parametrize(
    ("contact", "other", "move", "advice"),
    [
        (38, {}, 0, "none"),  # the ends of the band are inside
        (64, {}, 0, "none"),
        (20, {}, 2, "move"),
        (5, {}, 2, "move"),  # three would be nearer; only two are inside
        (80, {}, -2, "move"),
        (29, {"inside": {"left": 0, "right": 0}}, 0, "no_help"),
        (36, {"gain_mm": 60}, 0, "no_help"),  # one washer would overshoot further than it misses now
        (29, {"gain_mm": 0}, 0, "no_help"),
        (29, {"gain_mm": -5}, 0, "no_help"),
        (29, {"disc_diameter_mm": 368}, 0, "replace_discs"),
        (50, {"disc_diameter_mm": 367}, 0, "replace_discs"),
    ],
)
def test_which_washers_to_move(contact, other, move, advice):
    found = shim(contact, **other)
    assert (found["move"], found["advice"]) == (move, advice)


@pytest.mark.parametrize(
    ("contact", "inside", "outside", "left", "right"),
    [
        (20, (1, 1), (2, 2), 1, 1),
        (29, (1, 2), (2, 1), 0, 1),
        (20, (0, 3), (3, 0), 0, 2),
        (80, (0, 0), (1, 2), -1, -1),
        (80, (0, 0), (2, 2), -1, -1),
    ],
)
def test_washers_come_alternately_from_where_most_are(contact, inside, outside, left, right):
    def washers(pair):
        return {"left": pair[0], "right": pair[1]}

    found = shim(contact, inside=washers(inside), outside=washers(outside))
    assert (found["left"], found["right"]) == (left, right)


TAKE_UP = {"pitch_mm": 41.4, "travel_mm": 60, "used_mm": 22, "half_links_removed": 0, "wear_mm_per_h": 0.05, "season_h": 220}


def test_half_a_link_out_takes_the_bolt_back_half_a_pitch():
    found = run("take_up", **TAKE_UP)
    assert found["can_remove"] is True
    assert found["used_after_mm"] == pytest.approx(1.3)
    assert (found["hours_to_end"], found["hours_to_end_after"]) == (pytest.approx(760), pytest.approx(1174))
    assert (found["lasts_season"], found["retire"], found["advice"]) == (True, False, "none")


@pytest.mark.parametrize(
    ("other", "can_remove", "retire", "advice"),
    [
        ({"used_mm": 55}, True, False, "remove_half_link"),
        ({"used_mm": 20, "travel_mm": 30}, False, False, "runs_out"),
        ({"used_mm": 22, "join_mm": 5}, False, False, "none"),
        ({"used_mm": 60, "half_links_removed": 1}, False, True, "retire"),
        ({"used_mm": 60, "half_links_removed": 1, "half_links_fitted": 3, "school": "all_fitted"}, True, False, "remove_half_link"),
        ({"used_mm": 60, "half_links_removed": 3, "half_links_fitted": 3, "school": "all_fitted"}, False, True, "retire"),
        ({"used_mm": 41.4, "school": "full_link"}, True, True, "retire"),
        ({"used_mm": 20.7, "half_links_removed": 1, "school": "full_link"}, False, True, "retire"),
        ({"school": "percent", "stretch_pct": 3}, True, True, "retire"),
        ({"school": "percent", "stretch_pct": 2.9}, True, False, "none"),
        ({"stretch_pct": 3.2}, True, True, "retire"),
        ({"school": "yearly"}, True, True, "retire"),
        ({"wear_mm_per_h": 0, "used_mm": 60}, True, False, "none"),
        ({"used_mm": 65}, True, False, "remove_half_link"),
    ],
)  # fmt: skip
def test_take_up_by_school(other, can_remove, retire, advice):
    found = run("take_up", **(TAKE_UP | other))
    assert (found["can_remove"], found["retire"], found["advice"]) == (can_remove, retire, advice)
    assert found["words"]


def test_hold_downs_by_feeler_and_by_measure():
    results = [
        {"name": "1", "go": True, "no_go": False},
        {"name": "2", "go": False, "no_go": False},
        {"name": "3", "go": True, "no_go": True},
        {"name": "4", "measured_mm": 0.5},
        {"name": "5", "measured_mm": 0.8},
    ]
    found = run("hold_down", low_mm=0.5, high_mm=0.75, results=results, card_mm=0.3)
    assert found["names"] == {"too_tight": ["2"], "right": ["1", "4"], "too_wide": ["3", "5"]}
    assert (found["too_tight"], found["right"], found["too_wide"]) == (1, 2, 2)
    assert (found["state"], found["card_in_window"]) == ("due", False)


KNIVES = [{"name": str(a), "angle_deg": a, "radius_mm": 260, "mass_g": 310 if a == 0 else 410} for a in (0, 90, 180, 270)]


def test_one_light_knife_of_four():
    plans = [
        {"name": "single", "renew": ["0"], "new_mass_g": 460},
        {"name": "pair", "renew": ["0", "180"], "new_mass_g": 460},
        {"name": "set", "renew": ["0", "90", "180", "270"], "new_mass_g": 460},
    ]
    found = run("rotor_balance", positions=KNIVES, rotor_mass_kg=96, speed_rpm=2900, plans=plans)
    assert found["unbalance_g_mm"] == pytest.approx(26000)
    assert found["heavy_angle_deg"] == pytest.approx(180)
    assert found["permissible_g_mm"] == pytest.approx(5057.8, abs=0.05)
    assert found["force_n"] == pytest.approx(2398, abs=0.5)
    assert (found["state"], found["couple_g_mm2"]) == ("over", None)
    assert [plan["unbalance_g_mm"] for plan in found["plans"]] == pytest.approx([13000, 0, 0], abs=1e-6)
    assert [plan["knives"] for plan in found["plans"]] == [1, 2, 4]
    assert found["recommended"] == "pair"


def test_a_knife_that_must_be_renewed_is_in_every_plan():
    plans = [{"name": "only", "renew": [], "new_mass_g": 410}]
    found = run("rotor_balance", positions=KNIVES, rotor_mass_kg=96, speed_rpm=2900, must_renew=["0"], plans=plans)
    assert found["plans"] == [{"name": "only", "unbalance_g_mm": pytest.approx(0, abs=1e-6), "knives": 1, "within": True}]


def test_alike_knives_have_no_heavy_side_and_no_plan_no_recommendation():
    even = [knife | {"mass_g": 410, "axial_mm": 100} for knife in KNIVES]
    found = run("rotor_balance", positions=even, rotor_mass_kg=96, speed_rpm=2900)
    assert (found["heavy_angle_deg"], found["recommended"], found["plans"]) == (None, None, [])
    assert found["couple_g_mm2"] == pytest.approx(0, abs=1e-3)


def test_bar_nose_down():
    found = run("bar_level", front_mm=540, rear_mm=572, base_mm=1250, hitch_lever_mm=2900)
    assert found["pitch_deg"] == pytest.approx(1.4665, abs=5e-5)
    assert (found["state"], found["raise_hitch_mm"]) == ("nose_down", pytest.approx(74.24))


@pytest.mark.parametrize(
    ("rear", "state"), [(540, "level"), (541, "level"), (520, "level"), (480, "nose_up"), (560, "nose_down")]
)
def test_bar_level_allows_for_its_own_reading(rear, state):
    assert run("bar_level", front_mm=540, rear_mm=rear, base_mm=1250, hitch_lever_mm=2900)["state"] == state


DUG = {"1": [48, 51, 50], "2": [49, 52, 50], "3": [47, 50, 49], "4": [51, 50, 49], "5": [38, 41, 39], "6": [37, 40, 42]}
DUG |= {"7": [50, 52, 49], "8": [50, 48, 51]}


def test_depth_behind_the_wheels():
    found = run("depth_check", rows=DUG, target_mm=50, tolerance_mm=5, track_rows=["5", "6"])
    assert found["planter_median_mm"] == pytest.approx(49.667, abs=5e-4)
    assert found["offset_mm"] == pytest.approx(-0.333, abs=5e-4)
    assert (found["flagged"], found["unsure"], found["uneven"]) == (["5", "6"], [], [])
    assert found["track_difference_mm"] == pytest.approx(-10.333, abs=5e-4)
    assert (found["cause"], found["digs_needed"]) == ("track_rows", 3)
    assert found["pooled_sd_mm"] == pytest.approx(1.633, abs=5e-4)
    assert run("depth_check", rows=DUG, target_mm=50, tolerance_mm=5, track_rows=[5, 6]) == found


@pytest.mark.parametrize(
    ("rows", "track", "cause", "flagged", "unsure"),
    [
        (DUG, [], "rows", ["5", "6"], []),
        ({name: [dig + 9 for dig in digs] for name, digs in DUG.items()}, ["5", "6"], "mixed", ["5", "6"], []),
        ({"1": [60, 61], "2": [60, 59], "3": [60, 61]}, [], "whole_planter", [], []),
        ({"1": [50, 51], "2": [50, 49], "3": [51, 50]}, ["1"], "none", [], []),
        ({"1": [50], "2": [51], "3": [50], "4": [40]}, [], "none", [], ["4"]),  # single digs prove nothing
    ],
)
def test_depth_causes(rows, track, cause, flagged, unsure):
    found = run("depth_check", rows=rows, target_mm=50, tolerance_mm=5, track_rows=track)
    assert (found["cause"], found["flagged"], found["unsure"]) == (cause, flagged, unsure)


APART = {"teardown_h": 6, "labour_rate": 62, "downtime_h": 8, "downtime_rate": 240}
BEARING = {"name": "bearing", "part_cost": 38, "p_fail": 0.18, "remaining": 0.35, "extra_h": 0.25, "p_fail_new": 0.01}
SPROCKET = {"name": "sprocket", "part_cost": 210, "p_fail": 0.02, "remaining": 0.7, "extra_h": 0.3}


def test_while_it_is_apart():
    found = run("while_apart", parts=[BEARING, SPROCKET], **APART)
    assert found["renew"] == ["bearing"]
    bearing, sprocket = found["parts"]
    assert (bearing["cost_now"], bearing["cost_later"]) == (pytest.approx(28.80), pytest.approx(389.64))
    assert (sprocket["cost_now"], sprocket["cost_later"], sprocket["advice"]) == (
        pytest.approx(165.60),
        pytest.approx(45.84),
        "leave",
    )


def test_near_the_break_even_the_figures_do_not_decide_and_free_failures_are_left():
    even = run("while_apart", parts=[BEARING], **APART)["parts"][0]["break_even"]
    near = run("while_apart", parts=[BEARING | {"p_fail": even * 1.1}], **APART)["parts"][0]
    assert near["advice"] == "either"
    free = run("while_apart", parts=[BEARING], teardown_h=0, labour_rate=62, downtime_h=0, downtime_rate=0)["parts"][0]
    assert (free["break_even"], free["advice"]) == (None, "leave")


def due(**service):
    given = {"counter_now": 2140, "date_now": "2026-06-01", "counter_per_day": 10, "services": [{"name": "oil"} | service]}
    return run("services_due", **given)["services"][0]


@pytest.mark.parametrize(
    ("service", "state", "left_h", "left_days", "by"),
    [
        ({"every_h": 250, "last_h": 1890}, "due", 0, 0, "counter"),
        ({"every_h": 250, "last_h": 1800}, "overdue", -90, -9, "counter"),
        ({"every_h": 250, "last_h": 2000}, "soon", 110, 11, "counter"),
        ({"every_h": 500, "last_h": 2000}, "later", 360, 36, "counter"),
        ({"every_days": 365, "last_date": "2025-06-01"}, "due", None, 0, "date"),
        ({"every_days": 365, "last_date": "2025-05-01"}, "overdue", None, -31, "date"),
        ({"every_h": 500, "last_h": 2000, "every_days": 365, "last_date": "2025-06-11"}, "soon", 360, 10, "date"),
        ({"every_h": 500, "last_h": 2000, "every_days": 365}, "unknown", 360, 36, None),
        ({"every_h": 100, "last_h": 2000, "every_days": 365}, "overdue", -40, -4, "counter"),
        ({"every_h": 500}, "unknown", None, None, None),
    ],
)
def test_services_by_counter_and_calendar(service, state, left_h, left_days, by):
    found = due(**service)
    assert (found["state"], found["left_h"], found["left_days"], found["by"]) == (state, left_h, left_days, by)


def test_the_most_pressing_service_comes_first():
    services = [
        {"name": "later", "every_h": 900, "last_h": 2000},
        {"name": "unknown", "every_h": 10},
        {"name": "overdue", "every_days": 10, "last_date": "2026-01-01"},
        {"name": "due", "every_h": 140, "last_h": 2000},
    ]
    found = run("services_due", counter_now=2140, date_now="2026-06-01", services=services)["services"]
    assert [one["name"] for one in found] == ["overdue", "due", "later", "unknown"]


@pytest.mark.parametrize(
    ("name", "given", "field"),
    [
        ("take_up", TAKE_UP | {"school": "percent"}, "stretch_pct"),
        ("take_up", TAKE_UP | {"travel_mm": 0}, "travel_mm"),
        ("hold_down", {"low_mm": 0.8, "high_mm": 0.75, "results": []}, "high_mm"),
        ("hold_down", {"low_mm": 0.5, "high_mm": 0.75, "results": [{"name": "1", "go": False, "no_go": True}]}, "results.0.no_go"),
        ("hold_down", {"low_mm": 0.5, "high_mm": 0.75, "results": [{"name": "1"}]}, "results.0"),
        ("rotor_balance", {"positions": KNIVES, "rotor_mass_kg": 96, "speed_rpm": 2900, "must_renew": ["7"]}, "must_renew.0"),
        ("rotor_balance", {"positions": [KNIVES[0], KNIVES[0]], "rotor_mass_kg": 96, "speed_rpm": 2900}, "positions.1.name"),
        ("bar_level", {"front_mm": 540, "rear_mm": 572, "base_mm": 0, "hitch_lever_mm": 2900}, "base_mm"),
        ("depth_check", {"rows": {"1": []}, "target_mm": 50, "tolerance_mm": 5}, "rows.1"),
        ("depth_check", {"rows": {"1": [50]}, "target_mm": 50, "tolerance_mm": 5, "track_rows": [2]}, "track_rows.0"),
        ("seed_spacing", {"spacings_mm": [160, -1], "nominal_mm": 165}, "spacings_mm.1"),
        ("stand_run", {"expected": 10, "skips": 11, "doubles": 0}, "skips"),
        ("stand_run", {"expected": 10, "skips": 6, "doubles": 5}, "doubles"),
        ("services_due", {"counter_now": 1, "date_now": "today", "services": []}, "date_now"),
        ("services_due", {"counter_now": 1, "date_now": "2026-06-01", "services": [{"name": "oil", "every_h": 5, "last_h": 2}]}, "services.0.last_h"),
        ("services_due", {"counter_now": 1, "date_now": "2026-06-01", "services": [{"name": "oil"}]}, "services.0.every_h"),
        ("while_apart", APART | {"parts": [BEARING | {"p_fail": 1.2}]}, "parts.0.p_fail"),
        ("opener_shim", {}, "contact_mm"),
        ("yield_factor", {"loads": [{"machine_kg": 0, "scale_kg": 5}]}, "loads.0.machine_kg"),
    ],
)  # fmt: skip
def test_bad_input_names_its_field(name, given, field):
    with pytest.raises(BadInput) as problem:
        registry.find(name).run(given)
    assert problem.value.field == field
