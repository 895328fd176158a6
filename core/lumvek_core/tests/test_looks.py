"""What good and bad look like: every state that eye or finger decides has a drawing of its own, made from numbers."""

import re
from pathlib import Path

import pytest

from lumvek_core.catalogue import load
from lumvek_core.catalogue.resolve import LOOKED_AT
from lumvek_core.looks.__main__ import as_json
from lumvek_core.looks.motif import Figures, look, motifs
from lumvek_core.looks.strokes import HEIGHT, WIDTH
from lumvek_core.looks.wanted import looks_of, motif_of

CHECKS = {check.key: check for family in load.shipped().families.values() for check in family.checks.values()}
LOOKED = {key: check for key, check in CHECKS.items() if check.kind in LOOKED_AT and check.rule.kind != "record"}
WRITTEN = Path(__file__).parents[3] / "web/src/design/looks/looks.json"
EDGE = 8
"""A mark beside the matter may stand out of the frame by so much."""


def test_no_check_that_eye_or_finger_decides_is_without_a_look():
    assert len(LOOKED) > 200
    assert [key for key, check in LOOKED.items() if not looks_of(check)] == []


@pytest.mark.parametrize("key", sorted(LOOKED))
def test_the_states_of_a_check_can_be_told_apart_from_its_sound_one(key):
    sound, *others = [look(one.motif, one.state) for one in looks_of(LOOKED[key])]
    assert sound
    severities = [state.severity for state in LOOKED[key].rule.states()][1:] or ["due"] * len(others)
    for drawn, severity in zip(others, severities, strict=True):
        assert drawn and (drawn != sound or severity == "sound"), key


@pytest.mark.parametrize("name", motifs())
def test_drawings_stay_in_their_frame_and_wear_changes_them_step_by_step(name):
    drawn = [motifs()[name].draw(Figures(wear=wear, place=0.3)) for wear in (0, 0.5, 1)]
    for strokes in drawn:
        for stroke in strokes:
            figures = [float(one) for one in re.findall(r"-?\d+(?:\.\d+)?", stroke.d.split("a")[0])]
            assert all(-EDGE <= one <= max(WIDTH, HEIGHT) + EDGE for one in figures), stroke
    assert drawn[0] == motifs()[name].draw(Figures(place=0.3)), "the same figures draw the same"


def test_a_bearing_says_what_fingers_and_ears_tell():
    words = [one.words for one in looks_of(CHECKS["drum-bearings"])]
    assert len(words) == 5 and all(words)


def test_oil_is_drawn_at_a_dipstick_or_in_a_sight_glass():
    assert motif_of(CHECKS["engine-oil"]) == "dipstick" and motif_of(CHECKS["draper.main-reservoir"]) == "sight"


def test_what_the_screens_draw_is_what_the_core_draws():
    assert WRITTEN.read_text(encoding="utf-8") == as_json(), "bash scripts/api_types.sh writes it"
