"""What technicians corrected, each by its own name: which parts a finding buys, and what lies open meanwhile."""

import datetime as dt

import pytest

from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.judgement.companions import Called, parts_for
from lumvek_core.judgement.context import Context
from lumvek_core.judgement.parse_reading import Value
from lumvek_core.judgement.strip_downs import laid_open
from lumvek_core.judgement.verdicts import judge

from .trade_helpers import BOOKS, CATALOGUE, parts, verdict


@pytest.mark.parametrize("state", ["weak-left", "weak-right", "gone-left", "gone-right"])
def test_the_hand_of_a_firmer_spring_is_asked_at_the_machine(state):
    (need,) = parts_for(BOOKS["air-seeder"], [Called("firmer-springs", "12", "replace", state, 1)])
    assert (need.slot, need.side) == ("firmer-spring", "L" if state.endswith("left") else "R")


def test_no_handed_part_is_called_for_without_its_hand():
    for family, book in BOOKS.items():
        for check in book.family.checks.values():
            for place in positions.expand(check.per, in_force.layout(book, {})):
                for option in check.rule.states():
                    for need in parts_for(book, [Called(check.key, place.key, option.action, option.key, 1)]):
                        assert need.side or not book.family.slots[need.slot].handed, (family, check.key, need.slot)


def test_a_hooked_boot_sprocket_buys_itself_the_chain_and_the_top_one():
    called = [
        Called("grain-sprockets", "bottom", "replace", "hooked", 1),
        Called("grain-chain-stretch", "all", "replace", "", 1),
    ]
    needs = parts_for(BOOKS["rotary-combine"], called)
    assert sorted((need.slot, need.position) for need in needs) == [
        ("boot-sprocket", "all"), ("elevator-chain", "all"), ("top-sprocket", "all"),
    ]  # fmt: skip


def test_cupping_that_has_begun_is_bought_with_a_new_chain():
    chain = [Called("grain-chain-stretch", "all", "replace", "", 1)]
    slots = {need.slot for need in parts_for(BOOKS["rotary-combine"], chain, {("grain-sprockets", "bottom"): "begun"})}
    assert slots == {"elevator-chain", "top-sprocket", "boot-sprocket"}
    assert "boot-sprocket" not in {need.slot for need in parts_for(BOOKS["rotary-combine"], chain)}


OWN_SLOTS = [
    ("rotary-combine", "tailings-sprockets", "bottom", "hooked", {"tailings-boot-sprocket", "tailings-chain", "tailings-top-sprocket"}),
    ("rotary-combine", "tailings-paddles", "all", "", {"tailings-paddle"}),
    ("rotary-combine", "propeller", "all", "rubs", {"propeller", "propeller-bearing"}),
    ("rotary-combine", "propeller-bearings", "all", "rough", {"engine-fan-bearing"}),
    ("rotary-combine", "fan-sheaves", "all", "ridged", {"engine-fan-sheave"}),
    ("rotary-combine", "fan-belt", "all", "ridged", {"fan-belt", "fan-sheave"}),
    ("rotary-combine", "shoe-bearings", "L", "rough", {"shoe-bearing"}),
    ("rotary-combine", "shoe-pillow-blocks", "L", "rough", {"pillow-block"}),
    ("rotary-combine", "shoe-idlers", "all", "rough", {"shoe-idler"}),
    ("rotary-combine", "shoe-tensioner", "all", "worn", {"shoe-tensioner"}),
    ("rotary-combine", "top-auger-seat", "all", "driver", {"top-auger-driver"}),
    ("rotary-combine", "top-auger-seat", "all", "gearbox", {"top-auger-gearbox"}),
    ("rotary-combine", "shoe-auger-edges", "all", "thin", {"shoe-auger"}),
    ("row-crop-planter", "ejector", "3", "spring", {"ejector-spring"}),
    ("row-crop-planter", "feeder-wheel-reach", "3", "comb", {"feeder-comb"}),
    ("row-crop-planter", "feeder-wheels", "3", "small", {"feeder-wheel-small"}),
    ("row-crop-planter", "brush-guides", "3", "grooved", {"brush-guide"}),
    ("row-crop-planter", "brush-pulleys", "3", "worn", {"brush-pulley"}),
    ("row-crop-planter", "brush-bearings", "3", "rough", {"brush-bearing"}),
    ("row-crop-planter", "row-wiring", "3", "controller", {"row-controller"}),
    ("row-crop-planter", "closing-play", "3", "axle", {"closing-axle"}),
    ("row-crop-planter", "ties", "all", "white", {"cable-ties"}),
    ("row-crop-planter", "transmission-tighteners", "L", "broken", {"chain-tightener"}),
    ("row-crop-planter", "springs", "all", "weak", {"frame-spring"}),
    ("row-crop-planter", "parallel-arm-play", "3", "loose", {"arm-bushing-set", "arm-bolt-set", "arm-seal-set", "grease"}),
    ("draper-header", "draper.belt-rollers", "all", "rough", {"draper.draper-roller"}),
]  # fmt: skip


@pytest.mark.parametrize(("family", "key", "where", "state", "wanted"), OWN_SLOTS)
def test_the_right_part_is_bought(family, key, where, state, wanted):
    assert parts(family, key, where, "replace", state) == wanted


def test_the_chopper_gearbox_takes_what_the_manual_names_and_never_silently_gear_oil():
    assert parts("rotary-combine", "chopper-gearbox-oil", "all", "lubricate", "low") == {"chopper-gearbox-fill"}
    assert "semi-fluid" in BOOKS["rotary-combine"].family.slots["chopper-gearbox-fill"].note


def test_a_fixed_depth_stop_is_built_up_and_orders_no_rocker():
    found = verdict("row-crop-planter", "arm-stop-face", "3L", "3.2")
    assert (found.severity, found.action) == ("due", "repair")
    assert parts("row-crop-planter", "arm-stop-face", "3L", "repair") == set()
    assert parts("row-crop-planter", "arm-stop-pocket", "3L", "replace") == {"depth-rocker", "depth-rocker-bolt"}


@pytest.mark.parametrize("family", BOOKS)
def test_whatever_is_to_be_renewed_calls_for_a_part(family):
    """Every state, and every figure far out to either side."""
    rules = {key: check.rule for key, check in BOOKS[family].family.checks.items()}
    context = Context(confirmed=True, counter_h=1e5, today=dt.date(2026, 11, 28), rules=rules)
    for check in BOOKS[family].family.checks.values():
        place = positions.expand(check.per, in_force.layout(BOOKS[family], {}))[0]
        for value in _far_out(check):
            found = judge(check, place, value, context)
            if found.action == "replace":
                assert parts(family, check.key, place.key, "replace", value.choice), (check.key, value)


def _far_out(check):
    if states := check.rule.states():
        return [Value(choice=state.key) for state in states]
    if check.kind in ("note", "interval"):
        return []
    ends = check.rule.ends() or check.plausible or (0, 1000)
    figures = len(check.values) or 1
    return [Value(numbers=[float(end)] * figures, feeler_mm=0.3) for end in (min(ends), max(ends), 2 * max(ends))]


REPLACED = [("jack-bearing", "outboard", "inboard"), ("jack-bearing", "inboard", "outboard")]


@pytest.mark.parametrize(("slot", "renewed", "open_"), REPLACED)
def test_the_other_bearing_of_the_jack_shaft_lies_open(slot, renewed, open_):
    found = {(one.reach.slot, one.position) for one in laid_open(CATALOGUE.strip_downs, [(slot, renewed)], places)}
    assert (slot, open_) in found and (slot, renewed) not in found
    assert ("elevator-drive-chain", "inside") in found


def test_an_eccentric_bearing_opens_the_others_of_its_shaft_and_never_what_is_on_the_list():
    listed = [("shoe-bearing", "L"), ("pillow-block", "R")]
    found = {(one.reach.slot, one.position) for one in laid_open(CATALOGUE.strip_downs, listed, places)}
    assert found == {("shoe-bearing", "R"), ("pillow-block", "L")}


def places(check):
    book = BOOKS["rotary-combine"]
    return [place.key for place in positions.expand(book.family.checks[check].per, in_force.layout(book, {}))]
