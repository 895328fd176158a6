"""One of named states that the catalogue lists."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Literal

from ..catalogue.model import Check, Family
from .base import Option
from .states import StatesRule


@dataclass(frozen=True)
class ChoiceRule(StatesRule):
    """One of named states, worst last."""

    offered = "One of several states, by eye or finger"

    kind: Literal["choice"]
    options: list[Option]

    def states(self) -> list[Option]:
        return self.options

    def problems(self, check: Check, family: Family) -> Iterator[str]:
        if len(self.options) < 2:
            yield "needs at least two options"
