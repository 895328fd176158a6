"""Asking somebody outside without anybody waiting at the server: it is asked beside, and looked at until there is an answer."""

import datetime as dt
import uuid
from collections.abc import Callable, Sequence
from dataclasses import asdict, dataclass
from functools import partial

from django.utils import timezone

from lumvek_core.errors import BadInput

from . import background
from .models import Inquiry

GOES_FOR = dt.timedelta(seconds=60)
"""One that is under way for longer was lost with its process."""
KEPT = dt.timedelta(days=1)


@dataclass(frozen=True)
class Told:
    """What one of those who were asked said, in words; or what was wrong."""

    who: str
    said: str = ""
    trouble: str = ""


class Nothing(Exception):
    """Nothing came of it, for this reason."""


def ask(member_pk: int, inquiry: uuid.UUID, work: Callable[[], Sequence[Told]]) -> Inquiry:
    """Have it asked. The same UUID again asks nothing again. work: raises Nothing or BadInput where nothing comes of it.

    Raises Inquiry.DoesNotExist for the UUID of somebody else's.
    """
    Inquiry.objects.filter(asked_at__lt=timezone.now() - KEPT).delete()
    _, made = Inquiry.objects.get_or_create(uuid=inquiry, defaults={"member_id": member_pk})
    if made:
        background.later(partial(_ask, inquiry, work))
    return of_member(member_pk, inquiry)


def of_member(member_pk: int, inquiry: uuid.UUID) -> Inquiry:
    """How it stands. Raises Inquiry.DoesNotExist for somebody else's, or none."""
    found = Inquiry.objects.get(uuid=inquiry, member_id=member_pk)
    if found.answered_at is None and timezone.now() - found.asked_at > GOES_FOR:
        found.answered_at, found.trouble = timezone.now(), "No answer came. Ask again."
    return found


def _ask(inquiry: uuid.UUID, work: Callable[[], Sequence[Told]]) -> None:
    told: Sequence[Told] = ()
    trouble, field = "Something went wrong while it was asked. It is written down in the server's log.", ""
    try:
        told, trouble = work(), ""
    except Nothing as problem:
        trouble = str(problem)
    except BadInput as problem:
        trouble, field = problem.message, problem.field
    finally:
        Inquiry.objects.filter(uuid=inquiry).update(
            told=[asdict(one) for one in told], trouble=trouble[:300], field=field[:60], answered_at=timezone.now()
        )
