"""Lengths that are set in the field, as each reader types and reads them: kept in millimetres, whatever they were typed in."""

import re

from .errors import BadInput
from .units import System, parse_length, plain, show_length

BETWEEN = " to "
_BETWEEN = re.compile(r"(?<=[\d\"'a-z½¼¾])\s*(?:–|\bto\b|-(?=\d))\s*(?=\d)")
"""Between two lengths: ``40–45``, ``1 1/2 to 2 in``; not the hyphen of ``1-1/2``, which `parse_length` knows."""
_WORD = r"(?:hole|notch|click|mark|step|turn)(?:e?s)?"
_STEP = re.compile(rf"{_WORD} ?\d+|\d+ ?{_WORD}", re.IGNORECASE)
"""Where a handle stands, which is no length: ``hole 3``, ``3 clicks``."""
_KEPT = re.compile(r"\d+(?:\.\d+)?(?: to \d+(?:\.\d+)?)?")


def kept(text: str, system: System) -> str:
    """What is kept of a length, two of them, a step of a handle, or words: millimetres as ``57.15`` and ``40 to 45``, the rest
    as it is.

    Raises BadInput where there are figures that are no length.
    """
    text = text.strip()
    if not re.search(r"\d", text) or _STEP.fullmatch(text):
        return text
    try:
        return _figure(parse_length(text, system))
    except BadInput:
        pass
    ends = _BETWEEN.split(text)
    if len(ends) != 2:
        raise BadInput("text", "is not a length; write for example 40, 40 to 45, 1 1/2 in, hole 3, or words without figures")
    unit = "".join(re.findall(r"[a-z\"']+$", ends[1]))
    return BETWEEN.join(_figure(parse_length(end if re.search(r"[a-z\"']$", end) else f"{end}{unit}", system)) for end in ends)


def shown(kept_text: str, system: System) -> str:
    """With its unit, as a reader of this system reads it: ``2 1/4 in``, ``40 to 45 mm``; words as they are."""
    if not _KEPT.fullmatch(kept_text):
        return kept_text
    ends = [show_length(float(end), system) for end in kept_text.split(BETWEEN)]
    first = ends[0].removesuffix(f" {ends[-1].rpartition(' ')[2]}") if len(ends) == 2 else ""
    return f"{first}{BETWEEN}{ends[1]}" if first else ends[0]


def typed(kept_text: str, system: System) -> str:
    """As such a reader would type it, without the unit that stands beside the field."""
    return shown(kept_text, system).removesuffix(f" {system}")


def _figure(value_mm: float) -> str:
    return plain(value_mm, 2)
