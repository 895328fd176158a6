"""Letters to people about their account, where the installation can send any. Nobody waits for them; whoever gives out a link
has it on screen as well, to give on by hand."""

import logging

from outside import background, mails

log = logging.getLogger(__name__)


def can_send() -> bool:
    """Whether letters go out at all."""
    return mails.can_send()


def send(to: str, subject: str, text: str, *, pressed: bool = False) -> str:
    """Send one beside, and say that it is on its way. What comes of it is said of the mail server's line."""
    if not to:
        return ""
    if not can_send():
        return "No mail goes out from here: give the link on yourself."

    def beside() -> None:
        try:
            mails.send(to, subject, text, pressed=pressed)
        except (mails.NotSent, mails.Unsure) as problem:
            log.warning("a letter was not sent: %s", problem)

    background.later(beside)
    return f"A letter to {to} is on its way. If it does not come, give the link on yourself."


def invitation(shop: str, by: str, to: str, address: str) -> str:
    text = f"{by} asks you to join {shop}.\n\nThis link works once, for two weeks:\n{address}\n"
    return send(to, f"Join {shop}", text)


def new_password(to: str, address: str) -> str:
    begins = "Choose a new password by this link. It works once, for three days:"
    return send(to, "A new password", f"{begins}\n{address}\n\nIf you did not ask for it, do nothing.\n")


def changed(to: str, what: str) -> None:
    """Tell somebody what was changed about how they log in: if it was not them, they know now."""
    if to and can_send():
        send(to, f"{what} was changed", f"{what} was changed just now.\n\nIf that was not you, tell your shop lead at once.\n")
