"""What is usually found at a check that has nothing wrong, typed as a technician would."""

import datetime as dt

from lumvek_core.catalogue.model import Check
from lumvek_core.judgement import rules
from lumvek_core.units import plain


def usual(check: Check, counter_h: float, at: dt.datetime) -> list[str]:
    """Raw text of a sound reading, one for each figure."""
    return [f"{text} mbar" if check.unit == "mbar" else text for text in _figures(check, counter_h, at)]


def _figures(check: Check, counter_h: float, at: dt.datetime) -> list[str]:
    rule = check.rule
    match rule:
        case rules.WearRule():
            return [plain(rule.new + 0.35 * (rule.limit - rule.new), 1)]
        case rules.WindowRule():
            return [plain((rule.low + rule.high) / 2 if rule.target is None else rule.target, 1)]
        case rules.ContactRule():
            return ["49", "50", "48"]
        case rules.StretchRule():
            return [plain(1.012 * rule.pitch * rule.pitches, 1)]
        case rules.TravelRule():
            return ["18", "60"]
        case rules.BarRule():
            return ["545", "540"]
        case rules.DepthRule():
            return ["49", "51", "50"]
        case rules.SteppedRule():
            return [plain(0.8 * rule.limit, 1), "0"]
        case rules.RegisterRule():
            return ["1", "1 past"]
        case rules.IntervalRule():
            return [f"{counter_h - 120:.0f} h"] if rule.every_h else [(at - dt.timedelta(days=250)).date().isoformat()]
        case rules.CountRule():
            return ["0"]
        case rules.EvenRule() | rules.RecordRule():
            if check.kind == "note":
                return ["none"]
            short = check.key.rpartition(".")[2]
            return _SEVERAL.get(short) or [_FIGURES.get(short, "12")] * max(1, len(check.values))
        case _:
            return [rules.options(rule)[0].key]


_FIGURES = {
    "depth-handle": "7",
    "firmer-pin": "3",
    "closing-tension": "4",
    "closing-stagger": "2",
    "drum-arms": "212",
    "concave-front": "14",
    "concave-rear": "13",
    "deck-gap-front": "28",
    "deck-gap-rear": "31",
    "reel-cam": "3",
    "float-preload": "320",
    "centre-belt": "46",
    "sieve-opening-chaffer": "15",
    "sieve-opening-sieve": "9",
    "fan-gauge": "42",
    "speed-valves": "4",
    "folded-width": "5900",
    "lift-height": "410",
}

_SEVERAL = {"half-links": ["2", "0"], "feeder-half-links": ["1", "0"], "washers": ["1", "2"]}
