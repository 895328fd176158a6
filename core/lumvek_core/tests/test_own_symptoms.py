"""What a shop adds: a cause that it has found, a symptom that nobody listed; both are traced like the trade's own."""

from dataclasses import replace

import pytest

from lumvek_core.catalogue import load
from lumvek_core.catalogue.own_symptoms import CHECK_MINUTES, OwnCause, cause_complaints, symptom_complaints, with_own
from lumvek_core.catalogue.symptoms import Look, Symptom, SymptomCause
from lumvek_core.faults.trace import Answer, traced

CATALOGUE = load.shipped()
COMBINE = CATALOGUE.families["rotary-combine"]
INSIDE = "inside rear (tail and sieves), engine off"
PULLEY = OwnCause(
    "shakes",
    SymptomCause("own-1", "Chopper pulley cracked", 2, "own-look-1"),
    Look(6, "Pulley of the chopper", INSIDE, "Lamp on the hub: a crack from the keyway."),
)
SQUEAL = Symptom("own-squeal", "Squeals on a cold morning", ["rotary-combine"], ["threshing"], [])


def by_key(symptoms, key):
    return next(one for one in symptoms.symptoms if one.key == key)


def test_a_cause_of_the_shops_own_is_traced_like_any_other():
    mine = with_own(CATALOGUE.symptoms, [], [PULLEY])
    shakes = by_key(mine, "shakes")
    assert [one.key for one in shakes.causes][-1] == "own-1" and len(shakes.causes) == 9
    found = traced(shakes, mine.looks, COMBINE, {}, [], {})
    look = next(one for one in found.looks if one.key == "own-look-1")
    assert (look.name, look.posture, look.minutes) == ("Pulley of the chopper", INSIDE, 6)
    assert traced(shakes, mine.looks, COMBINE, {}, [Answer("own-look-1", True)], {}).sure == "own-1"
    assert len(by_key(CATALOGUE.symptoms, "shakes").causes) == 8, "the trade's own stay as they are"


def test_a_symptom_of_the_shops_own_has_the_causes_it_was_given():
    belt = OwnCause("own-squeal", SymptomCause("own-2", "Fan belt loose", 3, "fan-belt"))
    mine = with_own(CATALOGUE.symptoms, [SQUEAL], [belt])
    assert [one.name for one in by_key(mine, "own-squeal").causes] == ["Fan belt loose"]
    assert mine.looks["fan-belt"].minutes == CHECK_MINUTES
    assert mine.of(["rotary-combine"])[-1].key == "own-squeal" and not any(
        one.key == "own-squeal" for one in mine.of(["row-crop-planter"])
    )


def test_a_check_that_the_trade_looks_at_keeps_its_minutes():
    mine = with_own(CATALOGUE.symptoms, [], [OwnCause("shakes", SymptomCause("own-3", "Vanes", 1, "vanes"))])
    assert mine.looks["vanes"] == CATALOGUE.symptoms.looks["vanes"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"name": ""}, "name"),
        ({"families": ["tractor"]}, "family"),
        ({"families": []}, "family"),
        ({"stations": ["x"]}, "stations"),
    ],
)
def test_a_symptom_says_what_where_and_of_which_machine(change, field):
    assert list(symptom_complaints(SQUEAL, CATALOGUE.families)) == []
    assert [name for name, _ in symptom_complaints(replace(SQUEAL, **change), CATALOGUE.families)] == [field]


@pytest.mark.parametrize(
    ("cause", "look", "field"),
    [
        ({"name": ""}, {}, "name"),
        ({"name": "residue on the ROTOR"}, {}, "name"),
        ({}, {"name": ""}, "look"),
        ({}, {"posture": "on its head"}, "posture"),
        ({}, {"how": ""}, "how"),
        ({"check": "seed-tube-tip"}, None, "check"),
    ],
)
def test_a_cause_says_what_shows_it(cause, look, field):
    def complaints(one):
        shakes = by_key(CATALOGUE.symptoms, "shakes")
        return [name for name, _ in cause_complaints(one, shakes, CATALOGUE.families, CATALOGUE.safety.postures)]

    assert complaints(PULLEY) == []
    wrong = None if look is None else replace(PULLEY.look, **look)
    assert complaints(replace(PULLEY, cause=replace(PULLEY.cause, **cause), look=wrong)) == [field]
