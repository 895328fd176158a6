"""The knives of a rotor: each by its state, all of them by their balance."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from ..bounds import Over, Within
from ..calculators import balance
from ..catalogue.model import Check, Family
from ..counted import counted
from ..units import plain, show_unbalance
from .base import Case, CountedThing, Limit, Option
from .states import StatesRule
from .verdict import Advice, Facts, Row, Verdict

NAMES = {"set": "Balanced set", "pair": "Each with its opposite", "single": "Only the bad ones"}
NOT_STATED = "not stated for this model yet"
SHORT = {"set": "Set", "pair": "Pair", "single": "Single"}


@dataclass(frozen=True)
class Unbalance:
    """What one way of renewing leaves: name, where it pulls to (degrees, None nowhere), as a share of what is allowed."""

    name: str
    angle: float | None
    share: float
    shown: str


@dataclass(frozen=True)
class KnivesFacts(Facts):
    """angle, mass: of this knife. bad: it must be renewed. unbalances: now and by each way of renewing, where one must be."""

    kind: Literal["knives"] = "knives"
    angle: float = 0.0
    mass: float = 0.0
    bad: bool = False
    unbalances: list[Unbalance] = field(default_factory=list)
    allowed_shown: str = ""


@dataclass(frozen=True)
class KnivesRule(StatesRule):
    """The state of each knife of a rotor, and what renewing them leaves out of balance.

    left: share of a worn knife's mass that is left in a state, 1 where it is not named. Knives are numbered round the rotor,
    `around` to a turn; `of` in all, or as many as the machine has of `each`. Those not looked at yet are taken as sound, and it
    is said. set_size: knives of one balanced set, by the book of the model. Lengths in mm, masses in g, the rotor's in kg.
    """

    facts, compares = KnivesFacts, True
    drawings = frozenset({"chopper"})

    kind: Literal["knives"]
    options: list[Option]
    left: dict[str, Annotated[float, Within(0, 1)]]
    around: Annotated[int, Over(0), Limit("Knives to a turn", "")] = 4
    radius: Annotated[float, Over(0), Limit("Knife's centre of mass at", "mm")] = 260
    mass: Annotated[float, Over(0), Limit("A worn knife", "g")] = 410
    new_mass: Annotated[float, Over(0), Limit("A new knife", "g")] = 460
    rotor_mass: Annotated[float, Over(0), Limit("Rotor with knives", "kg")] = 96
    speed: Annotated[float, Over(0), Limit("Speed", "rpm")] = 2900
    grade: Annotated[float, Over(0), Limit("Balance grade G", "mm/s")] = 16
    of: Annotated[int, Over(0), Limit("In all", "")] = 40
    each: Annotated[str, CountedThing()] = ""
    set_size: Annotated[int, Within(0), Limit("Balanced set, by the book", "knives", unknown=NOT_STATED)] = 0

    def states(self) -> list[Option]:
        return self.options

    def sizes(self) -> list[str]:
        return ["around", "set_size"]

    def judge(self, case: Case) -> Verdict:
        """The verdict on one knife's state, with what each school of renewing leaves out of balance where one must be
        renewed.
        """
        others = case.context.others.get(case.check.key, {})
        states = {key: other.choice for key, other in others.items()} | {case.position.key: case.value.choice}
        me = self._knife(case.position.key, case.value.choice)
        verdict = super().judge(case)
        facts = KnivesFacts("knives", me.angle_deg, me.mass_g, verdict.action == "replace")
        if not facts.bad:
            return replace(verdict, facts=facts)
        found, after = self._balanced(states)
        # What is compared is shown in one unit.
        most = max(found.unbalance_g_mm, found.permissible_g_mm, *(plan.unbalance_g_mm for plan in found.plans))
        gone = sum(not self.left.get(state, 1.0) for state in states.values())
        cancel = ""
        if gone and found.state == "within":
            cancel = f": the pulls cancel out, but {counted(gone, 'knife is', 'knives are')} gone"
        rows = [
            Row(
                "Unbalance now",
                f"{show_unbalance(found.unbalance_g_mm, most)}{cancel}",
                "sound" if found.state == "within" and not gone else "due",
            ),
            Row("Allowed", f"{show_unbalance(found.permissible_g_mm, most)} (grade G {plain(self.grade, 1)})"),
        ]
        for plan in found.plans:
            count = counted(plan.knives, "knife", "knives")
            best = ", fewest within the grade" if plan.name == found.recommended and plan.within else ""
            left = f"{count}, leaves {show_unbalance(plan.unbalance_g_mm, most)}{best}"
            rows.append(Row(NAMES[plan.name], left, "sound" if plan.within else "due"))
        if not self.set_size:
            rows.insert(2, Row(NAMES["set"], f"{NOT_STATED}: look it up, and enter it with its rules"))
        chosen = case.context.schools.get("chopper-knife", "balance")
        ways_left = [one for one in found.plans if one.name == chosen]
        plan = ways_left[0] if ways_left else next(one for one in found.plans if one.name == found.recommended)
        rest, allowed = plan.unbalance_g_mm, found.permissible_g_mm
        then = f"{show_unbalance(rest, allowed)} left of {show_unbalance(allowed, rest)} allowed"
        open_ = max(0, self.of - len(states))
        taken = f" {counted(open_, 'knife', 'knives')} not looked at yet taken as sound." if open_ else ""
        unknown = f" How many knives the balanced set has is {NOT_STATED}." if chosen == "set" and not self.set_size else ""
        told = f" Renew {plan.knives} ({NAMES[plan.name].lower()}): {then}.{unknown}{taken}"
        why = [
            f"{counted(len(states), 'knife', 'knives')} of {self.of} looked at, all taken as {plain(self.mass, 0)} g each "
            f"({plain(self.new_mass, 0)} g new) at {plain(self.radius, 0)} mm, "
            f"{self.around} to a turn; a broken one pulls less by what is gone. Static unbalance of the knives only.",
        ]
        share = 1 / found.permissible_g_mm
        now = Unbalance("Now", found.heavy_angle_deg, found.unbalance_g_mm * share, show_unbalance(found.unbalance_g_mm, most))
        ways = [
            Unbalance(
                SHORT[plan.name],
                after[plan.name].heavy_angle_deg,
                after[plan.name].unbalance_g_mm * share,
                show_unbalance(plan.unbalance_g_mm, most),
            )
            for plan in found.plans
        ]
        facts = replace(facts, unbalances=[now, *ways], allowed_shown=show_unbalance(found.permissible_g_mm, most))
        return replace(verdict, reason=verdict.reason + told, why=[*verdict.why, *why], facts=facts, advice=Advice(rows))

    def _balanced(self, states: Mapping[str, str]) -> tuple[balance.Rotor, dict[str, balance.Rotor]]:
        """The rotor with its knives as they are, and as each way of renewing leaves it."""
        all_sound = {f"knife-{number}": self.options[0].key for number in range(1, self.of + 1)}
        in_order = sorted((all_sound | dict(states)).items(), key=lambda item: _number(item[0]))
        knives = [self._knife(key, state) for key, state in in_order]
        renewed = {option.key for option in self.options if option.action == "replace"}
        bad = [knife.name for knife, (_, state) in zip(knives, in_order, strict=True) if state in renewed]
        raw = [{"name": knife.name, "angle_deg": knife.angle_deg, "axial_mm": knife.axial_mm} for knife in knives]
        plans = [balance.Renewal(**plan) for plan in balance.school_plans(raw, bad, self.new_mass, self.set_size)]
        given = balance.RotorGiven(knives, self.rotor_mass, self.speed, self.grade, must_renew=bad, plans=plans)
        after = {}
        for plan in plans:
            fresh = {*plan.renew, *bad}
            left = [replace(knife, mass_g=self.new_mass) if knife.name in fresh else knife for knife in knives]
            after[plan.name] = balance.rotor_balance(balance.RotorGiven(left, self.rotor_mass, self.speed, self.grade))
        return balance.rotor_balance(given), after

    def _knife(self, key: str, state: str) -> balance.Knife:
        """Knives are numbered round the rotor, `around` to a turn, then along it."""
        number, mass = _number(key) - 1, self.mass * self.left.get(state, 1.0)
        angle = 360 * (number % self.around) / self.around
        return balance.Knife(str(number + 1), angle, self.radius, mass, float(number // self.around))

    def problems(self, check: Check, family: Family) -> Iterator[str]:
        if not set(self.left) <= {option.key for option in self.options}:
            yield "left names a state that is not among the options"
        if len(self.options) < 2:
            yield "needs at least two options"


def _number(key: str) -> int:
    digits = key.rpartition("-")[2]
    return int(digits) if digits.isdigit() else 0
