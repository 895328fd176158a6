"""How something that differs by crop stands on the machine, held against the crop that comes."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Literal

from .. import positions
from ..catalogue.model import Check, Crop, Family
from ..vocabulary import CROP_NAMES
from .base import Case, Option
from .states import StatesRule
from .verdict import Facts, Severity, Verdict


@dataclass(frozen=True)
class FittedState(Option):
    """One way it can stand. crops: those that want it so; empty where no crop asks for it. mends: what puts it so.

    only_by: school → its choice by which the crop wants it so; lasting_by: by which it does unless another crop follows soon.
    wrong: how grave it is where the crop wants another.
    """

    crops: list[Crop] = field(default_factory=list)
    mends: str = ""
    only_by: dict[str, str] = field(default_factory=dict)
    lasting_by: dict[str, str] = field(default_factory=dict)
    wrong: Severity = "due"


@dataclass(frozen=True)
class FittedFacts(Facts):
    """state: as it stands; wanted: the states that the crop that comes would have, empty where it asks for none."""

    kind: Literal["fitted"] = "fitted"
    state: str = ""
    wanted: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class FittedRule(StatesRule):
    """Records what is fitted; wrong for the crop that comes, or not alike at all its places, it is to be set.

    all_alike: all places must stand alike, whatever the crop. by_manual: crops for which the manual alone says how.
    """

    facts, compares, sets_up = FittedFacts, True, True

    kind: Literal["fitted"]
    options: list[FittedState]
    by_manual: list[Crop] = field(default_factory=list)
    all_alike: bool = True

    def states(self) -> list[Option]:
        return list(self.options)

    def judge(self, case: Case) -> Verdict:
        """The crop first, then its own state, then like places."""
        state = next(one for one in self.options if one.key == case.value.choice)
        wanted = self.wanted(case.context.crop, case.context.schools)
        facts = FittedFacts(state=state.key, wanted=[one.key for one in wanted])
        crop = CROP_NAMES.get(case.context.crop, "")
        if wanted and state not in wanted:
            sound = [one for one in wanted if one.severity == "sound"]
            names = " or ".join(_within(one.name) for one in sound)
            reason = f"{state.name}; {crop} {_want(crop)}: {names}. {sound[0].mends}".rstrip()
            return Verdict(state.wrong, "adjust", reason, facts=facts)
        if state.severity != "sound":
            return Verdict(state.severity, state.action, f"{state.name}.", facts=facts)
        if self.all_alike and (said := self._unlike(case)):
            return Verdict("due", "adjust", said, facts=facts)
        suits = f", as {crop} {_want(crop)}" if wanted else ""
        return Verdict("sound", "none", f"{state.name}{suits}.", facts=facts)

    @property
    def by_crop(self) -> bool:  # type: ignore[override]
        """Whether any crop would have it some way."""
        return any(one.crops for one in self.options)

    def lasting(self, crop: str, schools: Mapping[str, str]) -> list[FittedState]:
        """The states that a crop would have only where no other follows soon, by the shop's schools."""
        return [
            one for one in self.options if crop in one.crops and one.lasting_by and one.lasting_by.items() <= schools.items()
        ]

    def wanted(self, crop: str, schools: Mapping[str, str]) -> list[FittedState]:
        """The states that a crop would have, by the shop's schools; empty where it asks for none."""
        return [
            one
            for one in self.options
            if crop in one.crops and all(schools.get(subject) == choice for subject, choice in one.only_by.items())
        ]

    def _unlike(self, case: Case) -> str:
        """How the places differ, in words; empty where they are alike, or where this one stands as most do."""
        stands = {place: other.choice for place, other in case.context.others.get(case.check.key, {}).items() if other.choice}
        stands[case.position.key] = case.value.choice
        most = max(stands.values(), key=lambda state: (list(stands.values()).count(state), -_first(stands, state)))
        here, names = case.value.choice, {one.key: _within(one.name) for one in self.options}
        if len(set(stands.values())) == 1 or (len(stands) > 2 and here == most):
            return ""
        if len(stands) == 2:
            places = sorted(stands, key=positions.reading_order)
            told = ", ".join(f"{positions.find(place).label.lower()} {names[stands[place]]}" for place in places)
            return f"{_first_word(told)}: both must stand alike."
        return f"{_first_word(names[here])}; the others: {names[most]}. All must stand alike."

    def problems(self, check: Check, family: Family) -> Iterator[str]:
        if len(self.options) < 2:
            yield "needs at least two options"
        for crop in CROP_NAMES:
            if (wanted := self.wanted(crop, {})) and not any(one.severity == "sound" for one in wanted):
                yield f"no sound state suits {crop}"


def _first(stands: Mapping[str, str], state: str) -> int:
    return list(stands.values()).index(state)


def _first_word(text: str) -> str:
    """A text that begins a sentence."""
    return f"{text[0].upper()}{text[1:]}"


def _within(name: str) -> str:
    """A name inside a sentence."""
    return name if name[:2].isupper() else name[:1].lower() + name[1:]


def _want(crop: str) -> str:
    return "want" if crop.endswith("s") else "wants"
