"""The shipped catalogue: complete for the row unit, resolvable, and its limits replaceable with their source kept."""

import json

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.__main__ import FILES, schemas
from lumvek_core.catalogue.rule_book import LimitOverride
from lumvek_core.coupled import prefix_of, short
from lumvek_core.errors import BadInput
from lumvek_core.judgement.companions import Called, parts_for, tasks_for

from .trade_list import TRADE

CATALOGUE = load.shipped()

EVERY = [(family, check) for family in CATALOGUE.families.values() for check in family.checks.values()]


@pytest.mark.parametrize("family", sorted(CATALOGUE.families))
def test_every_line_of_the_trade_is_there_and_nothing_else(family):
    listed = [key for section in TRADE[family] for keys in section.values() for key in keys.split()]
    assert sorted(listed) == sorted(short(key) for key in CATALOGUE.families[family].checks)


@pytest.mark.parametrize(("family", "check"), EVERY, ids=lambda one: getattr(one, "key", getattr(one, "family", "")))
def test_every_check_tells_how_and_why_and_can_be_answered_sound(family, check):
    assert len(check.how) > 10
    assert len(check.why) > 10, "why says what is at stake"
    states = check.rule.states()
    assert not states or states[0].severity == "sound"
    assert check.source and check.phases


def test_safety_items_are_marked_so_wherever_they_are():
    safety = {short(check.key) for _, check in EVERY if check.safety}
    assert safety >= {
        "latch-pins",
        "tie-rods",
        "wheel-bolts",
        "rims",
        "lights",
        "hazard-lights",
        "hood-latches",
        "ballast",
        "markers",
    }


def test_what_is_often_missed_is_marked():
    missed = {short(check.key) for _, check in EVERY if check.often_missed}
    assert missed >= {
        "feeder-trash",
        "header-belt",
        "propeller",
        "parallel-arm-play",
        "hitch-hoses",
        "grease",
        "carrying-hubs",
        "spline-grease",
        "sieve-holes",
    }


@pytest.mark.parametrize("name", FILES)
def test_the_schemas_for_editors_are_current(name):
    assert json.loads((load.SHIPPED / "schemas" / f"{name}.json").read_text()) == json.loads(json.dumps(schemas()[name]))


def book(*overrides, **schools):
    return in_force.rule_book(CATALOGUE, "row-crop-planter", overrides, schools)


def test_limits_come_from_the_school_then_the_model_then_the_shop_and_say_so():
    shipped = book()
    assert shipped.limits["opener-disc-diameter"]["limit"].source == "starting value"
    by_paper = book(**{"opener-contact": "paper"})
    assert by_paper.family.checks["opener-contact"].rule.feeler == 0.1
    assert by_paper.limits["opener-contact"]["low"].source == "school"
    own = book(
        LimitOverride("opener-contact", "low", 40, "manual", "page on openers"),
        LimitOverride("opener-contact", "low", 42, "shop"),
        **{"opener-contact": "paper"},
    )
    assert own.family.checks["opener-contact"].rule.low == 42
    assert own.limits["opener-contact"]["low"].source == "shop"


@pytest.mark.parametrize(
    "override",
    [
        LimitOverride("nothing", "new", 1, "shop"),
        LimitOverride("opener-disc-diameter", "colour", 1, "shop"),
        LimitOverride("opener-disc-diameter", "new", 368.3, "shop"),
    ],
)
def test_overrides_that_fit_nothing_are_refused(override):
    with pytest.raises(BadInput):
        book(override)


def test_unknown_family_and_school_are_refused():
    with pytest.raises(BadInput, match="no family"):
        in_force.rule_book(CATALOGUE, "hovercraft")
    with pytest.raises(BadInput, match="no school"):
        book(**{"opener-contact": "guess"})


def test_a_rule_book_survives_being_stored():
    assert in_force.from_json(json.loads(json.dumps(in_force.to_json(book())))) == book()


def test_options_decide_what_applies():
    keys = [check.key for check in in_force.applicable(book(), in_force.Scope(["coulter"]))]
    assert "coulter-depth" in keys and "seed-firmer" not in keys


def applies(key, family="rotary-combine", headers=(), **scope):
    with_headers = in_force.rule_book(CATALOGUE, family, headers=headers)
    return key in [check.key for check in in_force.applicable(with_headers, in_force.Scope(headers=headers, **scope))]


def test_phase_header_and_option_decide_what_belongs_to_a_walk_around():
    assert applies("chains-oiled", phase="after-season") and not applies("chains-oiled", phase="winter")
    assert applies("sieve-clean", phase="daily") and not applies("rotor-bars", phase="daily")
    assert applies("flex-function", headers=["draper-header"]) and not applies("flex-function", headers=["row-crop-header"])
    by_foot = {"key": "draper.float-preload-foot-cab", "headers": ["draper-header"]}
    assert applies(**by_foot, options=["draper.flex", "draper.cab-float"]) and not applies(**by_foot, options=["draper.flex"])
    gauge, indicator = "elevator-drive-chain", ["drive-chain-indicator"]
    assert applies(gauge) and not applies(gauge, options=indicator)


def test_a_header_stands_before_its_combine_under_its_own_prefix():
    both = in_force.rule_book(
        CATALOGUE,
        "rotary-combine",
        [LimitOverride("draper.skid-shoes", "limit", 4, "manual"), LimitOverride("draper.knife-sections", "of", 84, "shop")],
        headers=["draper-header", "stripper-header"],
    )
    stations = [station.key for station in both.family.stations]
    assert stations.index("draper.coupling") < stations.index("stripper.coupling") < stations.index("feeder")
    assert both.family.checks["draper.skid-shoes"].rule.limit == 4
    assert both.family.checks["draper.knife-sections"].rule.of == 84
    assert prefix_of("draper.skid-shoes") == "draper" and prefix_of("feeder-trash") == ""
    assert in_force.from_json(json.loads(json.dumps(in_force.to_json(both)))) == both
    needs = parts_for(both, [Called("draper.knife-drive", "all", "replace", "hooked")])
    assert [need.slot for need in needs] == ["draper.knife-sprocket-set", "draper.knife-chain"]


@pytest.mark.parametrize(
    ("family", "headers"),
    [
        ("rotary-combine", ["draper-header"] * 2),
        ("rotary-combine", ["air-seeder"]),
        ("draper-header", ["stripper-header"]),
        ("air-seeder", ["draper-header"]),
    ],
)
def test_what_cannot_be_coupled_is_refused(family, headers):
    with pytest.raises(BadInput):
        in_force.rule_book(CATALOGUE, family, headers=headers)


def test_a_school_may_change_the_posture_a_level_is_read_in():
    read_raised = in_force.rule_book(CATALOGUE, "draper-header", schools={"header-gear-case": "raised"})
    assert read_raised.family.checks["draper.centre-gear-case"].posture.startswith("header raised")


def test_a_machine_has_its_own_number_of_things():
    draper = in_force.rule_book(CATALOGUE, "draper-header")
    assert in_force.layout(draper, {"draper.runner": 7})["draper.runner"] == 7
    for counts in ({"draper.bracket": 3}, {"wing": 2}):
        with pytest.raises(BadInput):
            in_force.layout(draper, counts)


def test_positions_snake_down_one_side_and_back_on_the_other():
    layout = {"row": 3, "draper.runner": 2, "draper.bracket": ["front-left", "rear-left"]}
    assert [p.key for p in positions.expand("row-side", layout)] == ["1L", "2L", "3L", "3R", "2R", "1R"]
    assert [p.key for p in positions.expand("row", layout)] == ["1", "2", "3"]
    assert [p.label for p in positions.expand("draper.runner", layout)] == ["Runner 1", "Runner 2"]
    assert [p.key for p in positions.expand("draper.bracket", layout)] == ["front-left", "rear-left"]
    assert [p.label for p in positions.expand("side", layout)] == ["Left", "Right"]
    assert positions.find("12R").label == "Row 12 right"
    assert positions.find("12R").across.key == "12L"


@pytest.mark.parametrize(
    ("keys", "words"),
    [
        (["3"], "row 3"),
        (["5", "3", "4", "9"], "rows 3–5, 9"),
        (["6R", "5L", "5R"], "row 5 left, rows 5, 6 right"),
        (["all"], "whole machine"),
        ([], ""),
        (["L"], "left"),
        (["rear-left", "front-left"], "front left, rear left"),
        (["knife-4", "knife-5", "knife-6"], "knives 4–6"),
        (["hold-down-7"], "hold-down 7"),
    ],
)
def test_positions_in_words(keys, words):
    assert positions.in_words(keys) == words


def slots(needs):
    return [(need.slot, need.position, need.origin) for need in needs]


def test_one_worn_disc_brings_its_pair_scraper_and_guard():
    needs = parts_for(book(), [Called("opener-disc-diameter", "3L", "replace")])
    assert slots(needs) == [
        ("opener-disc", "3L", "finding"),
        ("opener-disc", "3R", "companion"),
        ("centre-scraper", "3", "companion"),
        ("seed-tube-guard", "3", "companion"),
    ]
    assert [task.position for task in tasks_for(book(), needs)] == ["3"]


def test_both_discs_worn_ask_for_nothing_twice():
    needs = parts_for(
        book(),
        [
            Called("opener-disc-diameter", "3L", "replace"),
            Called("opener-disc-diameter", "3R", "replace"),
            Called("seed-tube-guard", "3", "replace"),
        ],
    )
    assert slots(needs) == [
        ("opener-disc", "3L", "finding"),
        ("opener-disc", "3R", "finding"),
        ("seed-tube-guard", "3", "finding"),
        ("centre-scraper", "3", "companion"),
    ]


def test_the_guards_school_decides_whether_it_comes_along():
    needs = parts_for(book(**{"tube-guard-with-discs": "at-limit"}), [Called("opener-disc-diameter", "3L", "replace")])
    assert "seed-tube-guard" not in [need.slot for need in needs]


def test_companions_bring_their_own_companions_and_handed_parts_their_hand():
    assert slots(parts_for(book(), [Called("parallel-arm-play", "2", "replace", "egg-shaped")])) == [
        ("arm-bushing-set", "2", "finding"),
        ("parallel-arm", "2", "finding"),
        ("arm-bolt-set", "2", "companion"),
        ("grease", "all", "companion"),
        ("arm-seal-set", "2", "companion"),
    ]
    assert [(need.slot, need.side) for need in parts_for(book(), [Called("outer-scraper", "7L", "replace")])] == [
        ("outer-scraper", "L"),
        ("outer-scraper", "R"),
    ]


def test_only_the_action_that_needs_a_part_asks_for_one():
    assert parts_for(book(), [Called("opener-bearing", "4R", "lubricate", "dry")]) == []
    springs = parts_for(book(), [Called("seed-firmer", "4", "repair", "weak-left")])
    assert [(need.slot, need.position, need.side) for need in springs] == [("firmer-spring", "4", "L")]


def test_what_is_counted_is_ordered_by_the_piece_with_what_goes_along():
    both = in_force.rule_book(CATALOGUE, "draper-header")
    needs = parts_for(both, [Called("draper.knife-sections", "all", "replace", count=4)])
    assert [(need.slot, need.quantity) for need in needs] == [("draper.knife-section", 4), ("draper.section-bolts", 4)]


def test_every_school_is_said_where_it_matters():
    for school in CATALOGUE.schools.values():
        silent = school.subject in ("order", "inspection-time")  # these decide the route and the phase offered
        assert silent or school.about, school.subject
    draper = in_force.rule_book(CATALOGUE, "draper-header", schools={"hold-down-clearance": "card"})
    assert draper.ways["draper.hold-down"][0].startswith("Hold-down clearance: business card with light drag")


def test_two_worn_strands_ask_for_one_set_of_chain_with_its_sprockets():
    combine = in_force.rule_book(CATALOGUE, "rotary-combine")
    needs = parts_for(combine, [Called("feeder-chain-stretch", f"strand-{n}", "replace") for n in (1, 2)])
    assert [(need.slot, need.position, need.quantity) for need in needs] == [
        ("feeder-chain", "all", 1),
        ("feeder-sprockets", "all", 1),
    ]
