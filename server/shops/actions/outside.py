"""Trying those outside."""

from lumvek_core.errors import BadInput
from outside import background, mails

from .. import letters
from ..models import Member
from ..rights import action


@action("change the shop", atomic=False)
def try_mail(member: Member) -> None:
    """Send a letter to oneself, beside; without an address of one's own the mail server is only gone to. Raises BadInput."""
    if not mails.can_send():
        raise BadInput("mail", "no mail server is set")
    if member.user.email:
        text = f"It arrived. {member.shop.name} can send mail.\n"
        letters.send(member.user.email, "A letter to try the mail", text, pressed=True)
    else:
        background.later(mails.tried)
