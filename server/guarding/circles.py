"""Transactions that wait for each other in a circle: the database ends one of them, and that one is done again."""

import logging
from collections.abc import Callable
from typing import TypeVar

from django.db import OperationalError, connection

log = logging.getLogger(__name__)
R = TypeVar("R")
TRIES = 3
CIRCLES = frozenset({1020, 1213})
"""MariaDB's, for a transaction that gave way to another."""


def done_again(write: Callable[[], R], what: str) -> R:
    """Do something that is a transaction by itself; where it gave way to another, again and whole, three times at most.

    what: in words, for the log. Whoever waited in a circle has lost everything of an outer transaction too, which tries again.
    """
    for left in reversed(range(TRIES)):
        try:
            return write()
        except OperationalError as problem:
            if not left or problem.args[0] not in CIRCLES or connection.in_atomic_block:
                raise
            log.warning("%s waited in a circle with somebody (%s), and is done again", what, problem.args[0])
    raise AssertionError("unreachable")
