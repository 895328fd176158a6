"""Who belongs to a shop: inviting, joining, roles, letting go."""

import datetime as dt
import uuid
from collections.abc import Sequence

from django.contrib.auth.models import User
from django.db import IntegrityError, transaction
from django.utils import timezone

from lumvek_core.errors import BadInput

from ..access import Conflict, NotFoundHere
from ..models import Change, Invitation, Member, Role, Shop
from ..queries.accounts import role_name
from ..queries.people import invited_by, member_here
from ..rights import action
from . import accounts
from .log import log_change, log_of, unname

LASTS = dt.timedelta(days=14)


def good_roles(roles: Sequence[str]) -> list[str]:
    """Roles in their order. Raises BadInput with field ``roles``."""
    if not roles:
        raise BadInput("roles", "pick at least one")
    if strange := set(roles) - set(Role.values):
        raise BadInput("roles", f"{sorted(strange)[0]} is none")
    return [role.value for role in Role if role in roles]


@action("invite people")
def invite(member: Member, invitation: uuid.UUID, name: str, email: str, roles: Sequence[str]) -> Invitation:
    """Ask somebody to join. The same UUID twice is one invitation. Raises BadInput."""
    if not name.strip():
        raise BadInput("name", "say who it is for")
    known = Invitation.objects.filter(uuid=invitation).first()
    if known is not None:
        if known.shop_id != member.shop_id:
            raise NotFoundHere("There is no such invitation.")
        return known
    made = Invitation.objects.create(
        uuid=invitation,
        shop=member.shop,
        name=name.strip()[:120],
        email=accounts.good_email(email),
        roles=good_roles(roles),
        made_by=member.user,
        expires_at=timezone.now() + LASTS,
    )
    log_change(member, Change.About.PERSON, made.name, "", f"invited as {_named(made.roles)}")
    return made


@action("invite people")
def withdraw(member: Member, invitation: uuid.UUID) -> None:
    """The link works no more. Raises NotFoundHere; Conflict where somebody has joined by it."""
    there = Invitation.objects.of(member).select_for_update().filter(uuid=invitation).first()
    if there is None:
        raise NotFoundHere("There is no such invitation.")
    if there.used_at is not None:
        raise Conflict(f"{there.name} has joined already. Let them go instead.")
    if there.withdrawn_at is None:
        there.withdrawn_at = timezone.now()
        there.save(update_fields=["withdrawn_at"])
        log_change(member, Change.About.PERSON, there.name, f"invited as {_named(there.roles)}", "invitation withdrawn")


@transaction.atomic
def join(secret: str, user: User | None, username: str, name: str, password: str) -> Member:
    """Take an invitation up, once: as who is signed in, else with an account of one's own.

    Raises NotFoundHere for a link that works no more, BadInput with field ``username``, ``name`` or ``password``.
    """
    invitation = invited_by(secret, for_update=True)
    if user is None:
        user = make_user(username, name, password, invitation.email)
    member, new = Member.objects.get_or_create(
        user=user, shop=invitation.shop, defaults={"roles": invitation.roles, "units": invitation.shop.units}
    )
    if not new:
        if member.left_at is None:
            raise Conflict(f"You belong to {invitation.shop.name} already.")
        member.roles, member.left_at = invitation.roles, None
        member.save(update_fields=["roles", "left_at"])
    invitation.used_at = timezone.now()
    invitation.save(update_fields=["used_at"])
    log_of(invitation.shop, user.pk, Change.About.PERSON, member.name, "invited", f"joined as {_named(member.roles)}")
    return member


def make_user(username: str, name: str, password: str, email: str = "") -> User:
    """An account. Raises BadInput with field ``username``, ``name`` or ``password``."""
    user = User(username=username.strip(), email=email)
    if not user.username:
        raise BadInput("username", "pick a name to log in with")
    if len(user.username) > 60 or not all(letter.isalnum() or letter in "@.+-_" for letter in user.username):
        raise BadInput("username", "is at most 60 letters, digits or @ . + - _")
    accounts.full_name(user, name)
    user.set_password(accounts.good_password(password, user))
    try:
        with transaction.atomic():
            user.save()
    except IntegrityError:
        raise BadInput("username", "is taken; pick another") from None
    return user


@transaction.atomic
def found_shop(shop_name: str, username: str, name: str, password: str) -> Member:
    """A new shop with its first lead. Raises BadInput with field ``shop``, ``username``, ``name`` or ``password``."""
    if not shop_name.strip():
        raise BadInput("shop", "say what the shop is called")
    user = make_user(username, name, password)
    shop = Shop.objects.create(name=shop_name.strip()[:120], begun=False)
    member = Member.objects.create(user=user, shop=shop, roles=[Role.LEAD])
    log_change(member, Change.About.SHOP, shop.name, "", "founded")
    return member


@action("change roles")
def set_roles(member: Member, whose: int, roles: Sequence[str]) -> Member:
    """Give somebody other roles. Raises BadInput, NotFoundHere; Conflict where nobody would lead the shop any more."""
    Shop.objects.select_for_update().get(pk=member.shop_id)
    other, wanted = member_here(member, whose), good_roles(roles)
    if Role.LEAD not in wanted:
        _somebody_else_leads(other)
    before, other.roles = other.role_name, wanted
    other.save(update_fields=["roles"])
    log_change(member, Change.About.PERSON, other.name, before, other.role_name)
    return other


@action("let people go")
def let_go(member: Member, whose: int) -> Member:
    """Nothing of the shop opens for them any more, from their next request on. What they did stands. Let go twice is once.

    Raises NotFoundHere; Conflict where nobody would lead the shop any more.
    """
    Shop.objects.select_for_update().get(pk=member.shop_id)
    other = member_here(member, whose)
    if other.left_at is None:
        _somebody_else_leads(other)
        other.left_at = timezone.now()
        other.save(update_fields=["left_at"])
        log_change(member, Change.About.PERSON, other.name, other.role_name, "let go")
    return other


@action("let people go")
def take_back(member: Member, whose: int) -> Member:
    """Somebody who was let go belongs to the shop again, as what they were. Raises NotFoundHere, Conflict for a former name."""
    other = member_here(member, whose)
    if not other.user.is_active:
        raise Conflict("They were taken out by name: ask them to join anew.")
    if other.left_at is not None:
        other.left_at = None
        other.save(update_fields=["left_at"])
        log_change(member, Change.About.PERSON, other.name, "let go", other.role_name)
    return other


@action("let people go")
def take_out_by_name(member: Member, whose: int) -> Member:
    """Somebody who was let go is named no more: name, e-mail, login, password, second factor and devices go, for good.

    What they read, decided and changed stays, under a name that says nobody's. Raises NotFoundHere; Conflict for who is still
    here, or belongs to another shop as well.
    """
    other = only_ours(member, whose)
    if other.left_at is None:
        raise Conflict(f"{other.name} is still here: let them go first.")
    user, name, email = other.user, other.name, other.user.email
    if not user.is_active:
        return other
    accounts.forget_second_factor(user)
    user.sign_ins.all().delete()
    user.first_name, user.last_name, user.email, user.username = "Former member", str(other.pk), "", f"former-{other.pk}"
    user.is_active = False
    user.set_unusable_password()
    user.save()
    member.shop.invitations.filter(name=name).update(name=other.name, email="")
    unname(member.shop, {name: other.name} | ({email: "an e-mail address"} if email else {}))
    log_change(member, Change.About.PERSON, other.name, "a name", "taken out by name")
    return other


@action("reset passwords")
def forget_second_factor_of(member: Member, whose: int) -> None:
    """Somebody has lost their telephone. Raises NotFoundHere, Conflict where they belong to another shop as well."""
    other = only_ours(member, whose)
    accounts.forget_second_factor(other.user)
    log_change(member, Change.About.PERSON, other.name, "password and a code", "password alone")


@action("reset passwords")
def ask_for_new_password(member: Member, whose: int) -> Member:
    """That somebody is given a link to a new password. Raises NotFoundHere, Conflict for who is in another shop as well."""
    other = only_ours(member, whose)
    log_change(member, Change.About.PERSON, other.name, "", "given a link to a new password")
    return other


def only_ours(member: Member, whose: int) -> Member:
    """Somebody whose account is this shop's alone to open anew. Raises NotFoundHere, Conflict."""
    other = member_here(member, whose)
    if Member.objects.filter(user=other.user_id).exclude(pk=other.pk).exists():
        raise Conflict(f"{other.name} belongs to another shop as well. Only they can do that, by e-mail or themselves.")
    return other


def _somebody_else_leads(other: Member) -> None:
    if not other.leads or other.left_at is not None:
        return
    everybody = Member.objects.in_shop(other.shop_id).filter(left_at=None).exclude(pk=other.pk)
    if not any(one.leads for one in everybody):
        raise Conflict(f"{other.name} is the last who leads this shop. Make somebody else a lead first.")


def _named(roles: Sequence[str]) -> str:
    return role_name(list(roles)).lower()
