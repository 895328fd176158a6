"""From a value to a verdict: severity, action and the reason in one sentence with the figures."""

import datetime as dt
from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from statistics import fmean
from typing import assert_never

from .. import positions
from ..calculators import opener, wear, windows
from ..catalogue.model import Check
from ..compare import exceeds
from ..errors import BadInput
from ..positions import Position
from ..units import System, plain
from . import drives, plausible, service
from .rules import (
    Action,
    BearingRule,
    ChoiceRule,
    ContactRule,
    CountRule,
    EvenRule,
    GaugeRule,
    IntervalRule,
    LevelRule,
    RecordRule,
    RegisterRule,
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
from .understand import Value
from .words import Words, percent

Others = Mapping[str, Mapping[str, Value]]
"""Values of this walk-around that a rule looks at besides its own: check → position → value."""


@dataclass(frozen=True)
class Context:
    """What surrounds a reading. confirmed: the technician has answered the question and stands by the figure. counter_h, today:
    the machine's hours and the day, for what is done at intervals.
    """

    system: System = "mm"
    confirmed: bool = False
    others: Others = field(default_factory=dict)
    sizes: Mapping[str, float] = field(default_factory=dict)
    counter_h: float | None = None
    today: dt.date | None = None


def needs(check: Check) -> set[str]:
    """Keys of the checks whose values this check's rule looks at."""
    match check.rule:
        case EvenRule():
            return {check.key}
        case ContactRule():
            return {check.rule.diameter_from}
        case _:
            return set()


def judge(check: Check, position: Position, value: Value, context: Context) -> Verdict:
    """The verdict on `value` at `position`.

    context.sizes: sizes when new of other checks (`diameter_from` where no disc was measured yet). A reading that cannot be
    right gets a verdict whose `ask` is set until it is confirmed. Where the check is a safety item, any fault is `stop`.
    """
    say = Words(check, context.system)
    diameter = _diameter(check.rule, position, context) if isinstance(check.rule, ContactRule) else None
    if not context.confirmed:
        ask, instead = plausible.question(check, value, context.system, diameter)
        if ask:
            return Verdict("watch", "recheck", ask, ask=ask, instead=instead)
    verdict = _by_rule(check, position, value, context, say, diameter)
    if check.safety and verdict.severity in ("watch", "due"):
        verdict = replace(verdict, severity="stop")
    return verdict


def _by_rule(check: Check, position: Position, value: Value, context: Context, say: Words, diameter: float | None) -> Verdict:
    rule = check.rule
    match rule:
        case WearRule():
            return _wear(check, rule, value.numbers[0], say)
        case WindowRule():
            return _window(rule, value.numbers[0], say)
        case EvenRule():
            return _even(rule, check.key, position, value, context, say)
        case ContactRule():
            return _contact(rule, value, diameter or 0.0, say)
        case CountRule():
            return _count(rule, value)
        case LevelRule():
            return service.level(rule, value)
        case IntervalRule():
            return service.interval(rule, value, context.counter_h, context.today)
        case StretchRule():
            return drives.stretch(check, rule, value.numbers[0], say)
        case TravelRule():
            return drives.travel(check, rule, value.numbers, say)
        case SteppedRule():
            return drives.stepped(rule, value.numbers, say)
        case RegisterRule():
            return drives.register(rule, value.numbers, say)
        case ChoiceRule() | BearingRule() | GaugeRule() | YesNoRule():
            return _choice(check, value)
        case RecordRule():
            return Verdict(
                "sound", "none", "Recorded: " + (say.all(value.numbers) if value.numbers else value.text or "–") + "."
            )
        case _:
            assert_never(rule)


def _wear(check: Check, rule: WearRule, reading: float, say: Words) -> Verdict:
    result = wear.wear_used(wear.WearGiven(rule.new, rule.limit, reading, rule.watch_from))
    used = max(result.used, 0.0)
    left = abs(reading - rule.limit)
    why = [
        f"Used share = (new − reading) ÷ (new − limit) = ({say.figure(rule.new)} − {say.figure(reading)}) ÷ "
        f"({say.figure(rule.new)} − {say.figure(rule.limit)}) = {percent(used)}.",
        f"Watch from {percent(rule.watch_from)} used, replace at the limit.",
    ]
    facts = {"reading": reading, "new": rule.new, "limit": rule.limit, "used": result.used}
    severity: Severity = result.state
    action: Action = check.action if severity == "due" else "none"
    if severity == "due":
        past = f", past it by {say.figure(left)}" if left > 1e-6 else " reached"
        reason = f"{say.figure(reading)}, limit {say.figure(rule.limit)}{past}."
    else:
        reason = (
            f"{say.figure(reading)}, limit {say.figure(rule.limit)}: {percent(used)} of its wear used, {say.figure(left)} left."
        )
    if severity == "watch":
        action = "recheck"
    if result.beyond_new:
        why.append("Better than new: confirmed by the technician.")
    return Verdict(severity, action, reason, why, facts, used=result.used)


def _window(rule: WindowRule, reading: float, say: Words) -> Verdict:
    result = windows.window(windows.WindowGiven(reading, rule.low, rule.high, rule.target, rule.per_turn))
    wanted = say.figure(rule.low) if rule.low == rule.high else f"{say.figure(rule.low)} to {say.figure(rule.high)}"
    facts = {"reading": reading, "low": rule.low, "high": rule.high}
    why = [f"Wanted {wanted}, ends included; found {say.figure(reading)}."]
    if result.state == "in_window":
        return Verdict("sound", "none", f"{say.figure(reading)}, wanted {wanted}.", why, facts)
    direction, cure = ("under", rule.if_low) if result.state == "low" else ("over", rule.if_high)
    reason = f"{say.figure(reading)}, {say.figure(abs(result.miss))} {direction} the wanted {wanted}."
    if result.turns is not None:
        reason += f" About {plain(abs(result.turns), 1)} turns {'clockwise' if result.turns > 0 else 'counter-clockwise'}."
    return Verdict("due", "adjust", f"{reason} {cure}".strip(), why, facts | {"miss": result.miss})


def _even(rule: EvenRule, key: str, position: Position, value: Value, context: Context, say: Words) -> Verdict:
    readings = {name: other.numbers[0] for name, other in context.others.get(key, {}).items() if other.numbers}
    readings[position.key] = value.numbers[0]
    shown = say.figure(value.numbers[0])
    facts = {"reading": value.numbers[0]}
    if len(readings) < 2:
        return Verdict("sound", "none", f"{shown}; nothing to compare with yet.", facts=facts)
    result = windows.even(windows.EvenGiven(readings, rule.tolerance, rule.target))
    target = result.target if result.target is not None else value.numbers[0]
    correction = result.corrections[position.key]
    why = [
        f"{len(readings)} positions compared, {rule.target if isinstance(rule.target, str) else 'target'} {say.figure(target)}, "
        f"spread {say.amount(result.spread)}, allowed {say.amount(rule.tolerance)}."
    ]
    facts |= {"target": target, "spread": result.spread, "correction": correction}
    if result.state == "even" or not exceeds(abs(correction), rule.tolerance / 2):
        alike = f"alike within {say.amount(rule.tolerance)}" if rule.tolerance else "like the others"
        return Verdict("sound", "none", f"{shown}, {alike}.", why, facts)
    sign = "+" if correction > 0 else "−"
    reason = f"{shown}, the others stand at {say.figure(target)}: correct by {sign}{say.amount(abs(correction))}."
    return Verdict("due", "adjust", reason, why, facts)


def _diameter(rule: ContactRule, position: Position, context: Context) -> float:
    """Mean of the pair as measured today; where nothing was measured, the size when new."""
    measured = context.others.get(rule.diameter_from, {})
    row = position.row or 0
    pair = [positions.row_side(row, side).key for side in ("L", "R")]
    found = [measured[key].numbers[0] for key in pair if key in measured]
    return fmean(found) if found else context.sizes[rule.diameter_from]


def _contact(rule: ContactRule, value: Value, diameter: float, say: Words) -> Verdict:
    feeler = value.feeler_mm or rule.feeler
    given = opener.ContactGiven(
        [opener.ContactReading(span, feeler) for span in value.numbers],
        diameter,
        opener.ContactBand(rule.low, rule.high, rule.feeler),
        rule.angle_deg,
    )
    try:
        result = opener.opener_contact(given)
    except BadInput as problem:
        reason = f"Cannot be worked out: the span or feeler {problem.message} (disc {say.figure(diameter)})."
        return Verdict("due", "investigate", reason)
    band = f"{say.figure(rule.low)} to {say.figure(rule.high)} by {plain(rule.feeler, 2)} mm feeler"
    equivalent = say.figure(result.equivalent_span_mm)
    facts = {
        "diameter": diameter,
        "angle": rule.angle_deg,
        "feeler": feeler,
        "span": fmean(value.numbers),
        "overlap": result.overlap_mm,
        "equivalent": result.equivalent_span_mm,
        "true_contact": result.true_contact_mm,
        "spread": result.spread_mm,
        "low": rule.low,
        "high": rule.high,
        "band_feeler": rule.feeler,
    }
    facts |= {f"low_{band.feeler_mm:g}": band.low_mm for band in result.band_equivalents}
    facts |= {f"high_{band.feeler_mm:g}": band.high_mm for band in result.band_equivalents}
    why = [
        f"Spans {say.all(value.numbers)} with a {plain(feeler, 2)} mm feeler on {say.figure(diameter)} discs at {plain(rule.angle_deg, 1)}° "
        f"come to {equivalent} by the band's feeler. Geometric approximation: two flat discs; real ones also flex.",
        f"Steel on steel about {say.figure(result.true_contact_mm)}"
        + ("." if result.true_contact_mm else ": touching by feeler, not by steel."),
        f"Spread over the places {say.figure(result.spread_mm)}, bent disc or hub above {say.figure(rule.spread)}.",
    ]
    if exceeds(result.spread_mm, rule.spread):
        reason = (
            f"The places differ by {say.figure(result.spread_mm)} (up to {say.figure(rule.spread)} is usual): bent disc or hub."
        )
        return Verdict("due", "investigate", reason, why, facts)
    if result.state == "in_band":
        return Verdict("sound", "none", f"{equivalent} of contact, wanted {band}.", why, facts)
    word, cure = ("Too little", rule.if_low) if result.state == "low" else ("Too much", rule.if_high)
    through = " (the feeler passes right through)" if result.overlap_is_upper_bound else ""
    return Verdict("due", "adjust", f"{word} contact: {equivalent}{through}, wanted {band}. {cure}".strip(), why, facts)


def _count(rule: CountRule, value: Value) -> Verdict:
    found = int(value.numbers[0])
    facts = {"found": float(found), "of": float(rule.of)}
    where = f" ({value.text})" if value.text else ""
    if found == 0:
        return Verdict("sound", "none", f"None of {rule.of}.", facts=facts)
    share = found / rule.of
    why = [f"{found} of {rule.of} is {percent(share)}; above {percent(rule.set_share)} the whole set."]
    if exceeds(share, rule.set_share):
        return Verdict("due", "replace", f"{found} of {rule.of}{where}: replace the set.", why, facts)
    return Verdict("due", rule.action, f"{found} of {rule.of}{where}: {rule.action} these.", why, facts)


def _choice(check: Check, value: Value) -> Verdict:
    states = options(check.rule)
    state = next(option for option in states if option.key == value.choice)
    facts = {"state": float(states.index(state)), "states": float(len(states))}
    if isinstance(check.rule, BearingRule) and state.action == "lubricate":
        return Verdict(state.severity, state.action, f"{state.name}: grease, turn, and feel again.", facts=facts)
    said = f"{check.name}: {state.key}." if isinstance(check.rule, YesNoRule) else f"{state.name}."
    return Verdict(state.severity, state.action, said, facts=facts)
