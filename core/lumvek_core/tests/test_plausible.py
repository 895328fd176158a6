"""What is asked about: figures that cannot be right, and two that ran together because an Enter was swallowed."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.judgement import plausible
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.judgement.verdicts import Context, judge
from lumvek_core.rules.even import EvenRule
from lumvek_core.rules.stepped import SteppedRule
from lumvek_core.rules.window import WindowRule

OVERRIDES = [LimitOverride("opener-disc-diameter", figure, value, "manual") for figure, value in (("new", 400), ("limit", 386))]
CHECKS = in_force.rule_book(load.shipped(), "row-crop-planter", OVERRIDES).family.checks
DISC = CHECKS["opener-disc-diameter"]


def made(rule, unit="mm", values=()):
    return Check("play", "Play", "row", "measure", "Feel.", rule, unit=unit, values=list(values))


def asked(check, *raw, confirmed=False, others=None, unit="mm"):
    value = parse_reading(check, list(raw), "card", unit)
    beside = {check.key: {f"{i}": Value([one]) for i, one in enumerate(others or [], start=2)}}
    context = Context(confirmed=confirmed, typed=raw, others=beside, rules={key: one.rule for key, one in CHECKS.items()})
    return judge(check, positions.find("1"), value, context)


@pytest.mark.parametrize(
    ("typed", "figures"),
    [
        ("375374", ["375", "374"]),
        ("388.5389", ["388.5", "389"]),
        ("390 389", ["390", "389"]),
        ("15 3/815 1/2", ["15 3/8", "15 1/2"]),
        ("388,5388,5", ["388,5", "388,5"]),
        ("３９０３８９", ["390", "389"]),
    ],
)
def test_two_figures_that_ran_together_are_taken_apart(typed, figures):
    assert plausible.run_together(DISC, [typed]) == figures


@pytest.mark.parametrize("typed", ["390", "15 3/8", "402.6", "14.3", "abc", "", "3900", "390037"])
def test_what_is_one_figure_or_none_is_left_alone(typed):
    assert plausible.run_together(DISC, [typed]) == []


def test_the_question_names_both_and_is_asked_once():
    verdict = asked(DISC, "375374")
    assert verdict.ask == "375374 mm? When new it is 400 mm. Did two figures run together: 375 and 374?"
    assert verdict.split == ["375", "374"]
    assert asked(DISC, "375374", confirmed=True).ask == ""


def test_among_several_figures_of_a_place_the_right_one_is_taken_apart():
    contact = CHECKS["opener-contact"]
    assert plausible.run_together(contact, ["3031", "28", "29"], longest_mm=400) == ["30", "31", "28", "29"]


@given(st.integers(362, 401), st.integers(362, 401))
def test_any_two_readings_of_a_disc_are_found_again(first, second):
    assert plausible.run_together(DISC, [f"{first}{second}"]) == [str(first), str(second)]


@pytest.mark.parametrize(
    ("check", "sound", "far"),
    [
        (made(WindowRule("window", 0, 5)), "4", "30"),
        (made(WindowRule("window", 0, 5)), "12", "26"),
        (made(WindowRule("window", 100, 110)), "95", "20"),
        (made(SteppedRule("stepped", 5, 3, "one shim out"), values=("play", "steps")), "6", "30"),
    ],
)
def test_a_value_far_outside_is_asked_about_once(check, sound, far):
    more = ["1"] if check.values else []
    assert asked(check, sound, *more).ask == ""
    assert "Far outside" in asked(check, far, *more).ask
    assert asked(check, far, *more, confirmed=True).ask == ""


def test_among_like_places_one_that_is_four_times_the_others_is_asked_about():
    check = made(EvenRule("even", 5))
    assert asked(check, "130", others=[100, 101, 102]).ask == ""
    assert "Far outside" in asked(check, "1010", others=[100, 101, 102]).ask
    assert asked(check, "1010", others=[100]).ask == "", "one other says little"
    assert asked(check, "100101", others=[100, 101, 102]).split == ["100", "101"]


def test_a_count_refuses_fractions_and_more_than_there_are():
    sections = in_force.rule_book(load.shipped(), "draper-header").family.checks["draper.knife-sections"]
    for typed in ("3.5", "3 1/2", "9999"):
        with pytest.raises(BadInput):
            parse_reading(sections, [typed])


@pytest.mark.parametrize(("typed", "millimetres"), [("３８９．５", 389.5), ("１５　３／８", 390.525), ("389．5", 389.5)])
def test_full_width_digits_are_read(typed, millimetres):
    assert parse_reading(DISC, [typed]).numbers == [pytest.approx(millimetres)]
