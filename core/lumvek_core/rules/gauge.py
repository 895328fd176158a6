"""Go and no-go: one feeler must pass, another must not."""

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Annotated, Literal

from ..compare import below, exceeds
from ..units import plain
from .base import Case, Limit, Option, Rule
from .states import StatesRule
from .verdict import Advice, Facts, Row, Verdict


@dataclass(frozen=True)
class GaugeFacts(Facts):
    """low, high: the two feelers. state: ``right``, ``too-tight`` or ``too-wide``. card: thickness of the shop's own card."""

    kind: Literal["gauge"] = "gauge"
    state: Literal["right", "too-tight", "too-wide"] = "right"
    low: float = 0.0
    high: float = 0.0
    card: float | None = None


CARD_STATES = [
    Option("drag", "Passes with drag"),
    Option("loose", "Passes loose: too wide", "due", "adjust"),
    Option("tight", "Will not go: too tight", "due", "adjust"),
]
"""What the card says, for those who pass one instead of feelers."""
OF_CARD: dict[str, Literal["right", "too-tight", "too-wide"]] = {"drag": "right", "loose": "too-wide", "tight": "too-tight"}
STATES = [
    Option("right", "Low passes, high does not"),
    Option("too-tight", "Low does not pass: too tight", "due", "adjust"),
    Option("too-wide", "High passes: too wide", "due", "adjust"),
]


@dataclass(frozen=True)
class GaugeRule(StatesRule):
    """Go and no-go: the low feeler must pass and the high one must not. by: two feelers, or one card that must drag."""

    answers, facts, wants = "gauge", GaugeFacts, frozenset({"feelers"})
    drawings = frozenset({"hold-downs"})

    kind: Literal["gauge"]
    go: Annotated[float, Limit("Go")]
    no_go: Annotated[float, Limit("No-go")]
    by: Literal["feelers", "card"] = "feelers"

    def states(self) -> list[Option]:
        return CARD_STATES if self.by == "card" else STATES

    def ways(self) -> Sequence[str]:
        return "feelers", "card"

    def alike(self, other: Rule) -> bool:
        """What a card said and what two feelers said are not held against each other."""
        return isinstance(other, GaugeRule) and other.by == self.by

    def judge(self, case: Case) -> Verdict:
        """With the shop's own card beside the window, for those who pass a card instead of feelers."""
        card = case.context.feelers.get("card")
        choice = case.value.choice
        state: Literal["right", "too-tight", "too-wide"] = OF_CARD.get(choice, choice)  # type: ignore[arg-type]  # one of STATES
        verdict = replace(super().judge(case), facts=GaugeFacts("gauge", state, self.go, self.no_go, card))
        if card is None:
            return verdict
        if below(card, self.go):
            where, means = "thinner than the window", "passing, it proves nothing yet"
        elif exceeds(card, self.no_go):
            where, means = "thicker than the window", "passing, it proves the clearance too wide"
        else:
            where, means = "in the window", "light drag is right"
        window = f"{plain(self.go, 2)} to {plain(self.no_go, 2)} mm"
        return replace(verdict, advice=Advice([Row("The shop's card", f"{plain(card, 2)} mm, {where} of {window}: {means}")]))
