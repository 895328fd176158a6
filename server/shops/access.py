"""Who is asking, and what their role may do."""

from django.http import HttpRequest
from ninja.security import SessionAuth

from .models import Member

TYPED_BY = "X-Lumvek-Member"
"""Header of a request that belongs to one member: refused as not signed in under any other."""


class NotFoundHere(Exception):
    """Not there, or not in this shop: the two look the same from outside."""


class NotAllowed(Exception):
    """The member's role may not do this."""


class Conflict(Exception):
    """The state of the thing no longer allows this."""


class Signed(SessionAuth):
    """A signed-in member of a shop; endpoints find them as ``request.auth``."""

    def authenticate(self, request: HttpRequest, key: str | None) -> Member | None:
        member = signed_in(request)
        typed_by = request.headers.get(TYPED_BY, "")
        # What somebody typed is never taken as somebody else's, who has logged in on the same device since.
        return member if member is None or typed_by in ("", str(member.pk)) else None


def signed_in(request: HttpRequest) -> Member | None:
    """The member behind a request, or None. The backend has read it with the user."""
    if not request.user.is_authenticated:
        return None
    try:
        return request.user.member
    except Member.DoesNotExist:
        return None


def member_of(request: HttpRequest) -> Member:
    """The signed-in member of this request."""
    member: Member = request.auth  # type: ignore[attr-defined]
    return member
