"""Calls to somebody outside over HTTP: bounded in what is read, and one word for nobody being there."""

from typing import Any

import urllib3


class Silent(Exception):
    """Nobody answers, or only to say that they cannot."""


def call(pool: urllib3.PoolManager, method: str, url: str, most: int, **how: Any) -> tuple[int, bytes]:
    """(status, content) of an answer; of one that is longer than `most` bytes the beginning. Raises Silent.

    Whoever answers that it lies elsewhere is not followed: who is asked is for the installation to say.
    """
    try:
        answer = pool.request(method, url, preload_content=False, redirect=False, **how)
        content = answer.read(most)
        answer.release_conn()
    except urllib3.exceptions.HTTPError as problem:
        raise Silent from problem
    if answer.status >= 500 or 300 <= answer.status < 400:
        raise Silent
    return answer.status, content
