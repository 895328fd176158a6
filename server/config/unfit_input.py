"""What does not fit its description, in words for the person who typed it, without the field's name."""

from collections.abc import Mapping
from typing import Any

_WORDS = {
    "missing": "is missing",
    "string_too_long": "may have {max_length} letters and signs at most",
    "too_long": "may have {max_length} entries at most",
    "greater_than": "must be more than {gt}",
    "greater_than_equal": "must be at least {ge}",
    "less_than": "must be less than {lt}",
    "less_than_equal": "must be at most {le}",
    "literal_error": "must be one of {expected}",
    "enum": "must be one of {expected}",
    "finite_number": "must be a finite number",
    "string_type": "must be text",
    "string_pattern_mismatch": "is not written as it is wanted",
    "list_type": "must be a list",
}
"""By the type of the error. Its figures are put in."""
_KINDS = {
    "int": "must be a whole number",
    "float": "must be a number",
    "decimal": "must be a number",
    "bool": "must be yes or no",
    "uuid": "must be a UUID",
    "date": "must be a day such as 2026-12-24",
    "datetime": "must be a day with a time, such as 2026-12-24T08:15",
    "timezone": "must be a day with a time and its zone, such as 2026-12-24T08:15Z",
    "dict": "must be an object",
    "model": "must be an object",
}
"""By how the type begins: `int_parsing`, `int_from_float` and `int_type` are one to whoever typed it."""


def said(problem: Mapping[str, Any]) -> str:
    """One error of a description, as a validation lists it: `type`, `ctx`, `msg`."""
    kind, figures = problem["type"], {name: _figure(value) for name, value in problem.get("ctx", {}).items()}
    if kind in ("string_too_short", "too_short"):
        least, what = figures["min_length"], "letters" if kind == "string_too_short" else "entries"
        return "is missing" if least == "1" else f"must have {least} {what} at least"
    words = _WORDS.get(kind) or _KINDS.get(kind.partition("_")[0])
    return words.format(**figures) if words else str(problem["msg"]).removeprefix("Value error, ")


def _figure(value: object) -> str:
    return f"{value:g}" if isinstance(value, float) else str(value)
