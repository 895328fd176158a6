"""A first field is looked at again a few days later, and when field, soil or residue change."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.planning.look_again import FEW_DAYS, ONE_RUN_DAYS, SEASON_DAYS, look_again

NOW = dt.datetime(2026, 8, 20, 9)


def ago(*days):
    return [NOW - dt.timedelta(days=one) for one in days]


@pytest.mark.parametrize(
    ("looked", "ground", "state"),
    [
        ([], [], "idle"),
        ([], [(1, "dry")], "first"),
        ([2], [], "right"),
        ([3], [], "again"),
        ([5, 1], [], "right"),
        ([40, 4], [], "again"),
        ([SEASON_DAYS + 1], [], "idle"),
        ([2], [(4, "dry"), (1, "soft ground")], "changed"),
        ([2], [(4, "dry"), (1, "dry")], "right"),
        ([2], [(1, "soft ground")], "right"),
        ([2], [(4, "dry"), (1, "")], "right"),
        ([3, 2], [(4, "Mill field, dry"), (1, "Long acre, dry"), (0, "Mill field, dry")], "right"),
    ],
)
def test_when_it_is_looked_at_again(looked, ground, state):
    found = look_again(ago(*looked), [(ago(days)[0], words) for days, words in ground], NOW)
    assert found.state == state
    assert bool(found.words) == (state in ("first", "again", "changed"))


def test_what_changed_is_said():
    found = look_again(ago(1.5), [(ago(2)[0], "Mill field, dry"), (ago(1)[0], "Long acre, damp")], NOW)
    assert found.words == "Long acre, damp; it was looked at on Mill field, dry"


@given(st.lists(st.floats(0, 80), max_size=6), st.lists(st.tuples(st.floats(0, 80), st.sampled_from("abc")), max_size=6))
def test_whoever_looks_now_is_asked_for_nothing_but_the_second_look(looked, ground):
    looks = sorted(ago(*looked))
    works = sorted((ago(days)[0], words) for days, words in ground)
    assert look_again([*looks, NOW], works, NOW).state == "right"
    later = look_again([*looks, NOW], works, NOW + dt.timedelta(days=FEW_DAYS)).state
    near = any(NOW - at <= dt.timedelta(days=ONE_RUN_DAYS) for at in looks)
    assert later == ("right" if near else "again")
