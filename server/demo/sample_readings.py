"""What is usually found at a check that has nothing wrong, typed as a technician would."""

import datetime as dt

from lumvek_core import coupled
from lumvek_core.catalogue.model import Check
from lumvek_core.rules.even import EvenRule
from lumvek_core.rules.fall import FallRule
from lumvek_core.rules.record import RecordRule


def usual(check: Check, counter_h: float, at: dt.datetime) -> list[str]:
    """Raw text of a sound reading, one for each figure."""
    return [f"{text} mbar" if check.unit == "mbar" else text for text in _figures(check, counter_h, at)]


def _figures(check: Check, counter_h: float, at: dt.datetime) -> list[str]:
    """Where a rule cannot say what is usual, for it only compares or writes down, the check does."""
    short = coupled.short(check.key)
    if check.kind != "note" and isinstance(check.rule, EvenRule | RecordRule | FallRule):
        figure = _FIGURES.get(short)
        return (
            _SEVERAL.get(short)
            or (figure and [figure] * max(1, len(check.values)))
            or check.rule.sample(check, counter_h, at.date())
        )
    return check.rule.sample(check, counter_h, at.date())


_FIGURES = {
    "depth-handle": "7",
    "firmer-pin": "3",
    "closing-tension": "4",
    "closing-stagger": "2",
    "gauge-wheel-hole": "3",
    "singulator-setting": "4",
    "seed-door": "5",
    "float-preload-cab": "30",
    "drum-arms": "212",
    "concave-front": "14",
    "concave-rear": "13",
    "deck-gap-front": "28",
    "deck-gap-rear": "31",
    "reel-cam": "3",
    "float-preload": "320",
    "centre-belt-bolts": "0.5",
    "sieve-opening-chaffer": "15",
    "sieve-opening-sieve": "9",
    "fan-gauge": "42",
    "speed-valves": "4",
    "folded-width": "5900",
    "lift-height": "410",
}

_SEVERAL = {"half-links": ["2", "0"], "tailings-half-links": ["3", "0"], "feeder-half-links": ["1", "0"], "washers": ["1", "2"]}
