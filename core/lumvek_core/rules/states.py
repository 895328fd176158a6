"""What the kinds of rule with named states have alike."""

import datetime as dt
from abc import abstractmethod
from dataclasses import dataclass
from typing import ClassVar, Literal

from ..catalogue.model import Check
from .base import Answers, Case, Option, Rule
from .verdict import Facts, Verdict


@dataclass(frozen=True)
class StateFacts(Facts):
    """state: which of how many, counted from the sound one."""

    kind: Literal["state"] = "state"
    state: int = 0
    states: int = 0


class StatesRule(Rule):
    """One of named states is chosen."""

    answers: ClassVar[Answers | None] = "choice"
    facts: ClassVar[type[Facts] | None] = StateFacts

    @abstractmethod
    def states(self) -> list[Option]: ...

    def state_of(self, case: Case) -> Option:
        return next(option for option in self.states() if option.key == case.value.choice)

    def state_facts(self, case: Case) -> StateFacts:
        keys = [option.key for option in self.states()]
        return StateFacts(state=keys.index(case.value.choice), states=len(keys))

    def judge(self, case: Case) -> Verdict:
        state = self.state_of(case)
        return Verdict(state.severity, state.action, f"{state.name}.", facts=self.state_facts(case))

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [self.states()[0].key]
