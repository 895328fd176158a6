"""How the demo tells what was found: check, position, and the reading as the client would send it."""

import datetime as dt
import uuid
from collections.abc import Iterable, Iterator, Mapping, Sequence

from fleet.models import Machine
from inspection.actions import postures, recording, starting
from inspection.judging.typed_readings import NewReading
from inspection.models import WalkAround
from inspection.queries import preparing, rule_books
from lumvek_core import positions
from shops.models import Member

from .sample_readings import usual

Told = tuple[str, str, dict[str, object]]
NAMESPACE = uuid.UUID("5a110e0b-41d6-4e00-8000-000000000000")


def made_uuid(*parts: object) -> uuid.UUID:
    """The same for the same words, so that loading twice is loading once."""
    return uuid.uuid5(NAMESPACE, ":".join(map(str, parts)))


def seen(*raw: str, **more: object) -> dict[str, object]:
    return {"raw": list(raw), **more}


def walk_around(
    member: Member, machine: Machine, name: str, begun: dt.datetime, wanted: preparing.Wanted | None = None
) -> WalkAround:
    """Begin a walk-around some time ago."""
    made = starting.start(member, machine, made_uuid(name), wanted)
    WalkAround.objects.filter(pk=made.pk).update(started_at=begun)
    return WalkAround.objects.select_related("machine").get(pk=made.pk)


def told_as_finished(walk_around: WalkAround, at: dt.datetime) -> None:
    """As if it had been finished some time ago."""
    WalkAround.objects.filter(pk=walk_around.pk).update(finished_at=at)
    walk_around.events.update(at=at)


def tell(member: Member, walk_around: WalkAround, name: str, told: Iterable[Told], every_s: int = 20) -> None:
    """Record readings one after the other, counted from the walk-around's start."""
    new = [
        NewReading(
            uuid=made_uuid(name, check, position),
            check=check,
            position=position,
            taken_at=walk_around.started_at + dt.timedelta(seconds=every_s * i),
            **what,  # type: ignore[arg-type]
        )
        for i, (check, position, what) in enumerate(told)
    ]
    recording.record_readings(member, walk_around.pk, new)


def usual_but(
    walk_around: WalkAround,
    apart: Mapping[tuple[str, str], Sequence[str]],
    visits: int | None = None,
    skip: Sequence[str] = (),
    hours: float | None = None,
) -> Iterator[Told]:
    """Sound readings in the order of the plan, for the first `visits` postures, but for what stood `apart`. hours: where the
    counter stood then."""
    checks = {check.key: check for check in rule_books.checks_of(walk_around)}
    stood = hours if hours is not None else walk_around.machine.hours or 0
    for visit in walk_around.plan["visits"][:visits]:
        for key in visit["checks"]:
            check = checks[key]
            if check.optional or key in skip:
                continue
            for position in positions.expand(check.per, walk_around.layout):
                raw = apart.get((key, position.key), usual(check, stood, walk_around.started_at))
                feeler = {"feeler": "card"} if check.rule.kind == "contact" else {}
                yield key, position.key, seen(*raw, posture=visit["posture"], **feeler)


def confirm(member: Member, walk_around: WalkAround, name: str, visits: int) -> None:
    """Confirm the postures of the first visits, a quarter of an hour apart."""
    for i, visit in enumerate(walk_around.plan["visits"][:visits]):
        at = walk_around.started_at + dt.timedelta(minutes=15 * i)
        postures.confirm_posture(member, walk_around.pk, made_uuid(name, "hold", i), visit["posture"], at)
