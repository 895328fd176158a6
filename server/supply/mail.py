"""What an order says to a supplier, as e-mail."""

from dataclasses import dataclass

from shops.models import Member

from .models import Order


@dataclass(frozen=True)
class Letter:
    to: str
    subject: str
    text: str


def letter(member: Member, order: Order) -> Letter:
    """The text of an order, for e-mail or to be read over the telephone."""
    lines = "\n".join(f"{line.quantity:>5} x  {line.number:<18} {line.name}" for line in order.lines.all())
    way = (
        f"We fetch it on {order.run_date:%A %d %B}."
        if order.way == "fetch"
        else f"Please send it by {order.way}, to be here on {order.run_date:%A %d %B}."
    )
    # What the desk has taken is not to be entered a second time from a letter.
    begins = (
        f"This is order no. {order.reference}, which your desk has taken already; please do not enter it again:"
        if order.reference
        else "We order:"
    )
    text = (
        f"To {order.supplier.name}\n\n{begins}\n\n{lines}\n\n{way}\n"
        "Please tell us which of it you have, what follows and when, and what you cannot get.\n"
        f"Our number for this order: {str(order.uuid)[:8]}\n\n{member.name}\n{member.shop.name}\n"
    )
    return Letter(order.supplier.email, f"Order {str(order.uuid)[:8]} from {member.shop.name}", text)
