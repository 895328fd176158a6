"""How many of like things are faulty."""

import datetime as dt
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..catalogue.model import Check, Family
from ..compare import exceeds
from ..coupled import short
from ..errors import BadInput
from ..judgement.parse_reading import Value, number_of
from ..judgement.words import percent
from ..units import Unit
from .base import Case, CountedThing, Limit, Rule, Span
from .verdict import ACTION_WORDS, Action, Facts, Verdict


@dataclass(frozen=True)
class CountFacts(Facts):
    kind: Literal["count"] = "count"
    found: int = 0
    of: int = 0


@dataclass(frozen=True)
class CountRule(Rule):
    """k of n found faulty. 0 is sound; above `set_share` of n the whole set is due.

    each: the thing that is counted, where the machine has its own number of it, which then stands for `of`.
    """

    answers, figures, facts = "count", 0, CountFacts
    offered = "Faulty ones, counted out of so many"

    kind: Literal["count"]
    of: Annotated[int, Over(0), Limit("In all", "")]
    action: Action = "replace"
    set_share: Annotated[float, Within(0, 1), Limit("Whole set above", shown_as="share")] = 0.30
    each: Annotated[str, CountedThing()] = ""

    def judge(self, case: Case) -> Verdict:
        found = int(case.reading)
        facts = CountFacts("count", found, self.of)
        where = f" ({case.value.text})" if case.value.text else ""
        if found == 0:
            return Verdict("sound", "none", f"None of {self.of}.", facts=facts)
        share = found / self.of
        why = [f"{found} of {self.of} is {percent(share)}; above {percent(self.set_share)} the whole set."]
        if self.action == "adjust":
            return Verdict("due", "adjust", f"{found} of {self.of}{where}: set these right.", facts=facts)
        if exceeds(share, self.set_share):
            return Verdict("due", "replace", f"{found} of {self.of}{where}: renew the set.", why, facts)
        these = ACTION_WORDS.get(self.action, self.action)
        return Verdict("due", self.action, f"{found} of {self.of}{where}: {these} these.", why, facts)

    def read(self, check: Check, raw: Sequence[str], unit: Unit) -> Value | None:
        """``3``, or with the places named: ``3: 7, 21, 22``. The names are kept as they were typed."""
        figure, _, places = raw[0].partition(":")
        value = number_of(check, figure, 0, "mm")
        if not value.is_integer():
            raise BadInput("raw.0", "must be a whole number")
        if value > self.of:
            raise BadInput("raw.0", f"there are only {self.of}")
        return Value(numbers=[value], text=places.strip()[:80])

    def sizes(self) -> list[str]:
        return ["of"]

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["0"]

    def problems(self, check: Check, family: Family) -> Iterator[str]:
        thing = family.things.get(self.each)
        if thing and thing.count != self.of:
            yield f"of is {self.of}, but there are {thing.count} of {short(self.each)}"

    def believable(self, check: Check, others: Sequence[float]) -> Span | None:
        return 0.0, float(self.of)
