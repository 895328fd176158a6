"""Signing in and out, and what somebody does to their own account."""

from typing import Any

from django.conf import settings
from django.contrib.auth import login, logout, update_session_auth_hash
from django.contrib.auth.models import User
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.middleware.csrf import get_token
from ninja import Router, Status
from ninja.utils import check_csrf

from guarding import guesses

from . import letters
from .access import AT_WORK_AS, Conflict, Forged, NotFoundHere, lacks_code, member_of, present_as, signed_in
from .actions import accounts, founding, people
from .endpoints import allowed
from .queries import accounts as reading
from .queries.people import invited_by
from .rights import rights_of
from .schemas import (
    AccountIn,
    AccountOut,
    CodeIn,
    CodesOut,
    Credentials,
    DeviceOut,
    Forgotten,
    FoundIn,
    KeyOut,
    Me,
    NewPassword,
    PasswordIn,
    Preferences,
    Refusal,
    ResetIn,
    SaidOut,
    Session,
    ShopOfMine,
    WhichDevices,
    WhichShop,
)
from .schemas_people import InvitedTo, JoinIn

router = Router(tags=["session"])
BACKEND = "shops.backend.MemberBackend"


def _session(request: HttpRequest) -> Session:
    member = signed_in(request)
    if member is None:
        return Session(csrf=get_token(request), me=None, to_found=reading.nobody_yet())
    me = Me.model_validate(
        {
            "id": member.pk,
            "name": member.name,
            "roles": member.roles,
            "role_name": member.role_name,
            "rights": rights_of(member),
            "shop": member.shop.name,
            "shops": [ShopOfMine(member=one.pk, name=one.shop.name) for one in present_as(request)],
            "units": member.units,
            "code_first": lacks_code(member),
            "begun": member.shop.begun,
            "time_zone": member.shop.time_zone or settings.TIME_ZONE,
            "day_form": member.shop.day_form,
        }
    )
    return Session(csrf=get_token(request), me=me, to_found=False)


def from_our_page(request: HttpRequest) -> bool:
    """Who is not signed in yet writes from our own page all the same, with its token. Raises Forged."""
    if check_csrf(request):
        raise Forged
    return True


def _guessed(username: str) -> str:
    """Whose secret it is, however the name is written: the database finds it in any."""
    return username.strip().casefold()[:150]


def _from(request: HttpRequest) -> str:
    """From where whoever is signed in guesses at their own secrets."""
    return guesses.where(request, _guessed(member_of(request).user.get_username()))


def _enter(request: HttpRequest, response: HttpResponse, user: User) -> Session:
    """Sign a user in on this device, under a session key that nobody had before."""
    request.session.flush()
    login(request, user, backend=BACKEND)
    guesses.remember(request, response, _guessed(user.get_username()))
    user.present = reading.members_behind(user)  # type: ignore[attr-defined]
    session_key = request.session.session_key or ""
    accounts.signed_in_on(user, session_key, request.headers.get("User-Agent", ""), request.META.get("REMOTE_ADDR", ""))
    return _session(request)


@router.get("", response=Session, auth=None)
def session(request: HttpRequest) -> Session:
    """Who is signed in, if anybody, and the token for writes."""
    return _session(request)


@router.post("/login", response={200: Session, 422: Refusal, 429: Refusal}, auth=from_our_page)
def sign_in(request: HttpRequest, response: HttpResponse, credentials: Credentials) -> Status[Any]:
    """Sign in. After several wrong passwords or codes nothing is looked at from here for a while: see `guarding.guesses`."""
    who = _guessed(credentials.username)
    signing = accounts.SigningIn(request, credentials.username, credentials.password, credentials.code)
    if guesses.attempt(who, guesses.where(request, who), signing.look) and signing.user:
        return Status(200, _enter(request, response, signing.user))
    return Status(422, {"error": {"field": signing.field, "message": signing.message}})


@router.post("/logout", response=Session, **allowed("sign out"))
def sign_out(request: HttpRequest) -> Session:
    """Sign out on this device."""
    logout(request)
    return _session(request)


@router.post("/preferences", response=Session, **allowed(accounts.choose_units))
def preferences(request: HttpRequest, wanted: Preferences) -> Session:
    """Units to read in; what is typed is understood in any."""
    accounts.choose_units(member_of(request), wanted.units)
    return _session(request)


@router.post("/shop", response=Session, **allowed("change shop"))
def change_shop(request: HttpRequest, wanted: WhichShop) -> Session:
    """Work in another of one's shops."""
    if wanted.member not in [one.pk for one in present_as(request)]:
        raise NotFoundHere("You do not belong to that shop.")
    request.session[AT_WORK_AS] = wanted.member
    return _session(request)


@router.post("/found", response=Session, auth=from_our_page)
def found(request: HttpRequest, response: HttpResponse, wanted: FoundIn) -> Session:
    """Found the first shop of an empty installation, with the secret that the server printed."""
    made = founding.found_first(wanted.secret, wanted.shop, wanted.username, wanted.name, wanted.password)
    return _enter(request, response, made.user)


@router.get("/invitation/{secret}", response=InvitedTo, auth=None)
def invitation(request: HttpRequest, secret: str) -> InvitedTo:
    """What an invitation is to, before it is taken up."""
    one = invited_by(secret)
    return InvitedTo(
        shop=one.shop.name,
        name=one.name,
        role_name=reading.role_name(one.roles),
        asked_by=one.made_by.get_full_name() or one.made_by.get_username(),
    )


@router.post("/invitation/{secret}", response=Session, auth=from_our_page)
def join(request: HttpRequest, response: HttpResponse, secret: str, wanted: JoinIn) -> Session:
    """Join a shop by an invitation: as who is signed in, else with an account made here."""
    user = request.user if isinstance(request.user, User) else None
    member = people.join(secret, user, wanted.username, wanted.name, wanted.password)
    if user is None:
        _enter(request, response, member.user)
    else:
        user.present = reading.members_behind(user)  # type: ignore[attr-defined]
    request.session[AT_WORK_AS] = member.pk
    return _session(request)


@router.post("/forgotten", response=SaidOut, auth=from_our_page)
def forgotten(request: HttpRequest, wanted: Forgotten) -> SaidOut:
    """Ask for a link to a new password by mail. The answer is the same whether or not there is such a person."""
    if not letters.can_send():
        raise Conflict("No mail goes out from here. Ask the lead of your shop for a link.")
    for user in reading.who_asks(wanted.name):
        if accounts.may_mail(user):
            letters.new_password(user.email, request.build_absolute_uri(reading.reset_link(user).path))
    return SaidOut(said="If that is somebody with an e-mail address here, a link is on its way. It works for three days.")


@router.post("/new-password", response=SaidOut, auth=from_our_page)
def new_password(request: HttpRequest, wanted: ResetIn) -> SaidOut:
    """Choose a new password by a link. Everywhere else this person is signed out."""
    user = reading.user_of(reading.ResetLink(wanted.who, wanted.token))
    with transaction.atomic():
        accounts.new_by_link(user, wanted.password)
    return SaidOut(said=f"{user.get_username()} has a new password. Log in with it.")


def _account(request: HttpRequest) -> AccountOut:
    member = member_of(request)
    here = request.session.session_key
    return AccountOut(
        username=member.user.get_username(),
        name=member.name,
        email=member.user.email,
        second_factor=reading.second_factors(member.user).exists(),
        second_factor_wanted=member.shop.second_factor,
        codes_left=reading.codes_left(member.user),
        devices=[
            DeviceOut(id=one.pk, device=one.device, address=one.address, at=one.at, here=one.session_key == here)
            for one in reading.devices(member.user)
        ],
    )


@router.get("/account", response=AccountOut, **allowed("change one's own account"))
def account(request: HttpRequest) -> AccountOut:
    """One's own account, and where one is signed in."""
    return _account(request)


@router.post("/account", response=AccountOut, **allowed(accounts.name_oneself))
def change_account(request: HttpRequest, wanted: AccountIn) -> AccountOut:
    """One's name and e-mail address."""
    accounts.name_oneself(member_of(request), wanted.name, wanted.email)
    return _account(request)


@router.post("/password", response=AccountOut, **allowed(accounts.change_password))
def change_password(request: HttpRequest, wanted: NewPassword) -> AccountOut:
    """Another password. Everywhere else one is signed out."""
    member = member_of(request)
    before = request.session.session_key or ""
    accounts.change_password(member, wanted.old, wanted.new, _from(request))
    update_session_auth_hash(request, member.user)
    accounts.moved_to(member.user, before, request.session.session_key or "")
    accounts.end_sessions(member, request.session.session_key or "", None)
    return _account(request)


@router.post("/second-factor", response=KeyOut, **allowed(accounts.begin_second_factor))
def begin_second_factor(request: HttpRequest) -> KeyOut:
    """A key for the authenticator app; it counts once a code of it is confirmed."""
    return reading.key_of(accounts.begin_second_factor(member_of(request)))


@router.post("/second-factor/confirm", response=CodesOut, **allowed(accounts.confirm_second_factor))
def confirm_second_factor(request: HttpRequest, wanted: CodeIn) -> CodesOut:
    """The first code of the app; answers with the codes for once."""
    return CodesOut(codes=accounts.confirm_second_factor(member_of(request), wanted.code))


@router.post("/second-factor/codes", response=CodesOut, **allowed(accounts.new_codes_for_once))
def new_codes_for_once(request: HttpRequest, wanted: PasswordIn) -> CodesOut:
    """Other codes for once, instead of those that are used up or were not written down."""
    return CodesOut(codes=accounts.new_codes_for_once(member_of(request), wanted.password, _from(request)))


@router.post("/second-factor/end", response=AccountOut, **allowed(accounts.end_second_factor))
def end_second_factor(request: HttpRequest, wanted: PasswordIn) -> AccountOut:
    """Sign in with the password alone again."""
    accounts.end_second_factor(member_of(request), wanted.password, _from(request))
    return _account(request)


@router.post("/devices/end", response=AccountOut, **allowed(accounts.end_sessions))
def end_devices(request: HttpRequest, wanted: WhichDevices) -> AccountOut:
    """Sign out on other devices."""
    accounts.end_sessions(member_of(request), request.session.session_key or "", wanted.ids)
    return _account(request)
