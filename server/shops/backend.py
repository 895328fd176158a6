"""Signing in: Django's own way, with the member and the shop read together with the user, for every request needs all three."""

from django.contrib.auth.backends import ModelBackend
from django.contrib.auth.models import User


class MemberBackend(ModelBackend):
    """Users with their member and shop in one query."""

    def get_user(self, user_id: int) -> User | None:
        user = User.objects.select_related("member__shop").filter(pk=user_id).first()
        return user if user is not None and self.user_can_authenticate(user) else None
