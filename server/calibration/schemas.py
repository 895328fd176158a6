"""What the endpoints of calibrations take and give."""

import datetime as dt
import uuid
from typing import Annotated, Any, Literal

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from tabular.lengths import Figure, Key
from tabular.moments import Moment

Outcome = Literal["saved", "unsaved", "aborted"]
Kilograms = Annotated[float, Field(gt=0, le=100_000)]
MoisturePct = Annotated[float, Field(ge=0, le=60)]


class BecauseOut(Schema):
    """at: on the shop's clock; empty where no day says more than the words."""

    words: str
    at: str


class FirstOut(Schema):
    """Another one that goes before, and why."""

    name: str
    because: str


class CalibrationStepOut(Schema):
    """hold_s: seconds that a switch is held, about."""

    do: str
    watch: str
    hold_s: float | None


class KeptValueOut(Schema):
    """unit: of a bare figure. last: as it was kept the last time, in the catalogue's unit; last_words: in the reader's."""

    key: str
    name: str
    unit: str
    last: float | None
    last_words: str


class CalibrationOut(Schema):
    """state: due, with what happened since; right: nothing did; never: nobody knows that it was ever saved, and nothing asks
    for it. bench: the subject of the bench that works its figure out."""

    key: str
    name: str
    state: Literal["due", "right", "never"]
    because: list[BecauseOut]
    first: list[FirstOut]
    posture: str
    lock: str
    cautions: list[str]
    before: list[str]
    steps: list[CalibrationStepOut]
    works: str
    save: str
    note: str
    bench: str
    values: list[KeptValueOut]
    saved_at: dt.datetime | None
    saved_by: str


class HappenedChoiceOut(Schema):
    key: str
    name: str


class SaidHappenedOut(Schema):
    uuid: uuid.UUID
    words: str
    at: dt.datetime
    by: str


class CalibrationRunOut(Schema):
    """steps: done of of_steps. values: what was kept, in words. words: why it was left."""

    uuid: uuid.UUID
    key: str
    name: str
    outcome: Outcome
    at: dt.datetime
    by: str
    steps: int
    of_steps: int
    values: str
    header: str
    words: str
    taken_back: bool


class CollectedLoadOut(Schema):
    """A collected load; what scale and grain store found is None until somebody says so."""

    uuid: uuid.UUID
    name: str
    crop: str
    flow: Literal["normal", "low"]
    machine_kg: float | None
    shown_pct: float | None
    scale_kg: float | None
    reference_pct: float | None
    at: dt.datetime
    by: str


class SeriesPointOut(Schema):
    """words: with its unit, in the reader's own."""

    at: dt.datetime
    value: float
    words: str


class SeriesOut(Schema):
    name: str
    points: list[SeriesPointOut]


class CalibrationsOut(Schema):
    """calibrations: due ones first, in the order they are done. header: the one on the machine now. happened: what somebody may
    say was done; said: what was said. runs: all that came of earlier ones, the newest first."""

    machine: MachineOut
    header: int | None
    headers: list[MachineOut]
    calibrations: list[CalibrationOut]
    happened: list[HappenedChoiceOut]
    said: list[SaidHappenedOut]
    runs: list[CalibrationRunOut]
    loads: list[CollectedLoadOut]
    series: list[SeriesOut]
    may_calibrate: bool


class CalibrationRunIn(Schema):
    """values: as they were typed, bare figures in `units`, by default the member's. given: what a value was worked out of, the
    input of its calculator."""

    uuid: uuid.UUID
    key: Key
    outcome: Outcome
    begun_at: Moment
    at: Moment
    steps: Annotated[int, Field(ge=0, le=60)] = 0
    values: Annotated[dict[Key, Figure], Field(max_length=20)] = {}
    units: Literal["mm", "in"] | None = None
    given: Annotated[dict[str, Any], Field(max_length=20)] = {}
    words: Annotated[str, Field(max_length=200)] = ""


class HappenedIn(Schema):
    """what: a key of `happened`, or ``header`` with the machine that was coupled; none: it stands without one."""

    uuid: uuid.UUID
    what: Key
    header: int | None = None
    at: Moment | None = None


class CollectedLoadIn(Schema):
    uuid: uuid.UUID
    name: Annotated[str, Field(max_length=60)] = ""
    crop: Annotated[str, Field(max_length=60)] = ""
    flow: Literal["normal", "low"] = "normal"
    machine_kg: Kilograms | None = None
    shown_pct: MoisturePct | None = None
    scale_kg: Kilograms | None = None
    reference_pct: MoisturePct | None = None
    at: Moment | None = None


class LoadWeighedIn(Schema):
    """What scale and grain store found of a load; None leaves it as it is."""

    scale_kg: Kilograms | None = None
    reference_pct: MoisturePct | None = None
