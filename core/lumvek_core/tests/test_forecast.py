"""Forecasts against the figures worked out by hand, against the full Gaussian they stand for, and against machines made up by
dice."""

import math

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.errors import BadInput

DISC = {
    "new": 381, "limit": 368, "prior_rate_mean": -0.012, "prior_rate_sd": 0.006, "reading_sd": 0.8, "new_sd": 0.3, "use_next": 860,
}  # fmt: skip
READ = [(210, 379.2), (430, 376.1), (640, 373.4)]


def readings(*pairs):
    return [{"use": use, "value": value} for use, value in pairs]


def forecast(*pairs, **more):
    return registry.find("wear_forecast").run(DISC | {"readings": readings(*pairs)} | more)


def rows(of, **more):
    listed = [{"name": name, "readings": readings(*pairs), **rest} for name, (pairs, rest) in of.items()]
    return registry.find("wear_forecast_rows").run(DISC | {"rows": listed} | more)


@pytest.mark.parametrize(
    ("pairs", "more", "rate", "value", "low", "high", "p"),
    [
        (READ, {}, -0.0116, 371.05, 369.62, 372.49, 0.0002),
        (READ, {"season_sd_share": 0.2, "season_use": 220}, -0.0117, 370.98, 369.20, 372.76, 0.0030),
        ([], {}, -0.012, 370.68, 362.18, 379.18, 0.302),
    ],
)
def test_as_worked_out_by_hand(pairs, more, rate, value, low, high, p):
    found = forecast(*pairs, **more)
    assert [found[key] for key in ("value", "low", "high")] == pytest.approx([value, low, high], abs=0.005)
    assert found["rate"] == pytest.approx(rate, abs=0.00006) and found["p_cross"] == pytest.approx(p, abs=0.0006)
    assert found["chance_word"] == ("possible" if p > 0.1 else "unlikely") and found["suspect"] == []


@pytest.mark.parametrize(
    ("p", "word"), [(0.0999, "unlikely"), (0.1, "possible"), (0.4, "likely"), (0.8, "likely"), (0.801, "almost surely")]
)
def test_chances_in_words(p, word):
    from lumvek_core.calculators.forecast import chance_word

    assert chance_word(p) == word


def test_a_slip_of_the_tape_is_marked_and_still_counted():
    slipped = (640, 378.6)  # 5 mm too much
    found = forecast(*READ[:2], slipped, (860, 371.0))
    assert 2 in found["suspect"]
    assert found["value"] > forecast(*READ, (860, 371.0))["value"]


def test_a_part_that_was_renewed_without_saying_so_is_suspect():
    assert 3 in forecast((210, 379.2), (430, 376.1), (640, 373.4), (860, 380.6))["suspect"]


def test_a_gap_that_grows_crosses_its_limit_from_below():
    gap = {
        "new": 1.0,
        "limit": 3.0,
        "prior_rate_mean": 0.002,
        "prior_rate_sd": 0.001,
        "reading_sd": 0.05,
        "new_sd": 0.05,
        "use_next": 900,
    }
    found = forecast((300, 1.7), (600, 2.4), **gap)
    assert found["value"] > 2.9 and 0.4 < found["p_cross"] < 0.9


@pytest.mark.parametrize(
    ("wrong", "field"),
    [
        ({"limit": 381}, "limit"),
        ({"prior_rate_mean": 0.012}, "prior_rate_mean"),
        ({"prior_rate_mean": 0}, "prior_rate_mean"),
        ({"prior_rate_sd": 0}, "prior_rate_sd"),
        ({"reading_sd": 0}, "reading_sd"),
        ({"season_sd_share": 0.2}, "season_use"),
        ({"readings": [{"use": -1, "value": 380}]}, "readings.0.use"),
    ],
)
def test_what_cannot_be_is_refused_at_its_field(wrong, field):
    with pytest.raises(BadInput) as refused:
        forecast(**wrong)
    assert refused.value.field == field


def dense(of, spread, share=0.0, season=220.0):
    """The same posterior from one large covariance matrix over all readings: slow, and with no shortcuts."""
    s, r, q = 0.006, 0.8, (share * 0.012) ** 2 * season
    names = list(of)
    n = len(names)
    group = np.array(
        [[of[a][1].get("group") is not None and of[a][1].get("group") == of[b][1].get("group") for b in names] for a in names]
    )
    rates = s**2 * np.ones((n, n)) + (s / 2) ** 2 * group + spread**2 * np.eye(n)
    row = np.array([i for i, name in enumerate(names) for _ in of[name][0]], dtype=int)
    use = np.array([u for name in names for u, _ in of[name][0]], dtype=float)
    rest = np.array([v for name in names for _, v in of[name][0]], dtype=float) - 381 + 0.012 * use
    same = row[:, None] == row[None, :]
    seen = (
        rates[np.ix_(row, row)] * np.outer(use, use)
        + same * (0.3**2 + q * np.minimum.outer(use, use))
        + r**2 * np.eye(len(use))
    )
    inverse = np.linalg.inv(seen)
    found = []
    for i in range(n):
        with_rate = rates[i, row] * use
        with_value = with_rate * 860 + (row == i) * (0.3**2 + q * np.minimum(use, 860))
        value = 381 - 0.012 * 860 + with_value @ inverse @ rest
        var = 0.3**2 + rates[i, i] * 860**2 + q * 860 - with_value @ inverse @ with_value
        errors = [abs((inverse @ rest)[j]) / math.sqrt(inverse[j, j]) for j in np.flatnonzero(row == i)]
        found.append((-0.012 + with_rate @ inverse @ rest, value, var, errors))
    evidence = -0.5 * rest @ inverse @ rest - 0.5 * np.linalg.slogdet(seen)[1]
    return found, evidence


PLANTER = {
    "1": ([(220, 379.0), (440, 376.6)], {}),
    "2": ([(220, 378.6), (440, 376.0)], {}),
    "5": ([(220, 376.9), (440, 372.2)], {"group": "wheel"}),
    "6": ([(220, 377.2), (440, 373.1)], {"group": "wheel"}),
    "7": ([], {}),
}


def test_rows_are_the_mixture_of_the_full_gaussians():
    spreads = np.linspace(0, 1.5 * 0.006, 13)
    answers = [dense(PLANTER, spread, 0.2) for spread in spreads]
    log = np.array([evidence for _, evidence in answers]) - 0.5 * (spreads / 0.003) ** 2
    weight = np.exp(log - log.max())
    weight /= weight.sum()
    found = rows(PLANTER, season_sd_share=0.2, season_use=220)
    for i, one in enumerate(found["rows"]):
        mean = sum(w * f[i][1] for w, (f, _) in zip(weight, answers, strict=True))
        var = sum(w * (f[i][2] + (f[i][1] - mean) ** 2) for w, (f, _) in zip(weight, answers, strict=True))
        assert one["value"] == pytest.approx(mean, abs=1e-6)
        assert (one["high"] - one["low"]) / 2 / 1.6448536 == pytest.approx(math.sqrt(var), rel=1e-6)
    assert found["row_sd"] == pytest.approx(float(weight @ spreads), rel=1e-6)


def test_errors_of_single_readings_are_those_of_leaving_them_out():
    from lumvek_core.forecast.wear import Line, Row, _at, _said, _with_errors

    of = PLANTER | {"8": ([(220, 379.1), (440, 387.0)], {})}
    line = Line(381, 0.3, 0.8, -0.012, 0.006, 0.0)
    listed = [Row([u for u, _ in pairs], [v for _, v in pairs], 860, rest.get("group")) for pairs, rest in of.values()]
    alike = np.array([[a.group is not None and a.group == b.group for b in listed] for a in listed], dtype=float)
    rates = 0.006**2 * np.ones((6, 6)) + 0.003**2 * alike + 0.004**2 * np.eye(6)
    said = [_said(line, row) for row in listed]
    fast, slow = _with_errors(line, said, _at(line, said, rates)), dense(of, 0.004)[0]
    for one, (_, _, _, errors) in zip(fast, slow, strict=True):
        assert one.errors == pytest.approx(errors, rel=1e-6)
    assert fast[5].errors[1] > 3.5


def test_rows_behind_the_wheels_come_out_by_themselves_and_a_row_without_readings_leans_on_the_rest():
    found = {one["name"]: one for one in rows(PLANTER)["rows"]}
    assert found["5"]["stands_out"] and found["5"]["rate"] < found["1"]["rate"] < 0
    assert found["5"]["p_cross"] > 0.5 > found["2"]["p_cross"]
    alone = forecast()
    assert found["7"]["high"] - found["7"]["low"] < alone["high"] - alone["low"] and found["7"]["n"] == 0


def test_one_row_is_as_wear_forecast():
    (one,) = rows({"5": (READ, {"group": "wheel"})}, season_sd_share=0.2, season_use=220)["rows"]
    alone = forecast(*READ, season_sd_share=0.2, season_use=220)
    figures = ("rate", "rate_sd", "value", "low", "high", "p_cross")
    assert [one[key] for key in figures] == pytest.approx([alone[key] for key in figures])
    assert not one["stands_out"] and one["chance_word"] == alone["chance_word"]


def test_a_row_may_have_its_own_end_of_the_season():
    found = rows({"1": (READ, {}), "2": (READ, {"use_next": 640})})["rows"]
    assert found[1]["value"] > found[0]["value"]


@settings(max_examples=40, deadline=None)
@given(
    st.lists(st.tuples(st.floats(1, 2000), st.floats(360, 385)), max_size=8),
    st.floats(0, 0.4),
    st.floats(0, 2000),
)
def test_more_readings_never_make_it_less_sure_and_the_range_holds_the_value(pairs, share, ahead):
    more = {"season_sd_share": share, "season_use": 220, "use_next": ahead}
    found, without = forecast(*pairs, **more), forecast(*pairs[:-1], **more)
    assert found["low"] <= found["value"] <= found["high"] and 0 <= found["p_cross"] <= 1
    assert found["high"] - found["low"] <= (without["high"] - without["low"]) * (1 + 1e-6) + 1e-9
    assert found["rate_sd"] <= 0.006 * (1 + 1e-9)


def test_the_range_holds_nine_of_ten_machines_made_up_by_dice():
    dice = np.random.default_rng(20261123)
    inside, share, season = 0, 0.2, 220
    for _ in range(400):
        rate, start = dice.normal(-0.012, 0.006), dice.normal(381, 0.3)
        steps = dice.normal(0, share * 0.012 * math.sqrt(season * season), 4)
        true = [start + rate * season * (i + 1) + steps[: i + 1].sum() for i in range(4)]
        read = [(season * (i + 1), true[i] + dice.normal(0, 0.8)) for i in range(3)]
        found = forecast(*read, use_next=4 * season, season_sd_share=share, season_use=season)
        inside += found["low"] <= true[3] <= found["high"]
    assert 0.86 <= inside / 400 <= 0.94


def decide(**more):
    given = {
        "p_cross": 0.302, "remaining": 0.31, "season_share": 0.2, "part_cost": 48, "labour_h": 0.4, "field_labour_h": 0.9,
        "labour_rate": 62, "downtime_h": 1.5, "downtime_rate": 240,
    }  # fmt: skip
    return registry.find("replace_decision").run(given | more)


def test_replace_or_wait_as_worked_out_by_hand():
    found = decide()
    assert (found["cost_now"], found["cost_wait"], found["extra_if_fails"]) == pytest.approx((14.56, 118.082, 391))
    assert found["break_even"] == pytest.approx(0.03724, abs=5e-6) and found["advice"] == "replace"


def test_replace_or_wait_at_its_edges():
    even = decide()["break_even"]
    assert decide(p_cross=even * 1.2)["advice"] == "either" and decide(p_cross=even * 1.21)["advice"] == "replace"
    assert decide(p_cross=even * 0.8)["advice"] == "either" and decide(p_cross=even * 0.79)["advice"] == "wait"
    assert decide(remaining=0, p_cross=0)["advice"] == "replace", "there is nothing left to throw away"
    assert decide(remaining=-0.4)["cost_now"] == 0
    free = decide(downtime_h=0, field_labour_h=0.4)
    assert (free["break_even"], free["advice"], free["cost_wait"]) == (None, "wait", 0)
    assert decide(p_fail_if_crossed=0)["break_even"] is None
    # A part that lasts many seasons loses one season's share at most; money tied up a year early costs as well.
    assert decide(remaining=0.9)["cost_now"] == decide(remaining=0.3)["cost_now"]
    assert decide(yearly_rate_pct=5)["cost_now"] == pytest.approx(14.56 + 0.05 * 72.8)


@pytest.mark.parametrize("field", ["new_sd", "prior_rate_sd"])
@pytest.mark.parametrize("calculator", ["wear_forecast", "wear_forecast_rows"])
def test_what_is_unsure_beyond_all_measure_is_bad_input(field, calculator):
    given = {
        "new": 400, "limit": 386, "prior_rate_mean": -0.01, "prior_rate_sd": 0.004, "reading_sd": 0.8, "new_sd": 0.5, "use_next": 900,
        field: 1e15,
    }  # fmt: skip
    readings = [{"use": 200, "value": 398}, {"use": 200, "value": 397.9}, {"use": 450, "value": 395}]
    rows = [{"name": name, "readings": readings} for name in ("4L", "4R")]
    with pytest.raises(BadInput) as problem:
        registry.find(calculator).run(given | ({"rows": rows} if calculator.endswith("rows") else {"readings": readings}))
    assert problem.value.field == field
