"""What the pages of a shop's own checks give and take."""

import datetime as dt
import uuid
from typing import Literal

from pydantic import BaseModel as Schema
from pydantic import Field

from lumvek_core.catalogue.model import Crop, Phase, Unit
from lumvek_core.rules.verdict import Action, Severity
from tabular.lengths import Figure, Key, Said

from .schemas_plan import CheckOut, PositionOut

Words = Literal["name", "how", "why"]


class StateIn(Schema):
    """One of the states to choose from, the sound one first."""

    name: str = Field(max_length=80)
    severity: Severity = "sound"
    action: Action = "none"


class OwnCheckIn(Schema):
    """An own check as it is typed. key: empty for a new one; model: for that one alone. rule: the kind that judges it; figures:
    its limits as typed; severity, action: of what is wrong, where there are no states. life: how much use it lasts.
    slot: the part it brings, ``own`` for one that is called `part`."""

    uuid: uuid.UUID
    key: Key = ""
    family: Key
    model: int | None = None
    station: Key
    name: str = Field(max_length=80)
    per: Key = "machine"
    how: str = Field(max_length=400)
    why: str = Field("", max_length=400)
    rule: Key
    unit: Unit | Literal[""] = ""
    figures: dict[Key, Key] = {}
    states: list[StateIn] = Field([], max_length=9)
    right: Literal["yes", "no"] = "yes"
    severity: Severity = "due"
    action: Action = "repair"
    posture: Key = ""
    tools: list[Key] = Field([], max_length=12)
    hazards: list[Key] = []
    phases: list[Phase] = ["winter"]
    crops: list[Crop] = []
    option: Key = ""
    slot: Key = ""
    part: str = Field("", max_length=80)
    quantity: int = Field(1, ge=1, le=400)
    life: Figure = ""
    remedy: str = Field("", max_length=400)
    safety: bool = False
    optional: bool = False
    reason: str = Field("", max_length=200)


class TrialIn(Schema):
    """An own check, and what is typed at its first place to see what becomes of it."""

    check: OwnCheckIn
    raw: list[Said] = []


class TrialOut(Schema):
    """As the walk-around will show it: what was typed, judged; problem: what is wrong with that."""

    check: CheckOut
    places: list[PositionOut]
    station: str
    posture: str
    cautions: list[str]
    sample: list[str]
    severity: Severity | Literal[""]
    action: str
    verdict: str
    ask: str
    parts: list[str]
    problem: str


class OwnCheckOut(Schema):
    """typed: to be changed; empty where it was taken away. misfit: why it is in no walk-around. before: an earlier version can
    be put back."""

    key: str
    family: str
    family_name: str
    model_name: str
    station: str
    name: str
    kind: str
    typed: OwnCheckIn | None
    misfit: str
    version: int
    before: bool
    by: str
    at: dt.datetime
    reason: str


class AlteredOut(Schema):
    """A shipped check that is worded otherwise or left out; name, how, why: as shipped. own: the shop's words."""

    key: str
    family: str
    family_name: str
    station: str
    shipped: dict[Words, str]
    own: dict[Words, str]
    left_out: bool
    holds: bool
    reason: str
    version: int
    before: bool
    by: str
    at: dt.datetime


class OwnChecksOut(Schema):
    checks: list[OwnCheckOut]
    altered: list[AlteredOut]


class AlterIn(Schema):
    """What is empty stays as shipped; with nothing said and not left out the check is as shipped again."""

    uuid: uuid.UUID
    family: Key
    key: Key
    name: str = Field("", max_length=80)
    how: str = Field("", max_length=400)
    why: str = Field("", max_length=400)
    left_out: bool = False
    reason: str = Field("", max_length=200)


class TakeAwayIn(Schema):
    uuid: uuid.UUID
    family: Key
    key: Key
    reason: str = Field("", max_length=200)


class AsBeforeIn(Schema):
    uuid: uuid.UUID
    family: Key
    key: Key


class NamedKeyOut(Schema):
    key: str
    name: str


class ShippedCheckOut(NamedKeyOut):
    """safety: it cannot be left out."""

    how: str
    why: str
    safety: bool


class FormStationOut(NamedKeyOut):
    posture: str
    checks: list[ShippedCheckOut]


class FormModelOut(Schema):
    id: int
    name: str


class FormFamilyOut(Schema):
    """What may be picked for a check of a family. per: how often it can be made."""

    family: str
    name: str
    counter: str
    stations: list[FormStationOut]
    per: list[NamedKeyOut]
    options: list[NamedKeyOut]
    slots: list[NamedKeyOut]
    models: list[FormModelOut]


class FormFigureOut(NamedKeyOut):
    unit: str
    wanted: bool


class FormRuleOut(NamedKeyOut):
    """A kind of reading. asks: what else is asked of it; figures: its limits, unit empty where it is the check's."""

    asks: list[Literal["states", "unit", "right", "fault", "life"]]
    figures: list[FormFigureOut]


class CheckFormOut(Schema):
    families: list[FormFamilyOut]
    rules: list[FormRuleOut]
    units: list[str]
    postures: list[str]
    hazards: list[NamedKeyOut]
    phases: list[NamedKeyOut]
    crops: list[NamedKeyOut]
    severities: list[NamedKeyOut]
    actions: list[NamedKeyOut]
