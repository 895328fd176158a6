"""What nobody waits for: done in a thread beside, once what it stands on is stored.

The database says what is under way and since when. What is lost with a process that ends is seen there, and is asked for again
by a person: nothing is done twice by itself.
"""

import logging
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from functools import cache

from django.conf import settings
from django.db import connection, transaction

logger = logging.getLogger(__name__)
THREADS = 4
"""For each process: as many letters and calls may hang at once; the rest wait their turn, and rest with their line."""


def later(what: Callable[[], object]) -> None:
    """Do it beside, as soon as the transaction is stored; at once where there is no background (in tests)."""
    if settings.BACKGROUND:
        transaction.on_commit(lambda: _pool().submit(_do, what))
    else:
        what()


@cache
def _pool() -> ThreadPoolExecutor:
    """Made on first use, so that each worker has its own."""
    return ThreadPoolExecutor(THREADS, thread_name_prefix="beside")


def _do(what: Callable[[], object]) -> None:
    try:
        what()
    except Exception:
        logger.exception("something in the background failed")
    finally:
        connection.close()
