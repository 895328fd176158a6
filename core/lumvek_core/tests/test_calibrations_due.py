"""What is to be calibrated after what happened, and in which order."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import registry
from lumvek_core.errors import BadInput

DUE = registry.find("calibrations_due").run
RAISE = {"key": "raise-speed", "due_after": ["header", "season", "told:valve-work"]}
HEIGHT = {"key": "header-height", "due_after": ["header", "season", "calibrated:raise-speed"],
          "after": [{"key": "raise-speed", "because": "it uses the oil that was found there"}]}  # fmt: skip
MOISTURE = {"key": "moisture-cell", "due_after": ["told:cell"]}
HEADER = {"event": "header", "at": "2026-07-01T09:00", "words": "Comb 61 coupled"}


def due(*calibrations, events=()):
    return DUE({"calibrations": list(calibrations), "events": list(events)})


def keys(found):
    return [one["key"] for one in found["due"]]


def test_another_header_wants_raise_speed_first_then_height():
    found = due(HEIGHT, RAISE, MOISTURE, events=[HEADER])
    assert keys(found) == ["raise-speed", "header-height"]
    assert found["due"][1]["first"] == [{"key": "raise-speed", "because": "it uses the oil that was found there"}]
    assert found["due"][0]["because"] == [HEADER]
    assert (found["right"], found["never"]) == ([], ["moisture-cell"])


def test_what_was_saved_since_is_right():
    found = due(RAISE | {"saved": "2026-07-01T10:00"}, HEIGHT | {"saved": "2026-07-01T10:20"}, events=[HEADER])
    assert (keys(found), found["right"]) == ([], ["raise-speed", "header-height"])


def test_one_that_rests_on_another_comes_due_again_with_it():
    found = due(RAISE | {"saved": "2026-07-02T10:00"}, HEIGHT | {"saved": "2026-07-01T10:20"}, events=[HEADER])
    assert keys(found) == ["header-height"]
    assert found["due"][0]["because"][0]["event"] == "calibrated:raise-speed"


def test_the_newest_reason_stands_first():
    season = {"event": "season", "at": "2026-06-20T00:00", "words": "the season begins"}
    assert [one["event"] for one in due(RAISE, events=[season, HEADER])["due"][0]["because"]] == ["header", "season"]


@pytest.mark.parametrize(
    ("calibrations", "events", "field"),
    [
        ([RAISE, RAISE], [], "calibrations"),
        ([HEIGHT], [], "calibrations.0.after.0.key"),
        ([RAISE | {"after": [{"key": "header-height", "because": ""}]}, HEIGHT], [], "calibrations"),
        ([RAISE], [HEADER | {"at": "soon"}], "events.0.at"),
        ([RAISE | {"saved": "2026-07-01T10:00Z"}], [], "calibrations.0.saved"),
    ],
)
def test_bad_input_is_named(calibrations, events, field):
    with pytest.raises(BadInput) as refused:
        due(*calibrations, events=events)
    assert refused.value.field == field


EVENTS = ("header", "season", "told:cell")


@st.composite
def questions(draw):
    many = draw(st.integers(1, 6))
    calibrations = []
    for i in range(many):
        before = draw(st.lists(st.integers(0, i - 1), unique=True, max_size=2)) if i else []
        rests_on = draw(st.lists(st.sampled_from(before), unique=True)) if before else []
        happens = draw(st.lists(st.sampled_from(EVENTS), unique=True))
        calibrations.append({"key": f"c{i}", "due_after": [*happens, *(f"calibrated:c{k}" for k in rests_on)],
                             "after": [{"key": f"c{k}", "because": "so"} for k in before],
                             "saved": draw(st.sampled_from([None, "2026-06-01T00:00", "2026-07-01T00:00"]))})  # fmt: skip
    events = [
        {"event": draw(st.sampled_from(EVENTS)), "at": f"2026-{draw(st.integers(5, 8)):02}-15T00:00"}
        for _ in range(draw(st.integers(0, 4)))
    ]
    return draw(st.permutations(calibrations)), events


@given(questions())
def test_done_in_their_order_nothing_is_left_due(question):
    calibrations, events = question
    order = keys(due(*calibrations, events=events))
    for minute in range(60):
        left = keys(due(*calibrations, events=events))
        if not left:
            return
        done = {"saved": f"2026-12-01T10:{minute:02}"}
        calibrations = [one | done if one["key"] == left[0] else one for one in calibrations]
        assert left[0] in order or minute, "none comes up that was not due, but what rests on one that was saved"
    raise AssertionError("it never ends")


@given(questions())
def test_every_calibration_stands_in_one_list_and_behind_what_goes_before(question):
    calibrations, events = question
    found = due(*calibrations, events=events)
    order = keys(found)
    assert sorted([*order, *found["right"], *found["never"]]) == sorted(one["key"] for one in calibrations)
    for one in calibrations:
        for before in one["after"]:
            if one["key"] in order and before["key"] in order:
                assert order.index(before["key"]) < order.index(one["key"])
