"""What the page of a machine's set-up is given."""

import datetime as dt
import uuid

from pydantic import BaseModel as Schema


class SetUpPlaceOut(Schema):
    """How one place stands since its newest reading."""

    label: str
    state: str
    shown: str
    day: dt.date
    by: str
    walk_around: uuid.UUID


class CropWantsOut(Schema):
    """The states that a crop wants, any of them."""

    crop: str
    states: list[str]
    names: list[str]


class SetUpChangeOut(Schema):
    """A place that was read otherwise than the time before; before is empty for its first reading."""

    label: str
    before: str
    after: str
    at: dt.datetime
    by: str


class SetUpItemOut(Schema):
    """One item of the set-up; places are empty while it was never recorded."""

    check: str
    name: str
    station: str
    how: str
    places: list[SetUpPlaceOut]
    wants: list[CropWantsOut]
    changes: list[SetUpChangeOut]


class SetUpOut(Schema):
    machine: str
    items: list[SetUpItemOut]
