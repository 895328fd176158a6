"""The one error the core raises on purpose."""

from collections.abc import Iterable
from difflib import get_close_matches
from typing import Literal


class BadInput(ValueError):
    """Something that was given cannot be used.

    field: dotted path to it (``readings.0.span_mm``), ``""`` for the whole object.
    message: one sentence for the person who typed it, without the field's name.
    """

    def __init__(self, field: str, message: str) -> None:
        super().__init__(f"{field}: {message}" if field else message)
        self.field = field
        self.message = message

    def within(self, prefix: str) -> "BadInput":
        """The same error seen from one level further out."""
        path = f"{prefix}.{self.field}" if self.field else prefix
        return BadInput(path, self.message)

    def as_dict(self) -> dict[str, dict[str, object]]:
        """The error object of the command line and the API."""
        return {"error": {"field": self.field, "message": self.message}}


class RunTogether(BadInput):
    """What was typed is no figure, but two of them would be: an Enter was swallowed between them.

    figures: all that was typed for the place, with the two taken apart.
    """

    def __init__(self, field: str, figures: list[str]) -> None:
        super().__init__(field, f"did two figures run together: {two_of(figures, field)}?")
        self.figures = figures

    def as_dict(self) -> dict[str, dict[str, object]]:
        return {"error": {"field": self.field, "message": self.message, "figures": self.figures}}


class Doubted(BadInput):
    """What was typed is hardly meant.

    cures: what has it believed: ``confirm``, that somebody says it is right; ``exchange``, that the meter was exchanged.
    """

    def __init__(self, field: str, message: str, *cures: Literal["confirm", "exchange"]) -> None:
        super().__init__(field, message)
        self.cures = list(cures)

    def as_dict(self) -> dict[str, dict[str, object]]:
        return {"error": {"field": self.field, "message": self.message, "cures": self.cures}}


def nearest(word: str, known: Iterable[str]) -> str:
    """``; did you mean posture?`` where a known name is like the word, else nothing."""
    found = get_close_matches(word, list(known), 1)
    return f"; did you mean {found[0]}?" if found else ""


def two_of(figures: list[str], field: str = "raw.0") -> str:
    """The two figures that ran together at a field ``raw.<n>``, in words."""
    at = int(field.rpartition(".")[2])
    return f"{figures[at]} and {figures[at + 1]}"
