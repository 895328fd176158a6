"""The shipped catalogue: complete for the row unit, resolvable, and its limits replaceable with their source kept."""

import copy
import json
import shutil

import pytest
import yaml

from lumvek_core import positions
from lumvek_core.catalogue import in_force, load
from lumvek_core.catalogue.__main__ import family_schema
from lumvek_core.catalogue.model import LimitOverride
from lumvek_core.errors import BadInput
from lumvek_core.judgement.companions import Called, parts_for, tasks_for
from lumvek_core.judgement.rules import options

CATALOGUE = load.load()
PLANTER = CATALOGUE.families["row-crop-planter"]

# Every line of the trade's list for the row unit, front to back, and the checks that carry it.
ROW_UNIT = {
    "row cleaner": ["row-cleaner"],
    "coulter": ["coulter-depth", "coulter-below"],
    "parallel arms": ["parallel-arm-play", "parallel-arm-play-measured"],
    "opener disc diameter": ["opener-disc-diameter"],
    "opener contact": ["opener-contact"],
    "opener bearing": ["opener-bearing"],
    "disc axle": ["disc-axle"],
    "spacing washers": ["washers"],
    "hub nuts": ["hub-nuts"],
    "outer scrapers": ["outer-scraper"],
    "shank and castings": ["shank"],
    "seed tube guard": ["seed-tube-guard"],
    "seed tube or outlet": ["seed-tube-tip", "seed-tube-window", "seed-tube-swing", "tube-wear-plates"],
    "gauge wheel to disc": ["gauge-wheel-gap", "gauge-wheel-adjustment"],
    "gauge wheel scraper": ["gauge-wheel-scraper"],
    "gauge wheel tyre, bearing, arm": ["gauge-wheel-tyre", "gauge-wheel-bearing", "gauge-wheel-arm-play"],
    "arm stop face, rocker": ["arm-stop-pocket"],
    "depth handle and slot": ["depth-handle", "depth-handle-state"],
    "seed firmer": ["seed-firmer", "firmer-pin", "firmer-tube"],
    "seed press wheel": ["press-wheel", "press-wheel-bearing"],
    "closing frame": ["closing-play", "closing-centre"],
    "closing tension and stagger": ["closing-tension", "closing-stagger", "closing-spring"],
    "closing wheels": ["closing-wheel-type", "closing-wheel", "closing-bearing", "pinch-point"],
    "down-force": ["down-force", "down-force-plug"],
    "wiring, row controller": ["row-wiring"],
}


def test_every_line_of_the_row_unit_is_there_and_nothing_else():
    assert sorted(key for keys in ROW_UNIT.values() for key in keys) == sorted(PLANTER.checks)


@pytest.mark.parametrize("check", PLANTER.checks.values(), ids=lambda check: check.key)
def test_every_check_tells_how_and_can_be_answered_sound(check):
    assert len(check.how) > 15
    states = options(check.rule)
    assert not states or states[0].severity == "sound"
    assert check.source


def test_the_schema_for_editors_is_current():
    assert json.loads((load.SHIPPED / "schema.json").read_text()) == json.loads(json.dumps(family_schema()))


@pytest.fixture
def folder(tmp_path):
    return shutil.copytree(load.SHIPPED, tmp_path / "catalogue")


def broken(folder, change):
    path = folder / "families" / "row-crop-planter.yaml"
    data = yaml.safe_load(path.read_text())
    change(data)
    path.write_text(yaml.safe_dump(data))
    with pytest.raises(BadInput) as problem:
        load.load(folder)
    return str(problem.value)


def first_check(data):
    return data["stations"][2]["checks"][0]


@pytest.mark.parametrize(
    ("change", "said"),
    [
        (lambda d: first_check(d).update(colour="blue"), "stations.2.checks.0.colour: is not a field"),
        (lambda d: first_check(d).pop("how"), "stations.2.checks.0.how: is missing"),
        (lambda d: first_check(d)["rule"].update(kind="guess"), "rule.kind: must be one of"),
        (lambda d: first_check(d)["rule"].update(limit=381), "new and limit are the same"),
        (lambda d: first_check(d).update(parts=[{"slot": "nut"}]), "unknown slot nut"),
        (lambda d: first_check(d).update(hazards=["bees"]), "unknown hazard bees"),
        (lambda d: first_check(d).update(after=["nothing"]), "comes after nothing"),
        (lambda d: first_check(d).update(option="wings"), "unknown option wings"),
        (lambda d: first_check(d).pop("unit"), "has no unit"),
        (lambda d: first_check(d).update(plausible=[5, 1]), "the smaller first"),
        (lambda d: d["stations"][0].update(posture="upside down"), "unknown posture"),
        (lambda d: d["stations"][2]["checks"].append(copy.deepcopy(first_check(d))), "stands there twice"),
        (lambda d: d["slots"].pop("opener-disc"), "no family has a slot opener-disc"),
    ],
)
def test_what_does_not_resolve_is_refused_with_its_place(folder, change, said):
    assert said in broken(folder, change)


def test_a_check_added_in_the_file_is_in_the_rule_book(folder):
    path = folder / "families" / "row-crop-planter.yaml"
    data = yaml.safe_load(path.read_text())
    data["stations"][0]["checks"].append(
        {"key": "paint", "name": "Paint", "per": "row", "kind": "yes-no", "how": "Is any left?", "rule": {"kind": "yes-no"}}
    )
    path.write_text(yaml.safe_dump(data))
    assert "paint" in in_force.rule_book(load.load(folder), "row-crop-planter").family.checks


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
        LimitOverride("opener-disc-diameter", "new", 368, "shop"),
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
    keys = [check.key for check in in_force.applicable(book(), ["coulter"])]
    assert "coulter-depth" in keys and "seed-firmer" not in keys


def test_positions_snake_down_one_side_and_back_on_the_other():
    assert [p.key for p in positions.expand("row-side", 3)] == ["1L", "2L", "3L", "3R", "2R", "1R"]
    assert [p.key for p in positions.expand("row", 3)] == ["1", "2", "3"]
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
        ("arm-seal-set", "2", "companion"),
        ("arm-bolt-set", "2", "companion"),
    ]
    assert [(need.slot, need.side) for need in parts_for(book(), [Called("outer-scraper", "7L", "replace")])] == [
        ("outer-scraper", "L"),
        ("outer-scraper", "R"),
    ]


def test_only_the_action_that_needs_a_part_asks_for_one():
    assert parts_for(book(), [Called("opener-bearing", "4R", "lubricate", "dry")]) == []
    assert slots(parts_for(book(), [Called("seed-firmer", "4", "repair", "weak")])) == [("firmer-spring", "4", "finding")]
