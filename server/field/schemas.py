"""What the endpoints of field cards and daily cards take and give."""

import datetime as dt
import uuid
from typing import Annotated, Literal

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from tabular.lengths import Key
from tabular.moments import Day, Moment

Typed = Annotated[str, Field(max_length=60)]


class WorkedBeforeOut(Schema):
    """How it was set when it worked: as the reader would type it, and with its unit. same: with the same crop and header."""

    value: str
    shown: str
    crop: str
    condition: str
    day: dt.date
    same: bool


class FieldSettingOut(Schema):
    """start: where one begins; how: which way to go from there. now: as it was set last. length: it is typed and
    read in the reader's own units. bench: the subject of the bench that works it out."""

    key: str
    name: str
    unit: str
    start: str
    how: str
    worked: WorkedBeforeOut | None
    now: str
    length: bool
    bench: str


class SetInFieldOut(Schema):
    """shown: what was set otherwise than the time before, in words. worked: None until somebody says."""

    uuid: uuid.UUID
    crop: str
    place: str
    condition: str
    header: str
    shown: list[str]
    why: str
    worked: bool | None
    at: dt.datetime
    by: str
    taken_back: bool


class FirstFieldOut(Schema):
    """state: idle, or first (it works and nobody has looked), again (the second look is due), changed (the ground is
    otherwise), right. words: why. at: the last look."""

    state: Literal["idle", "first", "again", "changed", "right"]
    words: str
    at: dt.datetime | None


class SeenOut(Schema):
    """What a walk-around in the field found that was not right. walk_around: unfinished where running."""

    walk_around: uuid.UUID
    phase: Literal["first-field", "emergence"]
    at: dt.datetime
    running: bool
    found: list[str]


class FieldCardOut(Schema):
    """settings: in the order they are set. conditions: words to choose from. last: everything kept, the newest first. places:
    fields it was set for. first_field: when it is looked at again. seen: the last walk-around in the field of each kind."""

    machine: MachineOut
    header: str
    crops: list[str]
    conditions: list[str]
    places: list[str]
    first_field: FirstFieldOut
    seen: list[SeenOut]
    settings: list[FieldSettingOut]
    last: list[SetInFieldOut]
    may_set: bool


class SetInFieldIn(Schema):
    """values: by key, as typed; those that are left out stay as they were. units: that lengths were typed in, where no unit
    stands with them; the member's own where nothing is said."""

    uuid: uuid.UUID
    crop: Typed = ""
    place: Typed = ""
    condition: Annotated[str, Field(max_length=120)] = ""
    values: Annotated[dict[str, Typed], Field(max_length=60)] = {}
    units: Literal["", "mm", "in"] = ""
    why: Annotated[str, Field(max_length=200)] = ""
    at: Moment | None = None


class WorkedIn(Schema):
    worked: bool


class DailyItemOut(Schema):
    """state: as it was ticked today; empty: not yet. words: what was wrong."""

    key: str
    name: str
    how: str
    station: str
    state: Literal["", "right", "not"]
    words: str
    by: str


class DailyDayOut(Schema):
    """done: of all, on that day."""

    day: dt.date
    done: int
    wrong: int


class DailyCardOut(Schema):
    """days: the last two weeks, oldest first. streak: days in a row, up to today or yesterday, on which all of it was looked
    at."""

    machine: MachineOut
    header: str
    day: dt.date
    items: list[DailyItemOut]
    days: list[DailyDayOut]
    since: dt.date | None
    streak: int
    first_field: FirstFieldOut
    may_tick: bool


class DailyTickIn(Schema):
    """keys: all that are ticked at once. words: what is wrong, where it is not right; it becomes a note at its station."""

    uuid: uuid.UUID
    keys: Annotated[list[Key], Field(min_length=1, max_length=80)]
    right: bool = True
    words: Annotated[str, Field(max_length=200)] = ""
    day: Day | None = None


class DailyFleetOut(Schema):
    """The daily cards of every machine, for whoever leads."""

    machine: MachineOut
    of: int
    days: list[DailyDayOut]
    since: dt.date | None
    streak: int
    first_field: FirstFieldOut
