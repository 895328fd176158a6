"""Reading who belongs to a shop, and who was asked to."""

import uuid

from django.core.signing import BadSignature, Signer
from django.utils import timezone

from ..access import NotFoundHere
from ..models import Invitation, Member
from .accounts import with_second_factor

_SIGNED = Signer(salt="invitation", sep=".")


def secret_of(invitation: Invitation) -> str:
    """What the link carries: the UUID, signed. It can be shown again as long as it works, and is nowhere stored."""
    return _SIGNED.sign(invitation.uuid.hex)


def invited_by(secret: str, *, for_update: bool = False) -> Invitation:
    """The invitation that a link opens. Raises NotFoundHere for one that never was, was used, withdrawn or has run out."""
    try:
        known = uuid.UUID(_SIGNED.unsign(secret))
    except (BadSignature, ValueError):
        raise NotFoundHere("This invitation works no more. Ask for a new one.") from None
    there = Invitation.objects.select_for_update() if for_update else Invitation.objects.select_related("shop", "made_by")
    found = there.filter(uuid=known, used_at=None, withdrawn_at=None, expires_at__gt=timezone.now()).first()
    if found is None:
        raise NotFoundHere("This invitation works no more. Ask for a new one.")
    return found


def member_here(member: Member, whose: int) -> Member:
    """Somebody of the member's shop, also one who was let go. Raises NotFoundHere."""
    found = Member.objects.of(member).select_related("user", "shop").filter(pk=whose).first()
    if found is None:
        raise NotFoundHere("There is no such person.")
    return found


def everybody(member: Member) -> list[Member]:
    """Who belongs to the shop, and at the end who did."""
    found = with_second_factor(Member.objects.of(member)).order_by("user__first_name", "user__username")
    return sorted(found, key=lambda one: one.left_at is not None)


def open_invitations(member: Member) -> list[Invitation]:
    """Those whose link works, or has run out without being used."""
    return list(Invitation.objects.of(member).filter(used_at=None, withdrawn_at=None))
