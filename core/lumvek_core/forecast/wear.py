"""Wear as a straight line with an unsure start, an unsure rate, unsure readings and seasons that differ.

v(u) = v0 + b·u + w(u) with v0 ~ N(new, new_sd²), b ~ N(m, ·) and w a walk with covariance q·min(u₁, u₂); readings err by
reading_sd. Everything is Gaussian, so all of it has a closed form. Each row is first boiled down to what its readings say of
its rate (a precision and a weight); rows then learn from each other through the covariance of their rates alone, which stays as
small as the number of rows however many readings there are.
"""

from collections.abc import Sequence
from dataclasses import dataclass, field

import numpy as np
from numpy.typing import NDArray

Array = NDArray[np.float64]
STEPS = 13
"""Steps of the spread between rows that are weighed against each other, from none to one and a half times the rate's own."""


@dataclass(frozen=True)
class Line:
    """What is believed before any reading, in the reading's unit and its use (hours or hectares). walk: q, in unit² per use."""

    new: float
    new_sd: float
    reading_sd: float
    rate: float
    rate_sd: float
    walk: float


@dataclass(frozen=True)
class Row:
    """One position's readings and the use asked for. group: rows that wear alike, such as those behind wheels.

    new_sd: of this row's own start, where it is known better or worse than the others'. also: further uses to be told, as many
    for every row.
    """

    uses: Sequence[float]
    values: Sequence[float]
    ahead: float
    group: str | None = None
    new_sd: float | None = None
    also: Sequence[float] = ()


@dataclass(frozen=True)
class Ahead:
    """Rate and true value ahead, with standard deviations. errors: of each reading against all others, in standard deviations.

    also: value and standard deviation at the row's further uses. others: mean and variance of its rate by all other rows.
    """

    rate: float
    rate_sd: float
    value: float
    sd: float
    errors: list[float]
    also: list[tuple[float, float]] = field(default_factory=list)
    others: tuple[float, float] = (0.0, 0.0)


@dataclass(frozen=True)
class Said:
    """What one row's readings say, whatever its rate: precision and weight of the rate, and the values ahead as α + β·rate."""

    precision: float
    weight: float
    alpha: Array
    beta: Array
    spread: Array
    inverse: Array
    use: Array
    rest: Array


@dataclass(frozen=True)
class Answer:
    """All rows for one spread between them; values are rows × uses told.

    evidence: the logarithm of how well it explains the readings, but for a constant.
    """

    rate: Array
    rate_var: Array
    value: Array
    var: Array
    evidence: float


def one_row(line: Line, row: Row) -> Ahead:
    """A row on its own."""
    said = [_said(line, row)]
    answer = _at(line, said, np.array([[line.rate_sd**2]]))
    return _with_errors(line, said, answer)[0]


def rows_together(line: Line, rows: Sequence[Row]) -> tuple[list[Ahead], float]:
    """Rows that learn from each other, and the standard deviation between rows that fits them.

    Their rates share one unsure mean (rate_sd), groups differ by half of that, and single rows by a spread that is not known:
    it is weighed over thirteen steps by how well each explains the readings. One row is the same as alone.
    """
    if len(rows) == 1:
        return [one_row(line, rows[0])], 0.0
    n, s = len(rows), line.rate_sd
    alike = np.array([[a.group is not None and a.group == b.group for b in rows] for a in rows], dtype=float)
    common = s**2 * np.ones((n, n)) + (s / 2) ** 2 * alike
    spreads = np.linspace(0.0, 1.5 * s, STEPS)
    said = [_said(line, row) for row in rows]
    answers = [_at(line, said, common + spread**2 * np.eye(n)) for spread in spreads]
    log_weight = np.array([answer.evidence for answer in answers]) - 0.5 * (spreads / (s / 2)) ** 2
    weight = np.exp(log_weight - log_weight.max())
    weight = weight / weight.sum()
    rate, rate_var = _mixed(weight, [one.rate for one in answers], [one.rate_var for one in answers])
    value, var = _mixed(weight, [one.value for one in answers], [one.var for one in answers])
    likeliest = _with_errors(line, said, answers[int(weight.argmax())])
    by_others = [_by_others(line, said, answer) for answer in answers]
    apart, apart_var = _mixed(weight, [mean for mean, _ in by_others], [var for _, var in by_others])
    mixed = [
        _ahead(rate[i], rate_var[i], value[i], var[i], likeliest[i].errors, (float(apart[i]), float(apart_var[i])))
        for i in range(n)
    ]
    return mixed, float(weight @ spreads)


def _by_others(line: Line, said: Sequence[Said], answer: Answer) -> tuple[Array, Array]:
    """Mean and variance of each row's rate by all rows but itself: what its own readings say is taken out again."""
    precision = np.array([one.precision for one in said])
    pull = np.array([one.weight for one in said])
    left = 1 / np.maximum(1 - answer.rate_var * precision, 1e-9)
    return line.rate + (answer.rate - line.rate - answer.rate_var * pull) * left, answer.rate_var * left


def _mixed(weight: Array, means: Sequence[Array], variances: Sequence[Array]) -> tuple[Array, Array]:
    """Mean and variance of several answers, each with its weight."""
    each = np.array(means)
    mean = np.tensordot(weight, each, 1)
    return mean, np.tensordot(weight, np.array(variances) + (each - mean) ** 2, 1)


def _at(line: Line, said: Sequence[Said], rates: Array) -> Answer:
    """Every row for one covariance of the rates."""
    precision = np.array([one.precision for one in said])
    pull = np.array([one.weight for one in said])
    root = np.sqrt(precision)
    inner = np.eye(len(said)) + root[:, None] * rates * root[None, :]
    left = rates * root[None, :]
    known: Array = rates - left @ np.linalg.solve(inner, left.T)
    rate_var = np.maximum(np.diag(known), 0.0)
    rate = line.rate + known @ pull
    beta = np.array([one.beta for one in said])
    value = np.array([one.alpha for one in said]) + beta * rate[:, None]
    var = np.maximum(np.array([one.spread for one in said]) + beta**2 * rate_var[:, None], 0.0)
    _, size = np.linalg.slogdet(inner)
    return Answer(rate, rate_var, value, var, 0.5 * float(pull @ known @ pull) - 0.5 * float(size))


def _with_errors(line: Line, said: Sequence[Said], answer: Answer) -> list[Ahead]:
    apart, apart_var = _by_others(line, said, answer)
    return [
        _ahead(
            answer.rate[i],
            answer.rate_var[i],
            answer.value[i],
            answer.var[i],
            _errors(one, line, float(answer.rate[i]) - line.rate, float(answer.rate_var[i])),
            (float(apart[i]), float(apart_var[i])),
        )
        for i, one in enumerate(said)
    ]


def _ahead(
    rate: np.float64, rate_var: np.float64, value: Array, var: Array, errors: list[float], others: tuple[float, float]
) -> Ahead:
    told = [(float(v), float(s)) for v, s in zip(value, np.sqrt(var), strict=True)]
    return Ahead(float(rate), float(rate_var) ** 0.5, *told[0], errors, told[1:], others)


def _said(line: Line, row: Row) -> Said:
    use, rest = np.array(row.uses, dtype=float), np.array(row.values, dtype=float) - line.new
    start = (line.new_sd if row.new_sd is None else row.new_sd) ** 2
    here = start + line.walk * np.minimum.outer(use, use) if len(use) else np.zeros((0, 0))
    inverse = np.linalg.inv(here + line.reading_sd**2 * np.eye(len(use))) if len(use) else here
    told = np.array([row.ahead, *row.also], dtype=float)
    along = start + line.walk * np.minimum.outer(told, use)
    weighed = along @ inverse
    return Said(
        precision=float(use @ inverse @ use),
        weight=float(use @ inverse @ (rest - line.rate * use)),
        alpha=line.new + weighed @ rest,
        beta=told - weighed @ use,
        spread=start + line.walk * told - (weighed * along).sum(axis=1),
        inverse=inverse,
        use=use,
        rest=rest - line.rate * use,
    )


def _errors(said: Said, line: Line, shift: float, var: float) -> list[float]:
    """How far each reading stands from what all the others say, those of other rows included.

    The others' view of this row's rate is what is left of the posterior when its own readings are taken out again.
    """
    if not len(said.use):
        return []
    left = 1 / var - said.precision if var > 0 else np.inf
    apart_var = 1 / left if left > 0 else line.rate_sd**2
    apart = apart_var * (shift / var - said.weight) if var > 0 else shift
    # Covariance of this row's readings with the others' view of its rate, inverted by its own rank-one form.
    along = said.inverse @ said.use
    whole = said.inverse - np.outer(along, along) * (apart_var / (1 + apart_var * said.precision))
    off = whole @ (said.rest - apart * said.use)
    return [float(abs(off[j]) / np.sqrt(max(whole[j, j], 1e-300))) for j in range(len(off))]
