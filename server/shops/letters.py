"""Letters to people about their account, where the installation can send any."""

import logging
from smtplib import SMTPException

from django.conf import settings
from django.core.mail import send_mail

log = logging.getLogger(__name__)


def can_send() -> bool:
    return bool(settings.MAILS)


def send(to: str, subject: str, text: str) -> str:
    """Send one, and say what became of it."""
    if not to:
        return ""
    if not can_send():
        return "No mail goes out from here: give the link on yourself."
    try:
        send_mail(subject, text, None, [to])
    except (SMTPException, OSError):
        log.exception("a letter could not be sent")
        return f"The mail to {to} could not be sent: give the link on yourself."
    return f"Sent to {to}."


def invitation(shop: str, by: str, to: str, address: str) -> str:
    text = f"{by} asks you to join {shop}.\n\nThis link works once, for two weeks:\n{address}\n"
    return send(to, f"Join {shop}", text)


def new_password(to: str, address: str) -> str:
    begins = "Choose a new password by this link. It works once, for three days:"
    return send(to, "A new password", f"{begins}\n{address}\n\nIf you did not ask for it, do nothing.\n")
