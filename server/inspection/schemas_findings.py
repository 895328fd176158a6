"""What the pages of findings and parts give."""

from typing import Annotated, Literal

from pydantic import BaseModel as Schema
from pydantic import Field

from parts.schemas import PartOut
from tabular.paging import ListAsked, PageOut

from .schemas import MachineOut, PhotoOut, PlaceOut, StationOut, WalkAroundBrief
from .schemas_plan import SeverityName


class FindingOut(Schema):
    place: PlaceOut
    name: str
    label: str
    parts: list[str]
    photos: list[PhotoOut]
    decision: Literal["do", "wait", "decline", "open"]
    until: str
    decision_reason: str
    decided_by: str


class FindingGroupOut(Schema):
    check: str
    name: str
    station: str
    severity: SeverityName
    safety: bool
    why: str
    findings: list[FindingOut]


class NotSeenOut(Schema):
    check: str
    label: str
    reason: str
    by: str


class FindingsAsked(ListAsked):
    """station: its key. order: the worst first, or as the machine is walked around."""

    severity: Literal["", "watch", "due", "stop"] = ""
    decision: Literal["", "open", "decided"] = ""
    station: Annotated[str, Field(max_length=80)] = ""
    order: Literal["worst", "station"] = "worst"


class FoundAtOut(Schema):
    """A station where something was found."""

    key: str
    name: str


class FindingsSum(Schema):
    """Findings of a walk-around, and those of them that nobody has decided."""

    all: int
    open: int


class DecidedOut(Schema):
    """The kind of finding that was decided, as it stands now; None where it is a finding no more."""

    group: FindingGroupOut | None
    sum: FindingsSum


class BeforeOut(Schema):
    """An earlier walk-around of the same machine, of which findings still stand: no place of them was looked at again."""

    walk_around: WalkAroundBrief
    findings: int
    stops: int


class FindingsOut(Schema):
    """before: earlier walk-arounds of which something still stands, of the newest one. foreseen: the machine and its headers,
    whose forecasts rest on these readings; empty where newer ones are there.

    seen: places of `places` that somebody looked at. groups: a page of them, a kind of finding each.
    """

    sum: FindingsSum
    page: PageOut
    found_at: list[FoundAtOut]

    foreseen: list[int]
    seen: int
    places: int
    walk_around: WalkAroundBrief
    machine: MachineOut
    groups: list[FindingGroupOut]
    before: list[BeforeOut]
    not_seen: list[NotSeenOut]
    stations: list[StationOut]
    may_decide: bool


class TaskOut(Schema):
    label: str
    text: str
    why: str


class PartsOut(Schema):
    walk_around: WalkAroundBrief
    machine: MachineOut
    parts: list[PartOut]
    tasks: list[TaskOut]
    before: list[BeforeOut]
    may_decide: bool
