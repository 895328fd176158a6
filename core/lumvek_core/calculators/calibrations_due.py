"""Which calibrations what happened made due, and in which order they are done."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import AtMost
from ..errors import BadInput
from ..registry import calculator
from .common import moment

CALIBRATED = "calibrated:"
"""Prefix of the event that another calibration was saved."""


@dataclass(frozen=True)
class GoesAfter:
    """Another calibration that goes before, and why."""

    key: str
    because: str


@dataclass(frozen=True)
class Known:
    """A calibration. due_after: events that make it due; ``calibrated:<key>``: that another one was saved. saved: when it was
    saved last, ISO; null: never that anybody knows."""

    key: str
    due_after: Annotated[list[str], AtMost(60)]
    after: Annotated[list[GoesAfter], AtMost(20)] = field(default_factory=list)
    saved: str | None = None


@dataclass(frozen=True)
class Happened:
    """Something that makes calibrations due. words: what it was."""

    event: str
    at: str
    words: str = ""


@dataclass(frozen=True)
class CalibrationsGiven:
    """Moments are ISO, local, without a zone."""

    calibrations: Annotated[list[Known], AtMost(100)]
    events: Annotated[list[Happened], AtMost(2000)]


@dataclass(frozen=True)
class Due:
    """because: what happened since it was saved, the newest first. first: those of the due ones that go before, and why."""

    key: str
    because: list[Happened]
    first: list[GoesAfter]


@dataclass(frozen=True)
class CalibrationsDue:
    """due: in the order they are done. right: nothing happened since they were saved. never: nothing happened that asks for
    them, and nobody knows that they were ever saved."""

    due: list[Due]
    right: list[str]
    never: list[str]


@calculator
def calibrations_due(given: CalibrationsGiven) -> CalibrationsDue:
    """The calibrations that something made due since each was saved last, in the order they are done.

    One is due where one of its events happened later than it was saved, or at all where it never was. That another one was
    saved is an event too, so that one that rests on it comes due again. Those that go before come first, otherwise the order
    given holds. An aborted one was not saved. Bad input: an id twice, unknown ids in `after`, a circle, moments that are none.
    """
    keys = [one.key for one in given.calibrations]
    if len(set(keys)) < len(keys):
        raise BadInput("calibrations", "an id stands there twice")
    order = _ordered(given)
    saved = {one.key: moment(one.saved, f"calibrations.{i}.saved") for i, one in enumerate(given.calibrations) if one.saved}
    happened = [*given.events, *(Happened(CALIBRATED + one.key, one.saved) for one in given.calibrations if one.saved)]
    events = [(moment(one.at, f"events.{i}.at"), i, one) for i, one in enumerate(happened)]
    because: dict[str, list[Happened]] = {}
    for calibration in given.calibrations:
        last = saved.get(calibration.key)
        mine = [found for found in events if found[2].event in calibration.due_after and (last is None or found[0] > last)]
        if mine:
            because[calibration.key] = [event for *_, event in sorted(mine, key=lambda found: found[:2], reverse=True)]
    by_key = {one.key: one for one in given.calibrations}
    return CalibrationsDue(
        due=[
            Due(key, because[key], [before for before in by_key[key].after if before.key in because])
            for key in order
            if key in because
        ],
        right=[key for key in keys if key not in because and key in saved],
        never=[key for key in keys if key not in because and key not in saved],
    )


def _ordered(given: CalibrationsGiven) -> list[str]:
    """The keys, each behind those that go before it, otherwise as given. Raises BadInput."""
    left: dict[str, set[str]] = {one.key: {before.key for before in one.after} for one in given.calibrations}
    for i, one in enumerate(given.calibrations):
        for k, before in enumerate(one.after):
            if before.key not in left:
                raise BadInput(f"calibrations.{i}.after.{k}.key", f"there is no calibration {before.key}")
    found: list[str] = []
    while left:
        ready = _first_ready(left)
        if ready is None:
            raise BadInput("calibrations", f"wait for each other: {', '.join(sorted(left)[:5])}")
        found.append(ready)
        del left[ready]
    return found


def _first_ready(left: Mapping[str, set[str]]) -> str | None:
    return next((key for key, waits in left.items() if not waits & left.keys()), None)
