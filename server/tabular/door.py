"""What comes in from outside, before anybody looks at it: text without what breaks a file, figures that are figures, and no
more of either than anybody sends."""

import json
import math
import re
from typing import Any

MOST_THINGS = 50_000
"""Texts, figures, lists and objects in one request."""
DEEPEST = 40
LONGEST = 200_000
"""Characters of one text: the rows of a test stand, dropped on the bench, are the longest."""
LARGEST = 2**53
"""Whole numbers beyond it are no longer exact in a browser."""
_UNFIT = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f\ud800-\udfff\ufffe\uffff]")
"""Control characters but tab and line ends, halves of characters, and what is no character."""


class Unfit(ValueError):
    """What was sent cannot be read, with what is wrong in words."""


def fit(text: str) -> str:
    """A text without what no file, database or screen can hold."""
    return _UNFIT.sub("", text)


def read_json(content: bytes) -> Any:
    """A body of JSON with every text fit and every figure finite. Raises Unfit."""
    try:
        found = json.loads(content, parse_constant=_no_figure)
    except (ValueError, RecursionError):
        raise Unfit("the input is not JSON") from None
    left = [MOST_THINGS]
    return _fit(found, 0, left)


def _no_figure(name: str) -> None:
    raise ValueError(name)


def _fit(thing: Any, depth: int, left: list[int]) -> Any:
    left[0] -= 1
    if left[0] < 0:
        raise Unfit("the input holds more than anybody sends")
    if depth > DEEPEST:
        raise Unfit("the input is nested too deep")
    match thing:
        case str():
            if len(thing) > LONGEST:
                raise Unfit("the input holds a text that is too long")
            return fit(thing)
        case bool() | None:
            return thing
        case int() if abs(thing) > LARGEST:
            raise Unfit("the input holds a number that is too large")
        case float() if not math.isfinite(thing):
            raise Unfit("the input holds a number that is too large")
        case list():
            return [_fit(one, depth + 1, left) for one in thing]
        case dict():
            return {fit(key): _fit(one, depth + 1, left) for key, one in thing.items()}
    return thing
