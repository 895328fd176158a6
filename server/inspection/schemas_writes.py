"""What the writes of an inspection take."""

import uuid
from typing import Literal

from pydantic import BaseModel as Schema
from pydantic import Field

from tabular.lengths import Key, Said
from tabular.moments import Moment

from .schemas import CropName, PhaseName


class StartIn(Schema):
    """at: when it was begun, where that was without a connection. why: a second one, where one is under way."""

    id: uuid.UUID
    at: Moment | None = None
    phase: PhaseName = "winter"
    crop: CropName = ""
    headers: list[int] = Field(default_factory=list, max_length=6)
    people: list[int] = Field(default_factory=list, max_length=6)
    take_in: bool = False
    why: str | None = Field(default=None, max_length=200)
    then_crop: CropName = ""
    then_days: int | None = Field(default=None, ge=0, le=400)


class PinPictureIn(Schema):
    uuid: uuid.UUID
    state: str = Field(default="", max_length=40)


class ReadingIn(Schema):
    uuid: uuid.UUID
    check: str = Field(max_length=60)
    position: str = Field(max_length=40)
    state: Literal["seen", "not-seen", "does-not-apply", "withdrawn"] = "seen"
    raw: list[Said] = Field(default_factory=list, max_length=8)
    feeler: str = Field(default="", max_length=30)
    units: Literal["", "mm", "in"] = ""
    reason: str = Field(default="", max_length=200)
    note: str = Field(default="", max_length=500)
    confirmed: bool = False
    bulk: bool = False
    posture: str = Field(default="", max_length=80)
    taken_at: Moment | None = None


class ReadingsIn(Schema):
    """What waited on a device, in the order of typing."""

    readings: list[ReadingIn] = Field(min_length=1, max_length=60)


class DecisionIn(Schema):
    uuid: uuid.UUID
    check: Key
    positions: list[Key] = Field(max_length=200)
    choice: Literal["do", "wait", "decline", "open"]
    until: str = Field(default="", max_length=80)
    reason: str = Field(default="", max_length=300)


class CompanionIn(Schema):
    """An empty reason takes a decline back."""

    slot: Key
    positions: list[Key] = Field(max_length=200)
    reason: str = Field(default="", max_length=200)


class HoldIn(Schema):
    uuid: uuid.UUID
    posture: str = Field(max_length=80)
    at: Moment | None = None


class OrderIn(Schema):
    """The numbers the visits have now, in the order they are wanted."""

    order: list[int] = Field(max_length=60)


class EventIn(Schema):
    """The end of a walk-around, and back: under the client's UUID, with a reason where one is asked for."""

    uuid: uuid.UUID
    reason: str = Field(default="", max_length=300)


class SetAsideIn(Schema):
    """A reading that was refused, by its own UUID. shown: as typed; refused: why, in words; word: why it is discarded."""

    uuid: uuid.UUID
    check: str = Field(max_length=60)
    position: str = Field(max_length=40)
    shown: str = Field(max_length=200)
    refused: str = Field(default="", max_length=300)
    outcome: Literal["logbook", "discarded"]
    word: str = Field(default="", max_length=300)
    taken_at: Moment


class HandOverIn(Schema):
    uuid: uuid.UUID
    to: int
    note: str = Field(default="", max_length=500)
