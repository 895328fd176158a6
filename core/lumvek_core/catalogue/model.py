"""What a catalogue file may say. These dataclasses are the schema: a field that is not here is refused with its path.

`catalogue/schemas/` is written from them, so an editor can help while typing.
"""

from collections.abc import Collection
from dataclasses import dataclass, field
from functools import cached_property
from typing import Annotated, Literal

from .. import structure
from ..bounds import Over, Within
from ..rules import kinds
from ..rules.base import Answers, Rule
from ..rules.verdict import Action

# Any kind may stand where a rule is asked for.
structure.family(Rule, lambda: tuple(kinds.kinds().values()))

Unit = Literal["mm", "N", "Nm", "hole", "notch", "washers", "turns", "deg", "A", "h", "mbar", "bar", "%", "l"]
Phase = Literal[
    "after-season", "winter", "pre-season", "first-field", "daily", "crop-change", "changeover", "arrival", "emergence"
]
At = Literal["same", "across", "row", "machine"]
Crop = Literal["small-grain", "pod", "ear", "fine-seed"]
Order = Literal["", "first", "last"]
Drawing = Literal[
    "disc",
    "contact",
    "gauge-wheel-gap",
    "scale",
    "chain",
    "take-up",
    "register",
    "hold-downs",
    "chopper",
    "bar",
    "furrow",
    "even",
]


@dataclass(frozen=True)
class PartUse:
    """A part a finding asks for. at: same position, the side across, once for the row, or once for the machine (a set).

    options: only with these states; places: only of findings at these positions. hand: which of a handed part, where the place
    does not say it.
    """

    slot: str
    quantity: Annotated[int, Over(0)] = 1
    at: At = "same"
    when: list[Action] = field(default_factory=lambda: ["replace"])
    options: list[str] = field(default_factory=list)
    places: list[str] = field(default_factory=list)
    hand: Literal["", "L", "R"] = ""


@dataclass(frozen=True)
class Wears:
    """How a part that is measured wears, and what it means when it fails at work. Starting values; a machine's own history
    outweighs them.

    life: use from new to its limit, in the family's counter; spread: one standard deviation of its rate, as a share. labour_h:
    to renew it in the shop; field_labour_h and downtime_h: hours of work and of standing where it fails in the field; p_fail:
    chance that it does once past its limit; secondary_cost: of what it breaks, in the shop's money.
    """

    life: Annotated[float, Over(0)]
    spread: Annotated[float, Over(0)] = 0.5
    labour_h: Annotated[float, Within(0)] = 0.5
    field_labour_h: Annotated[float, Within(0)] = 1.0
    downtime_h: Annotated[float, Within(0)] = 1.0
    p_fail: Annotated[float, Within(0, 1)] = 0.5
    secondary_cost: Annotated[float, Within(0)] = 0.0


@dataclass(frozen=True)
class Setting:
    """What it takes to set something by crop, at one of its places."""

    minutes: Annotated[float, Over(0)] = 10
    hands: Annotated[int, Within(1, 2)] = 1


@dataclass(frozen=True)
class Check:
    """One thing looked at or measured at a station.

    per: how often, see `positions`. posture: where it is another than its station's. values: names of several figures typed for
    one position (three places round a disc). reading_error: one standard deviation of the reading, in its unit. plausible: a
    range outside which the product asks. source: where the figures of the rule come from. wears: where it is forecast. setting:
    what it takes to set it, of what is set by crop. order: before (clean) or after (grease) everything else at its station.
    after: checks that must be done before. It is made where the machine has `option`, all of `needs` and none of `unless`, in
    these `phases`, for these `crops` and with these `headers` (families); empty means any. look: the motif whose drawings show
    its states. together: what is judged as one with others of this name, and stands on one screen with them. noted_at: the
    station where what is found of it in the field is looked at in winter; its own where that is empty.
    """

    key: str
    name: str
    per: str
    kind: Answers
    how: str
    rule: Rule
    why: str = ""
    unit: Unit | None = None
    posture: str = ""
    order: Order = ""
    values: list[str] = field(default_factory=list)
    source: str = "starting value"
    reading_error: Annotated[float, Over(0)] | None = None
    plausible: list[float] = field(default_factory=list)
    action: Action = "replace"
    remedy: str = ""
    parts: list[PartUse] = field(default_factory=list)
    wears: Wears | None = None
    setting: Setting | None = None
    tools: list[str] = field(default_factory=list)
    hazards: list[str] = field(default_factory=list)
    phases: list[Phase] = field(default_factory=lambda: ["winter"])
    after: list[str] = field(default_factory=list)
    option: str | None = None
    needs: list[str] = field(default_factory=list)
    unless: list[str] = field(default_factory=list)
    crops: list[Crop] = field(default_factory=list)
    headers: list[str] = field(default_factory=list)
    drawing: Drawing | None = None
    look: str = ""
    together: str = ""
    noted_at: str = ""
    safety: bool = False
    apart: bool = False
    optional: bool = False
    often_missed: bool = False

    @property
    def wanted_options(self) -> list[str]:
        """The options that a machine must have for it."""
        return [*([self.option] if self.option else []), *self.needs]

    def made_with(self, options: Collection[str]) -> bool:
        """Whether it is made on a machine that has these options."""
        return all(one in options for one in self.wanted_options) and not any(one in options for one in self.unless)

    @property
    def own_parts(self) -> list[PartUse]:
        """The parts that are looked at here: those a finding renews or turns."""
        return [part for part in self.parts if {"replace", "turn"} & set(part.when)]

    @property
    def renewed_parts(self) -> list[PartUse]:
        """The parts that are renewed when it is due."""
        return [part for part in self.parts if "replace" in part.when]


@dataclass(frozen=True)
class Station:
    """A place on the machine, with the state the machine must be in. round: its turn for whoever walks once round the
    machine.
    """

    key: str
    name: str
    posture: str
    checks: list[Check]
    round: int | None = None


@dataclass(frozen=True)
class Thing:
    """Something there are several of: a number of them, which a model may replace, or places with names."""

    name: str
    count: Annotated[int, Within(0)] = 0
    places: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Slot:
    """A part's place in a parts book. handed: left and right are different parts. unit: what it is counted in.

    consumable: used up with the work (oil, grease, ties): it goes on the list, and no wear history begins with it.
    """

    name: str
    handed: bool = False
    note: str = ""
    unit: Literal["", "l", "g", "m"] = ""
    consumable: bool = False


@dataclass(frozen=True)
class SharedHead:
    """What several families have alike: a folder of `shared/`. route: its stations, each a file of that name in the folder."""

    route: list[str]
    slots: dict[str, Slot] = field(default_factory=dict)
    options: dict[str, str] = field(default_factory=dict)
    things: dict[str, Thing] = field(default_factory=dict)


@dataclass(frozen=True)
class FamilyHead:
    """A kind of machine, but for its stations: the file `family.yaml` of its folder.

    route: its stations in working order, each a file of that name in the folder. is_header: coupled to a combine and inspected
    with it or on its own. prefix: put before its keys, so that a header and a combine, or two headers, stand in one rule book.
    takes_headers: headers are coupled to it. counter: what its use is counted in; season_use: a usual season's, until the
    machine's own are known. include: folders of `shared/` whose stations come before its own.
    """

    family: str
    name: str
    flow: str
    options: dict[str, str] = field(default_factory=dict)
    things: dict[str, Thing] = field(default_factory=dict)
    slots: dict[str, Slot] = field(default_factory=dict)
    route: list[str] = field(default_factory=list)
    prefix: str = ""
    is_header: bool = False
    takes_headers: bool = False
    start: str = ""
    counter: Literal["h", "ha"] = "ha"
    season_use: Annotated[float, Over(0)] = 240
    include: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class Family(FamilyHead):
    """A kind of machine with its stations from first to last, those it shares before its own."""

    stations: list[Station] = field(default_factory=list)

    @cached_property
    def checks(self) -> dict[str, Check]:
        """All checks by key, in working order."""
        return {check.key: check for station in self.stations for check in station.checks}
