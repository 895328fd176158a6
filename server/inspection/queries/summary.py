"""Before a walk-around is closed: what is missing, what was passed over, what is often missed."""

from lumvek_core import positions
from lumvek_core.catalogue.model import Check
from lumvek_core.catalogue.rule_book import RuleBook as CoreBook
from shops.models import Member

from ..models import WalkAround
from ..schemas_views import HoleOut, MissedOut, SummaryOut
from . import rule_books, serializers, serializers_findings, walk_arounds


def build(walk_around: WalkAround, book: CoreBook, member: Member) -> SummaryOut:
    """The summary; complete only when every place has been seen, does not apply, and nothing waits for an answer."""
    places = {(place.check, place.position): place for place in walk_arounds.places(walk_around, book, member)}
    holes: list[HoleOut] = []
    missed: list[MissedOut] = []
    for check in rule_books.checks_of(walk_around):
        keys = [position.key for position in positions.expand(check.per, walk_around.layout)]
        open_at = [key for key in keys if (check.key, key) not in places]
        asked = [key for key in keys if (check.key, key) in places and places[check.key, key].ask]
        if not check.optional:
            holes += _holes(check, book.station_of[check.key].name, open_at, asked, len(keys))
        if check.often_missed:
            done = len(keys) - len(open_at) - len(asked)
            missed.append(
                MissedOut(check=check.key, name=check.name, station=book.station_of[check.key].name, done=done, total=len(keys))
            )
    findings = serializers_findings.findings(walk_around, book, member)
    not_seen = findings.not_seen
    return SummaryOut(
        walk_around=serializers.brief(walk_around),
        machine=serializers.machine_out(walk_around.machine),
        complete=not holes and not not_seen,
        stations=findings.stations,
        holes=holes,
        not_seen=not_seen,
        missed=missed,
        stops=[one for group in findings.groups for one in group.findings if one.place.severity == "stop"],
        notes=serializers.notes(walk_around.machine),
        people=[serializers.person(one) for one in walk_around.people.select_related("user")],
        may_record=serializers.may_record(walk_around, member),
    )


def _holes(check: Check, station: str, open_at: list[str], asked: list[str], total: int) -> list[HoleOut]:
    found = []
    for keys, waits in ((open_at, False), (asked, True)):
        if keys:
            places = f"all {total} places" if len(keys) == total > 1 else positions.in_words(keys)
            found.append(
                HoleOut(check=check.key, name=check.name, station=station, places=places, count=len(keys), asked=waits)
            )
    return found
