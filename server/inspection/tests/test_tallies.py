"""What is stored of how places stand is what the verdicts come to, whatever was done; a board asks the same few questions
whether it has one machine or many."""

import uuid

import pytest
from django.db import connection
from django.test.utils import CaptureQueriesContext
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from fleet.models import Machine
from inspection.actions import closing, starting
from inspection.judging import tallies
from inspection.models import WalkAround
from inspection.queries import preparing
from testing.yard import record

CHECKS = {
    "opener-disc-diameter": (["1L", "2R", "6L"], ["380", "387", "395", "3950", "-"]),
    "opener-bearing": (["1L", "3R"], ["1", "3", "5", "-"]),
    "seed-tube-guard": (["2", "5"], ["18", "21.5", "-"]),
    "parallel-arm-play-measured": (["1"], ["4", "-"]),
}
ACTS = st.sampled_from(list(CHECKS)).flatmap(
    lambda check: st.tuples(st.just(check), *(st.sampled_from(values) for values in CHECKS[check]))
)


def stored(yard):
    return WalkAround.objects.get(pk=yard.walk_around.pk)


def agrees(yard):
    walk_around = stored(yard)
    return walk_around.tallies == tallies.counted(walk_around)


@settings(max_examples=12, deadline=None, suppress_health_check=list(HealthCheck))
@given(st.lists(ACTS, min_size=1, max_size=6), st.booleans())
def test_stored_tallies_are_what_a_recount_comes_to(yard, acts, discarded):
    for check, position, typed in acts:
        if typed == "-":
            record(yard, check, position, state="withdrawn")
        else:
            record(yard, check, position, typed)
        assert agrees(yard)
    if discarded:
        closing.discard(yard.technician, yard.walk_around.pk, uuid.uuid4(), "a trial")
        assert stored(yard).tallies == {}
        closing.restore(yard.technician, yard.walk_around.pk, uuid.uuid4())
        assert agrees(yard)
    for check, (positions, _) in CHECKS.items():
        for position in positions:
            record(yard, check, position, state="withdrawn")
    assert agrees(yard)


def test_a_place_that_was_not_seen_or_waits_for_an_answer_is_counted_so(yard, read):
    read("opener-disc-diameter", "1L", "3950")
    record(yard, "opener-disc-diameter", "2L", state="not-seen", reason="still on")
    assert stored(yard).tallies["opener"] == {"asked": 1, "not_seen": 1}


def test_optional_checks_do_not_count(yard, read):
    read("parallel-arm-play-measured", "1", "4")
    assert stored(yard).tallies.get("arms", {}) == {}


@pytest.fixture
def many(yard):
    """More machines, each with a walk-around of its own that something was read in."""

    def more(names):
        for name in names:
            machine = Machine.objects.create(shop=yard.shop, model=yard.model, name=name, rows=6)
            machine.owners.add(yard.owner)
            walk = starting.start(yard.technician, machine, uuid.uuid4(), preparing.Wanted("winter"))
            yard.walk_around = walk
            record(yard, "opener-disc-diameter", "1L", "380")

    return more


def queries_of(browser):
    browser.get("/api/machines")
    with CaptureQueriesContext(connection) as asked:
        listed = browser.get("/api/machines").json()["machines"]
    return len(asked), listed


def test_the_board_asks_as_much_for_many_machines_as_for_two(yard, many, as_):
    browser = as_(yard.lead)
    many(["Dunmere 99"])
    few, listed = queries_of(browser)
    assert [len(card["stations"]) > 0 for card in listed] == [True, True]
    many([f"Dunmere {n}" for n in range(100, 114)])
    many_cards = queries_of(browser)
    assert many_cards[0] == few
    assert [card["stations"] for card in many_cards[1]] == [[]] * 16
    newest = next(card for card in many_cards[1] if card["machine"]["name"] == "Dunmere 113")
    assert (newest["sum"]["due"], newest["owners"]) == (1, ["Owner"])
    assert newest["sum"]["open"] == newest["sum"]["total"] - 1
