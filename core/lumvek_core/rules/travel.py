"""How much of a take-up is used, and what becomes of the chain then."""

import datetime as dt
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..calculators import take_up as take_ups
from ..catalogue.model import Check
from ..compare import reached
from ..judgement.context import Context
from ..judgement.words import Words
from ..units import plain
from .base import Case, Limit, OtherCheck, Rule
from .stretch import StretchRule
from .verdict import Facts, Verdict


@dataclass(frozen=True)
class TravelFacts(Facts):
    """after: what is used once half a link is out, where that is advised."""

    kind: Literal["travel"] = "travel"
    used: float = 0.0
    total: float = 0.0
    used_shown: str = ""
    total_shown: str = ""
    after: float | None = None
    after_shown: str = ""


SCHOOLS: dict[str, take_ups.RetireSchool] = {
    "first-of-both": "first",
    "three-per-cent": "percent",
    "one-then-end": "one_then_end",
    "all-fitted": "all_fitted",
    "full-link": "full_link",
    "yearly": "yearly",
}
"""Schools of the catalogue as the calculation calls them."""


@dataclass(frozen=True)
class TravelRule(Rule):
    """How much of a chain's take-up is used: two figures, used and total, in the unit of the check.

    With the pitch of the chain it is worked out whether a half link comes out or the chain is retired: wear_per_h, season_h:
    how fast the take-up is used and for how long; stretch_from, half_links_from: checks in which stretch is measured and half
    links (fitted, out already) are counted. strands: the chain has several, that are kept alike.
    """

    answers, figures, facts = "measure", 2, TravelFacts
    drawings = frozenset({"take-up"})
    renews = True

    kind: Literal["travel"]
    watch_from: Annotated[float, Over(0), Within(0, 1), Limit("Watch from", shown_as="share")] = 0.75
    pitch: Annotated[Annotated[float, Over(0)] | None, Limit("Pitch")] = None
    wear_per_h: Annotated[Annotated[float, Within(0)] | None, Limit("Take-up used an hour", "mm/h")] = None
    season_h: Annotated[Annotated[float, Within(0)] | None, Limit("Coming season", "h")] = None
    stretch_from: Annotated[str, OtherCheck()] = ""
    half_links_from: Annotated[str, OtherCheck()] = ""
    strands: bool = False

    def judge(self, case: Case) -> Verdict:
        (used, total), say = case.value.numbers, case.say
        if total <= 0 or used > total:
            return Verdict("due", "investigate", f"{say.figure(used)} used of {say.figure(total)}: cannot be, measure again.")
        said = f"{say.figure(used)} of {say.figure(total)} take-up used"
        facts = TravelFacts("travel", used, total, say.figure(used), say.figure(total))
        if self.pitch is not None:
            return self._half_link(self.pitch, case.context, said, facts, say)
        share = used / total
        if reached(used, total):
            return Verdict("due", "adjust", f"{said}: at its end.", facts=facts, used=share)
        left = f"{said}, {say.figure(total - used)} left."
        if reached(share, self.watch_from):
            return Verdict("watch", "recheck", left, facts=facts, used=share)
        return Verdict("sound", "none", left, facts=facts, used=share)

    def _half_link(self, pitch: float, context: Context, said: str, facts: TravelFacts, say: Words) -> Verdict:
        """Whether the take-up lasts, a half link comes out of every strand, or the chain is done: the shop's school decides."""
        used, total = facts.used, facts.total
        counted = next(iter(context.others.get(self.half_links_from, {}).values()), None)
        fitted, out = (int(n) for n in counted.numbers) if counted and len(counted.numbers) == 2 else (1, 0)
        percent = self._stretch(context)
        school = SCHOOLS.get(context.schools.get("chain-retirement", ""), "first")
        if school == "percent" and percent is None:
            school = "first"
        found = take_ups.take_up(
            take_ups.TakeUpGiven(
                pitch,
                total,
                used,
                out,
                self.wear_per_h or 0.0,
                self.season_h or 0.0,
                half_links_fitted=fitted,
                school=school,
                stretch_pct=percent,
            )
        )
        left = "" if found.hours_to_end is None else f", about {plain(found.hours_to_end, 0)} h of it left"
        stretched = "not measured" if percent is None else f"{plain(percent, 2)} %"
        why = [
            f"{plain(self.wear_per_h or 0, 3)} mm of take-up an hour over a season of {plain(self.season_h or 0, 0)} h; "
            "half a link out gives back "
            f"{say.figure(pitch / 2)}; {out} of {fitted} half links out so far; stretch {stretched}.",
        ]
        share = used / total
        if found.advice == "retire":
            return Verdict("due", "replace", f"{said}: {self._retired()}", why, facts, used=share)
        if found.advice == "remove_half_link":
            after = say.figure(found.used_after_mm)
            facts = TravelFacts("travel", used, total, facts.used_shown, facts.total_shown, found.used_after_mm, after)
            then = f" After it {after} are used." if found.can_remove else ""
            reason = f"{said}{left}: take half a link out{self._of_each()}.{then}"
            return Verdict("due", "adjust", reason, why, facts, used=share)
        if found.advice == "runs_out":
            reason = f"{said}{left}: it ends within the season and no half link can come out yet."
            return Verdict("watch", "recheck", reason, why, facts, used=share)
        if reached(share, self.watch_from):
            return Verdict("watch", "recheck", f"{said}{left}: it lasts the season.", why, facts, used=share)
        return Verdict(
            "sound", "none", f"{said}, {say.figure(total - used)} left: it lasts the season.", why, facts, used=share
        )

    def _of_each(self) -> str:
        return " of every strand" if self.strands else ""

    def _retired(self) -> str:
        return f"retire the chain: renew {'every strand' if self.strands else 'it'}, with its sprockets looked at."

    def _stretch(self, context: Context) -> float | None:
        """The most stretched strand, per cent, where it was measured."""
        measured = [value.numbers[0] for value in context.others.get(self.stretch_from, {}).values() if value.numbers]
        chain_rule = context.rules.get(self.stretch_from)
        if not measured or not isinstance(chain_rule, StretchRule):
            return None
        return max(chain_rule.stretch_of(length) for length in measured)

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["18", "60"]
