"""One reading at one place, judged at once: what was known before is kept as a state, and the reading moves it in closed form.

The model is `wear`'s: a straight line with an unsure start and rate, readings that err, seasons that differ. What like places
say of this one's rate comes in as one mean and variance, made when they were last pooled (`history.standings`); from there on
two figures and their covariance say all there is to know. Standard library only: this runs wherever a verdict is made.
"""

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..calculators.forecast import NINETY, SLIP, Chance, chance_word, p_cross
from .wearing import NEW_SD, Coming, Measured, Wearing, renewed_between

SURE = SLIP - 0.5
"""A reading further off than so many standard deviations is held against every other one before anything is said of it."""


@dataclass(frozen=True)
class Standing:
    """What is known of a place at `counter`: its true value and its rate for each hour or hectare of a usual part.

    value_var: None where nobody knows what the part started from. life: of this variant against the usual one. last: the newest
    reading that counts, None where there is none. doubted: an older reading was taken for a slip, which the next one may bear
    out.
    """

    counter: float
    value: float
    rate: float
    value_var: float | None
    rate_var: float
    covariance: float = 0.0
    life: float = 1.0
    last: float | None = None
    doubted: bool = False


@dataclass(frozen=True)
class Seen:
    """A place after a reading. value, low, high (90 %) and p_cross are for the true value at the season's end; now: today's."""

    now: float
    value: float
    low: float
    high: float
    p_cross: float
    chance_word: Chance


def walk_of(wearing: Wearing, coming: Coming) -> float:
    """How much the walk of the seasons adds to the variance for each unit of use, in unit² per use."""
    return (coming.season_share * wearing.rate) ** 2 * coming.season_use


def start_sd(wearing: Wearing, first: float | None) -> float:
    """How unsure the start is: between new parts, or, where nobody saw it new and `first` was read, as far as wear goes."""
    allowance = abs(wearing.limit - wearing.new)
    return NEW_SD * allowance if first is None else max(allowance, abs(first - wearing.new))


def begun(wearing: Wearing, counter: float, rate: float, rate_var: float, life: float = 1.0, *, known: bool) -> Standing:
    """A place before any reading. known: that the part was new at `counter`."""
    return Standing(counter, wearing.new, rate, start_sd(wearing, None) ** 2 if known else None, rate_var, life=life)


def run_on(standing: Standing, counter: float, walk: float) -> Standing:
    """The same place at a later counter."""
    use = max(counter - standing.counter, 0.0) / standing.life
    if standing.value_var is None:
        return replace(standing, counter=counter)  # a line begins where it is first read
    return replace(
        standing,
        counter=max(counter, standing.counter),
        value=standing.value + standing.rate * use,
        value_var=standing.value_var + 2 * use * standing.covariance + use**2 * standing.rate_var + walk * use,
        covariance=standing.covariance + use * standing.rate_var,
    )


def after(wearing: Wearing, standing: Standing, value: float) -> Standing:
    """What is known once `value` was read at the standing's own counter."""
    start = standing.value_var if standing.value_var is not None else start_sd(wearing, value) ** 2
    both = start + wearing.reading_sd**2
    off = value - standing.value
    return replace(
        standing,
        value=standing.value + start / both * off,
        rate=standing.rate + standing.covariance / both * off,
        value_var=start - start**2 / both,
        covariance=standing.covariance - start * standing.covariance / both,
        rate_var=standing.rate_var - standing.covariance**2 / both,
        last=value,
    )


def standing_after(wearing: Wearing, standing: Standing, readings: Sequence[Measured], walk: float) -> Standing:
    """What is known after readings, oldest first."""
    for reading in readings:
        standing = after(wearing, run_on(standing, reading.counter, walk), reading.value)
    return standing


def surprising(wearing: Wearing, standing: Standing, reading: Measured, walk: float) -> bool:
    """Whether a reading may be a slip, or of a part that was renewed unsaid: then one place alone cannot tell."""
    here = run_on(standing, reading.counter, walk)
    if here.value_var is None or here.doubted:
        return here.doubted
    off = abs(reading.value - here.value) / math.sqrt(here.value_var + wearing.reading_sd**2)
    return off > SURE or (standing.last is not None and renewed_between(wearing, standing.last, reading.value))


def read(wearing: Wearing, standing: Standing, reading: Measured, coming: Coming) -> Seen:
    """Where a place stands after a reading, and where it will at the season's end."""
    walk = walk_of(wearing, coming)
    seen = after(wearing, run_on(standing, reading.counter, walk), reading.value)
    end = run_on(seen, coming.end, walk)
    sd = math.hypot(math.sqrt(max(end.value_var or 0.0, 0.0)), end.rate * coming.use_sd / end.life)
    crossed = p_cross(end.value, sd, wearing.new, wearing.limit)
    now = run_on(seen, coming.now, walk).value
    return Seen(now, end.value, end.value - NINETY * sd, end.value + NINETY * sd, crossed, chance_word(crossed))
