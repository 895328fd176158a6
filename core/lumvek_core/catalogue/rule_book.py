"""What is in force for one model in one shop: the catalogue with its limits resolved, and where each comes from."""

from dataclasses import dataclass, field
from functools import cached_property
from typing import Annotated

from ..bounds import Stated
from ..units import Inches
from .lists import Companion, Posture
from .model import Family, Station


@dataclass(frozen=True)
class LimitOverride:
    """A limit of a model or a shop that replaces the shipped figure, and where it was found. stated: in inches, where it was
    stated so."""

    check: str
    figure: str
    value: float
    source: str
    note: str = ""
    stated: str = ""

    @property
    def length(self) -> float:
        """The value, with the inches it was stated in."""
        return Inches(self.stated) if self.stated else self.value


@dataclass(frozen=True)
class LimitInForce:
    """One limit with where it comes from."""

    value: Annotated[float, Stated()]
    source: str
    note: str = ""


@dataclass(frozen=True)
class RuleBook:
    """The catalogue in force for one model, with the headers coupled to it, in one shop: what a walk-around is judged by and
    keeps.

    ways: check → what the shop's schools say there. left_out: check → why the shop does not make it. limits: check → figure →
    value and source. posture_cautions and hazards: the texts that this family's stations need.
    """

    family: Family
    limits: dict[str, dict[str, LimitInForce]]
    companions: list[Companion]
    postures: dict[str, Posture]
    hazards: dict[str, str]
    notice: str
    schools: dict[str, str]
    ways: dict[str, list[str]] = field(default_factory=dict)
    left_out: dict[str, str] = field(default_factory=dict)

    @cached_property
    def station_of(self) -> dict[str, Station]:
        """The station of each check, by the check's key."""
        return {check.key: station for station in self.family.stations for check in station.checks}
