"""Rules for chains, their take-ups, the knife and what is brought back in steps."""

from ..calculators import chain, knife
from ..calculators import take_up as take_ups
from ..catalogue.model import Check
from ..compare import exceeds, reached
from ..units import plain
from . import forecast_text
from .context import Context
from .rules import Action, RegisterRule, Severity, SteppedRule, StretchRule, TravelRule, Verdict
from .words import Words


def stretch(check: Check, rule: StretchRule, measured: float, context: Context, say: Words) -> Verdict:
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
    expected = context.expected
    severity: Severity = result.state
    if expected:
        facts |= forecast_text.facts(expected)
        why.append(forecast_text.why(rule.watch_chance))
        if severity != "due":
            severity = forecast_text.watched(expected, rule.watch_chance)
            ends = [100 * (one / (rule.pitch * rule.pitches) - 1) for one in (expected.value, expected.low, expected.high)]
            value, low, high = (plain(max(one, 0.0), 2) for one in ends)
            shown += f"; {forecast_text.in_words(expected, f'{value} %', low, high)}"
    action: Action = {"sound": "none", "watch": "recheck", "due": check.action}[severity]  # type: ignore[assignment]
    return Verdict(severity, action, shown + ".", why, facts, used=result.used)


SCHOOLS: dict[str, take_ups.RetireSchool] = {
    "first-of-both": "first",
    "three-per-cent": "percent",
    "one-then-end": "one_then_end",
    "all-fitted": "all_fitted",
    "full-link": "full_link",
    "yearly": "yearly",
}
"""Schools of the catalogue as the calculation calls them."""


def travel(rule: TravelRule, numbers: list[float], context: Context, say: Words) -> Verdict:
    used, total = numbers
    if total <= 0 or used > total:
        return Verdict("due", "investigate", f"{say.figure(used)} used of {say.figure(total)}: cannot be, measure again.")
    share = used / total
    facts = {"reading": used, "new": 0.0, "limit": total, "used": share}
    said = f"{say.figure(used)} of {say.figure(total)} take-up used"
    left = f"{said}, {say.figure(total - used)} left."
    watched = reached(share, rule.watch_from)
    if rule.pitch is not None:
        return _half_link(rule, rule.pitch, used, total, context, said, watched, facts, say)
    if reached(used, total):
        return Verdict("due", "adjust", f"{said}: at its end.", facts=facts, used=share)
    return Verdict("watch" if watched else "sound", "recheck" if watched else "none", left, facts=facts, used=share)


def _half_link(
    rule: TravelRule,
    pitch: float,
    used: float,
    total: float,
    context: Context,
    said: str,
    watched: bool,
    facts: dict[str, float],
    say: Words,
) -> Verdict:
    """Whether the take-up lasts, a half link comes out of every strand, or the chain is done: the shop's school decides."""
    counted = next(iter(context.others.get(rule.half_links_from, {}).values()), None)
    fitted, out = (int(n) for n in counted.numbers) if counted and len(counted.numbers) == 2 else (1, 0)
    percent = _stretch(rule, context)
    school = SCHOOLS.get(context.schools.get("chain-retirement", ""), "first")
    if school == "percent" and percent is None:
        school = "first"
    found = take_ups.take_up(
        take_ups.TakeUpGiven(
            pitch,
            total,
            used,
            out,
            rule.wear_per_h or 0.0,
            rule.season_h or 0.0,
            half_links_fitted=fitted,
            school=school,
            stretch_pct=percent,
        )
    )
    left = "" if found.hours_to_end is None else f", about {plain(found.hours_to_end, 0)} h of it left"
    after = f" After it {say.figure(found.used_after_mm)} are used." if found.can_remove else ""
    facts |= {"after": found.used_after_mm} if found.advice == "remove_half_link" else {}
    stretched = "not measured" if percent is None else f"{plain(percent, 2)} %"
    why = [
        f"{plain(rule.wear_per_h or 0, 3)} mm of take-up an hour over a season of {plain(rule.season_h or 0, 0)} h; half a link out gives back "
        f"{say.figure(pitch / 2)}; {out} of {fitted} half links out so far; stretch {stretched}.",
    ]
    share = used / total
    match found.advice:
        case "retire":
            return Verdict("due", "replace", f"{said}: {found.words[0].lower()}{found.words[1:]}", why, facts, used=share)
        case "remove_half_link":
            return Verdict(
                "due", "adjust", f"{said}{left}: take half a link out of every strand.{after}", why, facts, used=share
            )
        case "runs_out":
            return Verdict(
                "watch",
                "recheck",
                f"{said}{left}: it ends within the season and no half link can come out yet.",
                why,
                facts,
                used=share,
            )
        case _ if watched:
            return Verdict("watch", "recheck", f"{said}{left}: it lasts the season.", why, facts, used=share)
    return Verdict("sound", "none", f"{said}, {say.figure(total - used)} left: it lasts the season.", why, facts, used=share)


def _stretch(rule: TravelRule, context: Context) -> float | None:
    """The most stretched strand, per cent, where it was measured."""
    measured = [value.numbers[0] for value in context.others.get(rule.stretch_from, {}).values() if value.numbers]
    chain_rule = context.rules.get(rule.stretch_from)
    if not measured or not isinstance(chain_rule, StretchRule):
        return None
    return max(100 * (length / (chain_rule.pitch * chain_rule.pitches) - 1) for length in measured)


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
        "due",
        "investigate",
        f"{shown} with {'the one step' if rule.steps == 1 else f'all {rule.steps} steps'} taken: never another; look for the cause.",
        facts=facts,
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
