"""From a value to a verdict: severity, action and the reason in one sentence with the figures."""

from dataclasses import replace

from ..catalogue.model import Check
from ..positions import Position, find
from ..rules.base import Case, Reach
from ..rules.verdict import Verdict
from . import plausible
from .context import Context
from .parse_reading import Value
from .words import Words

__all__ = ["Context", "concerns", "judge", "looks_at", "needs"]


def looks_at(check: Check) -> dict[str, Reach]:
    """The checks whose values this check's rule looks at, and how far."""
    return check.rule.looks_at(check.key)


def needs(check: Check) -> set[str]:
    """Keys of the checks whose values this check's rule looks at."""
    return set(looks_at(check))


def concerns(check: Check, place: str, other_check: str, other: str) -> bool:
    """Whether what is read at another place bears on this check's `place`."""
    reach = looks_at(check).get(other_check)
    return reach == "all" or (reach == "row" and find(place).row == find(other).row)


def judge(check: Check, position: Position, value: Value, context: Context) -> Verdict:
    """The verdict on `value` at `position`.

    A reading that cannot be right, or that something was changed under since, gets a verdict whose `ask` is set until it is
    confirmed or read again. Where the check is a safety item, any fault is `stop`.
    """
    say = Words(check, context.system)
    if context.moved:
        ask = "Washers were moved here since: measure again."
        return Verdict("watch", "recheck", ask, ask=ask)
    if not context.confirmed:
        others = [
            other.numbers[0]
            for place, other in context.others.get(check.key, {}).items()
            if other.numbers and place != position.key
        ]
        longest = check.rule.longest(position, context)
        asked = plausible.question(check, value, context.system, longest, context.typed, others, context.typed_in)
        if asked.ask:
            return Verdict("watch", "recheck", asked.ask, ask=asked.ask, instead=asked.instead, split=asked.split)
        if context.expected and context.expected.doubted:
            read, near = say.figure(value.numbers[0]), say.figure(context.expected.now)
            ask = f"{read}? By what was read before it should stand near {near}."
            return Verdict("watch", "recheck", ask, ask=ask)
    verdict = check.rule.judge(Case(check, position, value, context, say))
    if check.safety and verdict.severity in ("watch", "due"):
        verdict = replace(verdict, severity="stop")
    return verdict
