"""How many to carry, what lies open while something is apart, and the made-up desk that suppliers answer from."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st
from scipy.stats import nbinom

from lumvek_core import registry
from lumvek_core.catalogue.lists import Reach, StripDown
from lumvek_core.catalogue.load import shipped
from lumvek_core.errors import BadInput
from lumvek_core.judgement.strip_downs import laid_open, life_left, p_fail
from lumvek_core.simulators.desk import Desk, OnShelf


def carry(**given):
    return registry.find("truck_stock").run(given)


def test_truck_stock_as_worked_out_by_hand():
    found = carry(events=5, hours=1800, hours_ahead=400)
    assert found["carry"] == 3 and found["expected"] == pytest.approx(1.1)
    assert carry(events=5, hours=1800, hours_ahead=0) == {"carry": 0, "expected": 0}
    # A gear case that never failed is not carried; a small wearing part without any history is.
    assert carry(events=0, hours=6000, hours_ahead=800, prior_hours=5000)["carry"] == 0
    assert carry(events=0, hours=0, hours_ahead=400)["carry"] > 0


@given(
    st.integers(0, 60),
    st.floats(0, 50_000),
    st.floats(1, 5_000),
    st.floats(0.5, 0.999),
    st.floats(0.2, 5),
    st.floats(50, 6_000),
)
def test_it_is_the_smallest_number_that_is_enough(events, hours, ahead, service, prior_events, prior_hours):
    found = carry(
        events=events, hours=hours, hours_ahead=ahead, service=service, prior_events=prior_events, prior_hours=prior_hours
    )
    shape, total = prior_events + events, prior_hours + hours
    enough = nbinom(shape, total / (total + ahead)).cdf
    assert enough(found["carry"]) >= service * (1 - 1e-6)
    assert found["carry"] == 0 or enough(found["carry"] - 1) < service * (1 + 1e-6)
    assert math.isclose(found["expected"], shape / total * ahead)


def test_no_stock_is_enough_for_certain():
    with pytest.raises(BadInput, match="less than 1"):
        carry(events=1, hours=10, hours_ahead=5, service=1)
    with pytest.raises(BadInput, match="100000"):
        carry(events=500_000, hours=1, hours_ahead=1e6)


HUB = StripDown(
    "hub",
    "Hub off",
    ["opener-disc", "opener-bearing"],
    0.6,
    1.5,
    [
        Reach("opener-bearing", "opener-bearing", 0.06, 0.3),
        Reach("seed-tube-guard", "seed-tube-guard", 0.03, 0.3, at="row"),
        Reach("outer-scraper", "outer-scraper", 0.04, 0.2, at="across"),
    ],
)


def opened(*renewed):
    return [(one.reach.slot, one.position, one.at) for one in laid_open([HUB], renewed, lambda check: ["outboard", "inboard"])]


def test_what_lies_open_is_named_once_and_not_what_is_renewed_anyway():
    assert opened(("opener-disc", "5L")) == [
        ("opener-bearing", "5L", "5L"),
        ("seed-tube-guard", "5", "5L"),
        ("outer-scraper", "5L", "5L"),
        ("outer-scraper", "5R", "5L"),
    ]
    both = opened(("opener-disc", "5L"), ("opener-disc", "5R"), ("opener-bearing", "5L"), ("seed-tube-guard", "5"))
    assert both == [("outer-scraper", "5L", "5L"), ("outer-scraper", "5R", "5L"), ("opener-bearing", "5R", "5R")]
    assert opened(("closing-wheel", "5")) == []


def test_a_watched_part_is_likelier_to_fail_and_a_measured_one_has_the_life_that_was_measured():
    reach = HUB.reaches[0]
    assert (p_fail(reach, "sound"), p_fail(reach, "watch"), p_fail(reach, "not seen")) == (0.06, 0.3, 0.3)
    assert (life_left("sound", None), life_left("watch", None), life_left("sound", 0.7), life_left("due", 1.2)) == (
        0.5,
        0.25,
        pytest.approx(0.3),
        0,
    )


def test_no_shipped_strip_down_reaches_a_safety_item():
    catalogue = shipped()
    checks = {key.rpartition(".")[2]: check for family in catalogue.families.values() for key, check in family.checks.items()}
    reached = [reach for down in catalogue.strip_downs for reach in down.reaches]
    assert len(catalogue.strip_downs) >= 5 and not any(checks[reach.check].safety for reach in reached)


def desk():
    near = {"D": OnShelf("50.00", said=4, there=2, pack=2, restock_days=7), "B": OnShelf("20.00", said=1, delay_days=2)}
    return Desk({"near": near})


def order(*lines):
    return {
        "supplier": "near",
        "on": "2026-11-28",
        "wanted": "2026-12-01",
        "lines": [{"number": number, "quantity": n} for number, n in lines],
    }


def test_the_desk_puts_aside_what_is_there_and_says_what_follows():
    answer = desk().place("k", order(("D", 3), ("B", 2), ("X", 1)))
    assert answer["state"] == "short"
    assert [(one["accepted"], one["promised"], one["follows"], one["follows_on"]) for one in answer["lines"]] == [
        (2, "2026-12-01", 1, "2026-12-05"),
        (1, "2026-12-03", 0, None),
        (0, None, 0, None),
    ]


def test_the_same_key_is_the_same_order_and_takes_the_stock_once():
    made = desk()
    first = made.place("k", order(("D", 2)))
    assert made.place("k", order(("D", 2))) == first and len(made.orders) == 1
    assert made.quote("near", ["D", "D", "X"]) == [
        {"number": "D", "unit_price": "50.00", "pack": 2, "stock": 2, "p_stock": 1.0, "restock_days": 7, "status": "supported"}
    ]
    assert made.place("l", order(("D", 2)))["lines"][0]["accepted"] == 0
    assert made.place("m", order(("X", 2)))["state"] == "refused"


def test_what_would_follow_can_be_taken_back_twice_and_a_stranger_is_told():
    made = desk()
    made.place("k", order(("D", 3)))
    for _ in range(2):
        assert made.drop_rest("k", "D")["lines"][0]["follows"] == 0
    with pytest.raises(BadInput):
        made.drop_rest("nobody", "D")
    with pytest.raises(BadInput):
        made.place("n", order() | {"supplier": "far"})
