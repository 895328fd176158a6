"""What each role may do, in one table; and actions, the writes that ask it."""

import functools
from collections.abc import Callable, Mapping
from contextlib import nullcontext
from typing import Concatenate, Generic, ParamSpec, TypeVar

from django.db import transaction

from .access import NotAllowed
from .models import Member, Role

P = ParamSpec("P")
R = TypeVar("R")

LEADS = frozenset({Role.LEAD})
BUYERS = frozenset({Role.LEAD, Role.PARTS})
INSPECTORS = frozenset({Role.LEAD, Role.TECHNICIAN})
STAFF = INSPECTORS | BUYERS
EVERYBODY = frozenset(Role)

RIGHTS: Mapping[str, frozenset[Role]] = {
    # Oneself
    "sign out": EVERYBODY,
    "choose units": EVERYBODY,
    "calculate": EVERYBODY,
    # Walk-arounds
    "start a walk-around": INSPECTORS,
    "record readings": INSPECTORS,
    "set readings aside": INSPECTORS,
    "confirm locks": INSPECTORS,
    "change the order": INSPECTORS,
    "hand a walk-around over": INSPECTORS,
    "finish a walk-around": INSPECTORS,
    "open a walk-around again": INSPECTORS,
    "discard a walk-around": INSPECTORS,
    "bring a walk-around back": INSPECTORS,
    "add pictures": INSPECTORS,
    "remove pictures": INSPECTORS,
    "decide findings": STAFF,
    "share a report": INSPECTORS,
    # Machines, their logbook and what comes round
    "write notes": STAFF,
    "close notes": INSPECTORS,
    "read counters": STAFF,
    "say what the season will be": STAFF,
    "record services": INSPECTORS,
    "put machines away": INSPECTORS,
    "write in a machine's log": INSPECTORS,
    # What the shop decides for itself
    "pin pictures": LEADS,
    "change limits": LEADS,
    "change sizes": LEADS,
    "pick schools": LEADS,
    "change feelers": LEADS,
    # Parts: who keeps the book, plans and orders; technicians see it all, receive, fit and count; owners see their cost
    "see the parts of the whole shop": STAFF,
    "decide on parts": STAFF,
    "change the parts book": BUYERS,
    "change suppliers": BUYERS,
    "take prices": BUYERS,
    "set dates": BUYERS,
    "change rates": BUYERS,
    "ask suppliers": BUYERS,
    "plan orders": BUYERS,
    "order": BUYERS,
    "receive parts": STAFF,
    "fit parts": STAFF,
    "move parts": STAFF,
    "divide costs": BUYERS,
    "agree to costs": BUYERS | {Role.OWNER},
    "switch the simulated desk": BUYERS,
}
"""Right → the roles that have it. A right is worded so that “A parts desk cannot …” reads well."""


def may(member: Member, right: str) -> bool:
    """Whether the member's role has a right of the table."""
    return member.role in RIGHTS[right]


def only(member: Member, right: str) -> None:
    """Raise NotAllowed unless the member's role has this right."""
    if not may(member, right):
        raise NotAllowed(f"A {member.get_role_display().lower()} cannot {right}.")


class Action(Generic[P, R]):
    """A write of a member: the right is asked first, and all of it happens or nothing."""

    def __init__(self, write: Callable[Concatenate[Member, P], R], right: str, *, atomic: bool) -> None:
        functools.update_wrapper(self, write)
        self.write, self.right, self.atomic = write, right, atomic

    def __call__(self, member: Member, /, *args: P.args, **kwargs: P.kwargs) -> R:
        only(member, self.right)
        with transaction.atomic() if self.atomic else nullcontext():
            return self.write(member, *args, **kwargs)


def action(right: str, *, atomic: bool = True) -> Callable[[Callable[Concatenate[Member, P], R]], Action[P, R]]:
    """Make a function of a member an action that takes a right of the table.

    atomic=False: it talks to the world outside and commits step by step itself. Raises KeyError for a right there is not.
    """
    RIGHTS[right]
    return lambda write: Action(write, right, atomic=atomic)
