"""What the bench's endpoints take and give."""

import datetime as dt
import uuid
from typing import Annotated, Any, Literal

from pydantic import BaseModel as Schema
from pydantic import Field

from lumvek_core.workbench.drawings import Drawing

Mark = Literal["", "sound", "watch", "due"]
# Bounds what one request can make the server parse; a run of a thousand spacings is about 6,000 characters.
Cell = Annotated[str, Field(max_length=20_000)]
Texts = dict[str, Cell | Annotated[list[Annotated[list[Cell], Field(max_length=12)]], Field(max_length=200)]]


class ChoiceOut(Schema):
    key: str
    name: str


class FieldOut(Schema):
    key: str
    name: str
    kind: Literal["length", "signed", "number", "count", "text", "names", "choice", "yes-no", "date", "lengths", "feeler"]
    unit: str
    start: str
    hint: str
    choices: list[ChoiceOut]
    optional: bool
    when: dict[str, list[str]]
    tool: str


class TableOut(Schema):
    key: str
    name: str
    columns: list[FieldOut]
    hint: str
    optional: bool
    when: dict[str, list[str]]


class ExampleOut(Schema):
    name: str
    texts: Texts


class SubjectOut(Schema):
    """One screen of the bench. order: the keys of its fields and tables as they stand on screen."""

    key: str
    name: str
    group: str
    about: str
    fields: list[FieldOut]
    tables: list[TableOut]
    order: list[str]
    examples: list[ExampleOut]
    source: str
    safety: str
    takes_file: Literal["", "spacings", "depths"]


class BenchLineOut(Schema):
    name: str
    shown: str
    mark: Mark


class RunOut(Schema):
    given: dict[str, Any]
    result: dict[str, Any]


class SheetOut(Schema):
    answer: str
    words: str
    mark: Mark
    lines: list[BenchLineOut]
    why: list[str]
    caution: str
    runs: dict[str, RunOut]
    drawing: Annotated[Drawing, Field(discriminator="kind")] | None


class WorkIn(Schema):
    texts: Texts = Field(default_factory=dict, max_length=40)


class SaveIn(WorkIn):
    uuid: uuid.UUID
    note: str = Field(default="", max_length=300)


class FileIn(Schema):
    text: str = Field(max_length=2_000_000)


class RefusedOut(Schema):
    line: int
    text: str
    why: str


class FileOut(Schema):
    texts: Texts
    taken: int
    refused: list[RefusedOut]


class LimitsOut(Schema):
    """Texts of the fields that this machine's rules know better, with where each comes from."""

    texts: Texts
    sources: dict[str, str]


class BenchResultOut(Schema):
    uuid: uuid.UUID
    subject: str
    name: str
    answer: str
    words: str
    mark: Mark
    texts: Texts
    note: str
    by: str
    at: dt.datetime


class GaugeIn(Schema):
    """What is being measured: a check of a walk-around, or a figure near one at the bench."""

    gauge: Literal["caliper", "depth gauge", "tape", "feeler", "force gauge"]
    seed: int = 0
    near: str = Field(default="", max_length=60)
    walk_around: uuid.UUID | None = None
    check: str = Field(default="", max_length=60)


class GaugeOut(Schema):
    types: str
