"""Signing in and out."""

from typing import TYPE_CHECKING, Any, Literal

from django.contrib.auth import authenticate, login, logout
from django.http import HttpRequest
from django.middleware.csrf import get_token
from ninja import Router, Schema, Status

from . import actions, queries
from .access import member_of, signed_in
from .endpoints import allowed

if TYPE_CHECKING:
    from .models import Member

router = Router(tags=["session"])


class Me(Schema):
    id: int
    name: str
    role: Literal["lead", "technician", "parts", "owner"]
    role_name: str
    shop: str
    units: Literal["mm", "in"]


class Session(Schema):
    """csrf: to be sent back as X-CSRFToken with every write."""

    csrf: str
    me: Me | None


class Credentials(Schema):
    username: str
    password: str


class Preferences(Schema):
    units: Literal["mm", "in"]


class Refusal(Schema):
    error: dict[str, str]


def _session(request: HttpRequest, member: "Member | None") -> Session:
    me = None
    if member:
        me = Me.model_validate(
            {
                "id": member.pk,
                "name": member.name,
                "role": member.role,
                "role_name": member.get_role_display(),
                "shop": member.shop.name,
                "units": member.units,
            }
        )
    return Session(csrf=get_token(request), me=me)


@router.get("", response=Session, auth=None)
def session(request: HttpRequest) -> Session:
    """Who is signed in, if anybody, and the token for writes."""
    return _session(request, signed_in(request))


@router.post("/login", response={200: Session, 422: Refusal, 429: Refusal}, auth=None)
def sign_in(request: HttpRequest, credentials: Credentials) -> Status[Any]:
    """Sign in. After several wrong passwords the name is locked for a quarter of an hour from this address."""
    user = authenticate(request, username=credentials.username, password=credentials.password)
    if getattr(request, "axes_locked_out", False):
        message = "Too many wrong passwords. Try again in a quarter of an hour."
        return Status(429, {"error": {"field": "", "message": message}})
    member = queries.member_behind(user) if user else None
    if user is None or member is None:
        return Status(422, {"error": {"field": "password", "message": "Name and password do not match."}})
    login(request, user)
    return Status(200, _session(request, member))


@router.post("/logout", response=Session, **allowed("sign out"))
def sign_out(request: HttpRequest) -> Session:
    """Sign out on this device."""
    logout(request)
    return _session(request, None)


@router.post("/preferences", response=Session, **allowed(actions.choose_units))
def preferences(request: HttpRequest, wanted: Preferences) -> Session:
    """Units to read in; what is typed is understood in any."""
    member = member_of(request)
    actions.choose_units(member, wanted.units)
    return _session(request, member)
