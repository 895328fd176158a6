"""What surrounds a reading when it is judged."""

import datetime as dt
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from ..calculators.opener import FEELERS_MM
from ..rules.base import Rule
from ..units import System
from .parse_reading import Value

Others = Mapping[str, Mapping[str, Value]]
"""Values of this walk-around that a rule looks at besides its own: check → position → value."""


@dataclass(frozen=True)
class Past:
    """A reading of this machine in its log. visit: the walk-around it belongs to."""

    check: str
    position: str
    value: Value
    visit: object = None


@dataclass(frozen=True)
class Expected:
    """What the machine's own history lets expect, in the check's unit, with the range that holds nine of ten times.

    now: the true value today. value, low, high, chance: at the end of the coming season, with the chance that the limit is
    reached before then, in words too. doubted: the reading does not fit what was read before.
    """

    now: float
    value: float
    low: float
    high: float
    chance: float
    word: str
    doubted: bool = False


@dataclass(frozen=True)
class Context:
    """What surrounds a reading. confirmed: the technician has answered the question and stands by the figure. system: of who
    reads the verdict. typed: the reading's texts, and what a bare figure in them means.

    rules: of the checks that the rule looks at. log: what was read on this machine before, oldest first, where a rule learns
    from it. moved: washers were moved at this row after it was measured. counter_h, today: the machine's hours and the day, for
    what is done at intervals. crop: that comes, empty where none was said. visit: this walk-around. schools: the shop's.
    feelers: its own over the usual ones. track_rows: rows behind wheels. expected: by the forecast, where there is one.
    """

    system: System = "mm"
    confirmed: bool = False
    typed: Sequence[str] = ()
    typed_in: System = "mm"
    others: Others = field(default_factory=dict)
    rules: Mapping[str, Rule] = field(default_factory=dict)
    log: Sequence[Past] = ()
    moved: bool = False
    counter_h: float | None = None
    today: dt.date | None = None
    schools: Mapping[str, str] = field(default_factory=dict)
    crop: str = ""
    visit: object = None
    feelers: Mapping[str, float] = field(default_factory=lambda: FEELERS_MM)
    track_rows: Sequence[int] = ()
    expected: Expected | None = None
