"""Which looks a check shows: one for each of its states, or of what is counted the sound one and its faults."""

from dataclasses import dataclass

from ..catalogue.model import Check
from .motif import motifs

BY_KIND = {"bearing": "bearing", "level": "dipstick"}
"""Motifs of checks that need name none."""


@dataclass(frozen=True)
class Look:
    """A state of a motif. key: of the check's state; name: in words; words: what fingers and ears tell."""

    motif: str
    state: str
    name: str
    words: str = ""


def motif_of(check: Check) -> str:
    """The motif of a check; empty for one that is not decided by eye or finger."""
    return check.look or BY_KIND.get(check.kind, "")


def looks_of(check: Check) -> list[Look]:
    """What a check shows, in the order of its states."""
    found = motifs().get(motif_of(check))
    if found is None:
        return []
    states = check.rule.states()
    if not states:
        return [Look(motif_of(check), state, state.capitalize()) for state in found.counted]
    return [Look(motif_of(check), one.key, one.name, found.words.get(one.key, "")) for one in states]
