"""Rule for the knives of a rotor: each by its state, all of them by their balance."""

from dataclasses import replace

from ..calculators import balance
from ..catalogue.model import Check
from ..counted import counted
from ..positions import Position
from ..units import plain, show_unbalance
from .context import Context
from .parse_reading import Value
from .rules import Advice, KnivesRule, Row, Verdict, options

NAMES = {"set": "Balanced set", "pair": "Each with its opposite", "single": "Only the bad ones"}


def knives(check: Check, rule: KnivesRule, position: Position, value: Value, context: Context, verdict: Verdict) -> Verdict:
    """The verdict on one knife's state, with what each school of renewing leaves out of balance where one must be renewed."""
    states = {key: other.choice for key, other in context.others.get(check.key, {}).items()}
    states[position.key] = value.choice
    me = _place(rule, position.key, value.choice)
    verdict = replace(verdict, facts=verdict.facts | {"angle": me.angle_deg, "mass": me.mass_g})
    if verdict.action != "replace":
        return verdict
    places = [_place(rule, key, state) for key, state in sorted(states.items(), key=lambda item: _number(item[0]))]
    renewed = {option.key for option in options(rule) if option.action == "replace"}
    bad = [
        knife.name
        for knife, (_, state) in zip(places, sorted(states.items(), key=lambda i: _number(i[0])), strict=True)
        if state in renewed
    ]
    raw = [{"name": knife.name, "angle_deg": knife.angle_deg, "axial_mm": knife.axial_mm} for knife in places]
    plans = [balance.Renewal(**plan) for plan in balance.school_plans(raw, bad, rule.new_mass)]
    found = balance.rotor_balance(
        balance.RotorGiven(places, rule.rotor_mass, rule.speed, rule.grade, must_renew=bad, plans=plans)
    )
    # What is compared is shown in one unit.
    most = max(found.unbalance_g_mm, found.permissible_g_mm, *(plan.unbalance_g_mm for plan in found.plans))
    rows = [Row("Unbalance now", show_unbalance(found.unbalance_g_mm, most), "sound" if found.state == "within" else "due")]
    rows.append(Row("Allowed", f"{show_unbalance(found.permissible_g_mm, most)} (grade G {plain(rule.grade, 1)})"))
    for plan in found.plans:
        count = counted(plan.knives, "knife", "knives")
        best = ", fewest within the grade" if plan.name == found.recommended and plan.within else ""
        rows.append(
            Row(
                NAMES[plan.name],
                f"{count}, leaves {show_unbalance(plan.unbalance_g_mm, most)}{best}",
                "sound" if plan.within else "due",
            )
        )
    chosen = context.schools.get("chopper-knife", "balance")
    plan = next(one for one in found.plans if one.name == (found.recommended if chosen == "balance" else chosen))
    rest, allowed = plan.unbalance_g_mm, found.permissible_g_mm
    told = f" Renew {plan.knives} ({NAMES[plan.name].lower()}): {show_unbalance(rest, allowed)} left of {show_unbalance(allowed, rest)} allowed."
    why = [
        f"{counted(len(states), 'knife', 'knives')} looked at so far, taken as {plain(rule.mass, 0)} g each ({plain(rule.new_mass, 0)} g new) at {plain(rule.radius, 0)} mm, "
        f"{rule.around} to a turn; a broken one pulls less by what is gone. Static unbalance of the knives only.",
    ]
    facts = verdict.facts | {"unbalance": found.unbalance_g_mm, "permissible": found.permissible_g_mm}
    facts |= {"angle_now": found.heavy_angle_deg or 0.0}
    for option in plans:
        after = [replace(knife, mass_g=rule.new_mass) if knife.name in {*option.renew, *bad} else knife for knife in places]
        left = balance.rotor_balance(balance.RotorGiven(after, rule.rotor_mass, rule.speed, rule.grade))
        facts |= {f"left_{option.name}": left.unbalance_g_mm, f"angle_{option.name}": left.heavy_angle_deg or 0.0}
    return replace(verdict, reason=verdict.reason + told, why=[*verdict.why, *why], facts=facts, advice=Advice(rows))


def _number(key: str) -> int:
    digits = key.rpartition("-")[2]
    return int(digits) if digits.isdigit() else 0


def _place(rule: KnivesRule, key: str, state: str) -> balance.Knife:
    """Knives are numbered round the rotor, `around` to a turn, then along it."""
    number = _number(key) - 1
    mass = rule.mass * rule.left.get(state, 1.0)
    return balance.Knife(
        str(number + 1), 360 * (number % rule.around) / rule.around, rule.radius, mass, float(number // rule.around)
    )
