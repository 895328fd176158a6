"""Understanding and showing lengths as the trade writes them.

Lengths are held in millimetres. `parse_length` keeps exact fractions until the end, so that what `show_inches` writes is
understood again to within the 1/64 in it was rounded by.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from math import floor
from typing import Literal, Self

from .errors import BadInput

Unit = Literal["mm", "cm", "in", "thou"]
System = Literal["mm", "in"]

MM_PER = {
    "mm": Fraction(1),
    "cm": Fraction(10),
    "m": Fraction(1000),
    "in": Fraction(254, 10),
    "thou": Fraction(254, 10_000),
    "ft": Fraction(3048, 10),
}
LONGEST_MM = 1_000_000
"""One kilometre. Longer than anything measured on a machine, so surely a slip."""

_SPELLINGS = {
    "mm": "mm",
    "cm": "cm",
    "m": "m",
    "metre": "m",
    "metres": "m",
    "in": "in",
    "inch": "in",
    "inches": "in",
    '"': "in",
    "thou": "thou",
    "ft": "ft",
    "foot": "ft",
    "feet": "ft",
    "'": "ft",
}
_VULGAR = {
    "½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3",
}  # fmt: skip
_LOOKALIKES = {
    "″": '"',
    "”": '"',
    "“": '"',
    "''": '"',
    "′": "'",
    "’": "'",
    "‘": "'",
    "⁄": "/",
    "−": "-",
    "–": "-",
    "\u00a0": " ",
    "\u202f": " ",
    "／": "/",
    "＂": '"',
    "＇": "'",
}

NUMBER = r"[0-9]+[.,]?[0-9]*|[.,][0-9]+"
_UNIT = r"""\s*(?P<unit>[a-z]+|["'])?\.?\s*"""
_FRACTION = re.compile(rf"\s*(?:(?P<whole>{NUMBER})(?:\s*-\s*|\s+))?(?P<top>[0-9]+)\s*/\s*(?P<bottom>[0-9]+)" + _UNIT)
_DECIMAL = re.compile(rf"\s*(?P<number>{NUMBER})" + _UNIT)


def parse_length(text: str, default_unit: Unit | Literal["m", "ft"] = "mm") -> float:
    """The length in mm that `text` means; a bare decimal is in `default_unit`.

    Understands decimals (point or comma), fractions of an inch, mixed numbers, feet and inches, thou. A fraction is inches
    whatever the default. Edges decided here: inches after feet must be under 12 (``1' 14"`` is a slip), anything over 1 km is
    refused. Raises BadInput with field ``text``.
    """
    return float(_exact(text, default_unit))


_IN_INCHES = re.compile(r".*(?:in|\"|″)\s*")


class Inches(float):
    """A length in mm that was stated in inches, exact as stated: ``Inches("14 1/2 in")`` is 368.3. stated: in those words."""

    stated: str

    def __new__(cls, text: str) -> Self:
        if not _IN_INCHES.fullmatch(text):
            raise refusal("must be a number, or a length in inches such as 14 1/2 in")
        length = super().__new__(cls, parse_length(text))
        length.stated = " ".join(text.split())
        return length

    @property
    def exact(self) -> Fraction:
        """Millimetres, exactly."""
        return _exact(self.stated, "in")

    def __getnewargs__(self) -> tuple[str]:  # type: ignore[override]  # copied and pickled by its words
        return (self.stated,)


def refusal(message: str) -> BadInput:
    """What was typed cannot be understood."""
    return BadInput("text", message)


def _exact(text: str, default_unit: str) -> Fraction:
    cleaned = tidy(text)
    if cleaned.startswith("-"):
        raise refusal("a length cannot be negative")
    amount, unit, end = _part(cleaned, default_unit)
    rest = cleaned[end:]
    if rest and unit == "ft":
        inches, inch_unit, end = _part(rest, "in")
        if rest[end:]:
            raise refusal(f"“{text.strip()}” is not one length")
        if inch_unit != "in":
            raise refusal("after feet only inches can follow")
        if inches >= 12:
            raise refusal("inches after feet must be under 12")
        value = amount * MM_PER["ft"] + inches * MM_PER["in"]
    elif rest.strip("-"):
        raise refusal(f"“{text.strip()}” is not one length")
    elif rest:
        raise refusal("ends in a dash: a fraction should follow it")
    else:
        value = amount * MM_PER[unit]
    if value > LONGEST_MM:
        raise refusal("is more than a kilometre")
    return value


def tidy(text: str) -> str:
    """What was typed with one sign for each thing: fractions, inches, dashes. Raises BadInput where nothing is left."""
    if len(text) > 60:
        raise refusal("is too long for a length")
    for vulgar, plain in _VULGAR.items():
        text = text.replace(vulgar, f" {plain}")
    text = text.lower()
    for lookalike, plain in _LOOKALIKES.items():
        text = text.replace(lookalike, plain)
    text = text.strip().removeprefix("+")  # gauges send their sign
    if not text:
        raise refusal("is empty")
    return text


def _part(text: str, default_unit: str) -> tuple[Fraction, str, int]:
    """The first number in `text` with its unit, and where it ends."""
    if match := _FRACTION.match(text):
        unit = _unit(match["unit"])
        if unit in ("mm", "cm", "m", "thou"):
            raise refusal(f"a fraction is inches and cannot carry {unit}")
        return _mixed(match), unit or "in", match.end()
    if match := _DECIMAL.match(text):
        return decimal_of(match["number"]), _unit(match["unit"]) or default_unit, match.end()
    raise refusal("is not a length; write for example 14 5/8, 371 mm, 37,1 cm or 25 thou")


def _unit(word: str | None) -> str | None:
    if word is None:
        return None
    if word in ("mil", "mils"):
        raise refusal("“mil” means different things in different sheds; write thou or mm")
    if word not in _SPELLINGS:
        raise refusal(f"“{word}” is not a unit of length used here; use mm, cm, m, in, ft or thou")
    return _SPELLINGS[word]


def _mixed(match: "re.Match[str]") -> Fraction:
    top, bottom = int(match["top"]), int(match["bottom"])
    if bottom == 0:
        raise refusal("has 0 below the line of its fraction")
    if match["whole"] is None:
        return Fraction(top, bottom)
    if not match["whole"].isdigit():
        raise refusal("mixes a decimal and a fraction")
    if top >= bottom:
        raise refusal("has a fraction of one or more beside a whole number")
    return int(match["whole"]) + Fraction(top, bottom)


def decimal_of(number: str) -> Fraction:
    """Of a figure with a point or a comma. Raises BadInput where the comma may part thousands."""
    whole, comma, decimals = number.partition(",")
    if comma and len(decimals) == 3 and whole != "0":
        raise refusal(f"“{number}” may be a thousands comma; write {whole}{decimals} or {whole or '0'}.{decimals}")
    return Fraction(number.replace(",", ".").rstrip("."))


def show_inches(value_mm: float) -> str:
    """Nearest 1/32 in, reduced (``14 5/8 in``); below 0.1 in as whole thou (``25 thou``). Lengths are never negative."""
    if value_mm < 2.54:
        return f"{round(value_mm / 0.0254)} thou"
    whole, part = divmod(round(value_mm / 25.4 * 32), 32)
    fraction = Fraction(part, 32)
    words = [str(whole)] if whole or not fraction else []
    return " ".join([*words, *([str(fraction)] if fraction else []), "in"])


@dataclass(frozen=True)
class Notation:
    """One notation for lengths that stand beside each other, so that what is left between two is what the two shown figures
    leave.

    step: of the last digit, in `unit`: 0.1 or 0.01 mm, 1 thou, 1/32 in.
    """

    unit: Literal["mm", "thou", "in"]
    step: Fraction

    def _steps(self, value_mm: float) -> int:
        if isinstance(value_mm, Inches):
            return floor(value_mm.exact / (MM_PER[self.unit] * self.step) + Fraction(1, 2))
        return round(value_mm / float(MM_PER[self.unit] * self.step))

    def _shown(self, steps: int) -> str:
        sign, amount = "−" if steps < 0 else "", abs(steps) * self.step
        if self.unit != "in":
            return f"{sign}{plain(float(amount), 2)} {self.unit}"
        whole, part = divmod(amount, 1)
        words = [str(whole)] if whole or not part else []
        return f"{sign}{' '.join([*words, *([str(part)] if part else [])])} in"

    def show(self, value_mm: float) -> str:
        return self._shown(self._steps(value_mm))

    def between(self, one_mm: float, other_mm: float) -> str:
        """The difference of the two as they are shown; ``under 0.1 mm`` where they look the same and are not."""
        steps = abs(self._steps(one_mm) - self._steps(other_mm))
        if not steps and abs(one_mm - other_mm) > 1e-6:
            return f"under {self._shown(1)}"
        return self._shown(steps)


def notation(lengths_mm: Sequence[float], system: System) -> Notation:
    """The notation in which all of these can be read: to 0.1 mm from 10 mm on, to 0.01 below; thou where they are small, else
    1/32 in."""
    sizes = [abs(length) for length in lengths_mm] or [0.0]
    if system == "mm":
        # Inches seldom come out in tenths: 3/4 in is 19.05 mm.
        fine = any(isinstance(length, Inches) and (10 * length.exact).denominator > 1 for length in lengths_mm)
        return Notation("mm", Fraction(1, 10) if max(sizes) >= 10 and not fine else Fraction(1, 100))
    small = any(0 < size < 2.54 for size in sizes) and max(sizes) < 25.4
    return Notation("thou", Fraction(1)) if small or max(sizes) < 2.54 else Notation("in", Fraction(1, 32))


def show_mm(value_mm: float) -> str:
    """One decimal from 10 mm, two below or where it was stated in inches, closing zeros dropped (``371.5 mm``, ``0.25 mm``)."""
    if isinstance(value_mm, Inches):
        return notation([value_mm], "mm").show(value_mm)
    return f"{plain(value_mm, 1 if abs(value_mm) >= 10 else 2)} mm"


def plain(value: float, decimals: int) -> str:
    """A figure with at most `decimals` decimals and no closing zeros; never ``-0``."""
    text = f"{value:.{decimals}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def show_unbalance(g_mm: float, beside: float = 0.0) -> str:
    """Mass times radius: ``5058 g·mm``, from ten thousand on ``13 kg·mm``; in the unit of what it stands beside."""
    return f"{plain(g_mm, 0)} g·mm" if max(g_mm, beside) < 10_000 else f"{plain(g_mm / 1000, 1)} kg·mm"


def show_turns(turns: float, decimals: int = 1) -> str:
    """Turns of an adjuster with their direction, clockwise positive: ``0.9 turns clockwise``."""
    figure = plain(abs(turns), decimals)
    return f"{figure} {'turn' if figure == '1' else 'turns'} {'clockwise' if turns > 0 else 'counter-clockwise'}"


def stated_in(value_mm: float) -> str:
    """The inches that a length was stated in; empty where it was not."""
    return value_mm.stated if isinstance(value_mm, Inches) else ""


def as_stated(text: str, default_unit: Unit = "mm") -> float:
    """As `parse_length`, but what was typed in inches stays so. Raises BadInput with field ``text``."""
    value = parse_length(text, default_unit)
    _, unit, _ = _part(tidy(text), default_unit)
    if unit != "in":
        return value
    return Inches(text if _IN_INCHES.fullmatch(text) else f"{text.strip()} in")


def beside(value_mm: float, shown: str, system: System) -> str:
    """A length as `shown`, with the inches it was stated in, or the millimetres that these are, beside it."""
    if not isinstance(value_mm, Inches):
        return shown
    return f"{value_mm.stated} ({show_mm(value_mm)})" if system == "in" else f"{shown} ({value_mm.stated})"


def show_length(value_mm: float, system: System) -> str:
    """A length in the reader's own units; a minus sign is kept for differences."""
    if isinstance(value_mm, Inches):
        return beside(value_mm, show_mm(value_mm), system)
    if system == "mm":
        return show_mm(value_mm)
    return ("−" if value_mm < 0 else "") + show_inches(abs(value_mm))
