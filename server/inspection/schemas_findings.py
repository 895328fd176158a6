"""What the pages of findings and parts give."""

from typing import Literal

from pydantic import BaseModel as Schema

from parts.schemas import PartOut

from .schemas import MachineOut, PhotoOut, PlaceOut, SeverityName, StationOut, WalkAroundBrief


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


class FindingsOut(Schema):
    """foreseen: the machine and its headers, whose forecasts rest on these readings; empty where newer ones are there.

    seen: places of `places` that somebody looked at.
    """

    foreseen: list[int]
    seen: int
    places: int
    walk_around: WalkAroundBrief
    machine: MachineOut
    groups: list[FindingGroupOut]
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
    may_decide: bool
