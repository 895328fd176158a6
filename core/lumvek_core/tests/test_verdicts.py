"""From a reading to a verdict, as the row unit's own checks judge it."""

from typing import get_args

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.judgement import describe
from lumvek_core.judgement.parse_reading import Value, parse_reading
from lumvek_core.judgement.verdicts import Context, judge, needs
from lumvek_core.rules.count import CountRule
from lumvek_core.rules.gauge import GaugeRule
from lumvek_core.rules.verdict import FAR_REACHING, Action, weight
from lumvek_core.rules.window import WindowRule
from lumvek_core.rules.yes_no import YesNoRule

OVERRIDES = [
    LimitOverride("opener-disc-diameter", "new", 400, "manual", "Dunmere 12 manual"),
    LimitOverride("opener-disc-diameter", "limit", 386, "manual", "Dunmere 12 manual"),
]
BOOK = in_force.rule_book(load.shipped(), "row-crop-planter", OVERRIDES)
CHECKS = BOOK.family.checks
RULES = {key: check.rule for key, check in CHECKS.items()}


def verdict(key, where, *raw, feeler="", unit="mm", check=None, **context):
    check = check or CHECKS[key]
    value = parse_reading(check, list(raw), feeler, unit)
    return judge(check, positions.find(where), value, Context(**({"rules": RULES} | context)))


@pytest.mark.parametrize(
    ("typed", "severity", "action", "reason"),
    [
        ("395", "sound", "none", "395 mm, limit 386 mm: 36 % of its wear used, 9 mm left."),
        ("15 3/8", "sound", "none", "390.5 mm, limit 386 mm: 68 % of its wear used, 4.5 mm left."),
        ("388,5", "watch", "recheck", "388.5 mm, limit 386 mm: 82 % of its wear used, 2.5 mm left."),
        ("386", "due", "replace", "386 mm, limit 386 mm reached."),
        ("38,45 cm", "due", "replace", "384.5 mm, limit 386 mm, past it by 1.5 mm."),
    ],
)
def test_a_disc_wears_to_its_limit(typed, severity, action, reason):
    found = verdict("opener-disc-diameter", "3L", typed)
    assert (found.severity, found.action, found.reason) == (severity, action, reason)


def test_reasons_come_in_the_readers_units():
    assert (
        verdict("opener-disc-diameter", "3L", "15 1/8", system="in").reason
        == "15 1/8 in, limit 15 3/16 in, past it by 1/16 in."
    )


@pytest.mark.parametrize(
    ("typed", "unit", "instead"),
    [
        ("14.3", "mm", "14.3 in"),
        ("15.5", "mm", "15.5 in"),
        ("39.2", "mm", "39.2 cm"),
        ("392", "in", "392 mm"),
        ("3920", "mm", "392 mm"),
    ],
)
def test_a_figure_that_cannot_be_right_is_asked_about(typed, unit, instead):
    found = verdict("opener-disc-diameter", "3L", typed, unit=unit, system=unit, typed_in=unit)
    assert found.ask.startswith(
        describe.full(CHECKS["opener-disc-diameter"], parse_reading(CHECKS["opener-disc-diameter"], [typed], "", unit), unit)
    )
    assert found.instead == instead


def test_the_question_comes_in_the_readers_units():
    assert verdict("opener-disc-diameter", "3L", "17", unit="in", system="in").ask.startswith(
        "17 in? When new it is 15 3/4 in."
    )


def test_better_than_new_is_asked_beyond_three_reading_errors():
    assert not verdict("opener-disc-diameter", "3L", "402.3").ask
    assert verdict("opener-disc-diameter", "3L", "402.5").ask


def test_what_the_technician_confirms_is_judged():
    found = verdict("opener-disc-diameter", "3L", "15.5", confirmed=True)
    assert (found.ask, found.severity) == ("", "due")


def test_a_part_that_grows_worn():
    assert verdict("arm-stop-pocket", "2R", "1/8").severity == "due"
    assert verdict("arm-stop-pocket", "2R", "2.5").severity == "watch"
    assert verdict("arm-stop-pocket", "2R", "0").severity == "sound"


def test_a_gap_where_none_is_wanted():
    found = verdict("gauge-wheel-gap", "4L", "1.2")
    assert (found.severity, found.action) == ("due", "adjust")
    assert found.reason.startswith("1.2 mm, 1.2 mm over the wanted 0 mm.")
    assert verdict("gauge-wheel-gap", "4L", "0").severity == "sound"


def test_a_window_says_which_way_and_how_many_turns():
    check = Check("x", "X", "machine", "measure", "", WindowRule("window", 20, 30, per_turn=2.5, if_low="Tighten."), unit="mm")
    found = verdict("x", "all", "15", check=check)
    assert found.reason == "15 mm, 5 mm under the wanted 20 mm to 30 mm. About 4 turns clockwise. Tighten."


def test_contact_counts_the_feeler_and_todays_discs():
    measured = {"opener-disc-diameter": {"3L": Value([388]), "3R": Value([386])}}
    by_card = verdict("opener-contact", "3", "46", "44", "47", feeler="card", others=measured)
    by_paper = verdict("opener-contact", "3", "30", "31", "28", feeler="paper", others=measured)
    assert by_card.severity == by_paper.severity == "sound"
    assert by_card.facts.diameter == 387
    assert by_paper.facts.equivalent > 45


def test_contact_out_of_band_bent_or_through():
    low = verdict("opener-contact", "3", "30", "31", "33", feeler="card")
    assert (low.severity, low.action) == ("due", "adjust") and "inside to outside" in low.reason
    high = verdict("opener-contact", "3", "70", "71", "73", feeler="card")
    assert (high.severity, high.action) == ("due", "adjust") and "outside to inside" in high.reason
    bent = verdict("opener-contact", "3", "40", "52", "60", feeler="card")
    assert (bent.severity, bent.action) == ("due", "investigate") and "bent disc or hub" in bent.reason
    assert "passes right through" in verdict("opener-contact", "3", "0", "0", "0", feeler="card").reason
    assert verdict("opener-contact", "3", "500", "500", "500", feeler="card").ask.endswith("Longer than the disc (400 mm).")


def test_one_row_apart_from_the_others():
    others = {"depth-handle": {"1": Value([7]), "2": Value([7]), "3": Value([5])}}
    found = verdict("depth-handle", "3", "5", others=others)
    assert found.reason == "hole 5, the others stand at hole 7: correct by +2 holes."
    assert verdict("depth-handle", "1", "7", others=others).severity == "sound"
    assert verdict("depth-handle", "1", "7").reason == "hole 7; nothing to compare with yet."


@pytest.mark.parametrize(
    ("typed", "severity", "action"),
    [
        ("1", "sound", "none"),
        ("dry", "due", "lubricate"),
        ("rough", "due", "replace"),
        ("4", "due", "replace"),
        ("noisy", "due", "replace"),
    ],
)
def test_what_the_fingers_feel(typed, severity, action):
    found = verdict("opener-bearing", "3L", typed)
    assert (found.severity, found.action) == (severity, action)


def test_a_broken_shank_stops_the_machine():
    assert verdict("shank", "3", "broken").severity == "stop"


def test_yes_and_no():
    assert verdict("hub-nuts", "3", "no").reason == "Hub nuts on the right side: not in order."
    assert (verdict("hub-nuts", "3", "no").action, verdict("hub-nuts", "3", "yes").severity) == ("adjust", "sound")
    assert verdict("coulter-below", "3", "yes").severity == "due"


def test_every_fault_of_a_safety_item_is_a_stop():
    check = Check("rods", "Tie rods", "machine", "yes-no", "", YesNoRule("yes-no"), safety=True)
    assert verdict("rods", "all", "no", check=check).severity == "stop"
    assert verdict("rods", "all", "yes", check=check).severity == "sound"


@pytest.mark.parametrize(
    ("found", "severity", "action"),
    [("0", "sound", "none"), ("3", "due", "repair"), ("30", "due", "repair"), ("31", "due", "replace")],
)
def test_counting_up_to_the_whole_set(found, severity, action):
    check = Check("tines", "Tines", "machine", "count", "", CountRule("count", 100, "repair"))
    result = verdict("tines", "all", found, check=check)
    assert (result.severity, result.action) == (severity, action)


def test_go_and_no_go():
    check = Check("hold", "Hold-down", "machine", "gauge", "", GaugeRule("gauge", 0.5, 0.75))
    assert [verdict("hold", "all", n, check=check).severity for n in "123"] == ["sound", "due", "due"]


@pytest.mark.parametrize(
    ("key", "raw", "feeler", "field"),
    [
        ("opener-disc-diameter", ["14 8/5"], "", "raw.0"),
        ("opener-disc-diameter", [], "", "raw"),
        ("opener-disc-diameter", ["1", "2"], "", "raw"),
        ("opener-contact", ["30", "x", "31"], "card", "raw.1"),
        ("opener-contact", ["30", "30", "31"], "", "feeler"),
        ("opener-contact", ["30", "30", "31"], "9 mm", "feeler"),
        ("opener-bearing", ["soft"], "", "raw.0"),
        ("opener-bearing", ["6"], "", "raw.0"),
        ("washers", ["2", "two"], "", "raw.1"),
        ("depth-handle", ["-3"], "", "raw.0"),
    ],
)
def test_text_that_means_nothing_here_is_refused_at_its_field(key, raw, feeler, field):
    with pytest.raises(BadInput) as problem:
        parse_reading(CHECKS[key], raw, feeler)
    assert problem.value.field == field


def test_only_rules_that_look_elsewhere_need_others():
    assert needs(CHECKS["opener-contact"]) == {"opener-disc-diameter", "washers"}
    assert needs(CHECKS["depth-handle"]) == {"depth-handle"}
    assert needs(CHECKS["opener-disc-diameter"]) == set()


@pytest.mark.parametrize(
    ("key", "raw", "short", "full", "in_inches"),
    [
        ("opener-disc-diameter", ["15 3/8"], "390.5", "390.5 mm", "15 3/8 in"),
        ("washers", ["2", "1"], "2 · 1", "inside 2, outside 1 washers", "inside 2, outside 1 washers"),
        ("opener-bearing", ["rough"], "Rough", "Rough", "Rough"),
        ("opener-contact", ["30", "31", "28"], "30 · 31 · 28", "30 · 31 · 28 mm", "1 3/16 · 1 7/32 · 1 3/32 in"),
    ],
)
def test_values_in_words(key, raw, short, full, in_inches):
    value = parse_reading(CHECKS[key], raw, "paper")
    assert describe.short(CHECKS[key], value, "mm") == short
    assert describe.full(CHECKS[key], value, "mm") == full
    assert describe.full(CHECKS[key], value, "in") == in_inches


@pytest.mark.parametrize(
    ("raw", "action", "says"),
    [(["2.4", "0"], "none", "usual"), (["3", "1"], "adjust", "1 of at most 4"), (["3", "4"], "investigate", "never another")],
)
def test_a_remedy_in_steps_ends_after_the_last_one(raw, action, says):
    found = verdict("meter-current", "3", *raw)
    assert found.action == action and says in found.reason


def test_of_several_verdicts_on_one_chain_the_gravest_speaks_and_of_those_the_one_that_reaches_farthest():
    told = [
        ("due", "investigate"),
        ("watch", "replace"),
        ("stop", "adjust"),
        ("due", "replace"),
        ("due", "adjust"),
        ("sound", "none"),
    ]
    assert sorted(told, key=lambda one: weight(*one), reverse=True) == [
        ("stop", "adjust"),
        ("due", "replace"),
        ("due", "adjust"),
        ("due", "investigate"),
        ("watch", "replace"),
        ("sound", "none"),
    ]
    assert weight("sound", "none") == 0
    assert set(get_args(Action)) == set(FAR_REACHING)
