"""A plan, from slots and numbers back to names and the clock."""

from collections.abc import Mapping
from datetime import datetime

from .causes import Why
from .model import MachineReady, Objective, PlannedJob, PostureMove, SeasonPlan, Span, Unplaced
from .pins import Pinned, chain_conflict
from .planner import Solved
from .problem import Placed, Problem, Work
from .rules import changes_of

NO_ROOM = "there is no room for it in the plan"


def answer(problem: Problem, pinned: Pinned, solved: Solved, why: Mapping[int, Why]) -> SeasonPlan:
    placed, given = solved.draft.placed, problem.given
    weighted_h = problem.time.slot.total_seconds() / 3600 / 100
    jobs = {work.job.id: _job(problem, pinned, work, placed[work.number]) for work in problem.works if work.number in placed}
    reasons = {name: left_out.words for name, left_out in problem.left_out.items()}
    late, bound = solved.score[1] * weighted_h, solved.bound * weighted_h
    return SeasonPlan(
        jobs=[jobs[job.id] for job in given.jobs if job.id in jobs],
        posture_moves=_posture_moves(problem, placed),
        machines=[_machine(problem, i, placed, why.get(i)) for i in range(len(given.machines))],
        unplaced=[Unplaced(job.id, reasons.get(job.id, NO_ROOM)) for job in given.jobs if job.id not in jobs],
        conflicts=[*pinned.conflicts, *(chain_conflict(problem, *pair) for pair in sorted(solved.draft.broken))],
        objective=Objective(late, bound, solved.score[2], solved.score[3],
                            max((part.end for job in jobs.values() for part in job.parts), default=None)),
        optimal=solved.optimal,
        gap_pct=100 * (late - bound) / late if late > 0 else 0.0,
    )  # fmt: skip


def _job(problem: Problem, pinned: Pinned, work: Work, at: Placed) -> PlannedJob:
    given = problem.given
    if work.number in pinned.stretches:
        stretches = [pinned.stretches[work.number]]
    else:
        calendar = work.calendars.get(at.crew)
        if calendar is None or work.number in pinned.held:  # it may lie in wet weather, or be done without the skill
            calendar = problem.time.calendar(at.crew, dry_only=False)
        stretches = problem.time.stretches(calendar, at.start, work.slots)
    return PlannedJob(
        id=work.job.id,
        parts=[Span(_words(start), _words(end)) for start, end in stretches],
        technicians=[given.technicians[i].name for i in at.crew],
        place=None if at.spot is None else given.places[problem.spots[at.spot].place].name,
        posture=work.posture,
    )


def _posture_moves(problem: Problem, placed: Mapping[int, Placed]) -> list[PostureMove]:
    minutes = problem.time.slot.total_seconds() / 60
    found = [
        PostureMove(
            machine=problem.given.machines[machine].name,
            start=_words(problem.time.finished(free)),
            from_=before,
            to=then,
            minutes=problem.between[before, then] * minutes,
        )
        for machine in problem.of_machine
        for before, then, free in changes_of(problem, machine, placed)
    ]
    return sorted(found, key=lambda move: (move.start, move.machine))


def _machine(problem: Problem, i: int, placed: Mapping[int, Placed], why: Why | None) -> MachineReady:
    given, due, time = problem.given.machines[i], problem.due[i], problem.time
    mine = [job for job in problem.given.jobs if job.machine == given.name]
    works = problem.of_machine.get(i, [])
    ends = [time.finished(placed[work.number].end) for work in works if work.number in placed]
    ready = max(ends, default=time.now) if len(ends) == len(mine) else None
    last = ready or (time.finished(len(time)) if len(time) else time.ends)
    late_h = max(0.0, (last - due).total_seconds() / 3600) if due and mine else 0.0
    return MachineReady(
        name=given.name,
        ready=_words(ready) if ready else None,
        due=_words(due) if due else None,
        late_h=late_h,
        cause=why.cause if why else "none" if late_h <= 0 else "season_date",
        fixes=why.fixes if why else [],
    )


def _words(when: datetime) -> str:
    return when.isoformat(timespec="minutes")
