"""How an endpoint says which right it takes: it is asked before anything is read, and stands in the described API."""

from typing import Any

from django.http import HttpRequest

from .access import Signed
from .models import Member
from .rights import ONESELF, RIGHTS, Action, only


class Allowed(Signed):
    """A signed-in member whose role has a right. What the role may not do is refused whether or not the thing exists."""

    def __init__(self, right: str) -> None:
        super().__init__()
        self.right = right
        self.without_code = right in ONESELF

    def authenticate(self, request: HttpRequest, key: str | None) -> Member | None:
        member = super().authenticate(request, key)
        if member is not None:
            only(member, self.right)
        return member


def allowed(by: str | Action[..., Any]) -> dict[str, Any]:
    """What an operation is declared with: ``@router.post(path, response=…, **allowed(recording.record_reading))``.

    by: the action that it calls, or a right of the table.
    """
    right = by if isinstance(by, str) else by.right
    return {
        "auth": Allowed(right),
        "openapi_extra": {"x-right": right, "x-roles": sorted(RIGHTS[right])},
    }
