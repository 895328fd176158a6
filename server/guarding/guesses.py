"""One measure for all guessing of secrets: passwords, codes, wherever they are asked for.

Counted by who is guessed at and from where: the device, where that person has signed in on it before, else the address. So
nobody is shut out by what somebody else guesses elsewhere, nor on a device of their own by whoever shares its address. After
six in a row nothing is looked at for a quarter of an hour, and twice as long after every third further one. Those that come at
the same instant are looked at one after the other, and not at all once it is locked.
"""

import datetime as dt
import secrets
from collections.abc import Callable

from django.conf import settings
from django.core import signing
from django.db import transaction
from django.http import HttpRequest, HttpResponse
from django.utils import timezone

from lumvek_core.counted import counted

from .circles import done_again
from .models import Guesses

FREE, STEP = 6, 3
FIRST, LONGEST = dt.timedelta(minutes=15), dt.timedelta(hours=4)
FORGOTTEN = dt.timedelta(days=1)
"""After so long without a wrong one it begins anew."""
ANYWHERE = "anywhere"
CODES_ANYWHERE = 100
"""Wrong codes of one person from everywhere, in a day: a code has six digits, and addresses can be had by the thousand."""
DEVICE_S = 365 * 24 * 3600
SALT = "guarding.device"
MOST_NAMES = 8


class Slowed(Exception):
    """Nothing is looked at from here for a while."""

    def __init__(self, left: dt.timedelta) -> None:
        self.seconds = max(1, round(left.total_seconds()))
        super().__init__(f"Too many wrong tries from here. Try again in {counted(-(-self.seconds // 60), 'minute')}.")


def attempt(who: str, where: str, look: Callable[[], bool | None]) -> bool | None:
    """Whether the secret is right, as `look` finds it; None is no guess: it neither counts nor ends a count.

    It has a transaction of its own, and commits: a wrong one is counted whatever comes of it. Raises Slowed, and then nothing
    was looked at.
    """
    return done_again(lambda: _attempt(who, where, look), "a sign-in")


def _attempt(who: str, where: str, look: Callable[[], bool | None]) -> bool | None:
    # By itself, so that those who come at once wait in a row for the one that is there.
    Guesses.objects.bulk_create([Guesses(who=who, where=where)], ignore_conflicts=True)
    with transaction.atomic():
        # Somebody who was right at the same instant may have ended the count meanwhile.
        row = Guesses.objects.select_for_update().filter(who=who, where=where).first() or Guesses(who=who, where=where)
        now = timezone.now()
        if row.until and row.until > now:
            raise Slowed(row.until - now)
        right = look()
        if right:
            Guesses.objects.filter(pk=row.pk).delete()
        elif right is False:
            row.failures = 1 if row.pk is None or now - row.last_at > FORGOTTEN else row.failures + 1
            row.until = now + wait_after(row.failures) if row.failures >= FREE else None
            row.save()
            Guesses.objects.filter(last_at__lt=now - FORGOTTEN).delete()  # longer ago than the longest wait
        return right


def wait_after(failures: int) -> dt.timedelta:
    """How long nothing is looked at after so many wrong ones in a row."""
    over, rest = divmod(failures - FREE, STEP)
    return dt.timedelta(0) if failures < FREE or rest else min(FIRST * (1 << min(over, 10)), LONGEST)


def code(who: str, look: Callable[[], bool]) -> bool:
    """A code of an app, counted from everywhere together as well, for the day. Within the `attempt` that the sign-in is."""
    Guesses.objects.bulk_create([Guesses(who=who, where=ANYWHERE)], ignore_conflicts=True)
    row = Guesses.objects.select_for_update().get(who=who, where=ANYWHERE)
    if timezone.now() - row.last_at > FORGOTTEN:
        row.failures = 0
    if row.failures >= CODES_ANYWHERE or look():
        return row.failures < CODES_ANYWHERE
    row.failures += 1
    row.save()
    return False


def where(request: HttpRequest, who: str) -> str:
    """From where somebody is guessed at: a device of theirs, or an address."""
    device, names = _device(request)
    return f"device {device}" if who in names else f"at {request.META.get('REMOTE_ADDR', '')}"


def remember(request: HttpRequest, response: HttpResponse, who: str) -> None:
    """Whoever signs in on a device is counted by it from then on."""
    device, names = _device(request)
    names = [*[one for one in names if one != who], who][-MOST_NAMES:]
    response.set_cookie(
        settings.DEVICE_COOKIE_NAME,
        signing.dumps({"device": device or secrets.token_urlsafe(16), "names": names}, salt=SALT),
        max_age=DEVICE_S,
        secure=settings.SECURE,
        httponly=True,
        samesite="Lax",
    )


def _device(request: HttpRequest) -> tuple[str, list[str]]:
    try:
        told = signing.loads(request.COOKIES.get(settings.DEVICE_COOKIE_NAME, ""), salt=SALT, max_age=DEVICE_S)
    except signing.BadSignature:
        return "", []
    return told["device"], told["names"]
