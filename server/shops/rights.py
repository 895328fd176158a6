"""What each role may do, in one table; and actions, the writes that ask it."""

import functools
import operator
import re
from collections.abc import Callable, Mapping
from typing import Concatenate, Generic, ParamSpec, TypeVar

from django.apps import apps
from django.db import IntegrityError, transaction
from django.db.models import Q, QuerySet

from guarding.circles import TRIES, done_again

from .access import Conflict, NotAllowed
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
    "change shop": EVERYBODY,
    "choose units": EVERYBODY,
    "change one's own account": EVERYBODY,
    "calculate": EVERYBODY,
    "calculate at length": STAFF,
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
    "calibrate machines": INSPECTORS,
    "keep field settings": STAFF,
    "tick daily cards": STAFF,
    "see daily cards": STAFF,
    "trace faults": INSPECTORS,
    # The season's work
    "see the season’s plan": STAFF,
    "plan the season": LEADS,
    "work by the plan": INSPECTORS,
    "say who is there": LEADS,
    "say when it is dry": LEADS,
    # The shop and its people
    "see people": LEADS,
    "invite people": LEADS,
    "change roles": LEADS,
    "let people go": LEADS,
    "reset passwords": LEADS,
    "change the shop": LEADS,
    "see changes": LEADS,
    "read the described interface": STAFF,
    # Machines and models
    "add machines": LEADS,
    "change machines": LEADS,
    "put machines out of the lists": LEADS,
    "change models": LEADS,
    # What the shop decides for itself
    "see rules": STAFF,
    "pin pictures": LEADS,
    "change checks": LEADS,
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

ONESELF = frozenset({"sign out", "change shop", "choose units", "change one's own account"})
"""What needs no second factor where a shop wants one: it has to be set up somehow."""


def may(member: Member, right: str) -> bool:
    """Whether one of the member's roles has a right of the table."""
    return not RIGHTS[right].isdisjoint(member.roles)


def only(member: Member, right: str) -> None:
    """Raise NotAllowed unless one of the member's roles has this right."""
    if not may(member, right):
        raise NotAllowed(f"A {member.role_name.lower()} cannot {right}.")


def who_may(members: QuerySet[Member], right: str) -> QuerySet[Member]:
    """Those still in the shop who have a right of the table."""
    holders = functools.reduce(operator.or_, (Q(roles__contains=[str(role)]) for role in RIGHTS[right]))
    return members.filter(holders, left_at=None)


def rights_of(member: Member) -> list[str]:
    """What the member may do, as the table words it."""
    return [right for right in RIGHTS if may(member, right)]


DUPLICATE = 1062
"""MariaDB's, for a key that is there already."""
_KEY = re.compile(r"for key '([^']+)'")


def _of_a_uuid(problem: IntegrityError) -> bool:
    """Whether what is there already has the same UUID, which may be a row's own key."""
    code, *words = problem.args
    key = _KEY.search(str(words[0])) if words else None
    return code == DUPLICATE and key is not None and key[1].rpartition(".")[2] in _uuid_keys()


@functools.cache
def _uuid_keys() -> frozenset[str]:
    """What MariaDB calls the keys that a UUID has by itself or with a place."""
    constraints = (one for model in apps.get_models() for one in model._meta.constraints)
    return frozenset({"PRIMARY", "uuid"} | {one.name for one in constraints if "uuid" in getattr(one, "fields", ())})


class Action(Generic[P, R]):
    """A write of a member: the right is asked first, and all of it happens or nothing.

    One that gave way to another transaction is done again, whole, three times at most. Raises Conflict where something that may
    be there once was written at the same instant.
    """

    def __init__(self, write: Callable[Concatenate[Member, P], R], right: str, *, atomic: bool) -> None:
        functools.update_wrapper(self, write)
        self.write, self.right, self.atomic = write, right, atomic

    def __call__(self, member: Member, /, *args: P.args, **kwargs: P.kwargs) -> R:
        only(member, self.right)
        if not self.atomic:
            return self.write(member, *args, **kwargs)
        for left in reversed(range(TRIES)):
            try:
                return done_again(lambda: self._whole(member, *args, **kwargs), self.right)
            except IntegrityError as problem:
                if not _of_a_uuid(problem):
                    raise Conflict("Somebody has just written the same. Look again.") from problem
                if not left:
                    raise
                # The same UUID at the same instant: the other was first, and what it did is found now, as by any later repeat.
        raise AssertionError("unreachable")

    def _whole(self, member: Member, /, *args: P.args, **kwargs: P.kwargs) -> R:
        with transaction.atomic():
            return self.write(member, *args, **kwargs)


def action(right: str, *, atomic: bool = True) -> Callable[[Callable[Concatenate[Member, P], R]], Action[P, R]]:
    """Make a function of a member an action that takes a right of the table.

    atomic=False: it talks to the world outside and commits step by step itself. Raises KeyError for a right there is not.
    """
    RIGHTS[right]
    return lambda write: Action(write, right, atomic=atomic)
