"""Understanding and showing lengths as the trade writes them.

Lengths are held in millimetres. `parse_length` keeps exact fractions until the end, so that what `show_inches` writes is
understood again to within the 1/64 in it was rounded by.
"""

import re
from fractions import Fraction
from typing import Literal

from .errors import BadInput

Unit = Literal["mm", "cm", "in", "thou"]
System = Literal["mm", "in"]

MM_PER = {
    "mm": Fraction(1),
    "cm": Fraction(10),
    "in": Fraction(254, 10),
    "thou": Fraction(254, 10_000),
    "ft": Fraction(3048, 10),
}
LONGEST_MM = 1_000_000
"""One kilometre. Longer than anything measured on a machine, so surely a slip."""

_SPELLINGS = {
    "mm": "mm",
    "cm": "cm",
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

_NUMBER = r"[0-9]+[.,]?[0-9]*|[.,][0-9]+"
_UNIT = r"""\s*(?P<unit>[a-z]+|["'])?\.?\s*"""
_FRACTION = re.compile(rf"\s*(?:(?P<whole>{_NUMBER})(?:\s*-\s*|\s+))?(?P<top>[0-9]+)\s*/\s*(?P<bottom>[0-9]+)" + _UNIT)
_DECIMAL = re.compile(rf"\s*(?P<number>{_NUMBER})" + _UNIT)


def parse_length(text: str, default_unit: Unit = "mm") -> float:
    """The length in mm that `text` means; a bare decimal is in `default_unit`.

    Understands decimals (point or comma), fractions of an inch, mixed numbers, feet and inches, thou. A fraction is inches
    whatever the default. Edges decided here: inches after feet must be under 12 (``1' 14"`` is a slip), anything over 1 km is
    refused. Raises BadInput with field ``text``.
    """
    return float(_exact(text, default_unit))


def _refuse(message: str) -> BadInput:
    return BadInput("text", message)


def _exact(text: str, default_unit: str) -> Fraction:
    cleaned = _tidy(text)
    if cleaned.startswith("-"):
        raise _refuse("a length cannot be negative")
    amount, unit, end = _part(cleaned, default_unit)
    rest = cleaned[end:]
    if rest and unit == "ft":
        inches, inch_unit, end = _part(rest, "in")
        if rest[end:]:
            raise _refuse(f"“{text.strip()}” is not one length")
        if inch_unit != "in":
            raise _refuse("after feet only inches can follow")
        if inches >= 12:
            raise _refuse("inches after feet must be under 12")
        value = amount * MM_PER["ft"] + inches * MM_PER["in"]
    elif rest.strip("-"):
        raise _refuse(f"“{text.strip()}” is not one length")
    elif rest:
        raise _refuse("ends in a dash: a fraction should follow it")
    else:
        value = amount * MM_PER[unit]
    if value > LONGEST_MM:
        raise _refuse("is more than a kilometre")
    return value


def _tidy(text: str) -> str:
    if len(text) > 60:
        raise _refuse("is too long for a length")
    for vulgar, plain in _VULGAR.items():
        text = text.replace(vulgar, f" {plain}")
    text = text.lower()
    for lookalike, plain in _LOOKALIKES.items():
        text = text.replace(lookalike, plain)
    text = text.strip().removeprefix("+")  # gauges send their sign
    if not text:
        raise _refuse("is empty")
    return text


def _part(text: str, default_unit: str) -> tuple[Fraction, str, int]:
    """The first number in `text` with its unit, and where it ends."""
    if match := _FRACTION.match(text):
        unit = _unit(match["unit"])
        if unit in ("mm", "cm", "thou"):
            raise _refuse(f"a fraction is inches and cannot carry {unit}")
        return _mixed(match), unit or "in", match.end()
    if match := _DECIMAL.match(text):
        return _decimal(match["number"]), _unit(match["unit"]) or default_unit, match.end()
    raise _refuse("is not a length; write for example 14 5/8, 371 mm, 37,1 cm or 25 thou")


def _unit(word: str | None) -> str | None:
    if word is None:
        return None
    if word in ("mil", "mils"):
        raise _refuse("“mil” means different things in different sheds; write thou or mm")
    if word not in _SPELLINGS:
        raise _refuse(f"“{word}” is not a unit of length used here; use mm, cm, in, ft or thou")
    return _SPELLINGS[word]


def _mixed(match: "re.Match[str]") -> Fraction:
    top, bottom = int(match["top"]), int(match["bottom"])
    if bottom == 0:
        raise _refuse("has 0 below the line of its fraction")
    if match["whole"] is None:
        return Fraction(top, bottom)
    if not match["whole"].isdigit():
        raise _refuse("mixes a decimal and a fraction")
    if top >= bottom:
        raise _refuse("has a fraction of one or more beside a whole number")
    return int(match["whole"]) + Fraction(top, bottom)


def _decimal(number: str) -> Fraction:
    whole, comma, decimals = number.partition(",")
    if comma and len(decimals) == 3 and whole != "0":
        raise _refuse(f"“{number}” may be a thousands comma; write {whole}{decimals} or {whole or '0'}.{decimals}")
    return Fraction(number.replace(",", ".").rstrip("."))


def show_inches(value_mm: float) -> str:
    """Nearest 1/32 in, reduced (``14 5/8 in``); below 0.1 in as whole thou (``25 thou``). Lengths are never negative."""
    if value_mm < 2.54:
        return f"{round(value_mm / 0.0254)} thou"
    whole, part = divmod(round(value_mm / 25.4 * 32), 32)
    fraction = Fraction(part, 32)
    words = [str(whole)] if whole or not fraction else []
    return " ".join([*words, *([str(fraction)] if fraction else []), "in"])


def show_mm(value_mm: float) -> str:
    """One decimal from 10 mm, two below, closing zeros dropped (``371.5 mm``, ``0.25 mm``)."""
    return f"{plain(value_mm, 1 if abs(value_mm) >= 10 else 2)} mm"


def plain(value: float, decimals: int) -> str:
    """A figure with at most `decimals` decimals and no closing zeros; never ``-0``."""
    text = f"{value:.{decimals}f}"
    if "." in text:
        text = text.rstrip("0").rstrip(".")
    return "0" if text == "-0" else text


def show_unbalance(g_mm: float) -> str:
    """Mass times radius: ``5058 g·mm``, from ten thousand on ``13 kg·mm``."""
    return f"{plain(g_mm, 0)} g·mm" if g_mm < 10_000 else f"{plain(g_mm / 1000, 1)} kg·mm"


def show_turns(turns: float, decimals: int = 1) -> str:
    """Turns of an adjuster with their direction, clockwise positive: ``0.9 turns clockwise``."""
    figure = plain(abs(turns), decimals)
    return f"{figure} {'turn' if figure == '1' else 'turns'} {'clockwise' if turns > 0 else 'counter-clockwise'}"


def show_length(value_mm: float, system: System) -> str:
    """A length in the reader's own units; a minus sign is kept for differences."""
    if system == "mm":
        return show_mm(value_mm)
    return ("−" if value_mm < 0 else "") + show_inches(abs(value_mm))
