"""When a first field is looked at again: a few days later, and whenever field, soil or residue are otherwise."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

FEW_DAYS, SEASON_DAYS, ONE_RUN_DAYS = 3, 60, 21
"""After so many days it is looked at a second time; so long ago is another season; two looks nearer than this are one."""


@dataclass(frozen=True)
class LookAgain:
    """state: idle (nobody set or looked at it lately), first (it works and nobody has looked), again (the second look is due),
    changed (the ground is otherwise since the last look), right. words: why, for a person. at: the last look."""

    state: Literal["idle", "first", "again", "changed", "right"]
    words: str = ""
    at: dt.datetime | None = None


def look_again(looked: Sequence[dt.datetime], ground: Sequence[tuple[dt.datetime, str]], now: dt.datetime) -> LookAgain:
    """looked: when first fields were looked at. ground: when it worked on which field and soil, in words, which are empty where
    nobody said. Both oldest first."""
    season = dt.timedelta(days=SEASON_DAYS)
    looks = [at for at in looked if now - at <= season]
    works = [(at, words) for at, words in ground if now - at <= season]
    if not looks:
        return LookAgain("first", "it works, and nobody has looked behind it") if works else LookAgain("idle")
    last = looks[-1]
    told = [(at, words) for at, words in works if words]
    then = next((words for at, words in reversed(told) if at <= last), None)
    since = told[-1][1] if told else None
    if then is not None and since != then:
        return LookAgain("changed", f"{since}; it was looked at on {then}", last)
    second = any(last - at <= dt.timedelta(days=ONE_RUN_DAYS) for at in looks[:-1])
    days = (now - last).days
    if not second and days >= FEW_DAYS:
        return LookAgain("again", f"looked at {days} days ago, and once only", last)
    return LookAgain("right", at=last)
