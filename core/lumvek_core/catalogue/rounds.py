"""Which checks one round makes, and what it leaves out with the reason."""

from collections.abc import Collection, Iterable
from dataclasses import dataclass, field

from .model import Check

FULL = {"winter", "pre-season", "arrival"}
"""Times whose checks together are one full round."""
WHOLE = FULL | {"everything", "after-season"}
"""Rounds that look at a machine as a whole. Any other looks at little: however much of it was seen, the machine was not."""
SHED = {"winter", "pre-season"}
CHANGEOVER = "changeover"
"""What is set by crop, and what is done at every change of crop."""
FAULT = "fault"
"""The checks among the looks of a fault that is traced."""
OF_A_FEW = (CHANGEOVER, FAULT)
"""Rounds of a few checks, that begin on pages of their own and say nothing of the machine as a whole."""
BENCH, FIELD = "bench", "planting in the field"
"""Postures: meters on the bench are looked at in full in either of these times; some things are seen only while it works."""


def in_round(check: Check, phase: str) -> bool:
    """Whether a check belongs to a walk-around of this time; any time has all of them."""
    if not phase or phase == FAULT:
        return True
    if phase == CHANGEOVER:
        return check.rule.by_crop or phase in check.phases
    if phase == "everything":
        return bool(FULL & set(check.phases))
    if phase == "pre-season" or (phase in SHED and check.posture == BENCH):
        return bool(SHED & set(check.phases))
    return phase in check.phases


@dataclass(frozen=True)
class LeftOut:
    """Checks that a round leaves out for one reason: ``seen``, in a finished walk-around since the last season, or ``field``,
    for it can be seen only at work."""

    why: str
    checks: list[str] = field(default_factory=list)


def left_out(checks: Iterable[Check], phase: str, seen: Collection[str]) -> list[LeftOut]:
    """What a round leaves out. seen: the checks of which every place was seen since the last season.

    Before the season only what winter alone asks for may have been seen already; whatever is to be looked at again before the
    field stays, and meters stay whole. A full round leaves out what can be seen only in the field.
    """
    checks = list(checks)
    found = []
    if phase == "pre-season":
        again = [one.key for one in checks if "pre-season" in one.phases or one.posture == BENCH]
        found.append(LeftOut("seen", [one.key for one in checks if one.key in seen and one.key not in again]))
    if phase == "everything":
        found.append(LeftOut("field", [one.key for one in checks if one.posture == FIELD]))
    return [one for one in found if one.checks]
