"""Reading somebody's own account."""

from base64 import b32encode
from dataclasses import dataclass

import segno
from django.contrib.auth.base_user import AbstractBaseUser
from django.contrib.auth.models import User
from django.contrib.auth.tokens import default_token_generator
from django.contrib.sessions.models import Session
from django.db.models import Exists, OuterRef, Q, QuerySet
from django.utils import timezone
from django.utils.http import urlsafe_base64_decode, urlsafe_base64_encode
from django_otp.plugins.otp_static.models import StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from ..access import NotFoundHere
from ..models import Member, Shop, SignIn
from ..schemas import KeyOut


def with_second_factor(members: QuerySet[Member]) -> QuerySet[Member]:
    """Members with user and shop, and whether a code is asked of them (``has_code``), in one query."""
    apps = TOTPDevice.objects.filter(user=OuterRef("user"), confirmed=True)
    return members.select_related("user", "shop").annotate(has_code=Exists(apps))


def nobody_yet() -> bool:
    """Whether there is no shop here at all."""
    return not Shop.objects.exists()


def role_name(roles: list[str]) -> str:
    """Roles in words."""
    return Member(roles=roles).role_name


def members_behind(user: AbstractBaseUser) -> list[Member]:
    """What a user is in their shops."""
    return list(with_second_factor(Member.objects.filter(user_id=user.pk, left_at=None)).order_by("pk"))


def second_factors(user: User) -> QuerySet[TOTPDevice]:
    """The authenticator apps that count."""
    found: QuerySet[TOTPDevice] = TOTPDevice.objects.filter(user=user, confirmed=True)
    return found


def key_of(device: TOTPDevice) -> KeyOut:
    """A key as its owner takes it over: scanned or typed."""
    letters = b32encode(device.bin_key).decode().rstrip("=")
    picture = segno.make(device.config_url, error="m").svg_data_uri(scale=4, border=3, light="#ffffff")
    return KeyOut(picture=picture, letters=" ".join(letters[at : at + 4] for at in range(0, len(letters), 4)))


def codes_left(user: User) -> int:
    """Codes for once that were not used."""
    return int(StaticToken.objects.filter(device__user=user).count())


def devices(user: User) -> list[SignIn]:
    """Where somebody is signed in now, the newest first."""
    mine = list(SignIn.objects.filter(user=user))
    alive = set(
        Session.objects.filter(session_key__in=[one.session_key for one in mine], expire_date__gt=timezone.now()).values_list(
            "session_key", flat=True
        )
    )
    return [one for one in mine if one.session_key in alive]


@dataclass(frozen=True)
class ResetLink:
    """What a link to a new password holds: who, and Django's token, which ends with use, with a new password or in time."""

    who: str
    token: str

    @property
    def path(self) -> str:
        return f"/new-password/{self.who}/{self.token}"


def reset_link(user: User) -> ResetLink:
    """A link for somebody to choose a new password by."""
    return ResetLink(urlsafe_base64_encode(str(user.pk).encode()), default_token_generator.make_token(user))


def user_of(link: ResetLink) -> User:
    """Whose password a link is to set. Raises NotFoundHere for one that works no more."""
    try:
        user = User.objects.filter(pk=int(urlsafe_base64_decode(link.who)), is_active=True).first()
    except ValueError:
        user = None
    if user is None or not default_token_generator.check_token(user, link.token):
        raise NotFoundHere("This link works no more. Ask for a new one.")
    return user


def who_asks(name: str) -> list[User]:
    """Those who may mean themselves by a login name or an e-mail address, and can be written to."""
    if not name.strip():
        return []
    mine = Q(username=name.strip()) | Q(email__iexact=name.strip())
    here = Member.objects.filter(left_at=None).values("user")
    return list(User.objects.filter(mine, is_active=True, pk__in=here).exclude(email="")[:5])
