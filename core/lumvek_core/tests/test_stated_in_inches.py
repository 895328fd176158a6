"""Figures that the trade states in inches: exact, reached when typed at them, and shown as they were stated."""

import copy
import pickle
from fractions import Fraction

import pytest

from lumvek_core import positions, structure
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.rule_book import LimitInForce, LimitOverride, RuleBook
from lumvek_core.errors import BadInput
from lumvek_core.judgement.parse_reading import parse_reading
from lumvek_core.judgement.verdicts import Context, judge
from lumvek_core.rules import figures
from lumvek_core.rules.base import limits
from lumvek_core.units import Inches, as_stated, notation, parse_length, show_mm, stated_in

CATALOGUE = load.shipped()
SIXTY_FOURTH = Fraction(1, 64)
FEELERS = {0.3: "card", 0.1: "paper"}
RULES = {}
"""What a contact is worked out with besides its own figures: the disc it was measured on."""


def in_inches(value_mm: float) -> Fraction:
    return Fraction(value_mm).limit_denominator(10**9) / Fraction(254, 10)


def typed(inches: Fraction) -> str:
    """As one types it: ``14 31/64``."""
    exact = inches.limit_denominator(64)
    whole, part = divmod(exact, 1)
    return f"{whole} {part}" if whole and part else str(part or f"{whole} in")


def stated():
    """Every figure of the catalogue and its schools that is stated in inches, in a rule book in which it is in force."""
    for family in CATALOGUE.families:
        ways = [{}] + [
            {subject: choice.key}
            for subject, school in CATALOGUE.schools.items()
            for choice in school.choices
            if any(isinstance(value, Inches) for sets in choice.sets.values() for value in sets.values())
        ]
        for schools in ways:
            book = in_force.rule_book(CATALOGUE, family, (), schools)
            for check in book.family.checks.values():
                RULES[check.key] = check.rule
                for figure in limits(type(check.rule)):
                    if isinstance(value := getattr(check.rule, figure), Inches):
                        school = next(iter(schools.values()), "")
                        yield pytest.param(check, figure, value, id="-".join(filter(None, [check.key, figure, school])))


ALL = {case.id: case for case in stated()}


def severity(check, inches):
    raw = [typed(inches)] * max(1, len(check.values))
    value = parse_reading(check, raw, FEELERS[check.rule.feeler] if check.rule.by_feeler else "", "in")
    return judge(check, positions.find("1L" if "side" in check.per else "1"), value, Context(rules=RULES)).severity


def test_none_of_them_is_forgotten():
    """What the trade gives in inches: discs, guards, plays, contact, dividers, gaps, sheaves, the drive chain's gauge."""
    checks = {case.values[0].key for case in ALL.values()}
    assert checks == {
        "opener-disc-diameter", "opener-contact", "seed-tube-guard", "arm-stop-pocket", "arm-stop-face", "draper.divider-height",
        "header-variator-gap", "rotor-bearing-play", "pad-gap", "elevator-drive-chain", "stripper.rotor-height",
        "stripper.sheave-width",
    }  # fmt: skip


@pytest.mark.parametrize(("check", "figure", "value"), [case for case in ALL.values() if case.values[1] == "limit"])
def test_a_reading_typed_at_the_limit_has_reached_it(check, figure, value):
    limit, worn = in_inches(value), 1 if check.rule.new < value else -1
    assert severity(check, limit) == "due"
    assert severity(check, limit + worn * SIXTY_FOURTH) == "due"
    assert severity(check, limit - worn * SIXTY_FOURTH) != "due"


@pytest.mark.parametrize(("check", "figure", "value"), [case for case in ALL.values() if case.values[1] in ("low", "high")])
def test_a_reading_typed_at_the_end_of_a_window_is_inside(check, figure, value):
    end, out = in_inches(value), 1 if figure == "high" else -1
    assert severity(check, end) == "sound"
    assert severity(check, end - out * SIXTY_FOURTH) == "sound"
    assert severity(check, end + out * SIXTY_FOURTH) == "due"


@pytest.mark.parametrize(("check", "figure", "value"), [case for case in ALL.values() if case.values[1] == "target"])
def test_what_is_wanted_is_the_middle_of_its_window(check, figure, value):
    assert (check.rule.low + check.rule.high) / 2 == pytest.approx(value)
    assert severity(check, in_inches(value)) == "sound"


def test_the_gauge_of_the_drive_chain_says_its_cure_with_its_direction():
    rule = CATALOGUE.families["rotary-combine"].checks["elevator-drive-chain"].rule
    assert rule.target == Inches("6 in")
    assert "counter-clockwise" in rule.if_low
    assert "nut clockwise" in rule.if_high


def test_it_stands_in_its_own_notation_beside_the_other_unit():
    check = CATALOGUE.families["row-crop-planter"].checks["opener-disc-diameter"]
    assert figures.shown(check, "limit", check.rule.limit, "mm") == "368.3 mm (14 1/2 in)"
    assert figures.shown(check, "limit", check.rule.limit, "in") == "14 1/2 in (368.3 mm)"
    found = judge(check, positions.find("1L"), parse_reading(check, ["369.5"], "", "mm"), Context())
    assert found.reason.startswith("369.5 mm, limit 368.3 mm (14 1/2 in): ")


@pytest.mark.parametrize(
    ("stated_as", "mm"),
    [("3/4 in", "19.05 mm"), ("7/8 in", "22.23 mm"), ("1/8 in", "3.18 mm"), ("14 1/2 in", "368.3 mm"), ("6 in", "152.4 mm")],
)
def test_millimetres_are_given_as_exactly_as_they_are_read(stated_as, mm):
    """And alike, whether it stands alone or beside a reading."""
    assert show_mm(Inches(stated_as)) == mm
    assert notation([Inches(stated_as), 20.0], "mm").show(Inches(stated_as)) == mm


def test_a_rule_book_that_was_kept_still_says_so():
    book = in_force.rule_book(CATALOGUE, "row-crop-planter")
    again = structure.read(RuleBook, structure.write(book))
    assert again.family.checks["opener-disc-diameter"].rule.limit.stated == "14 1/2 in"
    assert again.limits["opener-disc-diameter"]["limit"].value.stated == "14 1/2 in"
    assert structure.write(LimitInForce(Inches("14 1/2 in"), "manual"))["value"] == "14 1/2 in"


def test_a_models_own_limit_stays_as_it_was_typed():
    own = LimitOverride("opener-disc-diameter", "limit", 374.65, "manual", "", "14 3/4 in")
    rule = in_force.rule_book(CATALOGUE, "row-crop-planter", [own]).family.checks["opener-disc-diameter"].rule
    assert (rule.limit, rule.limit.stated) == (374.65, "14 3/4 in")


@pytest.mark.parametrize(
    ("text", "default", "stated"),
    [
        ("14 1/2", "mm", "14 1/2 in"),
        ("14.5", "in", "14.5 in"),
        ('14½"', "mm", '14½"'),
        ("368", "mm", ""),
        ("36.8 cm", "mm", ""),
    ],
)
def test_what_is_typed_in_inches_is_stated_in_inches(text, default, stated):
    length = as_stated(text, default)
    assert (length, stated_in(length)) == (parse_length(text, default), stated)


def test_it_is_a_number_like_any_other_and_can_be_copied():
    half = Inches("14  1/2 in")
    assert half == 368.3
    assert half - 0.3 == pytest.approx(368)
    assert not isinstance(half + 0, Inches)
    for same in (copy.deepcopy(half), pickle.loads(pickle.dumps(half))):
        assert (same, same.stated) == (368.3, "14 1/2 in")


@pytest.mark.parametrize("text", ["14 1/2", "368 mm", "fourteen in", "", "-1 in"])
def test_text_that_is_no_length_in_inches_is_refused(text):
    with pytest.raises(BadInput):
        Inches(text)
