"""The pitch of the planter's bar while it works."""

import datetime as dt
from dataclasses import dataclass
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..calculators import planter
from ..catalogue.model import Check
from ..units import plain
from .base import Case, Limit, Rule, Span
from .verdict import Facts, Verdict


@dataclass(frozen=True)
class BarFacts(Facts):
    """pitch: degrees, nose down above zero. raise_mm: of the hitch, for dead level."""

    kind: Literal["bar"] = "bar"
    pitch: float = 0.0
    pitch_shown: str = ""
    front_shown: str = ""
    rear_shown: str = ""
    raise_mm: float = 0.0


@dataclass(frozen=True)
class BarRule(Rule):
    """Height of the planter's bar over ground at a front and a rear point, while it works."""

    answers, figures, facts = "measure", 2, BarFacts
    drawings = frozenset({"bar"})

    kind: Literal["bar"]
    base: Annotated[float, Over(0), Limit("Between the points")]
    lever: Annotated[float, Over(0), Limit("Hitch point to wheels")]
    nose_up: Annotated[float, Within(0), Limit("Nose up allowed", "°")] = 2
    nose_down: Annotated[float, Within(0), Limit("Nose down allowed", "°")] = 0

    def sizes(self) -> list[str]:
        return ["base", "lever"]

    def judge(self, case: Case) -> Verdict:
        """Pitch from two heights; out only by more than the heights can be wrong."""
        (front, rear), say = case.value.numbers, case.say
        found = planter.bar_level(
            planter.BarGiven(front, rear, self.base, self.lever, nose_up_max_deg=self.nose_up, nose_down_max_deg=self.nose_down)
        )
        pitch = f"{plain(abs(found.pitch_deg), 2)}° {'nose down' if found.pitch_deg > 0 else 'nose up'}"
        shown = f"{pitch}, give or take {plain(found.plus_minus_deg, 2)}°"
        facts = BarFacts("bar", found.pitch_deg, pitch, say.figure(front), say.figure(rear), found.raise_hitch_mm)
        why = [
            f"(rear {say.figure(rear)} − front {say.figure(front)}) ÷ {say.figure(self.base)} between the points is "
            f"{plain(found.pitch_deg, 2)}°; "
            f"allowed {plain(self.nose_up, 1)}° nose up to {plain(self.nose_down, 1)}° nose down.",
            f"Raising the hitch by that slope over the {say.figure(self.lever)} from hitch point to wheels brings it dead "
            "level.",
        ]
        if found.state == "level":
            return Verdict("sound", "none", f"{shown}: level enough.", why, facts)
        verb = "raise" if found.raise_hitch_mm > 0 else "lower"
        move = f"{verb} the hitch {say.figure(abs(found.raise_hitch_mm))} for dead level"
        return Verdict("due", "adjust", f"{shown}: {move}, and look again in work.", why, facts)

    def sample(self, check: Check, counter_h: float, day: dt.date) -> list[str]:
        return ["545", "540"]

    def usual_span(self, check: Check) -> Span:
        return 530.0, 560.0
