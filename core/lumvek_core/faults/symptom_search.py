"""Which symptom somebody's words, or where and how it shows, are about."""

import math
import re
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass

from ..catalogue.symptoms import Symptom

_WORD = re.compile(r"[a-zà-ÿ]{3,}")
STEM = 5
"""Letters that two words must share from their beginning: rumble and rumbles, shakes and shaking (shak)."""
NAME, ALSO, CAUSE, STATION = 3.0, 2.0, 1.0, 1.0
SIGN = 2.0
SMALL = frozenset(
    [
        "the",
        "and",
        "for",
        "with",
        "not",
        "does",
        "from",
        "when",
        "only",
        "its",
        "one",
        "two",
        "has",
        "have",
        "been",
        "all",
        "out",
        "off",
        "too",
        "very",
    ]
)


@dataclass(frozen=True)
class Shows:
    """Where, when and how it shows, what it follows; empty where nobody said."""

    station: str = ""
    when: str = ""
    sound: str = ""
    follows: str = ""


@dataclass(frozen=True)
class Hit:
    """hits: the words that were found in it."""

    symptom: Symptom
    score: float
    hits: list[str]


def search(
    text: str, symptoms: Sequence[Symptom], shows: Shows | None = None, station_names: Mapping[str, str] | None = None
) -> list[Hit]:
    """The symptoms that are spoken of, best first; all of them, in their order, where nothing was said.

    A word that few symptoms use tells more than one that many use. A sign that a symptom has speaks for it; one that it would
    show otherwise speaks against it. station_names: by key without a header's prefix.
    """
    said = {stem(word): word for word in _words(text)}
    names = station_names or {}
    stems = [_stems(one, names) for one in symptoms]
    hits = []
    for one, own in zip(symptoms, stems, strict=True):
        found = {key: weight for key, weight in own.items() if key in said}
        score = math.fsum(weight * _rare(key, stems) for key, weight in found.items())
        signs = _signs(one, shows or Shows())
        if said and not found and signs <= 0:
            continue
        if score + signs > 0 or not (said or signs):
            hits.append(Hit(one, score + signs, [said[key] for key in found]))
    return sorted(hits, key=lambda hit: -hit.score)


def stem(word: str) -> str:
    """What two forms of a word share."""
    word = re.sub(r"(ing|ed|es|s)$", "", word) if len(word) > 4 else word
    return word[:STEM].rstrip("e") if len(word) > 3 else word


def _words(text: str) -> list[str]:
    return [word for word in _WORD.findall(text.lower()) if word not in SMALL]


def _stems(one: Symptom, names: Mapping[str, str]) -> dict[str, float]:
    found: dict[str, float] = {}
    told = [
        (one.name, NAME),
        *((text, ALSO) for text in one.also),
        *((cause.name, CAUSE) for cause in one.causes),
        *((names.get(key, key), STATION) for key in one.stations),
        *((sign, STATION) for sign in (*one.signs.when, *one.signs.sound, *one.signs.follows)),
    ]
    for text, weight in told:
        for word in _words(text):
            found[stem(word)] = max(weight, found.get(stem(word), 0))
    return found


def _rare(key: str, stems: Sequence[Collection[str]]) -> float:
    return 1 + math.log(len(stems) / sum(key in one for one in stems))


def _signs(one: Symptom, shows: Shows) -> float:
    told: list[tuple[str, Collection[str]]] = [
        (shows.station, one.stations),
        (shows.when, one.signs.when),
        (shows.sound, one.signs.sound),
        (shows.follows, one.signs.follows),
    ]
    found = 0.0
    for sign, own in told:
        if sign and sign in own:
            found += SIGN
        elif sign and own and "always" not in own:
            found -= SIGN
    return found
