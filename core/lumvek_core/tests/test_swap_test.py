"""Swap tests: moved with the motor, stayed on the row, intermittent, and which swap to make next."""

import itertools

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.errors import BadInput
from lumvek_core.faults import seating
from lumvek_core.faults.seating import Run, Swap, after, named, seatings
from lumvek_core.faults.swapping import SwapSlot
from lumvek_core.registry import find

SLOTS = [
    {"slot": "motor", "weight": 3, "minutes": 8},
    {"slot": "controller", "weight": 2, "minutes": 4},
    {"slot": "sensor", "weight": 1, "minutes": 6},
]


def run(observations, slots=SLOTS):
    return find("swap_test").run({"observations": observations, "slots": slots})


def seen(row, fault, motor, controller, sensor="S9"):
    return {"row": row, "fault": fault, "parts": {"motor": motor, "controller": controller, "sensor": sensor + row}}


FIRST = [seen("7", True, "M7", "C7"), seen("8", False, "M8", "C8")]


def test_two_swaps_prove_the_motor():
    found = run(FIRST)
    assert found["suspects"] == ["motor:M7", "controller:C7", "sensor:S97", "row:7"] and found["proven"] is None
    assert found["next_swap"] == {"slots": ["controller"], "row_a": "7", "row_b": "8"}, "most told per minute"
    found = run([*FIRST, seen("7", True, "M7", "C8"), seen("8", False, "M8", "C7")])
    assert "controller:C7" in found["cleared"]
    assert found["next_swap"] == {"slots": ["motor"], "row_a": "7", "row_b": "8"}
    found = run(
        [
            *FIRST,
            seen("7", True, "M7", "C8"),
            seen("8", False, "M8", "C7"),
            seen("7", False, "M8", "C8"),
            seen("8", True, "M7", "C7"),
        ]
    )
    assert (found["proven"], found["words"], found["next_swap"]) == ("motor:M7", "moved with the motor", None)


def test_it_stays_on_the_row_when_every_part_was_another():
    swapped = {"row": "7", "fault": True, "parts": {"motor": "M8", "controller": "C8", "sensor": "S98"}}
    found = run([*FIRST, swapped])
    assert (found["proven"], found["words"]) == ("row:7", "stayed on the row")
    some = {"row": "7", "fault": True, "parts": {"motor": "M8", "controller": "C8", "sensor": "S97"}}
    assert run([*FIRST, some])["proven"] is None


@pytest.mark.parametrize(
    ("observations", "words", "proven"),
    [
        ([], "no fault recorded", None),
        ([FIRST[1]], "no fault recorded", None),
        ([*FIRST, seen("7", False, "M7", "C7")], "intermittent, a plug cured by handling, or two faults", None),
        ([{"row": "1", "fault": True, "parts": {}}], "the row, once another row has run without the fault", None),
        (
            [{"row": "1", "fault": True, "parts": {}}, {"row": "2", "fault": False, "parts": {}}],
            "only the row is left",
            "row:1",
        ),
        (
            [{"row": "1", "fault": True, "parts": {"motor": "A"}}, {"row": "1", "fault": False, "parts": {"motor": "B"}}],
            "only the motor is left",
            "motor:A",
        ),
    ],
)
def test_what_is_said(observations, words, proven):
    found = run(observations, [])
    assert (found["words"], found["proven"]) == (words, proven)


def test_without_a_healthy_row_there_is_nothing_to_swap_with():
    assert run([FIRST[0]])["next_swap"] is None


@pytest.mark.parametrize(
    ("observations", "slots", "field"),
    [
        ([{"row": " ", "fault": True, "parts": {}}], [], "observations.0.row"),
        ([{"row": "1", "fault": True, "parts": {"motor": ""}}], [], "observations.0.parts.motor"),
        ([], [{"slot": "motor"}, {"slot": "motor"}], "slots"),
    ],
)
def test_what_cannot_be_is_refused(observations, slots, field):
    with pytest.raises(BadInput) as refused:
        run(observations, slots)
    assert refused.value.field == field


@given(st.sampled_from(["motor", "controller", "sensor", "row"]), st.integers(3, 6))
def test_following_the_proposals_finds_whatever_is_broken(broken, rows):
    """One part of row 1 is broken; every proposal is followed and answered as the part would."""
    sits = {str(row): {"motor": f"M{row}", "controller": f"C{row}", "sensor": f"S{row}"} for row in range(1, rows + 1)}
    bad = "1" if broken == "row" else sits["1"][broken]

    def look():
        return [
            {"row": row, "parts": dict(parts), "fault": row == bad if broken == "row" else bad in parts.values()}
            for row, parts in sits.items()
        ]  # fmt: skip

    observations = look()
    for _ in itertools.repeat(None, 8):
        found = run(observations)
        if found["proven"]:
            break
        swap = found["next_swap"]
        for slot in swap["slots"]:
            a, b = sits[swap["row_a"]], sits[swap["row_b"]]
            a[slot], b[slot] = b[slot], a[slot]
        observations += look()
    assert found["proven"] == f"{broken}:{bad}"
    moved = "stayed on the row" if broken == "row" else f"moved with the {broken}"
    assert found["words"] in (moved, f"only the {broken} is left")


def test_parts_are_followed_by_their_place():
    seats = named(["7", "8"], ["motor", "controller"], {"7": {"motor": " M-71 "}})
    assert seats["7"] == {"motor": "M-71", "controller": "of row 7"} and seats["8"]["motor"] == "of row 8"
    runs = [
        Run(None, {"7": True, "8": False}),
        Run(Swap(["controller"], "7", "8"), {"7": True, "8": False}),
        Run(Swap(["motor"], "7", "8"), {"7": False, "8": True}),
    ]
    sat = seatings(seats, runs)
    assert [one["8"]["motor"] for one in sat] == ["of row 8", "of row 8", "M-71"]
    found = seating.tested(seats, runs, [SwapSlot("motor"), SwapSlot("controller")])
    assert (found.proven, found.words) == ("motor:M-71", "moved with the motor")


@given(st.lists(st.sampled_from(["motor", "controller"]), unique=True))
def test_swapping_twice_is_as_it_was(slots):
    seats = named(["1", "2", "3"], ["motor", "controller"], {})
    swap = Swap(slots, "1", "3")
    assert after(after(seats, swap), swap) == seats
