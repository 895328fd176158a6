"""A figure that is brought back in steps."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from ..bounds import Over
from ..catalogue.model import Check
from ..compare import exceeds
from ..judgement.parse_reading import Value
from ..judgement.words import with_unit
from ..units import System, plain
from .base import Case, Limit, Rule, Span
from .verdict import Facts, Verdict
from .window import FAR


@dataclass(frozen=True)
class SteppedFacts(Facts):
    """steps: taken so far."""

    compared: ClassVar[str] = "reading"
    kind: Literal["stepped"] = "stepped"
    reading: float = 0.0
    limit: float = 0.0
    steps: int = 0


@dataclass(frozen=True)
class SteppedRule(Rule):
    """A figure that is brought back in steps: the figure and the steps taken so far. After the last step one looks
    elsewhere.
    """

    answers, figures, facts = "measure", 2, SteppedFacts

    kind: Literal["stepped"]
    limit: Annotated[float, Limit("Renew at")]
    steps: Annotated[int, Over(0), Limit("Steps at most", "")]
    step: str

    def judge(self, case: Case) -> Verdict:
        figure, taken = case.value.numbers
        facts = SteppedFacts("stepped", figure, self.limit, int(taken))
        shown = f"{case.say.figure(figure)}, up to {case.say.figure(self.limit)} is usual"
        if not exceeds(figure, self.limit):
            return Verdict("sound", "none", f"{shown}.", facts=facts)
        if taken < self.steps:
            reason = f"{shown}: {self.step} ({plain(taken, 0)} of at most {self.steps} so far), then read again."
            return Verdict("due", "adjust", reason, facts=facts)
        all_taken = "the one step" if self.steps == 1 else f"all {self.steps} steps"
        reason = f"{shown} with {all_taken} taken: never another; look for the cause."
        return Verdict("due", "investigate", reason, facts=facts)

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return [plain(0.8 * self.limit, 1), "0"]

    def readings_named(self) -> dict[str, float]:
        return {"limit": self.limit}

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        return 0.0, FAR * self.limit

    def measured(self, numbers: Sequence[float]) -> Sequence[float]:
        return numbers[:1]

    def usual_span(self, check: Check) -> Span:
        return self.limit * 0.5, self.limit * 1.2

    def full(self, check: Check, value: Value, system: System) -> str | None:
        (what, steps), (figure, taken) = check.values, value.numbers
        return f"{what} {with_unit(check, figure, system)}, {steps} {plain(taken, 0)}"
