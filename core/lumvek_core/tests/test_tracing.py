"""Which check to make next: what tells most per minute, and what an answer leaves."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.errors import BadInput
from lumvek_core.faults.tracing import TracingCheck, chance_bad, entropy, left_after, shares
from lumvek_core.registry import find

SHAKES = {
    "candidates": [{"name": "knife", "weight": 4}, {"name": "rotor", "weight": 2}, {"name": "fan", "weight": 1}, {"name": "else", "weight": 1}],
    "checks": [
        {"name": "look at knives", "minutes": 5, "proves": ["knife"], "clears": ["knife"]},
        {"name": "look into rotor", "minutes": 20, "proves": ["rotor"], "clears": ["rotor"]},
        {"name": "feel the fan", "minutes": 5, "proves": ["fan"], "clears": []},
    ],
}  # fmt: skip


def run(**given):
    return find("next_check").run(SHAKES | given)


def test_what_tells_most_per_minute_comes_first():
    found = run()
    assert found["entropy_bits"] == pytest.approx(1.75)
    assert [one["name"] for one in found["checks"]] == ["look at knives", "feel the fan", "look into rotor"]
    knives = found["checks"][0]
    assert knives["p_bad"] == pytest.approx(0.5)
    # A bad result leaves the knife alone: 0 bits. A good one leaves 2 : 1 : 1, which is 1.5 bits.
    assert knives["gain_bits"] == pytest.approx(1.75 - 0.5 * 1.5)
    assert knives["gain_per_minute"] == pytest.approx(1.0 / 5)


def test_what_only_proves_is_worth_half_a_look():
    fan = next(one for one in run()["checks"] if one["name"] == "feel the fan")
    assert fan["p_bad"] == pytest.approx(1 / 16)
    good = [4, 2, 0.5, 1]
    assert fan["gain_bits"] == pytest.approx(1.75 - 15 / 16 * entropy(good))


def test_the_way_to_a_posture_counts():
    checks = [dict(one, posture_minutes=30 if one["name"] == "look at knives" else 0) for one in SHAKES["checks"]]
    assert run(checks=checks)["checks"][0]["name"] == "feel the fan"


@pytest.mark.parametrize(
    ("given", "field"),
    [
        ({"candidates": []}, "candidates"),
        ({"candidates": [{"name": "a", "weight": 1}] * 2, "checks": []}, "candidates"),
        ({"candidates": [{"name": "a", "weight": 0}], "checks": []}, "candidates.0.weight"),
        ({"checks": [{"name": "a", "minutes": 1, "proves": ["wheel"]}]}, "checks.0.proves.0"),
        ({"checks": [{"name": "a", "minutes": 1, "proves": ["fan"], "clears": ["rotor"]}]}, "checks.0.clears.0"),
        ({"checks": [{"name": "a", "minutes": 0, "proves": ["fan"]}]}, "checks.0.minutes"),
        ({"checks": [{"name": "a", "minutes": 1, "proves": []}] * 2}, "checks"),
    ],
)
def test_what_cannot_be_is_refused_at_its_place(given, field):
    with pytest.raises(BadInput) as refused:
        run(**given)
    assert refused.value.field == field


causes = st.integers(2, 12)


@st.composite
def tracings(draw):
    names = [f"c{i}" for i in range(draw(causes))]
    weights = {name: draw(st.floats(0.01, 100)) for name in names}
    checks = []
    for i in range(draw(st.integers(1, 8))):
        proves = draw(st.lists(st.sampled_from(names), unique=True))
        clears = draw(st.lists(st.sampled_from(proves), unique=True)) if proves else []
        checks.append({"name": f"k{i}", "minutes": draw(st.floats(0.5, 60)), "proves": proves, "clears": clears})
    return weights, checks


@given(tracings())
def test_no_check_is_expected_to_make_it_less_certain(drawn):
    weights, checks = drawn
    candidates = [{"name": name, "weight": weight} for name, weight in weights.items()]
    found = run(candidates=candidates, checks=checks)
    most = math.log2(len(weights))
    assert 0 <= found["entropy_bits"] <= most + 1e-9
    assert all(-1e-9 <= one["gain_bits"] <= min(found["entropy_bits"], 1) + 1e-9 for one in found["checks"])
    rates = [one["gain_per_minute"] for one in found["checks"]]
    assert rates == sorted(rates, reverse=True)


@given(tracings(), st.booleans())
def test_an_answer_leaves_what_bayes_leaves(drawn, bad):
    weights, checks = drawn
    check = TracingCheck(**checks[0])
    left = left_after(weights, check, bad)
    total = sum(weights.values())
    p_answer = sum(w / total * (chance_bad(check, c) if bad else 1 - chance_bad(check, c)) for c, w in weights.items())
    for cause, share in shares(left).items():
        chance = chance_bad(check, cause) if bad else 1 - chance_bad(check, cause)
        assert share == pytest.approx(weights[cause] / total * chance / p_answer if p_answer else 0)
        assert not (bad and cause not in check.proves and share) and not (not bad and cause in check.clears and share)
