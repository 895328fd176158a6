"""What the endpoints of a shop's own symptoms and causes take and give."""

from typing import Annotated
from uuid import UUID

from ninja import Schema
from pydantic import Field

from inspection.schemas import MachineOut
from tabular.lengths import Key

from .schemas import KeyNameOut


class SymptomOfOut(Schema):
    """What a symptom can be of: a machine, or what hangs on it, with where it shows and what is looked at."""

    family: str
    name: str
    stations: list[KeyNameOut]
    checks: list[KeyNameOut]


class OwnCauseOut(Schema):
    """shown_by: what proves it, by name. own: of the shop's own, by which it is taken away."""

    key: str
    name: str
    weight: float
    shown_by: str
    own: UUID | None


class OwnSymptomOut(Schema):
    """own: of the shop's own, by which it is taken away."""

    key: str
    name: str
    also: list[str]
    family: str
    own: UUID | None
    causes: list[OwnCauseOut]


class OwnSymptomsOut(Schema):
    machine: MachineOut
    kinds: list[SymptomOfOut]
    postures: list[str]
    symptoms: list[OwnSymptomOut]
    may_change: bool


class OwnSymptomIn(Schema):
    """also: other words for it, with commas between."""

    uuid: UUID
    family: Key
    name: Annotated[str, Field(max_length=120)]
    also: Annotated[str, Field(max_length=300)] = ""
    stations: Annotated[list[Key], Field(max_length=20)] = []


class OwnCauseIn(Schema):
    """weight: how common it is beside the others. check: of the catalogue, that shows it; else what is looked at, how the
    machine stands for it, how one sees it, and the minutes it takes."""

    uuid: UUID
    symptom: Key
    name: Annotated[str, Field(max_length=120)]
    weight: Annotated[float, Field(gt=0, le=10)] = 2
    check: Annotated[str, Field(max_length=60)] = ""
    look: Annotated[str, Field(max_length=120)] = ""
    posture: Annotated[str, Field(max_length=80)] = ""
    how: Annotated[str, Field(max_length=300)] = ""
    minutes: Annotated[float, Field(gt=0, le=600)] = 5
