"""Recording the readings of a file."""

import uuid

from shops.access import Conflict
from shops.models import Member
from shops.rights import action

from ..judging.readings_table import Report, read
from ..queries import walk_arounds
from . import recording


@action("record readings")
def take(member: Member, walk_around_id: uuid.UUID, text: str) -> Report:
    """Record what a file has to give; what it would refuse is refused and named, nothing else is lost."""
    walk_around = walk_arounds.walk_around_for(member, walk_around_id)
    if walk_around.finished_at:
        raise Conflict("This walk-around is finished; what is read now belongs to a new one.")
    report = read(member, walk_around, text)
    if report.new:
        recording.record_readings(member, walk_around_id, report.new)
    return report
