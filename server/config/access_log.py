"""The log of who asked for what, without the addresses that open a door by themselves."""

import logging
import re
from typing import Any

from gunicorn.glogging import Logger

DOORS = re.compile(r"(/(?:shared|plan/feed|join|new-password/[^/\s?]+|api/session/invitation)/)[^/\s?\"]+")
"""What follows is a secret: a report's link, an invitation, a password's link."""


def discreet(text: str) -> str:
    """A line of a log with every secret in an address as ``…``."""
    return DOORS.sub(r"\1…", text)


class Discreet(Logger):  # type: ignore[misc]  # it comes without types
    """gunicorn's own log; each part of a line may hold an address: the request, the page it came from."""

    def atoms(self, *given: Any) -> dict[str, Any]:
        found: dict[str, Any] = super().atoms(*given)
        return {key: discreet(value) if isinstance(value, str) else value for key, value in found.items()}


class WithoutSecrets(logging.Filter):
    """For the product's own log: what could not be found is written down there with its address."""

    def filter(self, record: logging.LogRecord) -> bool:
        record.msg, record.args = discreet(record.getMessage()), ()
        return True
