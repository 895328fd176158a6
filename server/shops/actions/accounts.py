"""What somebody does to their own account: units, name, password, second factor, the devices they are signed in on.

A second factor is a code from an authenticator app (django-otp), with codes for once in case the telephone is lost.
"""

import datetime as dt
from collections.abc import Sequence

from django.contrib.auth import authenticate
from django.contrib.auth.models import User
from django.contrib.auth.password_validation import validate_password
from django.contrib.sessions.models import Session
from django.core.exceptions import ValidationError
from django.core.validators import validate_email
from django.db import transaction
from django.http import HttpRequest
from django.utils import timezone
from django_otp.plugins.otp_static.models import StaticDevice, StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from guarding import guesses
from lumvek_core.errors import BadInput

from .. import letters
from ..access import Conflict
from ..models import Change, Member, ResetMail, SignIn, Units
from ..queries.accounts import devices, members_behind, second_factors
from ..rights import action
from .log import log_change, log_of

ONCE = 10
"""Codes for once."""
MAIL_AGAIN = dt.timedelta(minutes=10)


@action("choose units")
def choose_units(member: Member, units: str) -> None:
    """Units to read in; what is typed is understood in any."""
    member.units = Units(units)
    member.save(update_fields=["units"])


def good_password(password: str, user: User, field: str = "password") -> str:
    """A password that the framework's validators take. Raises BadInput."""
    try:
        validate_password(password, user)
    except ValidationError as problem:
        raise BadInput(field, " ".join(problem.messages)) from None
    return password


def full_name(user: User, name: str) -> None:
    """Give a user a name in one field, as people write it. Raises BadInput with field ``name``."""
    if not name.strip():
        raise BadInput("name", "say what people call you")
    if len(name.strip()) > 120:
        raise BadInput("name", "is longer than 120 characters")
    first, _, last = name.strip().partition(" ")
    user.first_name, user.last_name = first[:60], last.strip()[:60]


def good_email(email: str) -> str:
    """An address that may be written to, or none. Raises BadInput with field ``email``."""
    if email.strip():
        try:
            validate_email(email.strip())
        except ValidationError:
            raise BadInput("email", "is no e-mail address") from None
    return email.strip()


@action("change one's own account")
def name_oneself(member: Member, name: str, email: str) -> None:
    """What others read, and where mail goes. Raises BadInput."""
    user = member.user
    before = f"{member.name}, {user.email or 'no e-mail'}"
    full_name(user, name)
    user.email = good_email(email)
    user.save(update_fields=["first_name", "last_name", "email"])
    log_change(member, Change.About.PERSON, member.name, before, f"{member.name}, {user.email or 'no e-mail'}")


def _is_own(user: User, password: str, where: str, field: str = "password") -> None:
    """Hold a password against one's own, counted as every guess (`where`: guesses.where). Raises BadInput, guesses.Slowed."""
    if not guesses.attempt(user.get_username().casefold(), where, lambda: user.check_password(password)):
        raise BadInput(field, "is not your password")


@action("change one's own account", atomic=False)
def change_password(member: Member, old: str, new: str, where: str) -> None:
    """A new password; everywhere else this person is signed out.

    Raises BadInput with field ``old`` or ``new``, guesses.Slowed.
    """
    _is_own(member.user, old, where, "old")
    with transaction.atomic():
        set_password(member.user, good_password(new, member.user, "new"))
        log_change(member, Change.About.PERSON, member.name, "password", "a new password")


def set_password(user: User, password: str) -> None:
    """Django's sessions carry a digest of the password: with a new one every session ends."""
    user.set_password(password)
    user.save(update_fields=["password"])
    letters.changed(user.email, "Your password")


def new_by_link(user: User, password: str) -> None:
    """A password chosen by a link, in the log of every shop that this person works in. Raises BadInput at ``password``."""
    set_password(user, good_password(password, user))
    for one in Member.objects.filter(user=user, left_at=None).select_related("shop", "user"):
        log_of(one.shop, user.pk, Change.About.PERSON, one.name, "password", "a new password, by a link")


def may_mail(user: User) -> bool:
    """Whether a link to a new password may be sent now, and that it is sent: nobody is sent one after the other."""
    with transaction.atomic():
        User.objects.select_for_update().get(pk=user.pk)
        if ResetMail.objects.filter(user=user, at__gt=timezone.now() - MAIL_AGAIN).exists():
            return False
        ResetMail.objects.filter(user=user).delete()
        ResetMail.objects.create(user=user)
    return True


@action("change one's own account")
def begin_second_factor(member: Member) -> TOTPDevice:
    """A key for the authenticator app, which counts once a code of it was typed. Raises Conflict where one counts already."""
    if second_factors(member.user).exists():
        raise Conflict("A second factor is set up already. End it first.")
    TOTPDevice.objects.filter(user=member.user, confirmed=False).delete()
    return TOTPDevice.objects.create(user=member.user, name="authenticator app", confirmed=False)


@action("change one's own account")
def confirm_second_factor(member: Member, code: str) -> list[str]:
    """Count the key from now on, and give out the codes for once.

    Raises BadInput with field ``code``, Conflict where no key waits for its first code.
    """
    device = TOTPDevice.objects.select_for_update().filter(user=member.user, confirmed=False).first()
    if device is None and second_factors(member.user).exists():
        raise Conflict("It is set up already. If you have no codes for once, ask for new ones.")
    if device is None:
        raise Conflict("Begin again: there is no key that waits for its first code.")
    if not device.verify_token(_digits(code)):
        raise BadInput("code", "is not what the app shows for this key; mind that the clocks agree")
    device.confirmed = True
    device.save(update_fields=["confirmed"])
    letters.changed(member.user.email, "Your second factor")
    log_change(member, Change.About.PERSON, member.name, "password alone", "password and a code")
    return _codes_for_once(member.user)


@action("change one's own account", atomic=False)
def new_codes_for_once(member: Member, password: str, where: str) -> list[str]:
    """Other codes for once; those from before open nothing any more.

    Raises BadInput with field ``password``, Conflict where there is no authenticator app, guesses.Slowed.
    """
    if not second_factors(member.user).exists():
        raise Conflict("There is no second factor: set one up first.")
    _is_own(member.user, password, where)
    letters.changed(member.user.email, "Your second factor")
    with transaction.atomic():
        log_change(member, Change.About.PERSON, member.name, "codes for once", "new codes for once")
        return _codes_for_once(member.user)


@action("change one's own account", atomic=False)
def end_second_factor(member: Member, password: str, where: str) -> None:
    """Sign in with the password alone again.

    Raises BadInput with field ``password``, Conflict where the shop wants it, guesses.Slowed.
    """
    if member.shop.second_factor:
        raise Conflict("This shop wants a second factor of everybody.")
    _is_own(member.user, password, where)
    with transaction.atomic():
        forget_second_factor(member.user)
        log_change(member, Change.About.PERSON, member.name, "password and a code", "password alone")


def forget_second_factor(user: User) -> None:
    letters.changed(user.email, "Your second factor")
    TOTPDevice.objects.filter(user=user).delete()
    StaticDevice.objects.filter(user=user).delete()


class SigningIn:
    """A name, its password and a code, held against what is kept. user: who it is, once all of it was right."""

    def __init__(self, request: HttpRequest, username: str, password: str, code: str) -> None:
        self.request, self.username, self.password, self.code = request, username, password, code.strip()
        self.user: User | None = None
        self.field, self.message = "password", "Name and password do not match."

    def look(self) -> bool | None:
        """Whether all of it is right; None where the password is, and the code is still to be typed."""
        user = authenticate(self.request, username=self.username, password=self.password)
        if not isinstance(user, User) or not members_behind(user):
            return False
        if second_factors(user).exists():
            self.field, self.message = "code", "Type the code of your authenticator app."
            if not self.code:
                return None
            self.message = "This code is not right. Wait for the next one and type that."
            if not _code_is_right(user, self.code):
                return False
        self.user = user
        return True


def _code_is_right(user: User, code: str) -> bool:
    """Whether a code is the app's now, or one for once; those are too long to be guessed, and count from one place alone."""
    for device in StaticDevice.objects.select_for_update().filter(user=user, confirmed=True):
        if device.verify_token(code.lower()):
            return True
    apps = TOTPDevice.objects.select_for_update().filter(user=user, confirmed=True)
    digits = _digits(code)
    return digits.isdigit() and guesses.code(
        user.get_username().casefold(), lambda: any(one.verify_token(digits) for one in apps)
    )


def _digits(code: str) -> str:
    return code.replace(" ", "")


def _codes_for_once(user: User) -> list[str]:
    StaticDevice.objects.filter(user=user).delete()
    device = StaticDevice.objects.create(user=user, name="codes for once")
    codes: list[str] = [StaticToken.random_token() for _ in range(ONCE)]
    StaticToken.objects.bulk_create([StaticToken(device=device, token=code) for code in codes])
    return codes


def signed_in_on(user: User, session_key: str, device: str, address: str) -> None:
    """Keep that somebody signed in on a device; what has ended is forgotten."""
    alive = [one.pk for one in devices(user)]
    SignIn.objects.filter(user=user).exclude(pk__in=alive).delete()
    SignIn.objects.create(user=user, session_key=session_key, device=device[:200], address=address[:45])


def moved_to(user: User, old_key: str, new_key: str) -> None:
    """Django gives a session another key when the password changes."""
    SignIn.objects.filter(user=user, session_key=old_key).update(session_key=new_key)


@action("change one's own account")
def end_sessions(member: Member, here: str, ids: Sequence[int] | None) -> int:
    """Sign out elsewhere: on some devices, or on all but this one (None). Returns on how many."""
    others = SignIn.objects.filter(user=member.user).exclude(session_key=here)
    if ids is not None:
        others = others.filter(pk__in=list(ids))
    keys = list(others.values_list("session_key", flat=True))
    Session.objects.filter(session_key__in=keys).delete()
    others.delete()
    return len(keys)
