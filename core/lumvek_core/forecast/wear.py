"""Wear as a straight line with an unsure start, an unsure rate, unsure readings and seasons that differ.

v(u) = v0 + b·u + w(u) with v0 ~ N(new, new_sd²), b ~ N(m, ·) and w a walk with covariance q·min(u₁, u₂); readings err by
reading_sd. Everything is Gaussian, so all of it has a closed form. Each row is first boiled down to what its readings say of its
rate (a precision and a weight); rows then learn from each other through the covariance of their rates alone, which stays as small
as the number of rows however many readings there are.
"""

from collections.abc import Sequence
from dataclasses import dataclass

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
    """One position's readings and the use asked for. group: rows that wear alike, such as those behind wheels."""

    uses: Sequence[float]
    values: Sequence[float]
    ahead: float
    group: str | None = None


@dataclass(frozen=True)
class Ahead:
    """Rate and true value ahead, with standard deviations. errors: of each reading against all others, in standard deviations."""

    rate: float
    rate_sd: float
    value: float
    sd: float
    errors: list[float]


@dataclass(frozen=True)
class Said:
    """What one row's readings say, whatever its rate: precision and weight of the rate, and the value ahead as α + β·rate."""

    precision: float
    weight: float
    alpha: float
    beta: float
    spread: float
    inverse: Array
    use: Array
    rest: Array


@dataclass(frozen=True)
class Answer:
    """All rows for one spread between them. evidence: the logarithm of how well it explains the readings, but for a constant."""

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

    Their rates share one unsure mean (rate_sd), groups differ by half of that, and single rows by a spread that is not known: it
    is weighed over thirteen steps by how well each explains the readings. One row is the same as alone.
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
    mixed = [
        Ahead(float(rate[i]), float(rate_var[i]) ** 0.5, float(value[i]), float(var[i]) ** 0.5, likeliest[i].errors)
        for i in range(n)
    ]
    return mixed, float(weight @ spreads)


def _mixed(weight: Array, means: Sequence[Array], variances: Sequence[Array]) -> tuple[Array, Array]:
    """Mean and variance of several answers, each with its weight."""
    each = np.array(means)
    mean = weight @ each
    return mean, weight @ (np.array(variances) + (each - mean) ** 2)


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
    value = np.array([one.alpha for one in said]) + beta * rate
    var = np.maximum(np.array([one.spread for one in said]) + beta**2 * rate_var, 0.0)
    _, size = np.linalg.slogdet(inner)
    return Answer(rate, rate_var, value, var, 0.5 * float(pull @ known @ pull) - 0.5 * float(size))


def _with_errors(line: Line, said: Sequence[Said], answer: Answer) -> list[Ahead]:
    return [
        Ahead(
            float(answer.rate[i]),
            float(answer.rate_var[i]) ** 0.5,
            float(answer.value[i]),
            float(answer.var[i]) ** 0.5,
            _errors(one, line, float(answer.rate[i]) - line.rate, float(answer.rate_var[i])),
        )
        for i, one in enumerate(said)
    ]


def _said(line: Line, row: Row) -> Said:
    use, rest = np.array(row.uses, dtype=float), np.array(row.values, dtype=float) - line.new
    start = line.new_sd**2 + line.walk * np.minimum.outer(use, use) if len(use) else np.zeros((0, 0))
    inverse = np.linalg.inv(start + line.reading_sd**2 * np.eye(len(use))) if len(use) else start
    along = line.new_sd**2 + line.walk * np.minimum(use, row.ahead)
    return Said(
        precision=float(use @ inverse @ use),
        weight=float(use @ inverse @ (rest - line.rate * use)),
        alpha=line.new + float(along @ inverse @ rest),
        beta=row.ahead - float(along @ inverse @ use),
        spread=line.new_sd**2 + line.walk * row.ahead - float(along @ inverse @ along),
        inverse=inverse,
        use=use,
        rest=rest - line.rate * use,
    )


def _errors(one: Said, line: Line, shift: float, var: float) -> list[float]:
    """How far each reading stands from what all the others say, those of other rows included.

    The others' view of this row's rate is what is left of the posterior when its own readings are taken out again.
    """
    if not len(one.use):
        return []
    left = 1 / var - one.precision if var > 0 else np.inf
    apart_var = 1 / left if left > 0 else line.rate_sd**2
    apart = apart_var * (shift / var - one.weight) if var > 0 else shift
    # Covariance of this row's readings with the others' view of its rate, inverted by its own rank-one form.
    along = one.inverse @ one.use
    whole = one.inverse - np.outer(along, along) * (apart_var / (1 + apart_var * one.precision))
    off = whole @ (one.rest - apart * one.use)
    return [float(abs(off[j]) / np.sqrt(max(whole[j, j], 1e-300))) for j in range(len(off))]
