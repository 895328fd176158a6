"""Figures that are kept of a calibration, typed and read in either system."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.calibration_figures import kept, shown, unit_of
from lumvek_core.catalogue.calibration import CalibrationValue
from lumvek_core.errors import BadInput

WIDTH = CalibrationValue("width", "Width", "m", 1, 20)
SIEVE = CalibrationValue("chaffer", "Chaffer to add", "mm", -30, 30)
OFFSET = CalibrationValue("offset", "Offset", "%", -15, 15)
PULSES = CalibrationValue("pulses", "Pulses over the distance", "", 1, 1_000_000)


@pytest.mark.parametrize(
    ("value", "system", "text", "found"),
    [
        (WIDTH, "mm", "9,15", 9.15),
        (WIDTH, "mm", "30 ft", 9.144),
        (WIDTH, "in", "30", 9.144),
        (WIDTH, "in", "29' 6\"", 8.9916),
        (WIDTH, "in", "9.15 m", 9.15),
        (SIEVE, "mm", "−2.5", -2.5),
        (SIEVE, "in", "-1/8", -3.175),
        (SIEVE, "in", "2 mm", 2),
        (OFFSET, "in", "-0,9", -0.9),
        (OFFSET, "mm", "0.9 %", 0.9),
        (OFFSET, "mm", "+15", 15),
        (PULSES, "in", "12000", 12000),
    ],
)
def test_it_is_kept_in_the_unit_of_the_catalogue(value, system, text, found):
    assert kept(text, value, system) == pytest.approx(found)


@pytest.mark.parametrize(
    ("value", "system", "text", "words"),
    [
        (WIDTH, "mm", "30", "must lie between 1 and 20 m"),
        (WIDTH, "in", "80", "must lie between 3.3 and 65.6 ft"),
        (SIEVE, "mm", "-31", "must lie between −30 and 30 mm"),
        (SIEVE, "in", "2", "must lie between −1 3/16 and 1 3/16 in"),
        (OFFSET, "mm", "about one", "must be a figure in %"),
        (OFFSET, "mm", "2 mm", "must be a figure in %"),
        (PULSES, "mm", "nan", "must be a figure"),
        (PULSES, "mm", "12,000", "may be a thousands comma"),
        (PULSES, "mm", "--3", "must be a figure"),
        (SIEVE, "mm", "-", "is empty"),
    ],
)
def test_what_nobody_can_mean_is_refused_in_their_units(value, system, text, words):
    with pytest.raises(BadInput) as problem:
        kept(text, value, system)
    assert problem.value.field == "text" and words in problem.value.message


@given(st.sampled_from([WIDTH, SIEVE, OFFSET, PULSES]), st.sampled_from(["mm", "in"]), st.data())
def test_what_is_shown_is_understood_again(value, system, data):
    figure = data.draw(st.floats(value.low, value.high))
    rounded_by = {"ft": 0.0153, "in": 25.4 / 64, "mm": 0.05}.get(unit_of(value, system), 5e-5)
    inside = CalibrationValue(value.key, value.name, value.unit, value.low - 1, value.high + 1)
    assert kept(shown(figure, value, system), inside, system) == pytest.approx(figure, abs=1.01 * rounded_by)


@pytest.mark.parametrize(
    ("value", "system", "words"),
    [(WIDTH, "in", "29.5 ft"), (WIDTH, "mm", "9 m"), (SIEVE, "in", "11/32 in"), (OFFSET, "in", "9 %"), (PULSES, "mm", "9")],
)
def test_it_is_shown_with_its_unit(value, system, words):
    assert shown(9, value, system) == words
