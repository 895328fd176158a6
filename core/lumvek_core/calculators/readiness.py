"""Whether a machine is fit, and when it will be: the one judgement that every screen shows."""

import datetime as dt
from dataclasses import dataclass, field
from typing import Annotated, Literal

from ..bounds import AtMost, Within
from ..counted import counted
from ..registry import calculator
from .common import day

State = Literal["not_fit", "not_known", "not_looked_at", "ready_after", "ready"]
Figure = Annotated[int, Within(0, 1_000_000)]


@dataclass(frozen=True)
class JobToDo:
    """finish: the day on which it will be done; null: nobody knows. part_here: whether what it takes lies ready."""

    id: str
    done: bool
    finish: str | None = None
    part_here: bool = True


@dataclass(frozen=True)
class PartWanted:
    """promised: the day for which it is promised; null: no day."""

    id: str
    here: bool
    promised: str | None = None


@dataclass(frozen=True)
class ReadinessGiven:
    """Days are ISO. season_date: the first day it works. looked_pct: of what is to be looked at, by weight, null where nobody
    knows; enough_pct: that count as looked at. stops: open ones, in words. unseen_safety: safety items not seen; questions: not
    answered; undecided: findings."""

    today: str
    season_date: str | None = None
    looked_pct: Annotated[float, Within(0, 100)] | None = None
    enough_pct: Annotated[float, Within(0, 100)] = 80
    stops: Annotated[list[str], AtMost(1000)] = field(default_factory=list)
    unseen_safety: Figure = 0
    questions: Figure = 0
    undecided: Figure = 0
    jobs: Annotated[list[JobToDo], AtMost(5000)] = field(default_factory=list)
    parts: Annotated[list[PartWanted], AtMost(5000)] = field(default_factory=list)


@dataclass(frozen=True)
class Readiness:
    """ready_on: a day, or null where nobody can know it. late_days: that it lies on or after the season's first day; null where
    either is not known. because: what stands in the way, in words; empty only for one that is ready."""

    state: State
    ready_on: str | None
    late_days: int | None
    because: list[str]


@calculator
def readiness(given: ReadinessGiven) -> Readiness:
    """Whether a machine is fit to work, and if not, when it will be: the first that holds.

    A stop that is open: not_fit. Nobody knows how much was looked at: not_known. A safety item unseen, or less than enough
    looked at: not_looked_at. A question, a finding that nobody has decided, a job to do or a part not here: ready_after, on
    the latest of the open jobs' finishes and the open parts' promises; null where one of them has none, or a question or an
    undecided finding stands. Else ready, today. late_days: ready the day before the season begins is in time (0), on its first
    day one day late. Bad input: what is no day.
    """
    today = day(given.today, "today")
    begins = day(given.season_date, "season_date") if given.season_date is not None else None
    days = _days(given)
    in_the_way = _in_the_way(given)
    if given.stops:
        return Readiness("not_fit", None, None, list(given.stops))
    if given.looked_pct is None:
        return Readiness("not_known", None, None, ["nobody has looked at it"])
    if given.unseen_safety or given.looked_pct < given.enough_pct:
        return Readiness("not_looked_at", None, None, _not_seen(given))
    if not in_the_way:
        return Readiness("ready", today.isoformat(), _late(today, begins), [])
    unsure = given.questions or given.undecided or None in days
    ready_on = None if unsure else max(one for one in days if one is not None)
    return Readiness("ready_after", ready_on.isoformat() if ready_on else None, _late(ready_on, begins), in_the_way)


def _days(given: ReadinessGiven) -> list[dt.date | None]:
    """When each open job and part will be done or here. Raises BadInput."""
    jobs = [(job.done, job.finish, f"jobs.{i}.finish") for i, job in enumerate(given.jobs)]
    parts = [(part.here, part.promised, f"parts.{i}.promised") for i, part in enumerate(given.parts)]
    read = [(settled, day(text, field) if text is not None else None) for settled, text, field in (*jobs, *parts)]
    return [one for settled, one in read if not settled]


def _in_the_way(given: ReadinessGiven) -> list[str]:
    jobs = [job for job in given.jobs if not job.done]
    waiting = sum(not job.part_here for job in jobs)
    parts = sum(not part.here for part in given.parts)
    words = [
        (given.questions, f"{counted(given.questions, 'question')} not answered"),
        (given.undecided, f"{counted(given.undecided, 'finding')} not decided"),
        (len(jobs), f"{counted(len(jobs), 'job')} to do" + (f", {waiting} without its part" if waiting else "")),
        (parts, f"{counted(parts, 'part')} not here"),
    ]
    return [text for many, text in words if many]


def _not_seen(given: ReadinessGiven) -> list[str]:
    looked = given.looked_pct or 0.0
    words = [f"{counted(given.unseen_safety, 'safety item')} not seen"] if given.unseen_safety else []
    if looked < given.enough_pct:
        words.append(f"{int(looked)} % looked at, {given.enough_pct:g} % are enough")
    return words


def _late(ready_on: dt.date | None, begins: dt.date | None) -> int | None:
    return max(0, (ready_on - begins).days + 1) if ready_on and begins else None
