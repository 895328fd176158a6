"""What is changed of suppliers, rates, dates, shares and stock, in the shop's log."""

from collections.abc import Mapping

from shops.actions.log import log_change
from shops.models import Change, Member


def log_parts(member: Member, what: str, before: str, after: str) -> None:
    """One thing, as it was and as it is; nothing where that is the same."""
    log_change(member, Change.About.PARTS, what, before, after)


def log_columns(member: Member, of: str, before: Mapping[str, object], after: Mapping[str, object]) -> None:
    """Each that is another now, under its name: what is empty is said to be."""
    for name, value in after.items():
        log_parts(member, f"{of}: {name}", _words(before[name]), _words(value))


def _words(value: object) -> str:
    return "none" if value in (None, "") else f"{value:g}" if isinstance(value, float) else str(value)
