"""One place judged in closed form says the same as all places fitted together, as far as figures can tell."""

import random
from dataclasses import replace

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.forecast import history, one_place
from lumvek_core.forecast.history import Place
from lumvek_core.forecast.wearing import Coming, Measured, Wearing

DISC = Wearing(new=381, limit=368, life=1083.3333333333333, reading_sd=0.8)
SEASON = 220.0


def planter(dice, rows, seasons, fitted):
    """Rows that wear alike, two of them faster; the last reading of each is today's."""
    common, places = dice.gauss(0, 0.5), []
    for row in range(rows):
        rate = DISC.rate * max(0.1, 1 + common + dice.gauss(0, 0.15) + (0.3 if row in (3, 4) else 0))
        value, readings = 381 + dice.gauss(0, 0.26), []
        for season in range(seasons + 1):
            value += rate * SEASON + dice.gauss(0, 0.2 * abs(DISC.rate) * SEASON)
            key, error = 100 * row + season, dice.gauss(0, DISC.reading_sd)
            readings.append(Measured(key, SEASON * (season + 1), value + error))
        places.append(Place(str(row), readings, 0.0 if fitted else None, group="wheels" if row in (3, 4) else None))
    now = SEASON * (seasons + 1)
    return places, Coming(now, now + SEASON, SEASON, use_sd=30)


def without_today(place):
    return replace(place, readings=place.readings[:-1])


def alike(one, pooled):
    """Within half of how unsure the pooled answer is (nearly always within a fifth), and ten points of the chance."""
    sd = (pooled.high - pooled.low) / 2 / 1.645
    return (
        one.value == pytest.approx(pooled.value, abs=sd / 2)
        and one.high - one.low == pytest.approx(pooled.high - pooled.low, rel=0.25)
        and one.p_cross == pytest.approx(pooled.p_cross, abs=0.1)
    )


DICE = st.tuples(st.integers(0, 10_000), st.sampled_from([2, 6, 12]), st.sampled_from([0, 1, 2, 4]), st.booleans())


def made(drawn):
    seed, rows, seasons, fitted = drawn
    return planter(random.Random(seed), rows, seasons, fitted)


@pytest.mark.parametrize("seed", range(12))
@pytest.mark.parametrize("seasons", [0, 1, 3])
def test_one_reading_says_what_a_fit_of_all_places_says_with_it(seed, seasons):
    places, coming = planter(random.Random(seed), 6, seasons, fitted=seed % 2 == 0)
    standings = history.standings(DISC, [without_today(place) for place in places], coming)
    for place in places:
        today = place.readings[-1]
        if one_place.surprising(DISC, standings[place.name], today, one_place.walk_of(DISC, coming)):
            continue
        all_places = [one if one is place else without_today(one) for one in places]
        pooled = next(one for one in history.look_ahead(DISC, all_places, coming) if one.name == place.name)
        assert alike(one_place.read(DISC, standings[place.name], today, coming), pooled)


@pytest.mark.parametrize("seed", range(12))
def test_once_all_are_read_each_place_has_learnt_from_the_others_of_today(seed):
    places, coming = planter(random.Random(seed), 12, 2, fitted=True)
    today = {place.readings[-1].key for place in places}
    standings = history.standings(DISC, places, coming, today)
    for pooled, place in zip(history.look_ahead(DISC, places, coming), places, strict=True):
        reading = place.readings[-1]
        if not one_place.surprising(DISC, standings[place.name], reading, one_place.walk_of(DISC, coming)):
            assert alike(one_place.read(DISC, standings[place.name], reading, coming), pooled)


@given(
    st.lists(st.floats(370, 381), min_size=1, max_size=6),
    st.booleans(),
    st.floats(0, 400),
    st.floats(0, 60),
)
def test_a_place_without_like_ones_says_the_very_same(values, fitted, ahead, use_sd):
    """No slips: values go down. Then there is nothing the fit of all could know more."""
    readings = [Measured(i, SEASON * (i + 1), value) for i, value in enumerate(sorted(values, reverse=True))]
    now = readings[-1].counter
    coming = Coming(now, now + ahead, SEASON, use_sd=use_sd)
    place = Place("1", readings, 0.0 if fitted else None)
    (pooled,) = history.look_ahead(DISC, [place], coming)
    standing = history.standings(DISC, [without_today(place)], coming)["1"]
    if pooled.doubted or one_place.surprising(DISC, standing, readings[-1], one_place.walk_of(DISC, coming)):
        return
    one = one_place.read(DISC, standing, readings[-1], coming)
    assert one.value == pytest.approx(pooled.value, abs=1e-6) and one.now == pytest.approx(pooled.now, abs=1e-6)
    assert (one.low, one.high) == pytest.approx((pooled.low, pooled.high), abs=1e-5)
    assert one.p_cross == pytest.approx(pooled.p_cross, abs=1e-6)


@given(DICE)
def test_what_is_known_never_gets_less_sure_by_reading(drawn):
    places, coming = made(drawn)
    walk = one_place.walk_of(DISC, coming)
    for standing in history.standings(DISC, [without_today(place) for place in places], coming).values():
        here = one_place.run_on(standing, coming.now, walk)
        seen = one_place.after(DISC, here, 375.0)
        assert seen.rate_var <= here.rate_var + 1e-12
        assert 0 <= seen.value_var <= min(here.value_var or float("inf"), DISC.reading_sd**2) + 1e-9


@pytest.mark.parametrize(
    ("today", "surprise"),
    [
        (376.0, False),  # as it should stand
        (366.0, True),  # ten millimetres in one season: a slip of the tape?
        (381.0, True),  # as good as new where it was half worn: another disc
    ],
)
def test_a_reading_that_may_be_a_slip_or_another_part_is_left_to_the_fit_of_all(today, surprise):
    place = Place("1", [Measured(1, 220, 379.5), Measured(2, 440, 377.5)], fitted=0.0)
    coming = Coming(660, 880, SEASON)
    standing = history.standings(DISC, [place], coming)["1"]
    assert one_place.surprising(DISC, standing, Measured(3, 660, today), one_place.walk_of(DISC, coming)) is surprise


def test_a_place_nobody_has_read_learns_its_rate_from_the_others():
    rows = [
        Place(str(row), [Measured(row, 440, 381 - 440 * 0.02)], fitted=0.0) for row in range(6)
    ]  # half as fast again as usual
    coming = Coming(440, 660, SEASON)
    unread = history.standings(DISC, [*rows, Place("new", [])], coming)["new"]
    assert unread.value_var is None
    assert unread.rate < 1.3 * DISC.rate, "faster: it is negative"
