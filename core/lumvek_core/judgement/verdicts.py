"""From a value to a verdict: severity, action and the reason in one sentence with the figures."""

from dataclasses import replace
from typing import assert_never

from ..calculators import wear, windows
from ..catalogue.model import Check
from ..compare import below, exceeds
from ..positions import Position, find
from ..units import plain, show_turns
from . import drives, forecast_text, openers, planter_rules, plausible, rotor, service
from .context import Context
from .parse_reading import Value
from .rules import (
    ACTION_WORDS,
    Action,
    Advice,
    BarRule,
    BearingRule,
    ChoiceRule,
    ContactRule,
    CountRule,
    DepthRule,
    EvenRule,
    GaugeRule,
    IntervalRule,
    KnivesRule,
    LevelRule,
    RecordRule,
    RegisterRule,
    Row,
    Severity,
    SteppedRule,
    StretchRule,
    TravelRule,
    Verdict,
    WearRule,
    WindowRule,
    YesNoRule,
    options,
)
from .words import Words, percent

__all__ = ["Context", "concerns", "judge", "needs", "within_row"]


def needs(check: Check) -> set[str]:
    """Keys of the checks whose values this check's rule looks at."""
    match check.rule:
        case EvenRule() | DepthRule() | KnivesRule():
            return {check.key}
        case ContactRule():
            return {key for key in (check.rule.diameter_from, check.rule.washers_from) if key}
        case TravelRule():
            return {key for key in (check.rule.stretch_from, check.rule.half_links_from) if key}
        case _:
            return set()


def within_row(check: Check) -> bool:
    """Whether a check's rule looks no further than the row it is made in."""
    return isinstance(check.rule, ContactRule)


def concerns(check: Check, place: str, other: str) -> bool:
    """Whether what is read at the place `other` of a check that this one looks at bears on this one's `place`."""
    return not within_row(check) or find(place).row == find(other).row


def judge(check: Check, position: Position, value: Value, context: Context) -> Verdict:
    """The verdict on `value` at `position`.

    A reading that cannot be right, or that something was changed under since, gets a verdict whose `ask` is set until it is
    confirmed or read again. Where the check is a safety item, any fault is `stop`.
    """
    say = Words(check, context.system)
    diameter = openers.diameter(check.rule, position, context) if isinstance(check.rule, ContactRule) else None
    if context.moved:
        ask = "Washers were moved here since: measure again."
        return Verdict("watch", "recheck", ask, ask=ask)
    if not context.confirmed:
        others = [
            other.numbers[0]
            for place, other in context.others.get(check.key, {}).items()
            if other.numbers and place != position.key
        ]
        asked = plausible.question(check, value, context.system, diameter, context.typed, others, context.typed_in)
        if asked.ask:
            return Verdict("watch", "recheck", asked.ask, ask=asked.ask, instead=asked.instead, split=asked.split)
        if context.expected and context.expected.doubted:
            ask = f"{say.figure(value.numbers[0])}? By what was read before it should stand near {say.figure(context.expected.now)}."
            return Verdict("watch", "recheck", ask, ask=ask)
    verdict = _by_rule(check, position, value, context, say, diameter)
    if check.safety and verdict.severity in ("watch", "due"):
        verdict = replace(verdict, severity="stop")
    return verdict


def _by_rule(check: Check, position: Position, value: Value, context: Context, say: Words, diameter: float | None) -> Verdict:
    rule = check.rule
    match rule:
        case WearRule():
            return _wear(check, rule, value.numbers[0], context, say)
        case WindowRule():
            return _window(rule, value.numbers[0], say)
        case EvenRule():
            return _even(rule, check.key, position, value, context, say)
        case ContactRule():
            return openers.contact(check, rule, position, value, diameter or 0.0, context, say)
        case CountRule():
            return _count(rule, value)
        case LevelRule():
            return service.level(rule, value)
        case IntervalRule():
            return service.interval(rule, value, context.counter_h, context.today)
        case StretchRule():
            return drives.stretch(check, rule, value.numbers[0], context, say)
        case TravelRule():
            return drives.travel(rule, value.numbers, context, say)
        case SteppedRule():
            return drives.stepped(rule, value.numbers, say)
        case RegisterRule():
            return drives.register(rule, value.numbers, say)
        case BarRule():
            return planter_rules.bar(rule, value.numbers, say)
        case DepthRule():
            return planter_rules.depth(check, rule, position, value, context, say)
        case KnivesRule():
            return rotor.knives(check, rule, position, value, context, _choice(check, value))
        case GaugeRule():
            return _gauge(rule, _choice(check, value), context)
        case ChoiceRule() | BearingRule() | YesNoRule():
            return _choice(check, value)
        case RecordRule():
            return Verdict(
                "sound", "none", "Recorded: " + (say.all(value.numbers) if value.numbers else value.text or "–") + "."
            )
        case _:
            assert_never(rule)


def _wear(check: Check, rule: WearRule, reading: float, context: Context, say: Words) -> Verdict:
    result = wear.wear_used(wear.WearGiven(rule.new, rule.limit, reading, rule.watch_from))
    used = max(result.used, 0.0)
    beside = say.alike(reading, rule.limit)
    shown, limit, left = beside.figure(reading), beside.figure(rule.limit), beside.between(reading, rule.limit)
    why = [
        f"Used share = (new − reading) ÷ (new − limit) = ({say.figure(rule.new)} − {say.figure(reading)}) ÷ "
        f"({say.figure(rule.new)} − {say.figure(rule.limit)}) = {percent(used)}.",
        forecast_text.why(rule.watch_chance)
        if context.expected
        else f"Watch from {percent(rule.watch_from)} used, renew at the limit.",
    ]
    facts = {"reading": reading, "new": rule.new, "limit": rule.limit, "used": result.used}
    severity: Severity = result.state
    expected = context.expected
    if expected:
        facts |= forecast_text.facts(expected)
        severity = severity if severity == "due" else forecast_text.watched(expected, rule.watch_chance)
    action: Action = check.action if severity == "due" else "none"
    if severity == "due":
        past = f", past it by {left}" if abs(reading - rule.limit) > 1e-6 else " reached"
        reason = f"{shown}, limit {limit}{past}."
        if expected:
            reason += f" Left in, {forecast_text.at_the_end(expected, say)}."
    elif expected:
        will = forecast_text.in_words(expected, say.figure(expected.value), say.bare(expected.low), say.bare(expected.high))
        reason = f"{shown}, limit {limit}: {percent(1 - used)} of its wear left; {will}."
    else:
        reason = f"{shown}, limit {limit}: {percent(used)} of its wear used, {left} left."
    if severity == "watch":
        action = "recheck"
    if result.beyond_new:
        why.append("Better than new: confirmed by the technician.")
    return Verdict(severity, action, reason, why, facts, used=result.used)


def _window(rule: WindowRule, reading: float, say: Words) -> Verdict:
    result = windows.window(windows.WindowGiven(reading, rule.low, rule.high, rule.target, rule.per_turn))
    beside = say.alike(reading, rule.low, rule.high)
    shown = beside.figure(reading)
    wanted = beside.figure(rule.low) if rule.low == rule.high else f"{beside.figure(rule.low)} to {beside.figure(rule.high)}"
    facts = {"reading": reading, "low": rule.low, "high": rule.high}
    why = [f"Wanted {wanted}, ends included; found {shown}."]
    if result.state == "in_window":
        return Verdict("sound", "none", f"{shown}, wanted {wanted}.", why, facts)
    direction, end, cure = ("under", rule.low, rule.if_low) if result.state == "low" else ("over", rule.high, rule.if_high)
    reason = f"{shown}, {beside.between(reading, end)} {direction} the wanted {wanted}."
    if result.turns is not None:
        reason += f" About {show_turns(result.turns)}."
    return Verdict("due", "adjust", f"{reason} {cure}".strip(), why, facts | {"miss": result.miss})


def _even(rule: EvenRule, key: str, position: Position, value: Value, context: Context, say: Words) -> Verdict:
    readings = {name: other.numbers[0] for name, other in context.others.get(key, {}).items() if other.numbers}
    readings[position.key] = value.numbers[0]
    shown = say.figure(value.numbers[0])
    facts = {"reading": value.numbers[0]}
    if len(readings) < 2:
        return Verdict("sound", "none", f"{shown}; nothing to compare with yet.", facts=facts)
    result = windows.even(windows.EvenGiven(readings, rule.tolerance, rule.target, per_turn=rule.per_turn))
    target = result.target if result.target is not None else value.numbers[0]
    correction = result.corrections[position.key]
    why = [
        f"{len(readings)} positions compared, {rule.target if isinstance(rule.target, str) else 'target'} {say.figure(target)}, "
        f"spread {say.amount(result.spread)}, allowed {say.amount(rule.tolerance)}."
    ]
    facts |= {"target": target, "spread": result.spread, "correction": correction, "tolerance": rule.tolerance}
    turned = result.turns[position.key] if result.turns else 0.0
    turns = f", about {show_turns(turned)}" if turned else ""
    if result.state == "even" or not exceeds(abs(correction), rule.tolerance / 2):
        alike = f"alike within {say.amount(rule.tolerance)}" if rule.tolerance else "like the others"
        return Verdict("sound", "none", f"{shown}, {alike}.", why, facts)
    sign = "+" if correction > 0 else "−"
    beside = say.alike(value.numbers[0], target)
    correct = beside.between(value.numbers[0], target)
    reason = (
        f"{beside.figure(value.numbers[0])}, the others stand at {beside.figure(target)}: correct by {sign}{correct}{turns}."
    )
    return Verdict("due", "adjust", reason, why, facts)


def _gauge(rule: GaugeRule, verdict: Verdict, context: Context) -> Verdict:
    """The shop's own card beside the window, for those who pass a card instead of feelers."""
    card = context.feelers.get("card")
    facts = verdict.facts | {"low": rule.go, "high": rule.no_go}
    if card is None:
        return replace(verdict, facts=facts)
    if below(card, rule.go):
        where, means = "thinner than the window", "passing, it proves nothing yet"
    elif exceeds(card, rule.no_go):
        where, means = "thicker than the window", "passing, it proves the clearance too wide"
    else:
        where, means = "in the window", "light drag is right"
    row = Row("The shop's card", f"{plain(card, 2)} mm, {where} of {plain(rule.go, 2)} to {plain(rule.no_go, 2)} mm: {means}")
    return replace(verdict, facts=facts | {"card": card}, advice=Advice([row]))


def _count(rule: CountRule, value: Value) -> Verdict:
    found = int(value.numbers[0])
    facts = {"found": float(found), "of": float(rule.of)}
    where = f" ({value.text})" if value.text else ""
    if found == 0:
        return Verdict("sound", "none", f"None of {rule.of}.", facts=facts)
    share = found / rule.of
    why = [f"{found} of {rule.of} is {percent(share)}; above {percent(rule.set_share)} the whole set."]
    if exceeds(share, rule.set_share):
        return Verdict("due", "replace", f"{found} of {rule.of}{where}: renew the set.", why, facts)
    return Verdict(
        "due", rule.action, f"{found} of {rule.of}{where}: {ACTION_WORDS.get(rule.action, rule.action)} these.", why, facts
    )


def _choice(check: Check, value: Value) -> Verdict:
    states = options(check.rule)
    state = next(option for option in states if option.key == value.choice)
    facts = {"state": float(states.index(state)), "states": float(len(states))}
    if isinstance(check.rule, BearingRule) and state.action == "lubricate":
        return Verdict(state.severity, state.action, f"{state.name}: grease, turn, and feel again.", facts=facts)
    said = f"{state.name}."
    if isinstance(check.rule, YesNoRule):
        said = f"{check.name}: {'in order' if state.severity == 'sound' else 'not in order'}."
    return Verdict(state.severity, state.action, said, facts=facts)
