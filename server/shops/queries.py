"""Reading members."""

from django.contrib.auth.base_user import AbstractBaseUser

from .models import Member


def member_behind(user: AbstractBaseUser) -> Member | None:
    """The member that a user signs in as, if they are one."""
    return Member.objects.select_related("shop", "user").filter(user_id=user.pk).first()
