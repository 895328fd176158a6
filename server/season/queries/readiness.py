"""Whether each machine is ready, and if not, when it will be: by how its places stand, its parts, and the plan that people work
by."""

import datetime as dt
from collections.abc import Iterable, Mapping
from dataclasses import dataclass

from django.utils import timezone

from fleet.models import Machine
from fleet.queries.machines import machines_for
from inspection.judging.machine_standing import Summed, together
from inspection.queries.board import standing_of
from lumvek_core.calculators.readiness import JobToDo, PartWanted, Readiness, ReadinessGiven
from lumvek_core.calculators.readiness import readiness as judged
from lumvek_core.counted import counted
from lumvek_core.planning.season.jobs import key_of
from lumvek_core.planning.season.readiness import WorkLeft, ready_between
from shops.days import said
from shops.models import Member
from shops.rights import may
from supply.queries import needs

from ..models import JobMark, OwnJob, SeasonPlan
from ..schemas import ReadinessOut, SeasonJobOut, SeasonPlanOut
from . import plans
from .arrivals import arrivals

STATES = ("not_fit", "not_known", "not_looked_at", "ready_after", "ready")
NOT_IN_THE_WAY = ("put-away",)
"""Work that a machine can wait for and still run."""
Shift = tuple[dt.datetime, dt.datetime]


def readiness(member: Member, only: int | None = None, plan: SeasonPlan | None = None) -> list[ReadinessOut]:
    """Of every machine that the member may see, or of one; what must not run first, then the latest. plan: instead of the one
    that people work by. The number of queries is the same however many there are."""
    wanted = machines_for(member) if only is None else machines_for(member).filter(pk=only)
    machines = {one.pk: one for one in wanted}
    plan = plan or plans.taken(member)
    knows = _Knowledge(member, plans.shown(member, plan) if plan else None)
    found = [
        _of(machines[pk], stands, knows, told=may(member, "see the season’s plan"))
        for pk, stands in standing_of(machines).items()
    ]
    return sorted(found, key=_worst_first)


def _worst_first(one: ReadinessOut) -> tuple[int, int, dt.date, str]:
    return STATES.index(one.state), -(one.late_days or 0), one.season_date or dt.date.max, one.name


@dataclass(frozen=True)
class _PlannedJob:
    """A job that is to be done. day: on which it will be; None: nobody knows. waits: for a part."""

    key: str
    day: dt.date | None
    waits: bool
    planned: SeasonJobOut | None = None


class _Knowledge:
    """What is known of the shop's work and parts. plan: the one that it is reckoned by."""

    def __init__(self, member: Member, plan: SeasonPlanOut | None) -> None:
        now = timezone.now()
        self.today, self.plan = timezone.localdate(now), plan
        self.arrivals = arrivals(member, now, if_ordered=False)
        self.planned: dict[int, list[SeasonJobOut]] = {}
        for job in plan.jobs if plan else []:
            self.planned.setdefault(job.machine_id, []).append(job)
        self.machines = {one.id: one for one in plan.machines} if plan else {}
        self.later = {one.id: one.ready for one in plan.later} if plan else {}
        self.reckoned = {
            part.id: dt.datetime.fromisoformat(part.arrives).date()
            for jobs in self.planned.values()
            for job in jobs
            for part in job.parts
            if part.arrives
        }
        self.shifts: list[Shift] = [
            (dt.datetime.fromisoformat(one.start), dt.datetime.fromisoformat(one.end))
            for person in (plan.people if plan else [])
            for one in person.shifts
        ]
        marks = JobMark.objects.in_shop(member.shop_id).filter(taken_back_at=None, kind=JobMark.Kind.DONE)
        self.done: dict[str, dt.datetime] = dict(marks.order_by("at").values_list("key", "at"))
        self.own: dict[int, list[str]] = {}
        for machine, uuid_ in OwnJob.objects.in_shop(member.shop_id).filter(taken_back_at=None).values_list("machine", "uuid"):
            self.own.setdefault(machine, []).append(f"own:{uuid_}")
        self.wanted: dict[int, set[str]] = {}
        for piece in needs.read(member, now).pieces:
            if not piece.fitted and not piece.consumable and piece.origin != "apart":
                self.wanted.setdefault(piece.machine.pk, set()).add(piece.called)

    def jobs(self, machine: Machine, stands: Summed) -> list[_PlannedJob]:
        """The jobs of a machine that are not done, those that no plan has yet among them."""
        planned = [job for job in self.planned.get(machine.pk, []) if job.kind not in NOT_IN_THE_WAY]
        found = [self._planned(job) for job in planned if not job.done]
        known = {job.key for job in found}
        for key, read_at in self._to_do(machine, stands):
            whole = f"{machine.uuid}:{key}"
            done = self.done.get(whole)
            if whole not in known and (done is None or (read_at is not None and done <= read_at)):
                found.append(_PlannedJob(whole, None, waits=False))
                known.add(whole)
        return found

    def _to_do(self, machine: Machine, stands: Summed) -> Iterable[tuple[str, dt.datetime | None]]:
        for one in stands.to_do:
            yield key_of(one.what), dt.datetime.fromisoformat(one.read_at)
        yield from ((key, None) for key in self.own.get(machine.pk, []))
        if stands.unread:
            yield "look", timezone.now()

    def _planned(self, job: SeasonJobOut) -> _PlannedJob:
        end = dt.datetime.fromisoformat(job.stretches[-1].end).date() if job.stretches else None
        parts = [self.arrivals[part.id] for part in job.parts if part.id in self.arrivals]
        out = [part for part in parts if not part.here]
        if job.pin_trouble and not job.pin_trouble.startswith(plans.BEFORE_PART):
            end = None  # nobody can say when it will be done, but not as it was set
        return _PlannedJob(job.key, self._ahead(end), bool(out), job)

    def _ahead(self, day: dt.date | None) -> dt.date | None:
        """A day that is to come; one that has passed says nothing."""
        return day if day and day >= self.today else None

    def parts(self, machine: Machine, *, if_ordered: bool) -> list[PartWanted]:
        """What a machine needs, with the day for which it is promised; or with the one the plan reckons with."""
        found = []
        for number in sorted(self.wanted.get(machine.pk, ())):
            part = self.arrivals.get(number)
            promised = part.arrives.date() if part and part.arrives else self.reckoned.get(number) if if_ordered else None
            day = self._ahead(promised)
            found.append(PartWanted(number, bool(part and part.here), day.isoformat() if day else None))
        return found


def _of(machine: Machine, stands: Mapping[Machine, Summed], knows: _Knowledge, *, told: bool) -> ReadinessOut:
    whole = together(stands.values())
    jobs = [job for one, summed in stands.items() for job in knows.jobs(one, summed)]
    found, parts = _judged(machine, whole, stands, jobs, knows, if_ordered=False)
    if_ordered, _ = _judged(machine, whole, stands, jobs, knows, if_ordered=True)
    in_plan = knows.machines.get(machine.pk)
    planned = [job.planned for job in jobs if job.planned]
    first, last = _between(found, planned, knows.shifts)
    roughly = None if whole.questions or whole.undecided else knows.later.get(machine.pk)
    return ReadinessOut(
        machine=machine.pk,
        name=machine.name,
        state=found.state,
        said=_said(found, if_ordered, first, last, roughly),
        short=_short(found, if_ordered),
        ready_on=_date(found.ready_on),
        if_ordered=_date(if_ordered.ready_on) if not found.ready_on else None,
        late_days=found.late_days if found.ready_on else if_ordered.late_days,
        because=found.because,
        stops=whole.stops,
        pins=[f"{job.name}: {job.pin_trouble}" for job in planned if job.pin_trouble],
        looked_pct=whole.looked_pct,
        season_date=machine.season_date,
        first=first,
        last=last,
        may_be_late=bool(last and machine.season_date and not found.late_days and last >= machine.season_date),
        words=in_plan.words if in_plan and told and found.state in ("not_fit", "ready_after") else "",
        hours_left=sum(job.minutes * job.hands for job in planned) / 60,
        jobs_left=len(jobs),
        parts_out=sum(not part.here for part in parts),
    )


def _said(found: Readiness, if_ordered: Readiness, first: dt.date | None, last: dt.date | None, roughly: dt.date | None) -> str:
    """``Ready between 7 Dec 2026 and 9 Dec 2026``: the judgement in a few words. roughly: when it will be ready by a plan that
    it is not in."""
    known = found if found.ready_on else if_ordered
    late = f", {counted(known.late_days, 'day')} late" if known.late_days else ""
    match found.state:
        case "not_fit":
            return "Do not run or drive it"
        case "not_known":
            return "Not known: nobody has looked at it as a whole"
        case "not_looked_at":
            return "Not ready: too little looked at"
        case "ready":
            return "Ready"
    if first and last and first != last:
        return f"Ready between {said(first)} and {said(last)}{late}"
    if found.ready_on:
        return f"Ready {said(dt.date.fromisoformat(found.ready_on))}{late}"
    if if_ordered.ready_on:
        return f"Ready {said(dt.date.fromisoformat(if_ordered.ready_on))}{late} if its parts are ordered now"
    if roughly:
        return f"Not planned yet: roughly {said(roughly)}"
    return "Not ready, and no day for it yet"


SHORT = {"not_fit": "not fit", "not_known": "not looked at", "not_looked_at": "too little seen", "ready": "ready"}


def _short(found: Readiness, if_ordered: Readiness) -> str:
    """``ready 9 Dec``: where there is room for two or three words."""
    if found.state in SHORT:
        return SHORT[found.state]
    known = found if found.ready_on else if_ordered
    if known.late_days:
        return f"{counted(known.late_days, 'day')} late"
    return f"ready {said(dt.date.fromisoformat(known.ready_on))}" if known.ready_on else "no day yet"


def in_words(member: Member) -> dict[int, str]:
    """The judgement of each machine in one line, for what is printed and sent."""
    return {one.machine: f"{one.said}: {', '.join(one.because)}" if one.because else one.said for one in readiness(member)}


def _judged(
    machine: Machine,
    whole: Summed,
    stands: Iterable[Machine],
    jobs: Iterable[_PlannedJob],
    knows: _Knowledge,
    *,
    if_ordered: bool,
) -> tuple[Readiness, list[PartWanted]]:
    parts = [part for one in stands for part in knows.parts(one, if_ordered=if_ordered)]
    given = ReadinessGiven(
        today=knows.today.isoformat(),
        season_date=machine.season_date.isoformat() if machine.season_date else None,
        looked_pct=whole.looked_pct,
        stops=whole.stops,
        unseen_safety=whole.unseen_safety,
        questions=whole.questions,
        undecided=whole.undecided,
        jobs=[JobToDo(job.key, False, job.day.isoformat() if job.day else None, not job.waits) for job in jobs],
        parts=parts,
    )
    return judged(given), parts


def _date(text: str | None) -> dt.date | None:
    return dt.date.fromisoformat(text) if text else None


def _between(found: Readiness, jobs: Iterable[SeasonJobOut], shifts: list[Shift]) -> tuple[dt.date | None, dt.date | None]:
    """The days between which it will mostly be ready, where the last job that is left is what it waits for."""
    left = [job for job in jobs if job.stretches]
    ends = max((job.stretches[-1].end for job in left), default="")
    if found.state != "ready_after" or not ends or found.ready_on != ends[:10]:
        return None, None
    between = ready_between(dt.datetime.fromisoformat(ends), [WorkLeft(job.minutes, job.low, job.high) for job in left], shifts)
    return between.first.date(), between.last.date()
