"""Readings that cannot be right: the product asks, and keeps what the technician confirms."""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field

from ..catalogue.model import Check
from ..errors import BadInput, two_of
from ..pressures import MBAR_PER
from ..rules.base import Span
from ..units import MM_PER, System, Unit, show_length, show_mm
from .parse_reading import FULL_WIDTH, Value, number_of
from .words import Words, pressure_unit


@dataclass(frozen=True)
class Question:
    """What is asked about a figure; empty where it can be right. instead: the text probably meant; split: the figures taken
    apart."""

    ask: str = ""
    instead: str = ""
    split: list[str] = field(default_factory=list)


def believable(check: Check, others: Sequence[float] = ()) -> Span | None:
    """The range in which a reading is taken without asking, in the check's unit; None where nothing is known.

    As the catalogue says, else by the kind of rule. others: readings at like places.
    """
    if check.plausible:
        return check.plausible[0], check.plausible[1]
    return check.rule.believable(check, others)


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

    longest_mm: a span cannot be longer than the disc it was taken on. typed: its texts; typed_in: what a bare figure in them
    means.
    """
    if (
        check.unit == "mm"
        and typed_in == "mm"
        and (thou := next((text for text in typed if _THOU.fullmatch(text.strip())), ""))
    ):
        return Question(f"{thou} mm? Written like this it is usually inches. Did you mean {thou} in?", f"{thou.strip()} in")
    say, span = Words(check, system), believable(check, others)
    for i, number in enumerate(check.rule.measured(value.numbers)):
        too_long = longest_mm is not None and number >= longest_mm
        outside = too_long or (span is not None and not span[0] <= number <= span[1])
        split = run_together(check, typed, typed_in, longest_mm, others) if outside or _long(typed[i : i + 1]) else []
        if outside:
            beyond = f"Longer than the disc ({show_length(longest_mm or 0.0, system)})" if too_long else check.rule.beyond(say)
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
