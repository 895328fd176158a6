"""What is set otherwise for the crop that comes: worked examples, and what holds of any machine."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.errors import BadInput

CHANGEOVER = registry.find("changeover").run
CROPS = ("small-grain", "pod", "ear")
MOVES = [
    {"from": "down", "to": "up", "minutes": 3},
    {"from": "up", "to": "down", "minutes": 3},
    {"from": "down", "to": "shields open", "minutes": 2},
    {"from": "shields open", "to": "down", "minutes": 2},
]
DRUM = {"key": "drum", "posture": "up", "station": 1, "minutes": 10, "places": {"left": "down", "right": "down"},
        "wants": {"small-grain": ["down"], "pod": ["down"], "ear": ["up"]}}  # fmt: skip
SIEVES = {"key": "sieves", "posture": "shields open", "station": 4, "minutes": 45, "hands": 2,
          "places": {"chaffer": "small", "sieve": "small"},
          "wants": {"small-grain": ["small"], "pod": ["closed"], "ear": ["closed", "open"]}}  # fmt: skip
SPACERS = {"key": "spacers", "posture": "shields open", "station": 3, "minutes": 120, "places": {"machine": "out"}, "lasting": True,
           "wants": {"small-grain": ["out"], "pod": ["out"], "ear": ["in"]}}  # fmt: skip
DISPLAY = {"key": "display", "posture": "down", "station": 9, "minutes": 2, "places": {"machine": None}, "always": True}


def over(*items, crop="ear", **more):
    return CHANGEOVER({"items": list(items), "crop": crop, "moves": MOVES, "start": "down", **more})


def test_only_what_stands_otherwise_is_listed_grouped_by_posture():
    found = over(DRUM, SIEVES, SPACERS, DISPLAY)
    assert {one["key"]: [(p["place"], p["now"], p["to"]) for p in one["places"]] for one in found["change"]} == {
        "drum": [("left", "down", "up"), ("right", "down", "up")],
        "sieves": [("chaffer", "small", "closed"), ("sieve", "small", "closed")],
        "spacers": [("machine", "out", "in")],
    }
    assert [(one["posture"], one["keys"]) for one in found["visits"]] == [
        ("down", ["display"]), ("up", ["drum"]), ("shields open", ["spacers", "sieves"]),
    ] or [(one["posture"], one["keys"]) for one in found["visits"]] == [
        ("down", ["display"]), ("shields open", ["spacers", "sieves"]), ("up", ["drum"]),
    ]  # fmt: skip
    assert (found["work_min"], found["hands"]) == (20 + 90 + 120 + 2, 2)
    assert found["moving_min"] == 3 + 3 + 2 or found["moving_min"] == 2 + 2 + 3


def test_one_side_that_was_forgotten_is_caught():
    found = over(DRUM | {"places": {"left": "up", "right": "down"}})
    assert found["change"][0]["places"] == [{"place": "right", "now": "down", "to": "up"}]


def test_what_nobody_knows_is_asked_first_and_the_rest_of_it_is_set():
    found = over(DRUM | {"places": {"left": None, "right": "down"}})
    assert found["ask"] == [{"key": "drum", "places": ["left"]}]
    assert [p["place"] for p in found["change"][0]["places"]] == ["right"]


def test_the_same_sieves_may_stay_from_pod_to_ear_crops_but_stand_alike():
    closed = SIEVES | {"places": {"chaffer": "closed", "sieve": "closed"}}
    assert over(closed)["right"] == ["sieves"]
    mixed = over(SIEVES | {"places": {"chaffer": "open", "sieve": "closed"}})
    assert mixed["change"][0]["places"] == [{"place": "chaffer", "now": "open", "to": "closed"}]
    back = over(closed, crop="small-grain")
    assert {p["to"] for p in back["change"][0]["places"]} == {"small"}


def test_what_takes_hours_is_left_where_the_machine_is_back_in_eight_days():
    assert over(SPACERS, then_crop="small-grain", then_days=8)["kept"] == ["spacers"]
    assert over(SPACERS, then_crop="small-grain", then_days=60)["change"][0]["back"]
    assert over(SPACERS, then_crop="ear", then_days=8)["change"][0]["key"] == "spacers"


def test_what_only_the_manual_says_is_listed_without_a_state():
    found = over(DRUM | {"by_manual": ["ear"]})
    assert (found["manual"], found["change"], found["visits"][0]["keys"]) == (["drum"], [], ["drum"])


def test_a_crop_that_asks_for_nothing_lists_nothing():
    assert over(DRUM | {"wants": {"pod": ["down"]}}) == over()


@pytest.mark.parametrize(
    ("items", "field"),
    [([DRUM, DRUM], "items"), ([DRUM | {"after": ["none"]}], "items.0.after"), ([DRUM | {"posture": "sideways"}], "moves")],
)
def test_bad_input_is_named(items, field):
    with pytest.raises(BadInput) as refused:
        over(*items)
    assert refused.value.field == field


STATES = ("a", "b", "c")


@st.composite
def machines(draw, most_wanted=3):
    """A machine with a few things that each crop wants some way."""
    items = []
    for i in range(draw(st.integers(0, 5))):
        wants = {
            crop: draw(st.lists(st.sampled_from(STATES), min_size=1, max_size=most_wanted, unique=True))
            for crop in CROPS
            if draw(st.booleans())
        }
        places = {name: draw(st.sampled_from([*STATES, None])) for name in draw(st.sampled_from([("m",), ("left", "right")]))}
        items.append({"key": f"i{i}", "posture": draw(st.sampled_from(["down", "up", "shields open"])), "station": i,
                      "places": places, "wants": wants, "alike": draw(st.booleans())})  # fmt: skip
    return items


def set_as(items, found):
    """The machine after everything on the list was set; what was not known is found as the crop would have it."""
    to = {(one["key"], p["place"]): p["to"] for one in found["change"] for p in one["places"]}
    return [
        item | {"places": {place: to.get((item["key"], place), state) for place, state in item["places"].items()}}
        for item in items
    ]


def known(items):
    return [item | {"places": {place: state or "a" for place, state in item["places"].items()}} for item in items]


@given(machines(), st.sampled_from(CROPS))
def test_a_machine_set_for_a_crop_has_nothing_to_set_for_it(items, crop):
    items = known(items)
    done = over(*set_as(items, over(*items, crop=crop)), crop=crop)
    assert (done["change"], done["visits"], done["work_min"], done["moving_min"]) == ([], [], 0, 0)


@given(machines(), st.sampled_from(CROPS), st.sampled_from(CROPS))
def test_changing_back_asks_for_nothing_that_did_not_move(items, one, other):
    items = known(items)
    ready = set_as(items, over(*items, crop=one))
    there = over(*ready, crop=other)
    back = over(*set_as(ready, there), crop=one)
    assert {one["key"] for one in back["change"]} <= {one["key"] for one in there["change"]}


@given(machines(most_wanted=1), st.sampled_from(CROPS), st.sampled_from(CROPS))
def test_there_and_back_asks_for_the_same_where_each_crop_wants_one_way(items, one, other):
    items = [item | {"wants": {crop: item["wants"].get(crop, ["a"]) for crop in CROPS}} for item in known(items)]
    ready = set_as(items, over(*items, crop=one))
    there = over(*ready, crop=other)
    away = set_as(ready, there)
    back = over(*away, crop=one)
    assert {one["key"] for one in back["change"]} == {one["key"] for one in there["change"]}
    assert set_as(away, back) == ready


@settings(max_examples=60)
@given(machines(), st.sampled_from(CROPS))
def test_everything_listed_is_visited_once_and_nothing_else(items, crop):
    found = over(*items, crop=crop)
    listed = {one["key"] for one in found["change"]} | {one["key"] for one in found["ask"]}
    visited = [key for visit in found["visits"] for key in visit["keys"]]
    assert sorted(visited) == sorted(listed)
    assert not listed & set(found["right"])
