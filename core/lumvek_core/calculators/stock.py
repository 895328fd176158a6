"""How many of a part to carry, so that it seldom runs out before the next delivery."""

import math
from dataclasses import dataclass
from typing import Annotated

from ..bounds import Over
from ..compare import reached
from ..errors import BadInput
from ..registry import calculator
from .common import Count, NotNegative, Positive

LARGEST = 100_000
"""Nobody carries more; an expectation above it is a slip of the keyboard."""


@dataclass(frozen=True)
class StockGiven:
    """events: failures seen. hours: machine hours × positions they were seen in. hours_ahead: the same, until the next
    delivery."""

    events: Count
    hours: NotNegative
    hours_ahead: NotNegative
    service: Annotated[float, Over(0)] = 0.95
    prior_events: Positive = 0.5
    prior_hours: Positive = 200


@dataclass(frozen=True)
class Stock:
    carry: int
    expected: float


@calculator
def truck_stock(given: StockGiven) -> Stock:
    """The smallest number of pieces with which the chance of needing no more is at least `service`.

    Failures are Poisson with a rate that is Gamma(prior_events + events, prior_hours + hours), so what is needed in hours_ahead
    is negative binomial; expected = rate·hours_ahead. A prior of 0.5 in 200 h suits small wearing parts, 0.5 in 5000 h gear
    cases. No hours ahead: none. service below 1; reaching it within 1e-9 counts.
    """
    if given.service >= 1:
        raise BadInput("service", "must be less than 1: no stock is enough for certain")
    shape, hours = given.prior_events + given.events, given.prior_hours + given.hours
    expected = shape / hours * given.hours_ahead
    if given.hours_ahead == 0:
        return Stock(0, 0.0)
    if expected > LARGEST:
        raise BadInput("hours_ahead", f"calls for more than {LARGEST} pieces")
    # P(0) = (hours / (hours + ahead))^shape, and each next term from the one before.
    share = given.hours_ahead / (hours + given.hours_ahead)
    log_term = shape * math.log1p(-share) if share < 1 else -math.inf
    carry, below = 0, math.exp(log_term)
    while not reached(below, given.service):
        log_term += math.log((shape + carry) / (carry + 1) * share) if share > 0 else -math.inf
        carry += 1
        below += math.exp(log_term)
        if carry > 20 * LARGEST:
            raise BadInput("service", "cannot be reached with any stock worth carrying")
    return Stock(carry, expected)
