"""Figures as their reader wants them: rounded together, with their unit, and pressures as gauges show them."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import positions, pressures, units
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.judgement import describe
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import Context, judge
from lumvek_core.judgement.words import unit_of

OVERRIDES = [LimitOverride("opener-disc-diameter", figure, value, "manual") for figure, value in (("new", 400), ("limit", 386))]
CHECKS = in_force.rule_book(load.shipped(), "row-crop-planter", OVERRIDES).family.checks
TYRES, FAN, DISC = CHECKS["tyres"], CHECKS["fan-gauge"], CHECKS["opener-disc-diameter"]


@pytest.mark.parametrize(
    ("reading", "limit", "system", "shown"),
    [
        (390.525, 386, "mm", ("390.5 mm", "386 mm", "4.5 mm")),
        (384.175, 386, "in", ("15 1/8 in", "15 3/16 in", "1/16 in")),
        (0.508, 4.7625, "in", ("20 thou", "188 thou", "168 thou")),
        (0.3, 0.55, "mm", ("0.3 mm", "0.55 mm", "0.25 mm")),
        (386.04, 386, "mm", ("386 mm", "386 mm", "under 0.1 mm")),
        (386, 386, "in", ("15 3/16 in", "15 3/16 in", "0 in")),
    ],
)
def test_a_reading_its_limit_and_what_is_left_are_rounded_together(reading, limit, system, shown):
    beside = units.notation((reading, limit), system)
    assert (beside.show(reading), beside.show(limit), beside.between(reading, limit)) == shown


@given(st.floats(0, 1500), st.floats(0, 1500), st.sampled_from(["mm", "in"]))
def test_what_is_left_is_what_the_two_shown_figures_leave(one, other, system):
    beside = units.notation((one, other), system)
    left = beside.between(one, other)
    step = float(units.MM_PER[beside.unit] * beside.step)
    if left.startswith("under"):
        assert beside.show(one) == beside.show(other)
    else:
        shown = [units.parse_length(text) for text in (beside.show(one), beside.show(other), left)]
        assert abs(shown[0] - shown[1]) == pytest.approx(shown[2], abs=step / 100)
        assert abs(shown[0] - one) <= step / 2 + 1e-9


@pytest.mark.parametrize(
    ("text", "default", "mbar"),
    [
        ("2.2", "bar", 2200),
        ("2,2 bar", "mbar", 2200),
        ("220 kPa", "bar", 2200),
        ("32", "psi", 2206.32),
        ("32 psi", "bar", 2206.32),
        ("26 inH2O", "mbar", 64.76),
        ('26"H2O', "mbar", 64.76),
        ("26 in H₂O", "mbar", 64.76),
        ("19 inHg", "mbar", 643.4),
        ("65 hPa", "bar", 65),
        ("６５", "mbar", None),
    ],
)
def test_pressure_is_understood_as_gauges_show_it(text, default, mbar):
    if mbar is None:
        assert parse_reading(FAN, [text]).numbers == [65.0]
    else:
        assert pressures.parse_pressure(text, default) == pytest.approx(mbar, rel=1e-3)


@pytest.mark.parametrize("text", ["", "2.2 stone", "-2", "2 1/2 bar", "abc", "1.2.3"])
def test_what_is_no_pressure_is_refused(text):
    with pytest.raises(BadInput):
        pressures.parse_pressure(text, "bar")


@pytest.mark.parametrize(
    ("check", "system", "unit", "shown"),
    [
        (TYRES, "mm", "bar", "2.2 bar"),
        (TYRES, "in", "psi", "31.9 psi"),
    ],
)
def test_each_reader_sees_what_the_gauge_of_that_place_shows(check, system, unit, shown):
    assert unit_of(check, system) == unit
    value = parse_reading(check, ["2.2 bar"], default_unit=system)
    assert value.numbers == [pytest.approx(2200)]
    assert describe.full(check, value, system) == shown
    assert describe.short(check, value, system) == shown.rpartition(" ")[0]


@pytest.mark.parametrize(
    ("typed", "system", "shown", "mbar"),
    [
        ("26", "mm", "26 mbar", 26),
        ("26", "in", "26 inH2O", 64.763),
        ("26 in", "mm", "26 inH2O", 64.763),
        ("2 inHg", "mm", "2 inHg", 67.728),
        ("6.4 kPa", "in", "6.4 kPa", 64),
        ("0.9 psi", "mm", "0.9 psi", 62.053),
    ],
)
def test_a_fan_is_shown_in_the_unit_of_its_gauge_whoever_reads(typed, system, shown, mbar):
    value = parse_reading(FAN, [typed], default_unit=system)
    assert value.numbers == [pytest.approx(mbar, abs=0.001)]
    assert {describe.full(FAN, value, reader) for reader in ("mm", "in")} == {shown} == {describe.short(FAN, value, "mm")}


def test_a_tyre_typed_in_millibar_by_who_reads_bar_is_asked_about():
    value = parse_reading(TYRES, ["2200"])
    verdict = judge(TYRES, positions.find("L"), value, Context(typed=["2200"]))
    assert "Did you mean 2200 mbar?" in verdict.ask
    assert verdict.instead == "2200 mbar"


def test_a_point_and_three_digits_is_asked_about_where_a_bare_figure_is_millimetres():
    asked = judge(DISC, positions.find("1L"), parse_reading(DISC, [".030"]), Context(typed=[".030"]))
    assert (asked.instead, "Did you mean .030 in?" in asked.ask) == (".030 in", True)
    inches = Context(typed=[".030"], typed_in="in", system="in")
    assert ".030 in?" not in judge(DISC, positions.find("1L"), parse_reading(DISC, [".030"], "", "in"), inches).ask
    assert judge(DISC, positions.find("1L"), parse_reading(DISC, [".030"]), Context(typed=[".030"], confirmed=True)).ask == ""


@pytest.mark.parametrize("key", [key for key, check in CHECKS.items() if check.unit in ("washers", "hole", "notch")])
def test_what_is_counted_is_whole(key):
    check = CHECKS[key]
    several = max(1, len(check.values))
    assert parse_reading(check, ["2"] * several).numbers == [2.0] * several
    with pytest.raises(BadInput) as problem:
        parse_reading(check, ["2.5"] * several)
    assert "whole" in problem.value.message
