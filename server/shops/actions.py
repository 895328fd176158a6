"""What a member decides for themselves."""

from .models import Member, Units
from .rights import action


@action("choose units")
def choose_units(member: Member, units: str) -> None:
    """Units to read in; what is typed is understood in any."""
    member.units = Units(units)
    member.save(update_fields=["units"])
