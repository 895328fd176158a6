"""Notes of operators: what comes in and what goes out."""

import datetime as dt
import uuid

from pydantic import BaseModel as Schema
from pydantic import Field


class NoteOut(Schema):
    """What the operator noticed; open while cause is empty. photos: addresses of pictures."""

    uuid: uuid.UUID
    text: str
    station: str
    station_name: str
    photos: list[str]
    machine: int
    by: str
    at: dt.datetime
    cause: str
    closed_by: str


class StripPictureOut(Schema):
    """A step of a strip-down: picture, words, how many loose parts came off with it."""

    uuid: uuid.UUID
    strip_down: str
    place: str
    words: str
    loose: int
    by: str
    at: dt.datetime


class NoteIn(Schema):
    uuid: uuid.UUID
    text: str = Field(default="", max_length=500)
    station: str = Field(default="", max_length=60)


class CauseIn(Schema):
    cause: str = Field(default="", max_length=300)
