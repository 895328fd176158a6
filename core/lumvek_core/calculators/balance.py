"""Chopper knives: how far out of balance the rotor is, and what renewing which of them leaves."""

import cmath
import math
from dataclasses import dataclass, field
from typing import Annotated, Any, Literal

from ..bounds import AtMost, Over, Within
from ..compare import exceeds
from ..errors import BadInput
from ..registry import calculator
from .common import NotNegative, Positive, different_names, some


@dataclass(frozen=True)
class Knife:
    """One place on the rotor. radius: to the knife's centre of mass when running. axial: along the rotor from its middle."""

    name: str
    angle_deg: float
    radius_mm: Positive
    mass_g: NotNegative
    axial_mm: float | None = None


@dataclass(frozen=True)
class Renewal:
    """A way to put it right: these knives are renewed, and those that must be renewed anyway."""

    name: str
    renew: Annotated[list[str], AtMost(64)]
    new_mass_g: NotNegative


@dataclass(frozen=True)
class RotorGiven:
    positions: Annotated[list[Knife], AtMost(200)]
    rotor_mass_kg: Positive
    speed_rpm: Positive
    grade_mm_s: Annotated[float, Over(0), Within(0, 4000)] = 16
    must_renew: Annotated[list[str], AtMost(200)] = field(default_factory=list)
    plans: Annotated[list[Renewal], AtMost(400)] | None = None


@dataclass(frozen=True)
class PlanLeaves:
    name: str
    unbalance_g_mm: float
    knives: int
    within: bool


@dataclass(frozen=True)
class Rotor:
    unbalance_g_mm: float
    heavy_angle_deg: float | None
    permissible_g_mm: float
    force_n: float
    couple_g_mm2: float | None
    state: Literal["within", "over"]
    plans: list[PlanLeaves]
    recommended: str | None


NOTHING = 1e-9
"""Share of Σ mass·radius below which a sum of opposite knives is rounding, not unbalance."""


@calculator
def rotor_balance(given: RotorGiven) -> Rotor:
    """Static unbalance of the knives alone, against what the rotor is allowed, and what each plan of renewal leaves.

    U = |Σ m·r·e^{iθ}|; permissible = 1000·G·M/ω (ISO 21940-11, G 16 for agricultural machinery); force = U·10⁻⁶·ω². The heavy
    angle lies in [0, 360), null where the unbalance is rounding. couple = |Σ m·r·a·e^{iθ}| about the rotor's middle, null
    unless every place has its axial_mm. Every plan renews `must_renew` too. Recommended: of those within the grade the one with
    fewest knives (tie: least left, then name), else the one that leaves least (tie: fewest knives, then name); null without
    plans. g, mm, kg, rpm. Knives hang free and the rotor itself may be out: a static figure, no balancing certificate.
    """
    some(given.positions, "positions", "knife")
    different_names([knife.name for knife in given.positions], "positions")
    omega = given.speed_rpm * 2 * math.pi / 60
    permissible = 1000 * given.grade_mm_s * given.rotor_mass_kg / omega
    known = {knife.name for knife in given.positions}
    _known(given.must_renew, known, "must_renew")
    vector, size = _sum(given, {})
    unbalance, rounding = abs(vector), NOTHING * size
    axial = [knife.axial_mm for knife in given.positions]
    couple = None
    if None not in axial:
        couple = abs(sum(_moment(knife, knife.mass_g) * (knife.axial_mm or 0.0) for knife in given.positions))
    plans = [_plan(given, i, plan, known, permissible) for i, plan in enumerate(given.plans or [])]
    different_names([plan.name for plan in plans], "plans")
    return Rotor(
        unbalance_g_mm=unbalance,
        heavy_angle_deg=None if unbalance <= rounding else math.degrees(cmath.phase(vector)) % 360 % 360,
        permissible_g_mm=permissible,
        force_n=unbalance * 1e-6 * omega**2,
        couple_g_mm2=couple,
        state="over" if exceeds(unbalance, permissible) else "within",
        plans=plans,
        recommended=_recommended(plans, rounding),
    )


def _moment(knife: Knife, mass: float) -> complex:
    return cmath.rect(mass * knife.radius_mm, math.radians(knife.angle_deg % 360))


def _sum(given: RotorGiven, renewed: dict[str, float]) -> tuple[complex, float]:
    """(Σ m·r·e^{iθ}, Σ m·r) with some masses renewed."""
    masses = [renewed.get(knife.name, knife.mass_g) for knife in given.positions]
    moments = [_moment(knife, mass) for knife, mass in zip(given.positions, masses, strict=True)]
    total = complex(math.fsum(m.real for m in moments), math.fsum(m.imag for m in moments))
    return total, math.fsum(abs(moment) for moment in moments)


def _known(names: list[str], known: set[str], field: str) -> None:
    for i, name in enumerate(names):
        if name not in known:
            raise BadInput(f"{field}.{i}", f"there is no knife “{name}”")


def _plan(given: RotorGiven, index: int, plan: Renewal, known: set[str], permissible: float) -> PlanLeaves:
    _known(plan.renew, known, f"plans.{index}.renew")
    renewed = dict.fromkeys([*plan.renew, *given.must_renew], plan.new_mass_g)
    left = abs(_sum(given, renewed)[0])
    return PlanLeaves(plan.name, left, len(renewed), not exceeds(left, permissible))


def _recommended(plans: list[PlanLeaves], rounding: float) -> str | None:
    if not plans:
        return None

    def left(plan: PlanLeaves) -> float:
        return 0.0 if plan.unbalance_g_mm <= rounding else plan.unbalance_g_mm

    if within := [plan for plan in plans if plan.within]:
        return min(within, key=lambda plan: (plan.knives, left(plan), plan.name)).name
    return min(plans, key=lambda plan: (left(plan), plan.knives, plan.name)).name


def school_plans(
    positions: list[dict[str, Any]], bad: list[str], new_mass_g: float, set_size: int | None = None
) -> list[dict[str, Any]]:
    """The three schools of renewing broken knives as plans: the balanced set, each bad one with its opposite, the bad ones
    alone.

    positions, and the plans, as `rotor_balance` takes them in JSON. set_size: knives of one set by the book, in the order of
    `positions`; the sets that hold a bad one are renewed; all of them are one set where it is left out, and 0 leaves the plan
    out. A knife's opposite is the one nearest to half a turn away, of those the nearest along the rotor. With nothing bad there
    is the set only.
    """
    names = [str(knife["name"]) for knife in positions]
    size = len(names) if set_size is None or not bad else set_size
    sets = [names[i : i + size] for i in range(0, len(names), size)] if size else []
    taken = [name for one in sets if not bad or set(bad) & set(one) for name in one]
    plans = [{"name": "set", "renew": taken, "new_mass_g": new_mass_g}] if size else []
    if not bad:
        return plans
    by_name = {str(knife["name"]): knife for knife in positions}
    pairs = dict.fromkeys(name for one in bad if one in by_name for name in (one, _opposite(by_name, one)))
    plans.append({"name": "pair", "renew": list(pairs), "new_mass_g": new_mass_g})
    plans.append({"name": "single", "renew": [name for name in bad if name in by_name], "new_mass_g": new_mass_g})
    return plans


def _opposite(knives: dict[str, dict[str, Any]], name: str) -> str:
    me = knives[name]

    def away(other: str) -> tuple[float, float, str]:
        turn = (knives[other]["angle_deg"] - me["angle_deg"]) % 360
        return abs(turn - 180), abs((knives[other].get("axial_mm") or 0) - (me.get("axial_mm") or 0)), other

    return min(knives, key=away)
