"""Jobs out of what was found: how long, by how many, with which skill, where; stripping and refitting apart, once for all the
work that lies behind them."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, field, replace
from typing import Literal

from ...catalogue.lists import Minutes, StripDown, WorkPlace, WorkTimes
from ...catalogue.model import Check
from ...counted import counted

JobKind = Literal["work", "strip", "refit", "look", "put-away", "service", "changeover", "calibrate", "own"]


@dataclass(frozen=True)
class Found:
    """Work that was decided on: what a check calls for at its places, or a part that several checks have renewed. what: the
    check, or the part's slot. labour_h: to renew it at one place, where that is known. renews: slots, as the family calls them.
    parts: ids of what it waits for."""

    machine: str
    what: str
    name: str
    action: str
    places: list[str]
    posture: str
    hazards: list[str] = field(default_factory=list)
    tools: list[str] = field(default_factory=list)
    labour_h: float | None = None
    renews: list[str] = field(default_factory=list)
    parts: list[str] = field(default_factory=list)


@dataclass(frozen=True)
class JobDraft:
    """A job before anybody knows who does it when. key: the same for the same work each time it is asked for. of: what is
    learned from how long it took; minutes: by the catalogue. weather_bound: on a machine that passes no door it waits for dry
    weather; indoors that matters nothing."""

    key: str
    kind: JobKind
    machine: str
    name: str
    of: str
    minutes: float
    hands: int = 1
    skill: str | None = None
    posture: str | None = None
    place: Literal["bay", "outside", "bench", "field"] = "bay"
    lift: bool = False
    weather_bound: bool = True
    splittable: bool = True
    parts: list[str] = field(default_factory=list)
    after: list[str] = field(default_factory=list)
    tools: list[str] = field(default_factory=list)
    hazards: list[str] = field(default_factory=list)
    places: list[str] = field(default_factory=list)


NEW = "new:"
"""What is worked on where a part is renewed."""


def action_of(check: Check, severity: str, action: str) -> str:
    """What a finding calls for; of one that is only watched, what its check does."""
    return action if severity != "watch" else check.action


def what_of(check: Check, severity: str, action: str) -> str:
    """What a finding has worked on: the part that is renewed, whichever checks say so, or the thing that is checked."""
    renews = action_of(check, severity, action) == "replace" and check.renewed_parts
    return f"{NEW}{check.renewed_parts[0].slot}" if renews else check.key


def key_of(what: str) -> str:
    """Key of the job that works on it."""
    return f"work:{what}"


def from_findings(times: WorkTimes, strip_downs: Sequence[StripDown], found: Iterable[Found]) -> list[JobDraft]:
    """The work of a machine, each strip-down before and its refitting after all the work that needs it."""
    jobs: list[JobDraft] = []
    behind: dict[str, tuple[StripDown, list[JobDraft]]] = {}
    for one in found:
        job = _work(times, one)
        down = _strip_down(times, strip_downs, one)
        if down is None:
            jobs.append(job)
            continue
        # What was reckoned for getting at it is a job of its own.
        job = replace(job, minutes=max(_minutes(times, one.action).first, job.minutes - down.hours * 60))
        behind.setdefault(down.key, (down, []))[1].append(job)
    for down, works in behind.values():
        strip, refit = _apart(times, down, works)
        jobs += [strip, *(replace(work, after=[strip.key]) for work in works), refit]
    return jobs


def _work(times: WorkTimes, one: Found) -> JobDraft:
    places = max(1, len(one.places))
    usual = _minutes(times, one.action).of(places)
    minutes = one.labour_h * 60 * places if one.action == "replace" and one.labour_h is not None else usual
    where = times.postures.get(one.posture, WorkPlace())
    return JobDraft(
        key=key_of(one.what),
        kind="work",
        machine=one.machine,
        name=one.name,
        of=key_of(one.what),
        minutes=minutes,
        hands=where.hands,
        skill=next((times.skills[hazard] for hazard in one.hazards if hazard in times.skills), None),
        posture=None if where.place == "bench" else one.posture,
        place=where.place,
        lift=where.lift,
        weather_bound=where.place != "bench",
        parts=one.parts,
        tools=one.tools,
        hazards=one.hazards,
        places=one.places,
    )


def _minutes(times: WorkTimes, action: str) -> Minutes:
    return times.actions.get(action, times.actions["investigate"])


def _strip_down(times: WorkTimes, strip_downs: Sequence[StripDown], one: Found) -> StripDown | None:
    """The longest strip-down that renewing these parts needs, where it is long enough to be a job of its own."""
    needed = [down for down in strip_downs if set(down.for_) & set(one.renews) and down.hours >= times.strip_apart_h]
    return max(needed, key=lambda down: down.hours, default=None)


def _apart(times: WorkTimes, down: StripDown, works: Sequence[JobDraft]) -> tuple[JobDraft, JobDraft]:
    first = works[0]
    strip = JobDraft(
        key=f"strip:{down.key}",
        kind="strip",
        machine=first.machine,
        name=f"{down.name}: strip",
        of=f"strip:{down.key}",
        minutes=down.hours * 60 * times.strip_share,
        hands=down.hands,
        posture=next((work.posture for work in works if work.posture), None),
        place=first.place if first.place != "bench" else "bay",
        tools=list(dict.fromkeys(tool for work in works for tool in work.tools)),
        hazards=list(dict.fromkeys(hazard for work in works for hazard in work.hazards)),
    )
    refit = replace(
        strip,
        key=f"refit:{down.key}",
        kind="refit",
        name=f"{down.name}: refit",
        of=f"refit:{down.key}",
        minutes=down.hours * 60 * (1 - times.strip_share),
        after=[work.key for work in works],
    )
    return strip, refit


Round = Literal["not begun", "under way", "finished"]


def looking(times: WorkTimes, machine: str, open_places: int, state: Round) -> JobDraft:
    """The walk-around that is still to be made, or what nobody looked at in it."""
    minutes = times.looking.of(open_places) - (times.looking.first if state == "under way" else 0)
    left = f"Look at {counted(open_places, 'place')} not seen"
    name = {"not begun": "Walk-around", "under way": "Finish the walk-around", "finished": left}[state]
    return JobDraft("look", "look", machine, name, "look", max(minutes, 15.0), skill=None)


def putting_away(times: WorkTimes, machine: str, items: int) -> JobDraft:
    return JobDraft("put-away", "put-away", machine, "Put away for the winter", "put-away", times.putting_away.of(items))


def service(times: WorkTimes, machine: str, key: str, name: str) -> JobDraft:
    return JobDraft(f"service:{key}", "service", machine, name, f"service:{key}", times.service.first)


def changing_over(times: WorkTimes, machine: str, open_places: int) -> JobDraft:
    """What is left of a changeover that is under way."""
    return JobDraft("changeover", "changeover", machine, "Finish the changeover", "changeover", times.adjusting.of(open_places))


def calibrating(times: WorkTimes, machine: str, names: Sequence[str]) -> JobDraft:
    """The calibrations that are due, in one go; they come after the work, outside, on level ground."""
    told = f"Calibrate: {names[0].lower()}" if len(names) == 1 else f"Calibrate: {len(names)} are due, {names[0].lower()} first"
    minutes = times.calibrating.of(len(names))
    return JobDraft("calibrate", "calibrate", machine, told[:160], "calibrate", minutes, place="outside", weather_bound=False)


@dataclass(frozen=True)
class Learned:
    """How long a kind of work takes here. minutes: reckoned; low, high: half of those that were timed lie between; None of
    fewer than two."""

    minutes: float
    timed: int
    low: float | None = None
    high: float | None = None


PRIOR = 2
"""The catalogue's minutes count as much as so many that were timed."""


def learned(usual: float, shares: Sequence[float]) -> Learned:
    """Minutes from those of the catalogue and what was really taken, as shares of what was reckoned each time."""
    if not shares:
        return Learned(usual, 0)
    ordered = sorted(shares)
    middle = (PRIOR + sum(ordered)) / (PRIOR + len(ordered))
    if len(ordered) < 2:
        return Learned(usual * middle, 1)
    return Learned(usual * middle, len(ordered), usual * _quartile(ordered, 0.25), usual * _quartile(ordered, 0.75))


def _quartile(ordered: Sequence[float], share: float) -> float:
    at = share * (len(ordered) - 1)
    low = int(at)
    high = min(low + 1, len(ordered) - 1)
    return ordered[low] + (ordered[high] - ordered[low]) * (at - low)
