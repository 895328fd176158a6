"""The first shop of an empty installation, behind a secret that only who reads the server's log can know."""

import hashlib
import hmac
import secrets

from django.db import transaction

from lumvek_core.errors import BadInput

from ..access import Conflict
from ..models import Member, SetUpKey, Shop
from .people import found_shop

LETTERS = "abcdefghjkmnpqrstuvwxyz23456789"
"""None that is taken for another."""


def print_key() -> str:
    """A new secret, four groups of four; the one before it opens nothing any more. Empty where there is a shop already."""
    if Shop.objects.exists():
        SetUpKey.objects.all().delete()
        return ""
    secret = "-".join("".join(secrets.choice(LETTERS) for _ in range(4)) for _ in range(4))
    with transaction.atomic():
        SetUpKey.objects.all().delete()
        SetUpKey.objects.create(digest=_digest(secret))
    return secret


@transaction.atomic
def found_first(secret: str, shop: str, username: str, name: str, password: str) -> Member:
    """Found the shop and its lead. Raises BadInput with field ``secret`` or of `found_shop`, Conflict where there is a shop."""
    key = SetUpKey.objects.select_for_update().first()
    if Shop.objects.exists():
        raise Conflict("There is a shop here already. Ask its lead for an invitation.")
    if key is None or not hmac.compare_digest(key.digest, _digest(secret)):
        raise BadInput("secret", "is not what the server printed when it started")
    member = found_shop(shop, username, name, password)
    key.delete()
    return member


def _digest(secret: str) -> str:
    return hashlib.sha256(secret.strip().lower().encode()).hexdigest()
