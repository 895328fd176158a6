"""Which station of a machine a note in somebody's own words is about."""

import re
from collections import Counter

from .model import Family

_WORD = re.compile(r"[a-zà-ÿ]{4,}")
STEM = 5
"""Letters that two words must share from their beginning: elevator and elevators, chopper and chopping."""
LEAST = 2


def guess_station(family: Family, text: str) -> str:
    """The key of the station whose names the text uses most; empty where none, or two as much.

    A word of the station's own name counts three times, one of a check's name once, and a word that many stations use counts
    for none of them more than for another.
    """
    said = {word[:STEM] for word in _WORD.findall(text.lower())}
    scores: Counter[str] = Counter()
    for station in family.stations:
        own = {word[:STEM] for word in _WORD.findall(station.name.lower())}
        checks = {word[:STEM] for check in station.checks for word in _WORD.findall(check.name.lower())}
        scores[station.key] = 3 * len(said & own) + len(said & (checks - own))
    ranked = scores.most_common(2)
    if not ranked or ranked[0][1] < LEAST or (len(ranked) > 1 and ranked[1][1] == ranked[0][1]):
        return ""
    return ranked[0][0]
