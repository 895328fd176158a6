"""Giving a letter to the mail server, and knowing whether it has it."""

import datetime as dt
import smtplib
import ssl
from collections.abc import Mapping
from contextlib import suppress
from typing import Any

from django.conf import settings
from django.core.exceptions import ValidationError
from django.core.mail import EmailMessage, get_connection
from django.core.validators import validate_email

from . import lines
from .models import Line

GOES_FOR = dt.timedelta(minutes=2)
"""A letter that is under way for longer was lost with its process: nobody knows."""


class NotSent(Exception):
    """The letter has not gone out, for this reason."""


class Unsure(Exception):
    """The line broke while the letter was being given: it may have gone out."""


class _Away(Exception):
    """There is no talking to the mail server."""


def can_send() -> bool:
    """Whether letters go out at all."""
    return bool(settings.MAILS)


def is_address(text: str) -> bool:
    """Whether a letter could be addressed so."""
    try:
        validate_email(text)
    except ValidationError:
        return False
    return True


def send(to: str, subject: str, text: str, headers: Mapping[str, str] | None = None, *, pressed: bool = False) -> None:
    """Send one letter. pressed: somebody wants it now, whether or not the line rests. Raises NotSent, Unsure."""
    if not can_send():
        raise NotSent("No mail goes out from here.")
    if not is_address(to):
        raise NotSent(f"{to or 'Nothing'} is no e-mail address.")
    one_line = " ".join(subject.split())
    letter = EmailMessage(one_line, text, to=[to], headers=dict(headers or {}))
    try:
        lines.reach(Line.Name.MAIL, lambda: _give(letter), _Away, pressed=pressed)
    except (_Away, lines.Resting) as problem:
        raise NotSent(str(problem)) from problem


def log_in() -> None:
    """Go to the mail server and log in, without a letter and without a word in any table. Raises NotSent."""
    try:
        _open().close()
    except _Away as problem:
        raise NotSent(str(problem)) from problem


def tried() -> None:
    """Go to the mail server; its line says what came of it."""
    with suppress(_Away):
        lines.reach(Line.Name.MAIL, lambda: _open().close(), _Away, pressed=True)


def _open() -> Any:
    """Whichever way letters go. Raises _Away."""
    way = get_connection()
    try:
        way.open()
    except smtplib.SMTPAuthenticationError as problem:
        raise _Away("The mail server refuses the log-in.") from problem
    except ssl.SSLError as problem:
        raise _Away("There is no safe connection to the mail server.") from problem
    except (smtplib.SMTPException, OSError) as problem:
        raise _Away("The mail server does not answer.") from problem
    return way


def _give(letter: EmailMessage) -> None:
    way = _open()
    try:
        way.send_messages([letter])
    except smtplib.SMTPRecipientsRefused as problem:
        raise NotSent(f"The mail server does not take the address {letter.to[0]}.") from problem
    except smtplib.SMTPSenderRefused as problem:
        raise NotSent(f"The mail server does not take {letter.from_email} as a sender.") from problem
    except smtplib.SMTPDataError as problem:
        raise NotSent("The mail server does not take the letter.") from problem
    except (smtplib.SMTPException, OSError) as problem:
        raise Unsure("The line to the mail server broke while the letter was being given. It may have gone out.") from problem
    finally:
        with suppress(smtplib.SMTPException, OSError):
            way.close()
