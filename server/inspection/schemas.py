"""What the inspection endpoints take and give. The front end's types are generated from these."""

import datetime as dt
import uuid
from typing import TYPE_CHECKING, Annotated, Literal, Union

# Not the API framework's own base: it wraps every instance once more when a list of hundreds is sent.
from pydantic import BaseModel as Schema
from pydantic import Field

from lumvek_core.rules import kinds
from lumvek_core.rules.verdict import Facts
from parts.schemas import PartOut
from tabular.paging import ListAsked, PageOut

from .schemas_notes import NoteOut
from .schemas_plan import CheckOut, HoldOut, PlanOut, PositionOut, PostureOut, RouteStationOut, SeverityName

if TYPE_CHECKING:
    AnyFacts = Facts
else:
    # Every kind of rule tells its own; they are told apart by their kind.
    AnyFacts = Annotated[Union[tuple(kinds.facts().values())], Field(discriminator="kind")]

PhaseName = Literal[
    "everything",
    "after-season",
    "winter",
    "pre-season",
    "first-field",
    "daily",
    "crop-change",
    "changeover",
    "arrival",
    "emergence",
    "fault",
]
CropName = Literal["", "small-grain", "pod", "ear", "fine-seed"]


class TallyOut(Schema):
    """Of so many places in all, how many stand how."""

    total: int = 0
    sound: int = 0
    watch: int = 0
    due: int = 0
    stop: int = 0
    not_seen: int = 0
    does_not_apply: int = 0
    asked: int = 0
    open: int = 0


class StationOut(TallyOut):
    key: str
    name: str


class WalkAroundBrief(Schema):
    id: uuid.UUID
    phase: str
    crop: str
    started_at: dt.datetime
    started_by: str
    finished_at: dt.datetime | None
    version: int
    discarded: bool


class MachineOut(Schema):
    id: int
    name: str
    model: str
    family: str
    kind: str
    is_header: bool
    rows: int
    track_rows: list[int]
    serial: str
    area_ha: float | None
    hours: float | None
    season_date: dt.date | None


class BoardMachineOut(Schema):
    """newest: its last walk-around, sum and stations are of it; no stations where there are many machines."""

    machine: MachineOut
    newest: WalkAroundBrief | None
    sum: TallyOut
    stations: list[StationOut]
    owners: list[str]


class BoardAsked(ListAsked):
    """kind: key of a family. owner: a name. within: days to the season date. order: worst is that what stops comes first."""

    kind: Annotated[str, Field(max_length=80)] = ""
    owner: Annotated[str, Field(max_length=200)] = ""
    state: Literal["", "stop", "due", "running", "finished", "none"] = ""
    within: Annotated[int, Field(ge=0, le=3650)] | None = None
    order: Literal["worst", "season", "name"] = "worst"


class MachineKindOut(Schema):
    key: str
    name: str


class BoardOut(Schema):
    """every: machines the member may see, asked for or not; kinds and owners are of all of them."""

    machines: list[BoardMachineOut]
    page: PageOut
    every: int
    kinds: list[MachineKindOut]
    owners: list[str]


class MachineNameOut(Schema):
    id: int
    name: str
    kind: str


class PhotoOut(Schema):
    uuid: uuid.UUID
    check: str
    position: str
    caption: str
    width: int
    height: int
    by: str


class PersonOut(Schema):
    id: int
    name: str


class HandOverOut(Schema):
    giver: str
    taker: str
    note: str
    at: dt.datetime


class AdviceRowOut(Schema):
    name: str
    shown: str
    mark: Literal["", "sound", "watch", "due", "stop"]


class ThenOut(Schema):
    check: str
    position: str
    raw: list[str]


class AdviceOut(Schema):
    """What to do, worked out: rows side by side; done: what a button says that records `then`."""

    rows: list[AdviceRowOut]
    done: str
    then: list[ThenOut]


class OvertakenOut(Schema):
    """What somebody else gave for the same place, and typed earlier."""

    shown: str
    by: str
    at: str


class PlaceOut(Schema):
    """A place that was read. because: as somebody gave it, why it was not seen. fitted: that the part was renewed since, in
    words; its wear starts anew then. weight: the heaviest verdict speaks for what is judged together; None without one."""

    check: str
    position: str
    state: str
    severity: SeverityName
    weight: int | None
    action: str
    reason: str
    because: str
    remedy: str
    why: list[str]
    facts: AnyFacts | None
    used: float | None
    fitted: str
    ask: str
    instead: str
    split: list[str]
    advice: AdviceOut | None
    raw: list[str]
    feeler: str
    units: str
    short: str
    shown: str
    shown_other: str
    contact_shown: str
    choice: str
    note: str
    confirmed: bool
    bulk: bool
    posture: str
    by: str
    at: str
    overtaken: OvertakenOut | None


class LeftOutOut(Schema):
    """Checks that a round leaves out, and why, in one line."""

    checks: list[str]
    words: str


class WalkAroundOut(Schema):
    walk_around: WalkAroundBrief
    machine: MachineOut
    headers: list[MachineOut]
    people: list[PersonOut]
    route: list[RouteStationOut]
    postures: list[PostureOut]
    plan: PlanOut
    holds: list[HoldOut]
    photos: list[PhotoOut]
    notes: list[NoteOut]
    hand_over: HandOverOut | None
    last: int
    checks: list[CheckOut]
    positions: list[PositionOut]
    places: list[PlaceOut]
    stations: list[StationOut]
    parts: list[PartOut]
    left_out: list[LeftOutOut]
    notice: str
    may_record: bool
    may_decide: bool
    may_pin: bool


class PlaceKey(Schema):
    check: str
    position: str


class RefusedReadingOut(Schema):
    """What was not taken, as it would be refused by itself. status: of HTTP. figures: two that ran together, taken apart."""

    uuid: uuid.UUID
    status: int
    field: str
    message: str
    figures: list[str]


class ChangedOut(Schema):
    """What a write, or somebody else, changed. gone: positions that are open again. parts: the list, if it may have changed.

    stations: those that changed. holds: where somebody asked what others did, the postures that hold now. last: number of the
    newest reading that is in here.
    """

    last: int
    places: list[PlaceOut]
    gone: list[PlaceKey]
    stations: list[StationOut]
    parts: list[PartOut] | None
    holds: list[HoldOut] | None = None


class RecordedOut(Schema):
    """What became of readings that were sent together; those that are not named under refused are recorded."""

    changed: ChangedOut
    refused: list[RefusedReadingOut]
