"""Rules for oil at its mark and for what is done again after a time."""

import datetime as dt

from ..compare import reached
from ..units import plain
from .parse_reading import Value
from .rules import IntervalRule, LevelRule, Verdict, options

_LEVELS = {
    "low": "Low: top up, and look for the leak.",
    "high": "High: find out what has run in.",
    "milky": "Milky: water in the oil. Drain, find where it enters, new oil.",
}


def level(rule: LevelRule, value: Value) -> Verdict:
    state = next(option for option in options(rule) if option.key == value.choice)
    grade = f" {rule.grade} unless the case or the manual says another." if rule.grade else ""
    facts = {"state": float(options(rule).index(state)), "states": 4.0}
    return Verdict(
        state.severity,
        state.action,
        _LEVELS.get(state.key, "At its mark.") + (grade if state.key == "low" else ""),
        facts=facts,
    )


def interval(rule: IntervalRule, value: Value, counter_h: float | None, today: dt.date | None) -> Verdict:
    """Due when the interval is reached; what cannot be counted from here (no counter, no day) is only written down."""
    if value.numbers:
        if counter_h is None or rule.every_h is None:
            return Verdict(
                "sound", "none", f"Last done at {plain(value.numbers[0], 0)} h; no interval in hours to hold it against."
            )
        since, every, unit = counter_h - value.numbers[0], rule.every_h, "h"
        if since < 0:
            return Verdict(
                "watch",
                "recheck",
                f"Last done at {plain(value.numbers[0], 0)} h, but the counter stands at {plain(counter_h, 0)} h.",
            )
    else:
        if today is None or rule.every_days is None:
            return Verdict("sound", "none", f"Last done on {value.text}; no interval in days to hold it against.")
        since, every, unit = float((today - dt.date.fromisoformat(value.text)).days), rule.every_days, "days"
        if since < 0:
            return Verdict("watch", "recheck", f"Last done on {value.text}, which is still to come.")
    facts = {"since": since, "every": every}
    said = f"{plain(since, 0)} of {plain(every, 0)} {unit} since it was last done"
    if reached(since, every):
        return Verdict("due", "lubricate" if rule.every_h else "replace", f"{said}: due.", facts=facts, used=since / every)
    return Verdict("sound", "none", f"{said}; {plain(every - since, 0)} {unit} left.", facts=facts, used=since / every)
