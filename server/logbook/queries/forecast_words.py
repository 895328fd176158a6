"""What a forecast rests on and what was noticed in its history, in words."""

from collections.abc import Mapping
from typing import Any

from lumvek_core.counted import counted


def rests_on(place: Mapping[str, Any], fitted: str, *, alone: bool) -> str:
    n, others = place["n"], "" if alone else ", and what like places show"
    since = (
        f"since it was fitted, {fitted}"
        if fitted and place["start_known"]
        else "since it was first read; nobody noted when it was fitted"
    )
    if n == 0:
        return f"No reading {since}: the usual rate{others}."
    if n == 1:
        return f"One reading {since}: the usual rate{others}."
    return f"{n} readings {since}{others}."


def marked(place: Mapping[str, Any]) -> list[str]:
    marked = []
    if doubted := len(place["doubted"]):
        left_out = place["n"] > 1 or doubted > 1
        said = "does not fit the others" if doubted == 1 else "do not fit the others"
        marked.append(
            f"{counted(doubted, 'reading')} {said}{' and is left out of the line' if left_out and doubted == 1 else ''}."
        )
    if place["renewed"] is not None:
        marked.append(
            "Reads as good as new after a worn reading: taken as a part that was renewed without a note. Record its fitting."
        )
    if place["better"]:
        marked.append("Readings get better, which wear does not: measured in another way?")
    return marked
