"""Figures and days as they stand in other people's tables."""

import datetime as dt
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.errors import BadInput
from tabular.tables import amount_in, day_in, number_in, plain, whole_in


@pytest.mark.parametrize("text", ["1234.5", "1234,5", "1.234,5", "1,234.5", "1 234,5", "1\u202f234,5", "1'234.5", " 1234.50 "])
def test_thousands_may_be_set_apart_in_any_way(text):
    assert number_in(text, "counter", 0, 10**7) == 1234.5


@pytest.mark.parametrize(
    ("text", "value"), [("1.234.567", 1_234_567), ("12 000", 12_000), ("0.125", 0.125), ("0,125", 0.125), ("-3,5", -3.5)]
)
def test_a_fraction_stays_one(text, value):
    assert number_in(text, "counter", -10, 10**7) == value


@pytest.mark.parametrize(("text", "write"), [("1,234", "1234 or 1.234"), ("12,500", "12500 or 12.5"), ("1,000", "1000 or 1.0")])
def test_what_can_be_read_in_two_ways_is_asked_about(text, write):
    for read in (
        lambda: number_in(text, "counter", 0, 10**7),
        lambda: amount_in(text, "price"),
        lambda: whole_in(text, "pack", 0, 9999),
    ):
        with pytest.raises(BadInput, match=f"two ways: write {write}"):
            read()


def test_a_program_writes_three_figures_behind_a_point_and_nobody_does_of_money():
    assert number_in("812.125", "counter", 0, 10**7) == 812.125
    with pytest.raises(BadInput, match="two ways"):
        amount_in("1.234", "price")


@given(st.floats(0, 10**6))
def test_what_is_written_here_is_read_here(value):
    assert number_in(str(value), "counter", 0, 10**7) == value


@given(st.integers(0, 10**7), st.integers(0, 99), st.sampled_from([",.", ".,", " .", " ,", "'."]))
def test_whatever_sets_apart_the_figure_is_the_same(whole, cents, marks):
    apart, point = marks
    written = f"{whole:,}".replace(",", apart) + f"{point}{cents:02}"
    assert Decimal(plain(written, "price", ".,")) == Decimal(f"{whole}.{cents:02}")


@pytest.mark.parametrize("text", ["2026-12-01", "01.12.2026", "1.12.2026", "2026-12-01T00:00"])
def test_a_day_may_be_written_in_two_ways(text):
    assert day_in(text, "date") == dt.datetime(2026, 12, 1)


@pytest.mark.parametrize("text", ["", "12/01/2026", "31.02.2026", "00.00.0000", "2026-13-01", "1.12.26", "yesterday"])
def test_what_is_no_day_is_refused(text):
    with pytest.raises(BadInput, match="such as 2026-03-05"):
        day_in(text, "date")


@pytest.mark.parametrize("text", ["0001-01-01", "01.01.9999", "1.1.1900"])
def test_a_day_that_nobody_can_mean_is_refused(text):
    with pytest.raises(BadInput, match="must lie between 1950 and 2149"):
        day_in(text, "date")
