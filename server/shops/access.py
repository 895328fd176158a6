"""Who is asking, and what their role may do."""

import uuid
from typing import Any

from django.db.models import QuerySet
from django.http import HttpRequest
from ninja.security import SessionAuth

from . import days
from .models import Member

TYPED_BY = "X-Lumvek-Member"
"""Header of a request that belongs to one member: refused as not signed in under any other."""


FORGED = "This did not come from Lumvek's own page. Load the page anew."
"""What is said of a write without its token, or from somewhere else, at the field TOKEN."""
TOKEN = "token"  # noqa: S105 - the name of a field


class NotFoundHere(Exception):
    """Not there, or not in this shop: the two look the same from outside."""


class NotAllowed(Exception):
    """The member's role may not do this."""

    field = ""


class Forged(NotAllowed):
    """Without its token, or from somewhere else."""

    field = TOKEN

    def __init__(self) -> None:
        super().__init__(FORGED)


def kept_already(member: Member, model: Any, uuid_: uuid.UUID) -> bool:
    """Whether a record of one's shop is kept under a UUID: whoever sends it again is answered as the first time.

    Raises NotFoundHere where it is another shop's.
    """
    if not model.objects.filter(uuid=uuid_).exists():
        return False
    there(model.objects.in_shop(member.shop_id).filter(uuid=uuid_))
    return True


def there(rows: QuerySet[Any], what: str = "There is nothing of that name.") -> QuerySet[Any]:
    """The records that were looked for. Raises NotFoundHere where there are none."""
    if not rows.exists():
        raise NotFoundHere(what)
    return rows


class Conflict(Exception):
    """The state of the thing no longer allows this."""


class Signed(SessionAuth):
    """A signed-in member of a shop; endpoints find them as ``request.auth``.

    without_code: open also to who must set up a second factor first, and has not.
    """

    without_code = False

    def authenticate(self, request: HttpRequest, key: str | None) -> Member | None:
        member = signed_in(request)
        if member is not None and not self.without_code:
            code_first(member)
        typed_by = request.headers.get(TYPED_BY, "")
        # What somebody typed is never taken as somebody else's, who has logged in on the same device since.
        return member if member is None or typed_by in ("", str(member.pk)) else None


AT_WORK_AS = "at work as"
"""Key of a session: the member that a person of several shops works as."""


def present_as(request: HttpRequest) -> list[Member]:
    """What the person behind a request is in their shops. The backend has read it with the user."""
    return getattr(request.user, "present", [])


def signed_in(request: HttpRequest) -> Member | None:
    """The member behind a request, or None: of the shop that was picked last, else of the person's first one."""
    present = present_as(request)
    picked = request.session.get(AT_WORK_AS)
    member = next((one for one in present if one.pk == picked), present[0] if present else None)
    if member is not None:
        days.as_in(member.shop)
    return member


def lacks_code(member: Member) -> bool:
    """Whether the shop wants a second factor of everybody, and this member has none yet. The backend has read it."""
    return member.shop.second_factor and not getattr(member, "has_code", False)


def code_first(member: Member) -> None:
    """Raise NotAllowed where a second factor is to be set up before anything else opens."""
    if lacks_code(member):
        raise NotAllowed("This shop wants a second factor. Set it up under your name first.")


def member_of(request: HttpRequest) -> Member:
    """The signed-in member of this request."""
    member: Member = request.auth  # type: ignore[attr-defined]
    return member
