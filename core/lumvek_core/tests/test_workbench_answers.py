"""What the bench says, in its own words, for a good, a borderline and a bad reading."""

import pytest

from lumvek_core.rules.contact import trials
from lumvek_core.workbench.read import work
from lumvek_core.workbench.subjects import SUBJECTS


def sheet(subject, system="mm", **texts):
    return work(SUBJECTS[subject], {key.replace("__", "."): value for key, value in texts.items()}, system)


def example(subject, name):
    found = next(one for one in SUBJECTS[subject].examples if one.name == name)
    return work(SUBJECTS[subject], found.texts)


@pytest.mark.parametrize(
    ("subject", "name", "mark", "answer"),
    [
        ("opener", "In the band", "sound", "Leave the washers"),
        ("opener", "Just too little", "due", "Move 1 washer from inside to outside"),
        ("opener", "Disc at its limit", "due", "Renew both discs"),
        ("bar", "Borderline", "sound", "Level"),
        ("bar", "Nose down", "due", "Nose down"),
        ("depth", "All alike", "sound", "All rows at depth"),
        ("depth", "Behind the wheels", "due", "The rows behind the wheels are off depth"),
        ("spacing", "Worn meter", "due", "75 % regular"),
        ("stand", "Just good enough", "sound", "98 % singled"),
        ("plate", "None fits", "due", "None fits"),
        ("wear-ahead", "Three winters", "sound", "Unlikely, 0.3 %"),
        ("wear-ahead", "No readings yet", "watch", "Possible, 30.6 %"),
        ("renew-or-wait", "Cheap part, dear failure", "due", "Renew it now"),
        ("renew-or-wait", "Too near to call", "watch", "Either way"),
        ("renew-or-wait", "Dear part, cheap failure", "sound", "Run one more season"),
        ("truck-stock", "Wears fast", "", "Carry 3"),
        ("truck-stock", "Gear case", "", "Carry 0"),
        ("chain", "Borderline", "watch", "2.42 % ± 0.12 %"),
        ("chain", "Pushed and pulled", "watch", "2.41 % ± 0.12 %"),
        ("chain", "From the take-up", "sound", "1.75 % ± 0.04 %"),
        ("take-up", "Half a link out", "due", "Half a link out of every strand"),
        ("take-up", "Runs out", "watch", "Ends during the season"),
        ("belt", "On the edge", "sound", "Tension is right"),
        ("belt", "Slack", "due", "Belt rides high"),
        ("register", "Borderline", "sound", "In register"),
        ("register", "Stroke short", "due", "Stroke is wrong"),
        ("hold-downs", "On the edge", "sound", "All right"),
        ("hold-downs", "Wide and tight", "due", "3 to adjust"),
        ("chopper", "Borderline", "sound", "In balance"),
        ("chopper", "One gone", "due", "Renew 2: bad ones and their opposites"),
        ("sieves", "Sides uneven", "due", "Cure the linkage first"),
        ("moisture", "One pair", "watch", "Store +0.9 %"),
        ("yield", "One too small", "sound", "× 1.031"),
        ("wear", "Borderline", "watch", "77 % used"),
        ("even", "On the line", "sound", "Even"),
        ("apart", "One of two", "due", "Renew 1 of 2"),
        ("services", "Overdue", "due", "2 due"),
    ],
)
def test_answers(subject, name, mark, answer):
    found = example(subject, name)
    assert (found.mark, found.answer) == (mark, answer)


def test_the_readers_units_are_everywhere():
    mm, inches = example("wear", "Borderline"), sheet("wear", "in", reading="371 mm", new="381 mm", limit="368 mm")
    assert mm.drawing.shown == "371 mm" and inches.drawing.shown == "14 19/32 in"
    assert "mm" not in " ".join([inches.words, *inches.why, *(line.shown for line in inches.lines)])


def test_a_bare_figure_is_in_the_readers_units():
    assert sheet("wear", "in", reading="14.5", new="15", limit="14").answer == "50 % used"


def test_steel_on_steel_is_said_to_be_none_where_only_feelers_touch():
    found = sheet("opener", readings=[["40", "card"], ["41", "card"], ["39", "card"]], disc_diameter_mm="376")
    assert found.mark == "sound"
    assert [line.shown for line in found.lines if line.name == "Steel on steel"] == ["none: by feeler, not by steel"]


def test_without_washers_the_contact_alone_is_judged():
    empty = dict.fromkeys(("inside__left", "inside__right", "outside__left", "outside__right"), "")
    found = sheet("opener", readings=[["30", "card"]], **empty)
    assert found.answer == "30 mm" and set(found.runs) == {"opener_contact"}


def test_few_spacings_give_no_advice():
    found = sheet("spacing", spacings_mm="162 171 158 330", nominal_mm="165")
    assert (found.mark, found.words) == ("", "4 spacings are too few to advise from: measure at least 100.")


def test_the_chopper_shows_which_way_each_school_leaves_it():
    found = example("chopper", "One chipped")
    ways = {one.name: one.angle for one in found.drawing.residuals}
    assert ways == {"Now": pytest.approx(180), "Set": None, "Pair": None, "Single": pytest.approx(0)}, (
        "a single new knife is heaviest"
    )
    assert [line.name for line in found.lines[-3:]] == ["Whole set", "Bad ones and their opposites", "Only the bad ones"]


def test_a_rotor_that_no_plan_brings_within_grade_is_to_be_balanced():
    rows = [["1", "0", "260", "310"], ["2", "90", "260", "410"], ["3", "200", "260", "410"]]
    assert "have the rotor balanced" in sheet("chopper", positions=rows, must_renew="1", new_mass_g="460").words


def test_the_card_is_named_for_what_it_proves():
    def card(thickness):
        found = sheet("hold-downs", results=[["1", "yes", "no"]], card_mm=thickness)
        return next(line.shown for line in found.lines if line.name == "Your card")

    assert card("0.3") == "0.3 mm, thinner than the window"
    assert card("0.6") == "0.6 mm, in the window"
    assert card("25 thou") == "0.64 mm, in the window"


def test_turns_have_their_direction():
    assert "1 turn counter-clockwise" in sheet("window", reading="36.5", low="25", high="35", target="35", per_turn="1.5").words
    assert "clockwise" not in sheet("window", reading="30", low="25", high="35", per_turn="1.5").words


def test_a_reading_better_than_new_is_doubted():
    assert "measure again" in sheet("wear", reading="384", new="381", limit="368").words


def test_yield_leaves_out_small_loads_by_name():
    lines = {line.name: line.shown for line in example("yield", "One too small").lines}
    assert lines["Load 3"] == "left out: under 1360 kg: too small to tell"
    assert sheet("yield", loads=[["900", "950"]]).answer == "No load counts"


def test_no_log_no_trials():
    from lumvek_core.catalogue.load import shipped

    rule = shipped().families["row-crop-planter"].checks["opener-contact"].rule
    assert trials("opener-contact", rule, []) == []


def test_a_forecast_says_what_it_rests_on_and_which_reading_does_not_fit():
    assert example("wear-ahead", "No readings yet").words.endswith("It rests on what is usual alone.")
    assert example("wear-ahead", "Three winters").words.endswith("It rests on 3 readings and on what is usual.")
    slip = example("wear-ahead", "A slip of the tape")
    assert "Reading 3" in [line.name for line in slip.lines]


def test_renew_or_wait_shows_the_break_even_beside_both_costs():
    found = example("renew-or-wait", "Cheap part, dear failure")
    assert found.words == "Now costs 14.56 of life thrown away, waiting 118.08 of risk. Even at a chance of 3.7 %."
    assert "brakes" in found.caution
    nothing = sheet("renew-or-wait", downtime_h="0", field_labour_h="0.4")
    assert nothing.answer == "Run one more season" and nothing.lines[-1].shown == "none"


def test_what_the_truck_carries_says_how_seldom_it_runs_out():
    assert "1.1 expected to fail" in example("truck-stock", "Wears fast").words
    assert "fewer than 5 of 100 cases" in example("truck-stock", "Wears fast").words
    assert sheet("truck-stock", service="0.99").answer == "Carry 5"
