"""What the screens around a walk-around are given: its start, its summary, the map of like things, the catalogue, the rules."""

from typing import Annotated, Literal

# Not the API framework's own base: it wraps every instance once more when a list of hundreds is sent.
from pydantic import BaseModel as Schema
from pydantic import Field

from .schemas import CropName, LeftOutOut, MachineOut, PersonOut, PhaseName, StationOut, WalkAroundBrief, WalkAroundOut
from .schemas_findings import FindingOut, NotSeenOut
from .schemas_notes import NoteOut
from .schemas_plan import PlanOut


class PhaseOut(Schema):
    """A time of inspecting. checks: how many this machine has then; 0 where nothing is listed."""

    key: PhaseName
    name: str
    checks: int


class StartInfoOut(Schema):
    """What there is to choose before a walk-around begins. own_headers: those that go with this machine, which come first.
    crops: what the shop grows, by group. earlier: its walk-arounds, the newest first."""

    machine: MachineOut
    phases: list[PhaseOut]
    usual: PhaseName
    headers: list[MachineOut]
    own_headers: list[int]
    people: list[PersonOut]
    notes: list[NoteOut]
    running: list[WalkAroundBrief]
    crops: dict[str, list[str]]
    earlier: list[WalkAroundBrief]


class PreviewOut(Schema):
    """What a walk-around would be: checks, places, the postures in order, tools to take along."""

    checks: int
    places: int
    plan: PlanOut
    tools: list[str]
    left_out: list[LeftOutOut]


class BeforehandAsked(Schema):
    """phase: empty for what is usual in this shop."""

    phase: PhaseName | Literal[""] = ""
    crop: CropName = ""
    headers: Annotated[list[int], Field(max_length=6)] = Field(default_factory=list)
    take_in: bool = False


class BeforehandOut(Schema):
    """A walk-around before it begins: what it would be, and what its screen would show. It has no UUID of its own yet."""

    preview: PreviewOut
    walk_around: WalkAroundOut


class HoleOut(Schema):
    """A check that is not done: where it is open, or waits for an answer."""

    check: str
    name: str
    station: str
    places: str
    count: int
    asked: bool


class MissedOut(Schema):
    """A check that is often missed, named once more. done of total places."""

    check: str
    name: str
    station: str
    done: int
    total: int


class SummaryOut(Schema):
    """Whether a walk-around is complete, and if not, what is missing."""

    walk_around: WalkAroundBrief
    machine: MachineOut
    complete: bool
    stations: list[StationOut]
    holes: list[HoleOut]
    not_seen: list[NotSeenOut]
    missed: list[MissedOut]
    stops: list[FindingOut]
    notes: list[NoteOut]
    people: list[PersonOut]
    may_record: bool


class CellOut(Schema):
    """One place in a map of like things. off: against the median of its line; change: against the walk-around before.

    used: share of the wear allowance, where there is one. fitted: that the part was renewed since it was read, in words.
    """

    position: str
    severity: str
    short: str
    shown: str
    reason: str
    off: str
    change: str
    deviation: float
    used: float | None
    fitted: str


class LineOut(Schema):
    """figures: how many a reading has."""

    check: str
    name: str
    side: str
    unit: str
    kind: str
    figures: int
    cells: list[CellOut | None]


class ThingOut(Schema):
    key: str
    name: str


class GridOut(Schema):
    """Like things across, checks down. columns: labels; positions by line. marked: columns behind the wheels."""

    walk_around: WalkAroundBrief
    machine: MachineOut
    things: list[ThingOut]
    thing: str
    name: str
    columns: list[str]
    marked: list[str]
    worst: list[str]
    lines: list[LineOut]
    before: str
    may_record: bool


class LookOut(Schema):
    """What one state looks like: a drawing by motif and state, its name, what fingers and ears tell."""

    motif: str
    state: str
    name: str
    words: str


class CatalogueCheckOut(Schema):
    """A check as the shop has it, in words. own: the shop's; left_out, altered: why a shipped one is, where it is."""

    key: str
    name: str
    posture: str
    kind: str
    where: str
    how: str
    why: str
    tools: list[str]
    phases: list[str]
    when: str
    limits: list[str]
    source: str
    verdicts: list[str]
    looks: list[LookOut]
    remedy: str
    parts: list[str]
    companions: list[str]
    hazards: list[str]
    safety: bool
    often_missed: bool
    optional: bool
    own: bool
    left_out: str
    altered: str


class CatalogueStationOut(Schema):
    key: str
    name: str
    checks: list[CatalogueCheckOut]


class CatalogueFamilyOut(Schema):
    family: str
    name: str
    flow: str
    options: list[str]
    checks: int
    stations: list[CatalogueStationOut]


class FamilyBriefOut(Schema):
    family: str
    name: str
    checks: int


class FileLineOut(Schema):
    line: int
    text: str
    outcome: Literal["taken", "there", "refused"]
    check: str
    position: str
    says: str


class ReadingsFileOut(Schema):
    """What a file of readings did, or with `dry` would do, line by line."""

    dry: bool
    taken: int
    there: int
    refused: int
    lines: list[FileLineOut]
