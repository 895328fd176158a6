"""Every symptom of the trade with its causes and what proves each, line by line; where a trace stands, and search by words."""

import datetime as dt

import pytest
from hypothesis import given
from hypothesis import strategies as st

from lumvek_core.catalogue import load
from lumvek_core.catalogue.symptoms import causes_in
from lumvek_core.faults.suspicion import Signals, Suspicion, season_now, suspect
from lumvek_core.faults.symptom_search import Shows, search
from lumvek_core.faults.trace import ELSE, Answer, along_the_machine, minutes_along, traced, tracing_checks
from lumvek_core.planning import walk
from lumvek_core.planning.shortest import shortest

CATALOGUE = load.shipped()
SYMPTOMS = CATALOGUE.symptoms
BY_KEY = {one.key: one for one in SYMPTOMS.symptoms}
COMBINE = CATALOGUE.families["rotary-combine"]
PLANTER = CATALOGUE.families["row-crop-planter"]
TRADE = {
    "machine shakes, speed dependent": "shakes: chopper-knife=chopper-knives rotor-residue vane-unequal=cone-vanes impeller-unequal=impellers weight-gone=balance-weights shaker-bushing=shaker-arms fan-blade=fan-blades slugging=feeder-chain-tension",
    "knock once per shoe stroke": "knock-a-stroke: shaker-bushing=shaker-arms eccentric-bearing=shoe-bearings sieve-loose=sieve-frame",
    "shakes only under load, uneven": "shakes-loaded: slug-vanes=cone-vanes slug-impellers=impellers chain-slack=feeder-chain-tension drum-crooked=drum-arms",
    "rumble in feeder": "rumble-feeder: chain-loose=feeder-chain-tension slat-loose=feeder-slats drum-bearing=drum-bearings",
    "unthreshed heads": "unthreshed: slug-vanes=cone-vanes slug-impellers=impellers chain-slack=feeder-chain-tension drum-crooked=drum-arms concave-gap=concave-front",
    "broken ears in the tank, dirty sample": "dirty-sample: spacers-out=spacers concave-tight=concave-clearance-shown rotor-fast=rotor-speed-shown",
    "grain on the ground before threshing or under the front": "grain-in-front: feeder-hole=feeder-floor header-gap=opening-match-front shoe-auger-bearing=shoe-auger-bearings",
    "chaff in tank": "chaff-in-tank: lower-sieve-hole=sieve-holes louvres-missing=sieve-louvres openings-unequal=sieve-opening-chaffer fan-blades pan-seal",
    "grain over the tail": "grain-over-tail: sieve-not-zeroed=sieve-zero pre-sieve-stuck=pre-sieve fan=fan-function overload openings-unequal=sieve-opening-chaffer",
    "cracked grain": "cracked-grain: auger-edge=flighting-edge elevator-chain=grain-chain shoe-auger-play=shoe-auger-bearings concave-level=concave-front",
    "shoe stays tilted on level ground": "shoe-tilted: roller-flat=self-level-rollers",
    "sieve louvres crushed": "louvres-crushed: knelt-on=chaffer-kneeling",
    "sampling auger stands still, fault code": "sampling-stands: packed-crop=sampling-augers sampling-wiring",
    "moisture differs from the grain store": "moisture-differs: offset=moisture-offset-stored plunger=plunger-moves not-empty=cell-empty",
    "elevator plugs, slip clutch rattles": "elevator-plugs: off-driver=top-auger-seat chain-loose=grain-chain paddles clutch-splines=slip-clutch-hub",
    "unload tube sags when swung out": "tube-sags: pivot-bushing",
    "oil out behind a sheave": "oil-behind-sheave: piston-seal=sheave-piston",
    "power down, straw tough": "power-down: stationary-blunt=stationary-knives",
    "spreads too narrow or uneven": "spread-narrow: paddles-rounded=housing-edge vanes-hooked=vanes louvres-width=tailboard-louvres",
    "clumps behind the machine": "clumps: vane-torn=vanes floor-holes=chopper-floor fins-worn=housing-edge",
    "knife breaks sections": "breaks-sections: hold-downs-wide=hold-down head-out-of-line=knife-head joint-play=ball-joints guard-bent=guards",
    "uneven cut, uncut stems": "uneven-cut: register=knife-register hold-downs=hold-down section-missing=knife-sections",
    "uneven feeding, hump or two streams": "uneven-feeding: side-belt-speed auger-height=drum-height auger-gap=auger-clearance extensions=drum-extensions finger-timing=drum-fingers auger-finger-timing=auger-fingers stripper-plates=drum-strippers auger-stripper-plates=auger-strippers reel-reach=reel-reach-shown",
    "reel tines cut off": "tines-cut: reel-low=reel-clearance not-over-block=reel-clearance-block",
    "reel binds or tines turn badly": "reel-binds: follower-leading=cam-followers",
    "reel will not move fore and aft": "reel-stuck: pads-through=reel-slide-pads cylinder-leak=reel-cylinders air=reel-air",
    "header light or heavy in places, pushes soil": "light-heavy: preload-uneven=float-preload-foot pins-wrong=float-pins",
    "coupler drips": "coupler-drips: dirt=coupler-faces poppet=poppet-seal",
    "header signal missing or voltage wanders": "signal-wanders: pin-back=coupler-pin linkage=sensor-linkages not-plugged=lead-plugged",
    "shear bolt breaks on starting up": "shear-bolt: engaged-late=engaged-last wrong-bolt=shear-bolts auger-blocked tube-seized=telescoping-tube",
    "stripper header loses grain ahead of the hood": "stripper-loses: keyholes=fingers-worn shield=shield-worn",
    "header bounces / drops": "bounces-drops: linkage=sensor-linkages calibration-order lift-leak too-light=float-light",
    "meter current high": "meter-current: few-shims=singulator-shims debris=disc-debris bearing=meter-bearing",
    "skips": "skips: vacuum-leak=vacuum-seal vent worn-cells=disc-cells brush=brush-compare singulator-hard=singulator-setting wrong-disc=meter-crop",
    "doubles": "doubles: singulator-flat=singulator vacuum-high=fan-gauge wrong-disc=meter-crop",
    "seed rate off on all rows": "rate-off: wrong-crop=meter-crop wrong-bowl=bowl-crop hub-height vacuum=fan-gauge",
    "spacing uneven though the count is right": "spacing-uneven: bristles=brush-belt flights=belt-flights insert=exit-insert hub-height divots=feeder-wheels rolling=seed-rolls",
    "doubles with belt delivery": "doubles-belt: strip-worn=knock-off belt-far=belt-hand singulator",
    "skips with belt delivery": "skips-belt: wheel-packed=feeder-wheels",
    "seed at mixed depth in one furrow": "mixed-depth: guard-narrow=seed-tube-guard firmer=seed-firmer wheel-gap=gauge-wheel-gap",
    "seed beside or out of the furrow": "beside-furrow: outlet-nub=outlet-flow tube-nub=seed-tube-tip not-swinging=seed-tube-swing press-wheel discs-undersize=opener-disc-diameter",
    "row cleaner ploughs, coulter makes a false bottom": "cleaner-ploughs: nose-down=bar-angle arm-play=parallel-arm-play cleaner-low=row-cleaner coulter-low=coulter-depth",
    "one row late or uneven in the stand": "row-late: shallow=depth-handle latch=depth-handle-state tension=closing-spring cleaner=row-cleaner arm-play=parallel-arm-play depth-stop=arm-stop-pocket",
    "one row shallow": "row-shallow: stop-pocket=arm-stop-pocket handle-off=depth-handle throws=row-cleaner-throw arm-play=parallel-arm-play",
    "all rows shallow": "rows-shallow: bar-angle wings-light reference=depth-reference",
    "dry soil on the seed": "dry-soil: wheel-gap=gauge-wheel-gap contact-low=opener-contact",
    "furrow open behind": "furrow-open: frame-play=closing-play off-centre=closing-centre nose-down=bar-angle arm-play=parallel-arm-play spring=closing-spring",
    "furrow wall falls in before the seed": "wall-falls: load-low=down-force wheel-off=gauge-wheel-ground arm-play=parallel-arm-play",
    "shorted wire, burst hose in spring": "shorted-burst: dropped=hitch-hoses rub=wing-crossing",
    "a row reports fault": "row-fault: controller=row-controller motor=row-motor sensor=row-sensor wiring=row-wiring",
}
"""Symptom in the words of the trade: its key, and each cause with the look that proves it."""


def ways(family, posture=None):
    found = shortest(walk.ways(CATALOGUE.safety.moves), [posture or family.start])[posture or family.start]
    return {to: minutes for to, (minutes, _) in found.items()}


def at(symptom, *answers, family=COMBINE, suspicions=None, posture=None):
    told = [Answer(look, bad) for look, bad in answers]
    return traced(BY_KEY[symptom], SYMPTOMS.looks, family, suspicions or {}, told, ways(family, posture))


@pytest.mark.parametrize("line", TRADE)
def test_every_symptom_of_the_trade_has_its_causes(line):
    key, _, causes = TRADE[line].partition(": ")
    wanted = [(one.partition("=")[0], one.partition("=")[2] or one) for one in causes.split()]
    assert [(one.key, one.check) for one in BY_KEY[key].causes] == wanted


def test_no_symptom_is_one_the_trade_does_not_name():
    assert [one.key for one in SYMPTOMS.symptoms] == [text.partition(":")[0] for text in TRADE.values()]


def test_every_look_is_made_where_a_way_leads():
    for symptom in SYMPTOMS.symptoms:
        for name in symptom.families:
            family = CATALOGUE.families[name]
            for look in traced(symptom, SYMPTOMS.looks, family, {}, [], ways(family)).looks:
                assert look.posture in CATALOGUE.safety.postures, (symptom.key, look.key)


def test_something_else_is_always_among_the_causes():
    found = at("shakes")
    assert {one.key for one in found.causes} == {one.key for one in BY_KEY["shakes"].causes} | {ELSE}
    assert next(one for one in found.causes if one.key == ELSE).share == pytest.approx(0.1)
    assert sum(one.share for one in found.causes) == pytest.approx(1)


def test_a_bad_result_leaves_what_it_proves_and_a_good_one_rules_it_out():
    assert at("shakes", ("chopper-knives", True)).sure == "chopper-knife"
    found = at("shakes", ("chopper-knives", False))
    knife = next(one for one in found.causes if one.key == "chopper-knife")
    assert knife.ruled_out and knife.share == 0 and not found.sure
    assert "chopper-knives" not in [one.key for one in found.looks], "it was looked at"
    slugs = at("shakes", ("feeder-chain-tension", False))
    assert not next(one for one in slugs.causes if one.key == "slugging").ruled_out, "it only proves"


def test_nothing_is_certain_before_somebody_has_looked():
    found = at("shakes", suspicions={"fan-blade": suspect(1000, Signals(finding="stop"))})
    assert found.causes[0].share > 0.8 and not found.sure
    assert at("shakes", ("fan-blades", True), suspicions={"fan-blade": suspect(1000, Signals())}).sure == "fan-blade"


def test_all_ruled_out_leaves_something_else():
    looks = list(tracing_checks(BY_KEY["furrow-open"], SYMPTOMS.looks, PLANTER, {}))
    found = at("furrow-open", *[(look, False) for look in looks], family=PLANTER)
    assert found.all_clear and found.causes[0].key == ELSE and not found.sure


def test_what_contradicts_itself_leaves_nothing():
    found = at("shakes", ("chopper-knives", True), ("fan-blades", True))
    assert not found.looks and not found.sure


def test_why_is_said():
    looks = {one.key: one.why for one in at("shakes").looks}
    assert looks["chopper-knives"] == "It is chopper knife broken or missing in 27 % of cases, else that is ruled out."
    assert looks["feeder-chain-tension"].endswith("; nothing to see does not rule it out.")
    assert looks["runs-empty"].startswith("It is one of 7, chopper knife")


def test_where_the_machine_stands_counts():
    far = {one.key: one.way_minutes for one in at("shakes").looks}
    near = {one.key: one.way_minutes for one in at("shakes", posture="inside rear (tail and sieves), engine off").looks}
    assert near["chopper-knives"] == 0 < far["chopper-knives"]


def test_along_the_machine_the_chopper_comes_last():
    order = along_the_machine(tracing_checks(BY_KEY["shakes"], SYMPTOMS.looks, COMBINE, {}), SYMPTOMS.looks, COMBINE)
    front_to_tail = [order.index(look) for look in ("feeder-chain-tension", "cone-vanes", "shaker-arms", "chopper-knives")]
    assert front_to_tail == sorted(front_to_tail)
    assert sorted(order) == sorted(tracing_checks(BY_KEY["shakes"], SYMPTOMS.looks, COMBINE, {}))


def test_looks_in_one_posture_cost_one_way():
    moves = walk.ways(CATALOGUE.safety.moves)
    alone = minutes_along(["chopper-knives"], SYMPTOMS.looks, COMBINE, moves)
    both = minutes_along(["chopper-knives", "vanes"], SYMPTOMS.looks, COMBINE, moves)
    assert alone == 4 + 6 and both == alone + 5, "the tail is entered once"


def test_a_cause_is_listed_only_where_the_machine_has_its_look():
    platform, draper = (CATALOGUE.families[name] for name in ("auger-platform", "draper-header"))
    feeding = BY_KEY["uneven-feeding"]
    assert {one.key for one in causes_in(feeding, SYMPTOMS.looks, platform)} == {
        "auger-gap", "auger-finger-timing", "auger-stripper-plates", "reel-reach",
    }  # fmt: skip
    assert {one.key for one in causes_in(feeding, SYMPTOMS.looks, draper)} == {
        "side-belt-speed", "auger-height", "extensions", "finger-timing", "stripper-plates", "reel-reach",
    }  # fmt: skip


# ------------------------------------------------------------------ what speaks for a cause


def test_what_is_known_raises_a_cause():
    assert suspect(2, Signals()).weight == 2
    assert suspect(2, Signals(finding="due")).weight == 8
    found = suspect(
        1, Signals(finding="stop", used=1.1, changed_days=1, changed="fan belt renewed", noted="shakes", heard="it hums"), 2, 5
    )
    assert found.weight == pytest.approx((1 + 4) * 6 * 5 * 2.5 * 2 * 1.5)
    assert found.because == [
        "open finding: stop", "it hums", "worn past its limit", "fan belt renewed, yesterday", "the operator: shakes", "found here 2 of 5 times",
    ]  # fmt: skip
    assert suspect(1, Signals(used=0.85)).because == ["85 % of its wear used"]
    assert suspect(1, Signals(used=0.5, changed_days=90, changed="x")).weight == 1
    assert suspect(1, Signals(season="begin")) == Suspicion(1.5, ["usual when the season begins"])


def test_a_machine_is_in_its_season_by_its_date():
    date = dt.date(2027, 6, 20)
    days = {-61: "", -60: "begin", 0: "begin", 14: "begin", 15: "run", 150: "run", 151: ""}
    assert {day: season_now(date, date + dt.timedelta(days=day)) for day in days} == days
    assert season_now(None, date) == ""


def test_settings_are_usual_when_the_season_begins_and_wear_when_it_has_run():
    seasons = {one.key: one.season for one in (*BY_KEY["shakes"].causes, *BY_KEY["dirty-sample"].causes)}
    assert seasons["chopper-knife"] == "run" and seasons["concave-tight"] == "begin" and seasons["spacers-out"] == ""
    assert all(one.season != "run" for one in BY_KEY["rate-off"].causes), "a wrong disc is not worn into"


def test_a_suspicion_moves_the_next_look():
    assert at("shakes").looks[0].key != "fan-blades"
    raised = at("shakes", suspicions={"fan-blade": suspect(1, Signals(finding="stop", noted="fan howls"))})
    assert raised.causes[0].key == "fan-blade" and raised.looks[0].key == "fan-blades"
    assert raised.causes[0].because == ["open finding: stop", "the operator: fan howls"]


@given(st.data())
def test_whatever_is_answered_the_shares_are_one_or_nothing_is_left(data):
    symptom = data.draw(st.sampled_from(SYMPTOMS.symptoms))
    family = CATALOGUE.families[data.draw(st.sampled_from(symptom.families))]
    looks = list(tracing_checks(symptom, SYMPTOMS.looks, family, {}))
    answers = [(look, data.draw(st.booleans())) for look in data.draw(st.lists(st.sampled_from(looks), unique=True))]
    found = at(symptom.key, *answers, family=family)
    total = sum(one.share for one in found.causes)
    assert total == pytest.approx(1) or total == 0
    assert {one.key for one in found.looks} <= set(looks) - {look for look, _ in answers}


@given(st.data())
def test_following_the_proposals_with_true_answers_ends_at_the_cause(data):
    symptom = data.draw(st.sampled_from([one for one in SYMPTOMS.symptoms if all(cause.clears for cause in one.causes)]))
    family = CATALOGUE.families[data.draw(st.sampled_from(symptom.families))]
    cause = data.draw(st.sampled_from(causes_in(symptom, SYMPTOMS.looks, family)))
    checks = tracing_checks(symptom, SYMPTOMS.looks, family, {})
    answers = []
    while (found := at(symptom.key, *answers, family=family)).looks and not found.sure:
        look = found.looks[0].key
        answers.append((look, cause.key in checks[look].clears))
    left = [one.key for one in found.causes if not one.ruled_out and one.share > 0]
    assert cause.key in left
    assert all(checks[look].proves == [cause.key] or cause.key in checks[look].proves for look, bad in answers if bad)


# ------------------------------------------------------------------ from words to a symptom

NAMES = {station.key: station.name for station in COMBINE.stations}


@pytest.mark.parametrize(
    ("words", "first"),
    [
        ("rumbles left, tank full", ("shakes-loaded", "rumble-feeder")),
        ("the whole thing shakes from 900 rpm", ("shakes",)),
        ("knocks at the sieves", ("knock-a-stroke",)),
        ("cracked grain", ("cracked-grain",)),
        ("moisture not what the store says", ("moisture-differs",)),
        ("oil leak behind the sheave of the rotor", ("oil-behind-sheave",)),
    ],
)
def test_words_lead_to_the_symptom(words, first):
    found = search(words, SYMPTOMS.of(["rotary-combine"]), station_names=NAMES)
    assert found[0].symptom.key in first, [(hit.symptom.key, hit.score) for hit in found[:4]]
    assert found[0].hits


def test_signs_lead_to_it_without_a_word():
    found = search("", SYMPTOMS.of(["rotary-combine"]), Shows(station="shoe", sound="knock"))
    assert found[0].symptom.key == "knock-a-stroke"
    loaded = search("", SYMPTOMS.of(["rotary-combine"]), Shows(station="feeder", when="loaded", sound="rumble"))
    assert loaded[0].symptom.key == "shakes-loaded"


def test_nothing_said_lists_them_all_and_nonsense_none():
    listed = SYMPTOMS.of(["rotary-combine"])
    assert [hit.symptom for hit in search("", listed)] == listed
    assert search("xylophone", listed) == []


@given(st.sampled_from(SYMPTOMS.symptoms))
def test_its_own_name_finds_a_symptom(symptom):
    found = search(symptom.name, SYMPTOMS.symptoms)
    assert symptom.key in [hit.symptom.key for hit in found[:3]]
