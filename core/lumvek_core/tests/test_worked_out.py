"""What a verdict works out besides: washers to move, half links, corrections, the bar, dug depths, knives, the shop's card."""

import dataclasses

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.judgement.context import Context, Past
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.judgement.verdicts import judge, needs
from lumvek_core.rules.verdict import Then

PLANTER = in_force.rule_book(load.shipped(), "row-crop-planter").family.checks
COMBINE = in_force.rule_book(load.shipped(), "rotary-combine", headers=["draper-header"]).family.checks
RULES = {key: check.rule for key, check in (PLANTER | COMBINE).items()}


def numbers(**by_place):
    return {place.lstrip("_"): Value(numbers=[float(n) for n in given]) for place, given in by_place.items()}


def verdict(key, where, *raw, check=None, feeler="card", **context):
    check = check or (PLANTER | COMBINE)[key]
    value = parse_reading(check, list(raw), feeler)
    return judge(check, positions.find(where), value, Context(**({"rules": RULES} | context)))


WASHERS = {"washers": numbers(_3L=(1, 2), _3R=(1, 2))}
DISCS = {"opener-disc-diameter": numbers(_3L=[376], _3R=[376])}


def past(*told):
    return [Past(check, place, Value(numbers=[float(n) for n in figures], feeler_mm=0.3)) for check, place, *figures in told]


def test_low_contact_says_which_washer_and_asks_to_measure_again():
    found = verdict("opener-contact", "3", "29", "29", "29", others=WASHERS | DISCS)
    assert (found.severity, found.action) == ("due", "adjust")
    assert (
        "Move 2 washers from inside to outside (1 at the left disc and 1 at the right disc), then measure again" in found.reason
    )
    assert found.advice.done == "Washers moved: measure again"
    assert found.advice.then == [Then("washers", "3L", ["0", "3"]), Then("washers", "3R", ["0", "3"])]


def test_without_a_count_of_washers_the_usual_advice_stands():
    found = verdict("opener-contact", "3", "29", "29", "29", others=DISCS)
    assert "Move one washer from inside to outside, alternate discs" in found.reason
    assert found.advice is None


def test_this_machines_own_trials_change_the_advice():
    """Every washer brought 16 mm here, so one is enough where the usual 14 would take two."""
    log = past(
        ("washers", "5L", 2, 1),
        ("washers", "5R", 2, 1),
        ("opener-disc-diameter", "5L", 376),
        ("opener-contact", "5", 24, 24, 24),
    )
    log += past(
        ("washers", "5L", 1, 2),
        ("opener-contact", "5", 43, 43, 43),
        ("washers", "5R", 0, 3),
        ("opener-contact", "5", 83, 83, 83),
    )
    found = verdict("opener-contact", "3", "29", "29", "29", others=WASHERS | DISCS, log=log)
    assert "Move 1 washer from inside to outside (1 at the left disc)" in found.reason
    assert "(2 trials here)" in found.advice.rows[-1].shown


def test_a_trial_needs_the_same_discs_and_counted_washers():
    from lumvek_core.rules.contact import trials

    rule = PLANTER["opener-contact"].rule
    counted = past(("washers", "5L", 2, 1), ("washers", "5R", 2, 1), ("opener-disc-diameter", "5L", 370))
    before, after = (
        past(("opener-contact", "5", 24, 24, 24)),
        past(("washers", "5L", 1, 2), ("opener-contact", "5", 43, 43, 43)),
    )
    (one,) = trials("opener-contact", rule, counted + before + after)
    assert (one.moved, one.before_mm, one.after_mm) == (1, pytest.approx(24), pytest.approx(43))
    next_winter = [dataclasses.replace(one, visit=2) for one in after]
    assert trials("opener-contact", rule, counted + before + next_winter) == [], "a season wears more than a washer moves"
    renewed = past(("opener-disc-diameter", "5L", 381))
    assert trials("opener-contact", rule, counted + before + renewed + after) == []
    assert trials("opener-contact", rule, before + after) == []


def test_at_the_limit_discs_are_renewed_whatever_washers_could_do():
    worn = {"opener-disc-diameter": numbers(_3L=[367], _3R=[367])}
    found = verdict("opener-contact", "3", "29", "29", "29", others=WASHERS | worn)
    assert "renew both" in found.reason and not found.advice.then
    shimmed = verdict("opener-contact", "3", "29", "29", "29", others=WASHERS | worn, schools={"disc-at-limit": "shim-on"})
    assert "tube guard pays" in shimmed.reason and shimmed.advice.then


def test_the_shop_may_go_straight_to_new_discs():
    found = verdict("opener-contact", "3", "29", "29", "29", others=WASHERS | DISCS, schools={"contact-low": "discs-at-once"})
    assert "new discs at once" in found.reason and not found.advice.then


def test_after_washers_moved_the_contact_is_asked_for_again():
    found = verdict("opener-contact", "3", "29", "29", "29", others=WASHERS | DISCS, moved=True)
    assert found.ask == "Washers were moved here since: measure again."


@pytest.mark.parametrize(
    ("used", "half_links", "stretch", "schools", "severity", "action", "says"),
    [
        ("22", None, None, {}, "sound", "none", "lasts the season"),
        ("52", None, None, {}, "due", "adjust", "half a link out of every strand"),
        ("60", (1, 1), None, {}, "due", "replace", "retire the chain"),
        ("60", (2, 1), None, {"chain-retirement": "all-fitted"}, "due", "adjust", "half a link out"),
        ("60", (2, 2), None, {"chain-retirement": "all-fitted"}, "due", "replace", "retire"),
        ("22", None, 855, {}, "due", "replace", "retire"),
        ("22", None, 846, {}, "sound", "none", "lasts"),
        ("52", (1, 1), None, {}, "watch", "recheck", "no half link can come out"),
        ("22", None, None, {"chain-retirement": "yearly"}, "due", "replace", "retire"),
        ("22", None, None, {"chain-retirement": "three-per-cent"}, "sound", "none", "lasts"),
    ],
)
def test_take_up_and_stretch_decide_together(used, half_links, stretch, schools, severity, action, says):
    others = {}
    if half_links:
        others["feeder-half-links"] = numbers(all=half_links)
    if stretch:
        others["feeder-chain-stretch"] = {"strand-1": Value(numbers=[840.0]), "strand-2": Value(numbers=[float(stretch)])}
    found = verdict("feeder-take-up", "L", used, "60", others=others, schools=schools)
    assert (found.severity, found.action) == (severity, action)
    assert says in found.reason


def test_corrections_come_with_turns():
    others = {"drum-arms": numbers(R=[215.5])}
    found = verdict("drum-arms", "L", "212", others=others)
    assert found.reason == (
        "left 212 mm, right 215.5 mm: both belong at 213.8 mm, correct by +1.8 mm, about 0.9 turns clockwise."
    )


@pytest.mark.parametrize(
    ("rear", "severity", "says"),
    [("545", "sound", "level enough"), ("572", "due", "raise the hitch 74.2 mm"), ("480", "due", "lower the hitch")],
)
def test_the_bar_is_judged_by_two_heights(rear, severity, says):
    found = verdict("bar-level", "all", "543" if rear == "545" else "540", rear)
    assert found.severity == severity
    assert says in found.reason


def test_a_dead_level_school_allows_no_nose_up():
    book = in_force.rule_book(load.shipped(), "row-crop-planter", schools={"planter-bar": "dead-level"})
    assert verdict("bar-level", "all", "540", "515", check=book.family.checks["bar-level"]).severity == "due"
    assert verdict("bar-level", "all", "540", "515").severity == "sound"


DUG = {
    "1": (48, 51, 50),
    "2": (49, 52, 50),
    "3": (47, 50, 49),
    "4": (51, 50, 49),
    "6": (37, 40, 42),
    "7": (50, 52, 49),
    "8": (50, 48, 51),
}
FIELD = {"row-depth": {row: Value(numbers=[float(n) for n in digs]) for row, digs in DUG.items()}}


def test_a_shallow_row_behind_the_wheels():
    found = verdict("row-depth", "5", "38", "41", "39", others=FIELD, track_rows=[5, 6])
    assert (found.severity, found.action) == ("due", "adjust")
    assert "shallower than the other rows, like the others behind wheels" in found.reason
    assert [row.shown for row in found.advice.rows if row.name == "Cause"] == ["the rows behind the wheels are off"]
    assert verdict("row-depth", "1", "48", "51", "50", others=FIELD, track_rows=[6]).severity == "sound"


def test_the_whole_planter_too_deep_is_said_at_every_row():
    deep = {"row-depth": {str(row): Value(numbers=[60.0, 61.0, 60.0]) for row in range(1, 4)}}
    assert "like the whole planter 10.3 mm too deep" in verdict("row-depth", "4", "60", "60", "61", others=deep).reason


KNIVES = {"chopper-knives": {f"knife-{n}": Value(choice="sharp") for n in range(1, 37)}}


def test_one_knife_gone_shows_the_three_schools_side_by_side():
    found = verdict("chopper-knives", "knife-3", "broken", others=KNIVES)
    assert (found.severity, found.action) == ("stop", "replace")
    names = [row.name for row in found.advice.rows]
    assert names == ["Unbalance now", "Allowed", "Balanced set", "Each with its opposite", "Only the bad ones"]
    # 50 g more at 260 mm than its neighbours is 13 000 g·mm, over the 5 058 that are allowed; two opposite ones pull alike.
    assert "1 knife, leaves 13 kg·mm" in found.advice.rows[-1].shown
    assert "Renew 2 (each with its opposite): 0 g·mm left of 5058 g·mm allowed" in found.reason


def test_the_shops_school_decides_how_many_knives():
    found = verdict("chopper-knives", "knife-3", "broken", others=KNIVES, schools={"chopper-knife": "set"})
    assert "How many knives the balanced set has is not stated for this model yet." in found.reason
    assert verdict("chopper-knives", "knife-3", "chipped", others=KNIVES).advice is None


@pytest.mark.parametrize(("card", "says"), [(0.3, "thinner than the window"), (0.6, "in the window"), (0.9, "thicker than")])
def test_the_shops_own_card_is_held_against_the_window(card, says):
    found = verdict("draper.hold-down", "hold-down-1", "right", feelers={"card": card})
    assert says in found.advice.rows[0].shown and found.facts.card == card


def test_rules_name_the_checks_they_look_at_with_their_prefix():
    check = dataclasses.replace(COMBINE["feeder-take-up"])
    assert needs(check) == {"feeder-chain-stretch", "feeder-half-links"}
    assert needs(PLANTER["opener-contact"]) == {"opener-disc-diameter", "washers"}
