"""Every job there is to do on a shop's machines, each with what it waits for."""

import datetime as dt
import uuid
from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field, replace

from django.utils import timezone

from calibration.queries import page as calibrations
from fleet.models import Machine
from fleet.queries.machines import machines_for
from inspection.judging.machine_standing import summed
from inspection.models import WalkAround
from inspection.queries import coupled, rule_books
from inspection.queries.preparing import counts_of
from inspection.queries.standing import LOOKED_WITHIN
from inspection.queries.stands_now import coupled_to
from logbook.queries import upkeep
from lumvek_core import positions
from lumvek_core.catalogue import in_force
from lumvek_core.catalogue.rounds import CHANGEOVER, WHOLE
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.planning.season import jobs
from lumvek_core.planning.season.jobs import JobDraft, Learned
from shops.access import there
from shops.models import Member

from ..models import JobMark, OwnJob
from ..schemas import OwnJobTyped
from .arrivals import Arrival, arrivals
from .found_work import Dated, of_findings

FAR_OFF = dt.timedelta(days=60)
"""A machine that is not needed for so long is put away meanwhile."""
PRESSING = ("overdue", "due", "soon")


@dataclass
class Job:
    """A job with what is known of it here. done_min: what was worked on it already. since: who is at it since when. reason,
    not_before: why it could not be done, and until when."""

    key: str
    machine: Machine
    draft: JobDraft
    time: Learned
    parts: list[Arrival] = field(default_factory=list)
    pin: dict[str, object] = field(default_factory=dict)
    done_min: float = 0.0
    begun: JobMark | None = None
    reason: str = ""
    not_before: dt.date | None = None

    @property
    def minutes_left(self) -> float:
        """What is still to do: a few minutes in any case."""
        return max(5.0, self.time.minutes - self.done_min)


def open_jobs(member: Member, now: dt.datetime) -> list[Job]:
    """Everything that is to do on the machines of the shop, a machine's in working order."""
    machines = {machine.pk: machine for machine in machines_for(member)}
    marks = _marks(member)
    taken = _taken(marks)
    found = []
    for machine, draft, read_at in _drafts(member, machines, now):
        key = f"{machine.uuid}:{draft.key}"
        mine = [mark for mark in marks if mark.key == key]
        done = next((mark.at for mark in reversed(mine) if mark.kind == JobMark.Kind.DONE), None)
        if done and (read_at is None or done > read_at):
            continue
        inside = {one: f"{machine.uuid}:{one}" for one in draft.after}
        whole = replace(draft, key=key, after=[inside.get(one, one) for one in draft.after])
        found.append(_with_marks(Job(key, machine, whole, jobs.learned(draft.minutes, taken.get(draft.of, []))), mine))
    there = {job.key for job in found}
    waited_for = arrivals(member, now)
    for job in found:
        # What must come before it and is done is nothing to wait for.
        job.draft = replace(job.draft, after=[key for key in job.draft.after if key in there])
        job.parts = [waited_for[part] for part in job.draft.parts if part in waited_for and not waited_for[part].here]
    _after_the_work(found)
    return found


def own_job(member: Member, uuid_: uuid.UUID) -> OwnJobTyped:
    """A job as it was typed. Raises NotFoundHere."""
    found = there(OwnJob.objects.in_shop(member.shop_id).filter(uuid=uuid_)).get()
    return OwnJobTyped(
        machine=found.machine_id,
        name=found.name,
        minutes=found.minutes,
        hands=found.hands,
        skill=found.skill,
        place=found.place,
        lift=found.lift,
    )


def _marks(member: Member) -> list[JobMark]:
    return list(JobMark.objects.in_shop(member.shop_id).filter(taken_back_at=None).select_related("by", "machine"))


def _taken(marks: Iterable[JobMark]) -> dict[str, list[float]]:
    """What work of each kind really took, as a share of what was reckoned."""
    found: dict[str, list[float]] = {}
    for mark in marks:
        if mark.kind == JobMark.Kind.DONE and mark.minutes and mark.reckoned:
            found.setdefault(mark.of, []).append(mark.minutes / mark.reckoned)
    return found


def _with_marks(job: Job, marks: Iterable[JobMark]) -> Job:
    for mark in marks:
        match mark.kind:
            case JobMark.Kind.PIN:
                job.pin = mark.pin
            case JobMark.Kind.START:
                job.begun, job.reason, job.not_before = mark, "", None
            case JobMark.Kind.STOP:
                if job.begun:
                    job.done_min += (mark.at - job.begun.at).total_seconds() / 60
                job.begun = None
            case JobMark.Kind.CANNOT:
                job.reason, job.not_before, job.begun = mark.reason, mark.not_before, None
            case JobMark.Kind.DONE:
                job.done_min, job.begun = 0.0, None
    return job


def _drafts(member: Member, machines: Mapping[int, Machine], now: dt.datetime) -> list[Dated]:
    times = rule_books.shipped().work
    found: list[Dated] = []
    rounds = _rounds(machines, now)
    known = [one for one in machines.values() if one.model.family in rule_books.shipped().families]
    books = rule_books.now_of_each(known, member.shop)
    for pk, stands in summed(machines).items():
        machine = machines[pk]
        if pk not in rounds and pk in books:
            found.append((machine, jobs.looking(times, machine.name, _places(machine, books[pk]), "not begun"), None))
        elif stands.unread and pk in rounds:
            state: jobs.Round = "under way" if rounds[pk] is None else "finished"
            found.append((machine, jobs.looking(times, machine.name, stands.unread, state), rounds[pk]))
    found += of_findings(member, machines, now)
    found += _changeovers(machines)
    found += _calibrations(machines)
    found += _services(member, machines.values())
    found += [(machines[one.machine_id], _own(one), None) for one in OwnJob.objects.in_shop(member.shop_id).filter(
        taken_back_at=None, machine__in=machines)]  # fmt: skip
    return found


def _rounds(machines: Mapping[int, Machine], now: dt.datetime) -> dict[int, dt.datetime | None]:
    """When each machine was last looked at as a whole, itself or as a header; None while it is being looked at. Two queries."""
    rows = WalkAround.objects.filter(discarded_at=None, started_at__gte=now - LOOKED_WITHIN, phase__in=WHOLE)
    own = rows.filter(machine__in=machines).order_by("started_at").values_list("machine", "finished_at")
    as_header = rows.filter(headers__in=machines).order_by("started_at").values_list("headers", "finished_at")
    found: dict[int, dt.datetime | None] = {}
    for machine, finished_at in (*as_header, *own):
        found[machine] = None if machine in found and found[machine] is None else finished_at
    return found


def _places(machine: Machine, book: RuleBook) -> int:
    """How many places a winter's walk-around of a machine looks at."""
    counts = {coupled.long(machine, thing): many for thing, many in counts_of(machine).items()}
    options = [coupled.long(machine, option) for option in machine.options]
    checks = in_force.applicable(book, in_force.Scope(options, "winter", "", []))
    layout = in_force.layout(book, counts)
    return sum(len(positions.expand(check.per, layout)) for check in checks)


def _open_places(walk: WalkAround) -> int:
    seen = sum(sum(station.values()) for station in walk.tallies.values())
    return max(0, sum(int(station["total"]) for station in walk.stations) - seen)


def _services(member: Member, machines: Iterable[Machine]) -> list[Dated]:
    times, today = rule_books.shipped().work, timezone.localdate()
    listed = list(machines)
    due = upkeep.due_of(member, listed)
    found: list[Dated] = [
        (machine, jobs.service(times, machine.name, one.key, one.name), None)
        for machine in listed
        for one in due[machine.pk].services
        if one.state in PRESSING
    ]
    idle = [one for one in listed if one.season_date is None or one.season_date - today > FAR_OFF]
    left = upkeep.put_away_left(member, [one for one in idle if one.model.family in rule_books.shipped().families])
    found += [(one, jobs.putting_away(times, one.name, left[one.pk]), None) for one in idle if left.get(one.pk)]
    return found


def _changeovers(machines: Mapping[int, Machine]) -> list[Dated]:
    """Those that are under way. One query."""
    times = rule_books.shipped().work
    rows = WalkAround.objects.filter(machine__in=machines, phase=CHANGEOVER, finished_at=None, discarded_at=None)
    return [
        (machines[walk.machine_id], jobs.changing_over(times, walk.machine.name, left), None)
        for walk in rows.select_related("machine")
        if (left := _open_places(walk))
    ]


def _calibrations(machines: Mapping[int, Machine]) -> list[Dated]:
    """What is due on each machine, in one go: they follow each other on level ground."""
    shipped = rule_books.shipped()
    found: list[Dated] = []
    headers = coupled_to(machines.values())
    due = calibrations.due_of({machine: headers[pk] for pk, machine in machines.items()})
    for pk, machine in machines.items():
        if due[pk].due:
            names = [shipped.calibrations.by_key[one.key].name for one in due[pk].due]
            found.append((machine, jobs.calibrating(shipped.work, machine.name, names), None))
    return found


def _after_the_work(found: list[Job]) -> None:
    """A machine is calibrated when the work on it is done that can be done: what nobody can say when it comes holds nothing
    up."""
    done = [job for job in found if job.draft.kind in ("work", "refit") and all(part.arrives for part in job.parts)]
    for job in found:
        if job.draft.kind == "calibrate":
            job.draft = replace(job.draft, after=[one.key for one in done if one.machine.pk == job.machine.pk])


def _own(one: OwnJob) -> JobDraft:
    return JobDraft(
        key=f"own:{one.uuid}",
        kind="own",
        machine=one.machine.name,
        name=one.name,
        of=f"own:{one.name.lower()[:80]}",
        minutes=one.minutes,
        hands=one.hands,
        skill=one.skill or None,
        place=one.place,  # type: ignore[arg-type]
        lift=one.lift,
    )
