"""What is to be set otherwise on a machine for the crop that comes, and in which order."""

from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Annotated

from ..bounds import AtMost, AtMostNamed, Within
from ..errors import BadInput
from ..registry import calculator_at_length
from .route import RouteCheck, RouteGiven, posture_route
from .shortest import RouteMove

SOON_DAYS = 21
"""What would be changed back within so many days is changed for one field."""


@dataclass(frozen=True)
class Item:
    """One thing that is set by crop. places: how each of its places stands; null where nobody knows. wants: crop → the states
    it would have, the best first; a crop that is not there asks for nothing. minutes: to set one place. lasting: not worth
    changing for a crop that is followed by another soon. by_manual: crops for which the machine's manual alone says how.
    always: done at every change of crop, however it stands. alike: its places stand alike whatever the crop.
    """

    key: str
    posture: str
    station: int
    places: Annotated[dict[str, str | None], AtMostNamed(200)]
    wants: Annotated[dict[str, Annotated[list[str], AtMost(60)]], AtMostNamed(60)] = field(default_factory=dict)
    minutes: Annotated[float, Within(0, 600)] = 10
    hands: Annotated[int, Within(1, 2)] = 1
    lasting: bool = False
    by_manual: Annotated[list[str], AtMost(60)] = field(default_factory=list)
    always: bool = False
    alike: bool = True
    after: Annotated[list[str], AtMost(60)] = field(default_factory=list)


@dataclass(frozen=True)
class ChangeoverGiven:
    """then_crop, then_days: the crop after that, and in how many days it comes; empty and null where nobody knows."""

    items: Annotated[list[Item], AtMost(200)]
    crop: str
    moves: Annotated[list[RouteMove], AtMost(300)]
    start: str
    then_crop: str = ""
    then_days: Annotated[int, Within(0, 400)] | None = None


@dataclass(frozen=True)
class PlaceChange:
    place: str
    now: str
    to: str


@dataclass(frozen=True)
class ToChange:
    """back: the crop after that would have it changed back."""

    key: str
    places: list[PlaceChange]
    minutes: float
    back: bool


@dataclass(frozen=True)
class ToAsk:
    key: str
    places: list[str]


@dataclass(frozen=True)
class ChangeVisit:
    """One stay in a posture: what is looked at or set there, in order. minutes: of the way there."""

    posture: str
    via: list[str]
    minutes: float
    keys: list[str]


@dataclass(frozen=True)
class Changeover:
    """ask: looked at first, for nobody knows. change: set otherwise. manual: set as the manual says. do: done at every change.
    right: stand as they should. kept: left as they are, though the crop would have them otherwise, for they would be changed
    back soon. hands: at once, at most."""

    ask: list[ToAsk]
    change: list[ToChange]
    manual: list[str]
    do: list[str]
    right: list[str]
    kept: list[str]
    visits: list[ChangeVisit]
    moving_min: float
    work_min: float
    hands: int


@calculator_at_length()
def changeover(given: ChangeoverGiven) -> Changeover:
    """What stands otherwise than the crop that comes would have it, grouped by posture with the least moving of the machine.

    A place that stands in one of the wanted states is right, as long as like places stand alike; one that does not is set to
    the state most of its like places have right, else to the best. A place nobody knows is asked. An item is left out where the
    crop asks for nothing of it. A lasting item is kept where the crop after that comes within 21 days and wants it as it stands
    now. Work is Σ minutes·places of what is set or done. Bad input: an id twice, an unknown `after`, postures no move leads to.
    """
    soon = given.then_days is not None and given.then_days <= SOON_DAYS
    keys = [item.key for item in given.items]
    if len(set(keys)) < len(keys):
        raise BadInput("items", "an id stands there twice")
    ask: list[ToAsk] = []
    change: list[ToChange] = []
    manual: list[str] = []
    do: list[str] = []
    right: list[str] = []
    kept: list[str] = []
    for item in given.items:
        wanted = item.wants.get(given.crop, [])
        if item.always:
            do.append(item.key)
            continue
        if given.crop in item.by_manual:
            manual.append(item.key)
            continue
        if not wanted:
            continue
        unknown = [place for place, state in item.places.items() if state is None]
        moved = _moved(item, wanted)
        then = item.wants.get(given.then_crop, [])
        if moved and item.lasting and soon and then and all(one.now in then for one in moved):
            kept.append(item.key)
            continue
        if unknown:
            ask.append(ToAsk(item.key, unknown))
        if moved:
            back = bool(then) and any(one.to not in then for one in moved)
            change.append(ToChange(item.key, moved, item.minutes * len(moved), back))
        if not unknown and not moved:
            right.append(item.key)
    listed = {*(one.key for one in ask), *(one.key for one in change), *manual, *do}
    visits, moving = _way(given, listed)
    items = [item for item in given.items if item.key in listed]
    return Changeover(
        ask=ask,
        change=change,
        manual=manual,
        do=do,
        right=right,
        kept=kept,
        visits=visits,
        moving_min=moving,
        work_min=sum(one.minutes for one in change) + sum(item.minutes for item in items if item.key in (*manual, *do)),
        hands=max((item.hands for item in items), default=1),
    )


def _moved(item: Item, wanted: Sequence[str]) -> list[PlaceChange]:
    known = {place: state for place, state in item.places.items() if state is not None}
    to = _to(known, wanted)
    return [
        PlaceChange(place, state, to) for place, state in known.items() if state not in wanted or (item.alike and state != to)
    ]


def _to(known: Mapping[str, str], wanted: Sequence[str]) -> str:
    """What is set: as most places stand right already, else what is best."""
    standing = Counter(state for state in known.values() if state in wanted)
    return max(wanted, key=lambda state: (standing[state], -wanted.index(state)))


def _way(given: ChangeoverGiven, listed: set[str]) -> tuple[list[ChangeVisit], float]:
    if not listed:
        return [], 0.0
    known = {item.key for item in given.items}
    for i, item in enumerate(given.items):
        for key in item.after:
            if key not in known:
                raise BadInput(f"items.{i}.after", f"there is no item {key}")
    checks = [
        RouteCheck(item.key, item.posture, item.station, [key for key in item.after if key in listed])
        for item in given.items
        if item.key in listed
    ]
    found = posture_route(RouteGiven(checks, given.moves, given.start))
    return [ChangeVisit(one.posture, one.via, one.minutes, one.ids) for one in found.visits], found.minutes
