"""What the changeover of a machine is given: what stands otherwise than the crop that comes would have it."""

import uuid
from typing import Annotated, Literal

# Not the API framework's own base: it wraps every instance once more when a list of hundreds is sent.
from pydantic import BaseModel as Schema
from pydantic import Field

from .schemas import CropName, MachineOut


class ChangeoverAsked(Schema):
    """crop: the group of the one that comes. headers: machines that are coupled then. then_crop, then_days: the crop after
    that, and in how many days it comes."""

    crop: CropName = ""
    headers: Annotated[list[int], Field(max_length=6)] = []
    then_crop: CropName = ""
    then_days: Annotated[int, Field(ge=0, le=400)] | None = None


class ChangePlaceOut(Schema):
    """now, to: in words; now is empty where nobody knows, and to where it is only looked at. now_state, to_state: their keys,
    for drawings."""

    label: str
    now: str
    now_state: str
    to: str
    to_state: str


class WantedStateOut(Schema):
    """wanted: by the crop that comes."""

    key: str
    name: str
    wanted: bool


class ChangeItemOut(Schema):
    """todo: ``set`` otherwise, ``ask`` how it stands first, ``manual``: as it says, or ``do`` as at every change. back: it is
    changed back afterwards. states: all it may stand in. grave: left as it is, the machine does not go out."""

    check: str
    name: str
    station: str
    todo: Literal["set", "ask", "manual", "do"]
    places: list[ChangePlaceOut]
    states: list[WantedStateOut]
    how: str
    mends: str
    look: str
    minutes: float
    hands: int
    back: bool
    grave: bool
    tools: list[str]
    cautions: list[str]


class ChangeVisitOut(Schema):
    posture: str
    lock: str
    cautions: list[str]
    minutes: float
    items: list[ChangeItemOut]


class CalibrationAheadOut(Schema):
    """because: what the change makes it due by, in words."""

    key: str
    name: str
    because: str


class GrownOut(Schema):
    name: str
    group: CropName


class ChangeoverOut(Schema):
    """right: items that stand as they should. kept: left as they are, for they would be changed back soon. running: a
    changeover that is under way. coupled: headers that were coupled last."""

    machine: MachineOut
    headers: list[MachineOut]
    coupled: list[int]
    grown: list[GrownOut]
    running: uuid.UUID | None
    visits: list[ChangeVisitOut]
    right: list[str]
    kept: list[str]
    tools: list[str]
    moving_min: float
    work_min: float
    hands: int
    calibrations: list[CalibrationAheadOut]
