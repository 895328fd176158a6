"""Readings that cannot be right: the product asks, and keeps what the technician confirms."""

from ..catalogue.model import Check
from ..units import MM_PER, System, show_length, show_mm
from .rules import WearRule
from .understand import Value

READING_ERROR = 0.8
"""One standard deviation of a tape, mm; used where a check does not say better."""


def believable(check: Check) -> tuple[float, float] | None:
    """The range in which a reading is taken without asking, in the check's unit; None where nothing is known.

    Wear: from "better than new by more than the larger of 5 % of the wear allowance and three times the reading's own error"
    to three times the allowance past the limit. Others: as the catalogue says.
    """
    if check.plausible:
        return check.plausible[0], check.plausible[1]
    rule = check.rule
    if not isinstance(rule, WearRule):
        return None
    allowance = rule.limit - rule.new
    better = max(0.05 * abs(allowance), 3 * (check.reading_error or READING_ERROR))
    ends = (rule.new - better, rule.limit + 3 * allowance) if allowance > 0 else (rule.limit + 3 * allowance, rule.new + better)
    return max(ends[0], 0.0), ends[1]


def question(check: Check, value: Value, system: System = "mm", longest_mm: float | None = None) -> tuple[str, str]:
    """(question, text probably meant), both empty when the reading can be right.

    longest_mm: a span cannot be longer than the disc it was taken on.
    """
    span = believable(check)
    for number in value.numbers:
        if longest_mm is not None and number >= longest_mm:
            return _ask(check, number, f"longer than the disc ({show_length(longest_mm, system)})", span, system)
        if span and not span[0] <= number <= span[1]:
            rule = check.rule
            beyond = (
                f"when new it is {_shown(check, rule.new, system)}"
                if isinstance(rule, WearRule)
                else "far outside what is found here"
            )
            return _ask(check, number, beyond, span, system)
    return "", ""


def _shown(check: Check, number: float, system: System) -> str:
    return show_length(number, system) if check.unit == "mm" else f"{number:g} {check.unit or ''}".strip()


def _ask(check: Check, number: float, because: str, span: tuple[float, float] | None, system: System) -> tuple[str, str]:
    instead = _meant(number, span) if check.unit == "mm" and span and len(check.values) <= 1 else ""
    question = f"{_shown(check, number, system)}? {because[0].upper()}{because[1:]}."
    return question + (f" Did you mean {instead}?" if instead else ""), instead


def _meant(number_mm: float, span: tuple[float, float]) -> str:
    """The same figure in another unit, or with its decimal point moved, that would be believable; or nothing."""
    for typed_in in ("mm", "in"):
        figure = number_mm / float(MM_PER[typed_in])
        for unit in ("in", "mm", "cm"):
            if unit != typed_in and span[0] <= figure * float(MM_PER[unit]) <= span[1]:
                return f"{round(figure, 4):g} {unit}"
    for factor in (10.0, 0.1):
        if span[0] <= number_mm * factor <= span[1]:
            return show_mm(number_mm * factor)
    return ""
