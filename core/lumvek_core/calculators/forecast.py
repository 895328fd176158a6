"""Where a wearing part will stand at the end of the season, and how sure that is."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from typing import TYPE_CHECKING, Annotated, Literal

from ..bounds import AtMost, Over
from ..errors import BadInput
from ..registry import calculator
from .common import NotNegative, different_names, some

if TYPE_CHECKING:
    from ..forecast.wear import Ahead, Line

Chance = Literal["unlikely", "possible", "likely", "almost surely"]
NINETY = 1.6448536269514722
"""Standard deviations on either side that hold nine of ten."""
FAR_MOST = 1e6
"""So many times the error of a reading may something be unsure; beyond it nothing is left of the readings in floating point."""
MOST_SHARE = 10
SLIP = 3.5
"""A reading further than this from all the others is suspect: a slip of the tape, a wrong row, a part that was renewed."""


@dataclass(frozen=True)
class WearReading:
    """use: since the part was fitted, in hours or hectares."""

    use: NotNegative
    value: float


@dataclass(frozen=True, kw_only=True)
class Expected:
    """What is expected of a part before it is read.

    prior_rate_mean: change of the value per use, with the sign of limit − new. season_sd_share: how far one season's rate
    differs from the next, as a share of the mean rate; it needs season_use, the use of one season.
    """

    new: float
    limit: float
    prior_rate_mean: float
    prior_rate_sd: Annotated[float, Over(0)]
    reading_sd: Annotated[float, Over(0)]
    new_sd: NotNegative
    use_next: NotNegative
    season_sd_share: NotNegative = 0
    season_use: Annotated[float, Over(0)] | None = None


@dataclass(frozen=True, kw_only=True)
class ForecastGiven(Expected):
    __doc__ = Expected.__doc__

    readings: Annotated[list[WearReading], AtMost(400)]


@dataclass(frozen=True)
class Forecast:
    """value, low, high (90 %) and p_cross are for the true value at use_next. suspect: readings that do not fit the others."""

    rate: float
    rate_sd: float
    value: float
    low: float
    high: float
    p_cross: float
    chance_word: Chance
    suspect: list[int]


@dataclass(frozen=True)
class RowReadings:
    """group: rows that wear alike, such as those behind wheels. use_next: where this row's part is older or newer than the
    others'."""

    name: str
    readings: Annotated[list[WearReading], AtMost(400)]
    group: str | None = None
    use_next: NotNegative | None = None


@dataclass(frozen=True, kw_only=True)
class RowsForecastGiven(Expected):
    __doc__ = Expected.__doc__

    rows: Annotated[list[RowReadings], AtMost(100)]


@dataclass(frozen=True)
class RowForecast(Forecast):
    """stands_out: it wears faster or slower than the others by more than it is unsure. n: readings."""

    name: str
    stands_out: bool
    n: int


@dataclass(frozen=True)
class RowsForecast:
    """mean_rate: of the rows; row_sd: how far single rows differ."""

    rows: list[RowForecast]
    mean_rate: float
    row_sd: float


def chance_word(p: float) -> Chance:
    """A chance in words: under 10 % unlikely, under 40 % possible, up to 80 % likely, above almost surely."""
    if p < 0.10:
        return "unlikely"
    if p < 0.40:
        return "possible"
    return "likely" if p <= 0.80 else "almost surely"


@calculator
def wear_forecast(given: ForecastGiven) -> Forecast:
    """Value expected at `use_next` with its 90 % range, and the chance that the limit is crossed before then.

    v = v0 + b·use, v0 ~ N(new, new_sd), b ~ N(prior), readings independent with reading_sd; use counts from fitment, in hours
    or hectares, and the prior must match. season_sd_share adds a walk with covariance q·min(u₁, u₂), q =
    (share·prior_rate_mean)²· season_use: seasons differ, and without it the range is too narrow. suspect: readings whose
    leave-one-out standardised error exceeds 3.5. Without readings it is the prior. new = limit, or a prior rate of the other
    sign, is bad input.
    """
    from ..forecast.wear import Row, one_row

    line = _line(given)
    readings = given.readings
    row = Row([one.use for one in readings], [one.value for one in readings], given.use_next)
    ahead = _solid([one_row(line, row)])[0]
    return Forecast(*_said(ahead, given))


@calculator
def wear_forecast_rows(given: RowsForecastGiven) -> RowsForecast:
    """As wear_forecast for several like positions, which learn from each other.

    Rates b ~ N(m·1, s²·11ᵀ + (s/2)²·G + τ²·I), s the prior's standard deviation, G = 1 within a group; τ on 13 equal steps from
    0 to 1.5 s, weighted by marginal likelihood × exp(−½(τ/(s/2))²); results are the mixture's mean and variance. A row without
    readings leans on the rest; one row equals wear_forecast. stands_out: |rate − mean of the others| > 1.645·rate_sd.
    """
    from ..forecast.wear import Row, rows_together

    some(given.rows, "rows", "row")
    different_names([row.name for row in given.rows], "rows")
    line = _line(given)
    rows = [
        Row(
            [one.use for one in row.readings],
            [one.value for one in row.readings],
            given.use_next if row.use_next is None else row.use_next,
            row.group,
        )
        for row in given.rows
    ]
    found, spread = rows_together(line, rows)
    _solid(found)
    total = math.fsum(one.rate for one in found)
    others = len(found) - 1
    return RowsForecast(
        [
            RowForecast(
                *_said(ahead, given),
                row.name,
                bool(others) and abs(ahead.rate - (total - ahead.rate) / others) > NINETY * ahead.rate_sd,
                len(row.readings),
            )
            for row, ahead in zip(given.rows, found, strict=True)
        ],
        total / len(found),
        spread,
    )


def _line(given: ForecastGiven | RowsForecastGiven) -> "Line":
    from ..forecast.wear import Line

    if given.new == given.limit:
        raise BadInput("limit", "must differ from the size when new")
    if given.prior_rate_mean * (given.limit - given.new) <= 0:
        raise BadInput("prior_rate_mean", "must lead from new towards the limit")
    if given.season_sd_share > 0 and given.season_use is None:
        raise BadInput("season_use", "is needed with season_sd_share")
    far = FAR_MOST * given.reading_sd
    longest = max(_uses(given), default=0.0)
    for name, sd in (("new_sd", given.new_sd), ("prior_rate_sd", given.prior_rate_sd * max(longest, 1.0))):
        if sd > far:
            raise BadInput(name, "is so large against reading_sd that the readings would say nothing exactly")
    if given.season_sd_share > MOST_SHARE:
        raise BadInput("season_sd_share", f"must be at most {MOST_SHARE}")
    walk = (given.season_sd_share * given.prior_rate_mean) ** 2 * (given.season_use or 0)
    return Line(given.new, given.new_sd, given.reading_sd, given.prior_rate_mean, given.prior_rate_sd, walk)


def _uses(given: ForecastGiven | RowsForecastGiven) -> Iterator[float]:
    """Every use that stands in the input."""
    yield given.use_next
    rows = given.rows if isinstance(given, RowsForecastGiven) else [given]
    for row in rows:
        yield row.use_next or 0.0
        yield from (one.use for one in row.readings)


def _solid(found: "Sequence[Ahead]") -> "Sequence[Ahead]":
    """Refuse what ran out of range: figures so far apart that nothing is left of them."""
    for one in found:
        if not all(map(math.isfinite, (one.rate, one.rate_sd, one.value, one.sd, *one.errors))):
            raise OverflowError
    return found


def _said(ahead: "Ahead", given: Expected) -> tuple[float, float, float, float, float, float, Chance, list[int]]:
    half = NINETY * ahead.sd
    crossed = p_cross(ahead.value, ahead.sd, given.new, given.limit)
    suspect = [i for i, error in enumerate(ahead.errors) if error > SLIP]
    return (
        ahead.rate,
        ahead.rate_sd,
        ahead.value,
        ahead.value - half,
        ahead.value + half,
        crossed,
        chance_word(crossed),
        suspect,
    )


def p_cross(value: float, sd: float, new: float, limit: float) -> float:
    """Chance that a value of this expectation lies at the limit or beyond, seen from new."""
    beyond = (limit - value) if limit < new else (value - limit)
    if sd == 0:
        return float(beyond >= 0)
    return 0.5 * math.erfc(-beyond / sd / math.sqrt(2))
