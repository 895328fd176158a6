"""The one place where plurals are made."""

import re

from .units import plain


def counted(number: float, one: str, many: str = "") -> str:
    """A count with its noun: ``1 reading``, ``2 readings``, ``0 knives``. many: where it is not the noun with an s."""
    return f"{plain(number, 2)} {noun(number, one, many)}"


def noun(number: float, one: str, many: str = "") -> str:
    """The noun alone: ``reading`` for 1, ``readings`` for anything else; ``knife`` and ``knives`` by itself."""
    return one if abs(number) == 1 else many or re.sub("knifes$", "knives", f"{one}s")
