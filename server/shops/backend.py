"""Signing in: Django's own way, with the members and shops read together with the user, for every request needs all three."""

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User

from .models import Member
from .queries.accounts import with_second_factor


class MemberBackend(ModelBackend):
    """Users with what they are in which shop, in one query; who belongs to no shop any more is nobody."""

    def get_user(self, user_id: int) -> User | None:
        here = list(with_second_factor(Member.objects.filter(user_id=user_id, left_at=None)).order_by("pk"))
        if not here or not self.user_can_authenticate(here[0].user):
            return None
        user: User = here[0].user
        user.present = here  # type: ignore[attr-defined]
        return user
