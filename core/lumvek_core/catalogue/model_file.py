"""A model as one readable file, so that shops can hand models to each other: its numbers of things, its sizes and limits with
where they come from, its part numbers, the checks that were made for it."""

from dataclasses import dataclass, field
from typing import Annotated, Literal

from ..bounds import Over, Stated, Within
from .own import OwnCheck


@dataclass(frozen=True)
class ModelLimit:
    """A limit of the model's own, in the check's unit; a length also as text in inches. source: whose figure it is."""

    check: str
    figure: str
    value: Annotated[float, Stated()]
    source: Literal["manual", "shop"] = "manual"
    note: str = ""


@dataclass(frozen=True)
class ModelNumber:
    """A part number for a slot. side: of a handed part; chosen: this one of several is fitted; life: against the original."""

    slot: str
    number: str
    side: Literal["", "L", "R"] = ""
    pack: Annotated[int, Within(1, 1000)] = 1
    kind: Literal["original", "upgraded", "repair", "assembly"] = "original"
    chosen: bool = False
    status: Literal["supported", "scarce"] = "supported"
    life: Annotated[float, Over(0), Within(0, 100)] = 1
    replaced_by: str = ""
    mark: str = ""
    note: str = ""


@dataclass(frozen=True)
class ModelFile:
    """Everything of a model. Keys are without a header's prefix. counts: numbers of things that are not the family's."""

    format: Literal["lumvek-model-1"]
    maker: str
    name: str
    family: str
    counts: dict[str, Annotated[int, Within(0, 400)]] = field(default_factory=dict)
    limits: list[ModelLimit] = field(default_factory=list)
    numbers: list[ModelNumber] = field(default_factory=list)
    checks: list[OwnCheck] = field(default_factory=list)
