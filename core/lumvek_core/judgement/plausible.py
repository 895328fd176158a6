"""Readings that cannot be right: the product asks, and keeps what the technician confirms."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field
from statistics import median

from ..catalogue.model import Check
from ..errors import BadInput, two_of
from ..units import MBAR_PER, MM_PER, System, Unit, show_length, show_mm
from .parse_reading import FULL_WIDTH, Value, number_of
from .rules import CountRule, DepthRule, EvenRule, SteppedRule, WearRule, WindowRule
from .words import Words, pressure_unit

READING_ERROR = 0.8
"""One standard deviation of a tape, mm; used where a check does not say better."""
FAR = 4
"""So many times the width of a window beyond it is far outside; so many times a wanted figure too."""

Span = tuple[float, float]


@dataclass(frozen=True)
class Question:
    """What is asked about a figure; empty where it can be right. instead: the text probably meant; split: the figures taken apart."""

    ask: str = ""
    instead: str = ""
    split: list[str] = field(default_factory=list)


def believable(check: Check, others: Sequence[float] = ()) -> Span | None:
    """The range in which a reading is taken without asking, in the check's unit; None where nothing is known.

    As the catalogue says. Else by the rule: wear from "better than new by more than the larger of 5 % of the wear allowance and
    three times the reading's own error" to three times the allowance past the limit; a window and four of its widths; four times
    a wanted figure; a quarter to four times the middle one of `others` where they are to be alike.
    """
    if check.plausible:
        return check.plausible[0], check.plausible[1]
    rule = check.rule
    match rule:
        case WearRule():
            allowance = rule.limit - rule.new
            better = max(0.05 * abs(allowance), 3 * (check.reading_error or READING_ERROR))
            past = rule.limit + 3 * allowance
            return (max(rule.new - better, 0.0), past) if allowance > 0 else (max(past, 0.0), rule.new + better)
        case WindowRule() if rule.high > 0:
            width = rule.high - rule.low
            return max(0.0, rule.low - max(FAR * width, 0.75 * rule.low)), rule.high + (FAR * width or rule.high)
        case CountRule():
            return 0.0, float(rule.of)
        case SteppedRule():
            return 0.0, FAR * rule.limit
        case DepthRule():
            return 0.0, FAR * rule.target
        case EvenRule() if len(others) > 1 and median(others) > 0:
            return median(others) / FAR, median(others) * FAR
    return None


def question(
    check: Check,
    value: Value,
    system: System = "mm",
    longest_mm: float | None = None,
    typed: Sequence[str] = (),
    others: Sequence[float] = (),
    typed_in: System = "mm",
) -> Question:
    """What is to be asked about a reading, in the words of a reader of `system`.

    longest_mm: a span cannot be longer than the disc it was taken on. typed: its texts; typed_in: what a bare figure in them means.
    """
    if (
        check.unit == "mm"
        and typed_in == "mm"
        and (thou := next((text for text in typed if _THOU.fullmatch(text.strip())), ""))
    ):
        return Question(f"{thou} mm? Written like this it is usually inches. Did you mean {thou} in?", f"{thou.strip()} in")
    say, span = Words(check, system), believable(check, others)
    judged = value.numbers[:1] if isinstance(check.rule, SteppedRule) else value.numbers
    for i, number in enumerate(judged):
        too_long = longest_mm is not None and number >= longest_mm
        outside = too_long or (span is not None and not span[0] <= number <= span[1])
        split = run_together(check, typed, typed_in, longest_mm, others) if outside or _long(typed[i : i + 1]) else []
        if outside:
            rule = check.rule
            beyond = "Far outside what is found here"
            if too_long:
                beyond = f"Longer than the disc ({show_length(longest_mm or 0.0, system)})"
            elif isinstance(rule, WearRule):
                beyond = f"When new it is {say.figure(rule.new)}" if rule.new else "When new there is none"
            return _ask(f"{say.figure(number)}? {beyond}.", split, typed, _instead(check, number, span, typed_in))
        if split:
            return _ask(f"{typed[i]}?", split, typed, "")
    return Question()


def _ask(said: str, split: list[str], typed: Sequence[str], instead: str) -> Question:
    if split:
        at = next(i for i, text in enumerate(typed) if split[i] != text)
        said += f" Did two figures run together: {two_of(split, f'raw.{at}')}?"
    elif instead:
        said += f" Did you mean {instead}?"
    return Question(said, "" if split else instead, split)


_THOU = re.compile(r"[.,][0-9]{3}")
"""As thickness is written by who works in inches: ``.030``."""
DECIMALS = 2
"""More of them than any tape or card gives: perhaps the figure after the next began among them."""


def _long(typed: Sequence[str]) -> bool:
    """Whether a figure has more decimals than is usual."""
    return any(len(re.split("[.,]", text.translate(FULL_WIDTH))[-1]) > DECIMALS and re.search("[.,]", text) for text in typed)


def run_together(
    check: Check, typed: Sequence[str], default_unit: Unit = "mm", longest_mm: float | None = None, others: Sequence[float] = ()
) -> list[str]:
    """`typed` with the one text taken apart that is two figures, as when an Enter was swallowed; empty where none is.

    Both figures must be believable by themselves. Of several ways the two that are most alike in length are taken.
    """
    span = believable(check, others)

    def fits(text: str) -> bool:
        if text[:1] == "0" and text[1:2].isdigit():
            return False
        try:
            number = number_of(check, text, 0, default_unit)
        except BadInput:
            return False
        return (span is None or span[0] <= number <= span[1]) and (longest_mm is None or number < longest_mm)

    for i, given in enumerate(typed):
        text = given.translate(FULL_WIDTH).strip()
        long = _long([text])
        if fits(text) and not long:
            continue
        cuts = sorted(range(1, len(text)), key=lambda cut: abs(len(text) - 2 * cut))
        for cut in cuts[: 2 * LONGEST_FIGURE]:
            left, right = text[:cut].strip(), text[cut:].strip()
            if right[:1].isdigit() and left[-1:] not in ".,/" and fits(left) and fits(right) and not _long([left, right]):
                return [*typed[:i], left, right, *typed[i + 1 :]]
    return []


LONGEST_FIGURE = 12
"""Characters of one figure; nothing longer is looked at for two."""


def _instead(check: Check, number: float, span: Span | None, system: System) -> str:
    """The same figure in another unit, or with its decimal point moved, that would be believable; or nothing."""
    if span is None or len(check.values) > 1:
        return ""
    if own := pressure_unit(check, system):
        figure = number / MBAR_PER[own]
        fits = (unit for unit in MBAR_PER if unit != own and span[0] <= figure * MBAR_PER[unit] <= span[1])
        return next((f"{round(figure, 4):g} {unit}" for unit in fits), "")
    if check.unit != "mm":
        return ""
    figure = number / float(MM_PER[system])
    for unit in ("in", "mm", "cm"):
        if unit != system and span[0] <= figure * float(MM_PER[unit]) <= span[1]:
            return f"{round(figure, 4):g} {unit}"
    for factor in (10.0, 0.1):
        if span[0] <= number * factor <= span[1]:
            return show_mm(number * factor)
    return ""
