"""What every kind of rule is: the questions that the rest of the product asks of it, with the usual answers."""

from abc import ABC, abstractmethod
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, fields
from functools import cache
from typing import TYPE_CHECKING, Annotated, Any, ClassVar, Literal, get_args, get_origin, get_type_hints

from ..bounds import Stated
from .verdict import Action, Facts, Severity, Verdict

if TYPE_CHECKING:
    import datetime as dt

    from ..catalogue.model import Check, Family
    from ..judgement.context import Context
    from ..judgement.parse_reading import Value
    from ..judgement.words import Words
    from ..positions import Position
    from ..units import System, Unit

Span = tuple[float, float]
Answers = Literal["measure", "choice", "count", "gauge", "level", "bearing", "yes-no", "interval", "note"]
"""How a reading is given; several kinds of rule may be answered alike."""
Reach = Literal["all", "row"]
"""How far a rule looks: at all like places, or no further than its own row."""
Want = Literal["log", "feelers", "track-rows", "counter"]
"""What of the machine and the shop a rule looks at: what was read before, the shop's feelers, rows behind wheels, the hour
meter."""


@dataclass(frozen=True)
class Limit(Stated):
    """Of a figure that a model or a shop may replace: how it is called and shown.

    unit: where it is not the check's own. As ``place`` it is somewhere (hole 5), as ``amount`` a difference (5 holes), as
    ``share`` per cent. unknown: what stands there while it is 0, for one that only the manual of the model tells.
    """

    name: str
    unit: str | None = None
    shown_as: Literal["place", "amount", "share"] = "place"
    unknown: str = ""


@dataclass(frozen=True)
class OtherCheck:
    """Of a field that names another check, whose readings the rule looks at."""

    reach: Reach = "all"


@dataclass(frozen=True)
class CountedThing:
    """Of a field that names a thing the family declares, of which a machine has its own number."""


@dataclass(frozen=True)
class Option:
    """One named state, with what follows from it."""

    key: str
    name: str
    severity: Severity = "sound"
    action: Action = "none"


@dataclass(frozen=True)
class Case:
    """One reading to be judged: its check and place, what was read, what surrounds it, and how its reader wants figures."""

    check: "Check"
    position: "Position"
    value: "Value"
    context: "Context"
    say: "Words"

    @property
    def reading(self) -> float:
        """The one figure of a check that has one."""
        return self.value.numbers[0]


class Rule(ABC):
    """A kind of rule. Subclasses are frozen dataclasses whose fields are what the catalogue may say.

    answers: the kind of check it judges, None for any. figures: how many figures a reading has, None for as many as the check
    names. facts: what it tells drawings. by_feeler: it is read with a feeler, which belongs to the reading. wants: what it
    looks at besides readings of this walk-around. compares: it looks at its own like places. drawings: those that show what it
    tells. sets_up: what is read is how the machine is set up, and is shown the next time. renews: what is due is renewed, where
    no state and no `action` says otherwise. offered: how a shop is asked whether an own check is of this kind; empty where it
    is not. keeps_unit: the unit of a figure is its gauge's, and goes with it.
    """

    answers: ClassVar[Answers | None] = None
    figures: ClassVar[int | None] = None
    facts: ClassVar[type[Facts] | None] = None
    by_feeler: ClassVar[bool] = False
    wants: ClassVar[frozenset[Want]] = frozenset()
    compares: ClassVar[bool] = False
    drawings: ClassVar[frozenset[str]] = frozenset()
    renews: ClassVar[bool] = False
    keeps_unit: ClassVar[bool] = False
    offered: ClassVar[str] = ""
    sets_up: ClassVar[bool] = False
    by_crop = False
    kind: str

    @abstractmethod
    def judge(self, case: Case) -> Verdict:
        """The verdict on a reading that can be right."""

    @abstractmethod
    def sample(self, check: "Check", counter_h: float, day: "dt.date") -> list[str]:
        """A sound reading as a technician would type it: for demo data, stand-ins and tests."""

    def states(self) -> list[Option]:
        """The states to choose from, the sound one first; empty where something is measured or counted."""
        return []

    def looks_at(self, check_key: str) -> dict[str, Reach]:
        """The checks whose readings it looks at besides its own, and how far."""
        named = {key: other.reach for name, other in _other_checks(type(self)).items() if (key := getattr(self, name))}
        return {check_key: "all", **named} if self.compares else named

    def undone_by(self) -> str:
        """The check at whose places something may be changed that makes an older reading of this one worthless; empty for
        none.
        """
        return ""

    def ways(self) -> "Sequence[str]":
        """Ways it can be read by, of which a school may pick one; empty where there is only one."""
        return ()

    def alike(self, other: "Rule") -> bool:
        """Whether what was read under another version of this rule teaches something for this one."""
        return True

    def problems(self, check: "Check", family: "Family") -> Iterator[str]:
        """What the catalogue got wrong, one sentence each."""
        if complaint := self.unusable():
            yield complaint

    def unusable(self) -> str:
        """Why its figures together make no rule; empty where they do."""
        return ""

    def read(self, check: "Check", raw: Sequence[str], unit: "Unit") -> "Value | None":
        """What was typed, where it is no plain figure. Raises BadInput with field ``raw.<n>``."""
        return None

    def sizes(self) -> list[str]:
        """The limits that say how a model is built, as only its manual or its maker tells: asked when it is added."""
        return []

    def more_than_figures(self) -> bool:
        """Whether a unit, a word or a second length may have to be typed, for which a keypad of figures has no keys."""
        return self.keeps_unit

    def negative(self, text: str) -> str | None:
        """What is left of a text that stands for a figure below zero; None where it does not."""
        return None

    def believable(self, check: "Check", others: Sequence[float]) -> Span | None:
        """The range in which a reading is taken without asking; None where nothing is known."""
        return None

    def readings_named(self) -> dict[str, float]:
        """Its figures that are readings themselves, and must be believable as such."""
        return {}

    def beyond(self, say: "Words") -> str:
        """What is said of a reading outside that range."""
        return "Far outside what is found here"

    def longest(self, position: "Position", context: "Context") -> float | None:
        """What a reading cannot exceed at this place, by other readings."""
        return None

    def measured(self, numbers: Sequence[float]) -> Sequence[float]:
        """Those of several figures that were measured, and can be implausible."""
        return numbers

    def usual_span(self, check: "Check") -> Span:
        """Where readings usually lie: most sound, some at their limit, a few beyond."""
        low, high = (check.plausible[0], check.plausible[1]) if check.plausible else (10.0, 60.0)
        third = (high - low) / 3
        return low + third, high - third

    def ends(self) -> Span | None:
        """Size when new and at the limit, of what wears."""
        return None

    def chance_to_watch(self) -> float:
        """From what chance to reach its limit in the coming season a place is watched."""
        return 1.0

    def per_cent_of(self) -> float | None:
        """The size of which wear is told in per cent; None where it is told as it was read."""
        return None

    def full(self, check: "Check", value: "Value", system: "System") -> str | None:
        """A reading in words with unit, where the usual way does not do."""
        return None

    def short(self, check: "Check", value: "Value", system: "System") -> str | None:
        """A reading for a cell of a grid, where the unit above it does not hold."""
        return None

    def oil_grade(self) -> str:
        """What the maker names, to be shown beside the field."""
        return ""


@cache
def limits(kind: type[Rule]) -> dict[str, Limit]:
    """The figures that a model or a shop may replace, by field."""
    return _annotated(kind, Limit)


def whole(kind: type[Rule], figure: str) -> bool:
    """Whether a figure counts something."""
    return _plain(get_type_hints(kind)[figure]) is int


@cache
def _other_checks(kind: type[Rule]) -> dict[str, OtherCheck]:
    return _annotated(kind, OtherCheck)


def other_checks(rule: Rule) -> dict[str, str]:
    """The checks that a rule names, by field."""
    return {name: key for name in _other_checks(type(rule)) if (key := getattr(rule, name))}


@cache
def _counted_things(kind: type[Rule]) -> dict[str, CountedThing]:
    return _annotated(kind, CountedThing)


def counted_things(rule: Rule) -> dict[str, str]:
    """The things that a rule names, by field."""
    return {name: thing for name in _counted_things(type(rule)) if (thing := getattr(rule, name))}


def _annotated(kind: type[Rule], mark: type[Any]) -> dict[str, Any]:
    hints = get_type_hints(kind, include_extras=True)
    found = {field.name: _mark(hints[field.name], mark) for field in fields(kind)}  # type: ignore[arg-type]
    return {name: one for name, one in found.items() if one is not None}


def _mark(hint: Any, mark: type[Any]) -> Any:
    """The annotation of this type, also inside ``… | None``."""
    if get_origin(hint) is Annotated:
        return next((one for one in get_args(hint)[1:] if isinstance(one, mark)), None)
    return next((one for arg in get_args(hint) if (one := _mark(arg, mark)) is not None), None)


def _plain(hint: Any) -> Any:
    return next((arg for arg in get_args(hint) if arg is not type(None)), hint) if get_args(hint) else hint
