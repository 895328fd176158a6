"""How those outside answered last."""

from django.conf import settings

from outside import lines as outside_lines
from outside import mails
from outside.models import Line

from ..schemas import OutsideLineOut


def lines() -> list[OutsideLineOut]:
    """Each of them, in the same order. One query."""
    there = {one.name: one for one in Line.objects.all()}
    connected = {
        Line.Name.MAIL: mails.can_send(),
        Line.Name.DESK: bool(settings.DESK_URL),
        Line.Name.MODEMS: bool(settings.TELEMATICS_URL),
    }
    return [_line(name, there.get(name), connected[name]) for name in Line.Name]


def _line(name: Line.Name, line: Line | None, connected: bool) -> OutsideLineOut:
    return OutsideLineOut(
        key=name.value,  # type: ignore[arg-type]
        name=str(name.label),
        connected=connected,
        trouble=line.trouble if line else "",
        rests=outside_lines.resting_words(line) if line and line.rests_until else "",
        asked_at=line.asked_at if line else None,
    )
