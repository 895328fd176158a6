"""Counters: between readings in proportion, over an exchanged meter, and what cannot be is asked about."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.counters import Count, question, season_sd, seasons, total_at, usual_season

DAY = dt.timedelta(days=1)
NOON = dt.datetime(2026, 11, 1, 12, tzinfo=dt.UTC)
YEARLY = [Count(NOON - years * 365 * DAY, total) for years, total in ((3, 2140), (2, 2390), (1, 2620), (0, 2860))]


def test_between_two_counts_it_runs_in_proportion_and_stands_after_the_last():
    two = [Count(NOON, 100), Count(NOON + 10 * DAY, 200)]
    assert total_at(two, NOON + 4 * DAY) == pytest.approx(140)
    assert total_at(two, NOON + 99 * DAY) == 200
    assert total_at(two, NOON - DAY) is None and total_at([], NOON) is None


def test_seasons_are_the_last_years_newest_first_and_the_usual_one_is_the_mean_of_three():
    assert seasons(YEARLY, NOON) == pytest.approx([240, 230, 250])
    assert usual_season(YEARLY, NOON) == pytest.approx(240)
    assert usual_season(YEARLY[-1:], NOON) is None
    assert season_sd(YEARLY, NOON, 240) == pytest.approx(10)
    assert season_sd(YEARLY[-2:], NOON, 240) == 60


@pytest.mark.parametrize(
    ("total", "days", "said", "cures"),
    [
        (2860, 1, "", []),
        (2900, 3, "", []),
        (2800, 1, "is less than the 2860 ha of 1 Nov 2026. Was the meter exchanged", ["exchange"]),
        (4000, 2, "no machine does more than 250 ha a day", ["confirm", "exchange"]),
        (3700, 30, "where a season is usually 240 ha", ["confirm", "exchange"]),
        (2500, -30, "is less than the", ["exchange"]),
        (2870, -30, "is more than the 2860 ha read later", []),
    ],
)
def test_what_cannot_be_is_asked_about_with_what_would_have_it_believed(total, days, said, cures):
    asked = question(YEARLY, Count(NOON + days * DAY, total), "ha")
    assert (asked and said in asked.message and asked.cures == cures) if said else not asked


@given(st.lists(st.tuples(st.integers(0, 4000), st.floats(0, 50)), min_size=1, max_size=12), st.integers(0, 4500))
def test_a_counter_never_runs_back(told, day):
    total, counts = 0.0, []
    for at, more in sorted(told):
        total += more
        counts.append(Count(NOON + at * DAY, total))
    first, second = total_at(counts, NOON + day * DAY), total_at(counts, NOON + (day + 30) * DAY)
    assert first is None or (second is not None and second >= first - 1e-9)
