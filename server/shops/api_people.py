"""Who belongs to a shop: inviting, roles, letting go."""

import uuid

from django.http import HttpRequest
from ninja import Router

from . import letters
from .access import member_of
from .actions import people
from .endpoints import allowed
from .queries import accounts as reading
from .queries import people as queries
from .schemas_people import InvitationOut, InvitedOut, InviteIn, MemberOut, PasswordLinkOut, PeopleOut, RolesIn

router = Router(tags=["people"])


def _people(request: HttpRequest) -> PeopleOut:
    member = member_of(request)
    found = queries.everybody(member)
    return PeopleOut(
        people=[
            MemberOut(
                id=one.pk,
                name=one.name,
                username=one.user.get_username(),
                email=one.user.email,
                roles=one.roles,
                role_name=one.role_name,
                second_factor=bool(getattr(one, "has_code", False)),
                left_at=one.left_at,
                named=one.user.is_active,
            )
            for one in found
        ],
        invitations=[
            InvitationOut(
                uuid=one.uuid,
                name=one.name,
                email=one.email,
                role_name=reading.role_name(one.roles),
                expires_at=one.expires_at,
                path=f"/join/{queries.secret_of(one)}",
            )
            for one in queries.open_invitations(member)
        ],
        mails=letters.can_send(),
        second_factor=member.shop.second_factor,
    )


@router.get("", response=PeopleOut, **allowed("see people"))
def everybody(request: HttpRequest) -> PeopleOut:
    """Who belongs to the shop, who did, and who was asked to."""
    return _people(request)


@router.post("/invitations", response=InvitedOut, **allowed(people.invite))
def invite(request: HttpRequest, wanted: InviteIn) -> InvitedOut:
    """Ask somebody to join. The link works once, for two weeks; it goes by mail where there is an address and a way."""
    member = member_of(request)
    made = people.invite(member, wanted.uuid, wanted.name, wanted.email, wanted.roles)
    path = f"/join/{queries.secret_of(made)}"
    said = letters.invitation(member.shop.name, member.name, made.email, request.build_absolute_uri(path))
    return InvitedOut(people=_people(request), path=path, said=said)


@router.post("/invitations/{uuid:invitation_id}/withdraw", response=PeopleOut, **allowed(people.withdraw))
def withdraw(request: HttpRequest, invitation_id: uuid.UUID) -> PeopleOut:
    """The link works no more."""
    people.withdraw(member_of(request), invitation_id)
    return _people(request)


@router.post("/{int:person_id}/roles", response=PeopleOut, **allowed(people.set_roles))
def set_roles(request: HttpRequest, person_id: int, wanted: RolesIn) -> PeopleOut:
    """Other roles for somebody."""
    people.set_roles(member_of(request), person_id, wanted.roles)
    return _people(request)


@router.post("/{int:person_id}/let-go", response=PeopleOut, **allowed(people.let_go))
def let_go(request: HttpRequest, person_id: int) -> PeopleOut:
    """Nothing of the shop opens for them any more."""
    people.let_go(member_of(request), person_id)
    return _people(request)


@router.post("/{int:person_id}/take-out", response=PeopleOut, **allowed(people.take_out_by_name))
def take_out_by_name(request: HttpRequest, person_id: int) -> PeopleOut:
    """Somebody who was let go is named no more."""
    people.take_out_by_name(member_of(request), person_id)
    return _people(request)


@router.post("/{int:person_id}/take-back", response=PeopleOut, **allowed(people.take_back))
def take_back(request: HttpRequest, person_id: int) -> PeopleOut:
    """Somebody who was let go belongs to the shop again."""
    people.take_back(member_of(request), person_id)
    return _people(request)


@router.post("/{int:person_id}/password-link", response=PasswordLinkOut, **allowed(people.ask_for_new_password))
def password_link(request: HttpRequest, person_id: int) -> PasswordLinkOut:
    """A link by which somebody of this shop alone chooses a new password."""
    other = people.ask_for_new_password(member_of(request), person_id)
    link = reading.reset_link(other.user)
    return PasswordLinkOut(path=link.path, said=f"For {other.name}. It works once, for three days.")


@router.post("/{int:person_id}/second-factor/end", response=PeopleOut, **allowed(people.forget_second_factor_of))
def forget_second_factor(request: HttpRequest, person_id: int) -> PeopleOut:
    """Somebody has lost their telephone: they sign in with the password alone, until they set up another."""
    people.forget_second_factor_of(member_of(request), person_id)
    return _people(request)
