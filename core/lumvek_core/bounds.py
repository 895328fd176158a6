"""What a field of a dataclass may hold: notes in its annotation."""

import dataclasses
import math
from typing import Any


@dataclasses.dataclass(frozen=True)
class Over:
    """Must be greater than `bound`."""

    bound: float

    def check(self, value: float) -> str | None:
        return None if value > self.bound else f"must be greater than {self.bound:g}"

    def schema(self) -> dict[str, Any]:
        return {"exclusiveMinimum": self.bound}


@dataclasses.dataclass(frozen=True)
class Within:
    """Must lie between `low` and `high`, ends included; `high` may be left open."""

    low: float
    high: float = math.inf

    def check(self, value: float) -> str | None:
        if self.low <= value <= self.high:
            return None
        if self.high == math.inf:
            return f"must be {self.low:g} or more"
        return f"must be between {self.low:g} and {self.high:g}"

    def schema(self) -> dict[str, Any]:
        return {"minimum": self.low} | ({} if self.high == math.inf else {"maximum": self.high})


@dataclasses.dataclass(frozen=True)
class AtMost:
    """So many items, or names, and no more: what a calculation may cost is known before it is read."""

    many: int

    def check(self, value: Any) -> str | None:
        return None if len(value) <= self.many else f"holds {len(value)}, and {self.many} are the most"

    def schema(self) -> dict[str, Any]:
        return {"maxItems": self.many}


@dataclasses.dataclass(frozen=True)
class AtMostNamed(AtMost):
    """The same of an object whose names are free."""

    def schema(self) -> dict[str, Any]:
        return {"maxProperties": self.many}


class Stated:
    """In an annotation: a length, which may also stand as text in inches (``14 1/2 in``) and is then kept as it was stated."""
