"""Histories that are not so tidy: each gets a sensible forecast that says what it rests on."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.calculators.forecast import ForecastGiven, WearReading, wear_forecast
from lumvek_core.catalogue import load
from lumvek_core.forecast.history import Place, forecast, look_ahead, own_season_share
from lumvek_core.forecast.wearing import SEASON_SHARE, Coming, Measured, Wearing, wearing_of

DISC = Wearing(new=381, limit=368, life=1083.3333333333333, reading_sd=0.8)
NEXT = Coming(now=640, end=860, season_use=220)


def read(*told, begin=0):
    return [Measured(begin + i, counter, value) for i, (counter, value) in enumerate(told)]


def one(wearing=DISC, coming=NEXT, **place):
    return look_ahead(wearing, [Place("1L", **place)], coming)[0]


GOOD = read((210, 379.2), (430, 376.1), (640, 373.4))


def test_a_tidy_history_gives_the_forecast_of_the_worked_example():
    wearing = Wearing(new=381, limit=368, life=13 / 0.012, reading_sd=0.8)
    found = one(wearing, readings=GOOD, fitted=0)
    expected = wear_forecast(
        ForecastGiven(
            readings=[WearReading(u, v) for u, v in ((210, 379.2), (430, 376.1), (640, 373.4))],
            new=381, limit=368, prior_rate_mean=-0.012, prior_rate_sd=0.006, reading_sd=0.8, new_sd=0.26, use_next=860,
            season_sd_share=0.2, season_use=220,
        )
    )  # fmt: skip
    assert (found.value, found.low, found.p_cross) == pytest.approx((expected.value, expected.low, expected.p_cross))
    assert (found.n, found.start_known, found.last, found.doubted) == (3, True, 373.4, [])


def test_without_a_reading_or_a_fitting_there_is_no_forecast():
    assert look_ahead(DISC, [Place("1L", [])], NEXT) == []


def test_a_new_part_without_a_reading_wears_as_such_parts_usually_do():
    found = one(readings=[], fitted=640)
    assert found.n == 0 and found.last is None
    assert found.value == pytest.approx(381 - 0.012 * 220)


def test_one_reading_of_a_part_nobody_noted_starts_there_at_the_usual_rate():
    found = one(readings=read((640, 374)))
    assert not found.start_known and found.n == 1
    assert found.now == pytest.approx(374, abs=0.1)
    assert found.value == pytest.approx(374 - 0.012 * 220, abs=0.1)


def test_a_slip_of_the_tape_is_left_out_and_named():
    slipped = [*GOOD[:1], Measured(1, 430, 367.1), *GOOD[2:]]
    found = one(readings=slipped, fitted=0)
    assert found.doubted == [1] and found.n == 2
    assert found.value == pytest.approx(one(readings=[GOOD[0], GOOD[2]], fitted=0).value)


def test_the_newest_reading_stands_when_somebody_stands_by_it_until_newer_ones_say_otherwise():
    strange = Measured(2, 640, 369.0, stands=True)
    assert 2 not in one(readings=[*GOOD[:2], strange], fitted=0).doubted
    later = [*GOOD[:2], strange, Measured(3, 860, 370.9)]
    assert one(readings=later, fitted=0, coming=Coming(860, 1080, 220)).doubted == [2]


def test_a_single_reading_is_never_left_out():
    found = one(readings=read((640, 350)), fitted=0)
    assert found.n == 1 and found.doubted == [0]


def test_a_part_that_reads_like_new_again_was_renewed_unsaid_and_its_history_starts_there():
    found = one(readings=read((210, 376), (430, 370.2), (640, 380.6)), fitted=0)
    assert found.renewed == 2 and found.n == 1 and not found.start_known
    assert found.now == pytest.approx(380.6, abs=0.3)


def test_a_slip_between_two_good_readings_is_no_renewal():
    found = one(readings=read((210, 379.5), (430, 371.0), (640, 378.5)), fitted=0)
    assert found.renewed is None and found.doubted == [1]


def test_readings_that_get_better_are_noticed_and_the_usual_rate_holds_on():
    found = one(Wearing(new=22, limit=19, life=1400, reading_sd=0.1), readings=read((210, 20.5), (430, 21.2)))
    assert found.better
    assert found.value <= found.now + 0.6


def test_a_hardened_part_is_expected_to_last_by_its_own_measure():
    usual, hard = (one(readings=[], fitted=640, life=life) for life in (1.0, 1.3))
    assert (381 - usual.value) / (381 - hard.value) == pytest.approx(1.3)
    assert hard.rate == pytest.approx(usual.rate / 1.3)


def test_rows_behind_wheels_come_out_by_themselves():
    places = [
        Place(str(row), read((240, 381 - f * 2.0), (480, 381 - f * 4.1), (720, 381 - f * 6.0), begin=10 * row), fitted=0)
        for row in range(1, 13)
        for f in [2.2 if row in (5, 6) else 1.0 + row / 100]
    ]
    found = look_ahead(DISC, places, Coming(720, 960, 240))
    assert [place.name for place in found if place.faster] == ["5", "6"]


def test_an_unsure_season_widens_what_is_expected_at_its_end_and_nothing_before():
    sure, unsure = (one(readings=GOOD, fitted=0, coming=Coming(640, 860, 220, use_sd=sd)) for sd in (0, 60))
    assert unsure.high - unsure.low > sure.high - sure.low
    assert unsure.path[1] == sure.path[1] and unsure.path[-1].low == pytest.approx(unsure.low)


def test_the_path_leads_from_the_beginning_through_today_to_the_seasons_end():
    found = one(readings=GOOD, fitted=100)
    assert [told.counter for told in found.path] == [100, 640, 750, 860]
    assert found.path[1].value == pytest.approx(found.now) and found.path[-1].value == pytest.approx(found.value)


def test_seasons_are_as_unlike_as_the_machines_own_show():
    def places(unlike):
        return [
            Place(
                str(row),
                read(
                    *[(220 * s, 381 - 0.012 * 220 * s - unlike * (s % 2) * (1 if row % 2 else -1)) for s in range(6)],
                    begin=10 * row,
                ),
            )
            for row in range(12)
        ]

    even, odd = own_season_share(DISC, places(0), 220), own_season_share(DISC, places(3), 220)
    assert even[0] < SEASON_SHARE < odd[0] and even[1] == odd[1] == 60
    assert own_season_share(DISC, [Place("1", GOOD[:2])], 220) == (SEASON_SHARE, 0)


def test_what_is_learnt_from_the_seasons_is_told_with_the_forecast():
    judged = forecast(DISC, [Place("1L", GOOD, fitted=0)], NEXT)
    assert judged.seasons == 2 and 0.05 <= judged.season_share <= 0.5
    assert judged.places == look_ahead(DISC, [Place("1L", GOOD, fitted=0)], Coming(640, 860, 220, judged.season_share))


def test_what_wears_is_told_by_the_catalogue_and_a_chain_by_its_length():
    combine = load.shipped().families["rotary-combine"].checks
    chain = wearing_of(combine["feeder-chain-stretch"])
    assert chain and (chain.new, chain.limit) == pytest.approx((828, 852.84))
    assert wearing_of(combine["tyres"]) is None


@given(
    st.lists(st.tuples(st.floats(0, 2000), st.floats(300, 420)), max_size=8),
    st.one_of(st.none(), st.just(0.0)),
    st.booleans(),
    st.floats(1, 500),
)
def test_whatever_was_read_the_answer_is_finite_and_in_order(told, fitted, stands, ahead):
    readings = [Measured(i, counter, value, stands) for i, (counter, value) in enumerate(sorted(told))]
    found = look_ahead(DISC, [Place("1", readings, fitted), Place("2", GOOD, 0)], Coming(2000, 2000 + ahead, 220))
    for place in found:
        assert place.low <= place.value <= place.high and 0 <= place.p_cross <= 1
        assert all(map(math.isfinite, (place.rate, place.now, place.value)))
        assert place.n + len(place.doubted) <= max(len(readings), 3) + 1
