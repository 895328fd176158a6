"""The drawings that one points at: every station that a symptom names has its place in its family's drawing, and nothing else."""

import json

import pytest
from django.conf import settings

from lumvek_core.catalogue import load
from lumvek_core.coupled import short

CATALOGUE = load.shipped()
DRAWINGS = json.loads((settings.ROOT / "web/src/design/machineDrawings.json").read_text(encoding="utf-8"))


@pytest.mark.parametrize("family", CATALOGUE.families)
def test_every_station_where_something_shows_is_drawn(family):
    stations = {short(one.key) for one in CATALOGUE.families[family].stations}
    spoken = {key for one in CATALOGUE.symptoms.of([family]) for key in one.stations} & stations
    assert set(DRAWINGS[family]["regions"]) == spoken


def test_no_drawing_is_of_a_family_that_is_not_there():
    assert set(DRAWINGS) == set(CATALOGUE.families)
