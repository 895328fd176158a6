"""What was found at work comes back in winter: a finished first-field or emergence walk-around leaves notes at the stations."""

import uuid

from lumvek_core.vocabulary import PHASE_NAMES
from shops.models import Member
from shops.taken_back import take_back

from ..models import OperatorNote, WalkAround
from ..queries import coupled
from ..queries.seen_in_field import FIELD_ROUNDS, not_right
from ..queries.serializers import system_of

LONGEST = 500


def keep(member: Member, walk_around: WalkAround) -> None:
    """Note what was not right, each check at the station where it is looked at. Opened and finished again, the notes of the
    time before are taken back and written anew."""
    if walk_around.phase not in FIELD_ROUNDS:
        return
    owners = coupled.of(walk_around)
    take_back(member, OperatorNote.objects.filter(uuid__in=_earlier(walk_around)))
    for one in not_right(walk_around, system_of(member)):
        OperatorNote.objects.create(
            uuid=_uuid(walk_around, walk_around.version, one.check),
            machine=owners.owner(one.station),
            station_key=one.station,
            text=f"{PHASE_NAMES[walk_around.phase]}: {one.text}"[:LONGEST],
            by=member.user,
        )


def _earlier(walk_around: WalkAround) -> list[uuid.UUID]:
    checks = walk_around.verdicts.values_list("check_key", flat=True).distinct()
    return [_uuid(walk_around, version, check) for version in range(1, walk_around.version) for check in checks]


def _uuid(walk_around: WalkAround, version: int, check: str) -> uuid.UUID:
    return uuid.uuid5(walk_around.pk, f"noted {version} {check}")
