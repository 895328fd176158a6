"""Rules for chains, their take-ups, the knife and what is brought back in steps."""

from ..calculators import chain, knife
from ..catalogue.model import Check
from ..compare import exceeds, reached
from ..units import plain
from .rules import Action, RegisterRule, SteppedRule, StretchRule, TravelRule, Verdict
from .words import Words


def stretch(check: Check, rule: StretchRule, measured: float, say: Words) -> Verdict:
    result = chain.chain_stretch(chain.OverPitches(rule.pitch, rule.pitches, measured, rule.limit_pct))
    shown = f"{plain(result.stretch_pct, 2)} % stretch, limit {plain(rule.limit_pct, 2)} %"
    why = [
        f"{say.figure(measured)} over {plain(rule.pitches, 0)} pitches of {say.figure(rule.pitch)}: "
        f"100 × ({plain(measured, 1)} ÷ {plain(rule.pitch * rule.pitches, 1)} − 1) = {plain(result.stretch_pct, 2)} %, "
        f"give or take {plain(result.plus_minus_pct, 2)} % for the tape."
    ]
    facts = {
        "reading": measured,
        "new": rule.pitch * rule.pitches,
        "limit": rule.pitch * rule.pitches * (1 + rule.limit_pct / 100),
    }
    facts |= {"stretch_pct": result.stretch_pct, "used": result.used}
    action: Action = {"sound": "none", "watch": "recheck", "due": check.action}[result.state]  # type: ignore[assignment]
    return Verdict(result.state, action, shown + ".", why, facts, used=result.used)


def travel(check: Check, rule: TravelRule, numbers: list[float], say: Words) -> Verdict:
    used, total = numbers
    if total <= 0 or used > total:
        return Verdict("due", "investigate", f"{say.figure(used)} used of {say.figure(total)}: cannot be, measure again.")
    share = used / total
    facts = {"reading": used, "new": 0.0, "limit": total, "used": share}
    said = f"{say.figure(used)} of {say.figure(total)} take-up used"
    if reached(used, total):
        return Verdict("due", "adjust", f"{said}: at its end.", facts=facts, used=share)
    if reached(share, rule.watch_from):
        return Verdict("watch", "recheck", f"{said}, {say.figure(total - used)} left.", facts=facts, used=share)
    return Verdict("sound", "none", f"{said}, {say.figure(total - used)} left.", facts=facts, used=share)


def stepped(rule: SteppedRule, numbers: list[float], say: Words) -> Verdict:
    figure, taken = numbers
    facts = {"reading": figure, "low": 0.0, "high": rule.limit, "steps": taken}
    shown = f"{say.figure(figure)}, up to {say.figure(rule.limit)} is usual"
    if not exceeds(figure, rule.limit):
        return Verdict("sound", "none", f"{shown}.", facts=facts)
    if taken < rule.steps:
        return Verdict(
            "due",
            "adjust",
            f"{shown}: {rule.step} ({plain(taken, 0)} of at most {rule.steps} so far), then read again.",
            facts=facts,
        )
    return Verdict(
        "due", "investigate", f"{shown} with all {rule.steps} steps taken: never another; look for the cause.", facts=facts
    )


def register(rule: RegisterRule, numbers: list[float], say: Words) -> Verdict:
    given = knife.RegisterGiven(numbers[0], numbers[1], rule.tolerance, rule.overtravel)
    result = knife.knife_register(given)
    facts = {"left": numbers[0], "right": numbers[1], "centring": result.centring_mm, "stroke": result.stroke_error_mm}
    why = [
        f"Centring = (left − right) ÷ 2 = {say.amount(result.centring_mm)}; stroke error = left + right"
        f"{' + twice the overtravel' if rule.overtravel else ''} = {say.amount(result.stroke_error_mm)}; allowed {say.amount(rule.tolerance)}."
    ]
    if result.state == "registered":
        return Verdict("sound", "none", result.words, why, facts)
    return Verdict("due", "investigate" if result.state == "stroke" else "adjust", result.words, why, facts)
