"""The shop's season as the core's season_schedule is asked for it."""

import datetime as dt
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from django.utils import timezone

from fleet.models import Machine
from inspection.queries import rule_books
from lumvek_core import structure
from lumvek_core.errors import BadInput
from lumvek_core.planning.season import causes
from lumvek_core.planning.season.model import SeasonGiven
from lumvek_core.planning.season.nearest import Waiting, nearest
from shops.days import said
from shops.models import Member, Workplace
from supply.queries import needs, sourcing

from ..models import DrySpell, SeasonPlan
from . import hands, work
from .hands import Person
from .work import Job

HORIZON_DAYS = 42
SLOT_MIN = 15
TIME_LIMIT_S = 10.0
FREEZE_H = 2
YARD = {"name": "Yard", "kind": "outside", "capacity": 60}
FIELD = {"name": "Field", "kind": "field", "capacity": 60}
STANDS_STILL = "stands still"


@dataclass
class Question:
    """What is asked, and what it is asked about: for the screen. later: the work on machines for which there is no room in it.
    chosen: machines that somebody wanted planned, whatever comes first in the season."""

    asked: dict[str, Any]
    jobs: list[Job]
    persons: list[Person]
    later: list[Job]
    chosen: list[int]


def now_of(member: Member) -> dt.datetime:
    """Now on the shop's clock, or the day and time it chose to plan from."""
    return sourcing.clock(needs.terms_of(member))


def question(member: Member, taken: SeasonPlan | None, chosen: Sequence[int] = ()) -> Question:
    """Everything there is to plan. taken: the plan that people work by; it is moved as little as possible. chosen: of a shop
    with more than can be planned to the hour, the machines that are; else the season's nearest."""
    now = now_of(member)
    everything = work.open_jobs(member, timezone.now())
    near = nearest(_waiting(everything), chosen)
    jobs = [job for job in everything if job.machine.pk in near]
    persons = [one for one in hands.people(member) if one.planned]
    names = hands.names_of(persons)
    machines = {job.machine.pk: job.machine for job in jobs}
    raw: dict[str, Any] = {
        "now": now.isoformat(timespec="minutes"),
        "horizon_days": HORIZON_DAYS,
        "slot_min": SLOT_MIN,
        "technicians": [
            {
                "name": names[one.member.pk],
                "shifts": [structure.write(span) for span in hands.shifts(one, member.shop, now, HORIZON_DAYS)],
                "skills": one.skills,
            }
            for one in persons
        ],
        **_places(member),
        "machines": [
            {
                "name": machine.name,
                "season_date": iso(machine.season_date),
                "priority": machine.priority,
                "width_mm": machine.folded_width_mm or None,
                "height_mm": machine.folded_height_mm or None,
            }
            for machine in machines.values()
        ],
        "moves": [
            move
            for one in rule_books.shipped().safety.moves
            for move in _both(one.from_, one.to, one.minutes, both=one.both)
        ],
        "jobs": [_job(job, names, now) for job in jobs],
        "dry": _dry(hands.dry_spells(member), now),
        "time_limit_s": TIME_LIMIT_S,
    }  # fmt: skip
    if taken and taken.answer:
        raw["previous"] = _previous(taken.answer, {job.key for job in jobs})
        raw["freeze_h"] = FREEZE_H
    given: SeasonGiven = structure.read(SeasonGiven, raw)
    later = [job for job in everything if job.machine.pk not in near]
    return Question(structure.write(given), jobs, persons, later, list(chosen))


def _waiting(jobs: Sequence[Job]) -> list[Waiting]:
    found: dict[int, list[Job]] = {}
    for job in jobs:
        found.setdefault(job.machine.pk, []).append(job)
    return [
        Waiting(pk, mine[0].machine.name, len(mine), mine[0].machine.season_date, mine[0].machine.priority,
                any(job.begun or job.pin for job in mine))
        for pk, mine in found.items()
    ]  # fmt: skip


def iso(when: dt.date | None) -> str | None:
    return when.isoformat() if when else None


def shown(found: Question) -> dict[str, Any]:
    """What a screen says of a question beside what was asked: kept with the plan, so that it is read without asking anew."""
    postures, hazards = rule_books.shipped().safety.postures, rule_books.shipped().safety.hazards
    jobs = {}
    for job in found.jobs:
        draft = job.draft
        cautions = list(postures[draft.posture].cautions) if draft.posture in postures else []
        jobs[job.key] = {
            "name": draft.name,
            "kind": draft.kind,
            "machine_id": job.machine.pk,
            "of": draft.of,
            "reckoned": draft.minutes,
            "worked_min": job.done_min,
            "timed": job.time.timed,
            "low": job.time.low,
            "high": job.time.high,
            "pinned": bool(job.pin),
            "parts": [
                {
                    "id": part.number,
                    "words": part.words,
                    "arrives": part.arrives.isoformat(timespec="minutes") if part.arrives else None,
                    "by": part.by,
                    "bin": part.bin,
                }
                for part in job.parts
            ],
            "tools": draft.tools,
            "cautions": [*cautions, *(hazards[hazard] for hazard in draft.hazards if hazard in hazards)],
        }
    return {
        "jobs": jobs,
        "machines": {
            job.machine.name: {
                "id": job.machine.pk,
                "season_date": iso(job.machine.season_date),
            }
            for job in found.jobs
        },
        "chosen": found.chosen,
        "people": {name: pk for pk, name in hands.names_of(found.persons).items()},
        "parts": {part.number: part.words for job in found.jobs for part in job.parts},
    }


def otherwise(
    asked: dict[str, Any],
    day: dt.date | None,
    hand: bool,
    rush: str,
    machine: Machine | None,
    season_date: dt.date | None,
) -> str:
    """Change what is asked to what somebody wants to try; in words. Raises BadInput for what is not there."""
    given: SeasonGiven = structure.read(SeasonGiven, asked)
    words = []
    if day:
        given, said_ = causes.with_day(day)(given, ""), f"everybody works on {said(day)}"
        words.append(said_)
    if hand:
        given = causes.with_hand(given, "")
        words.append(causes.ONE_MORE)
    if rush:
        if not any(part.id == rush for job in given.jobs for part in job.parts):
            raise BadInput("rush", "nothing waits for it")
        given = causes.without_part(rush)(given, "")
        words.append(f"{rush} is here at once")
    if machine and season_date:
        if not any(one.name == machine.name for one in given.machines):
            raise BadInput("machine", "is not in this plan: there is nothing to do on it, or others come before it")
        given = causes.with_date(machine.name, season_date)(given, "")
        words.append(f"{machine.name} is wanted on {said(season_date)}")
    asked.clear()
    asked.update(structure.write(given))
    return ", ".join(words)[:200]


def _both(from_: str, to: str, minutes: float, *, both: bool) -> list[dict[str, Any]]:
    there = [{"from": from_, "to": to, "minutes": minutes}]
    return [*there, {"from": to, "to": from_, "minutes": minutes}] if both else there


def _places(member: Member) -> dict[str, Any]:
    """Bays and yards of the shop's settings, each of them as often as there is one; a yard and a field there always are."""
    places: list[dict[str, Any]] = []
    lifts = 0
    for one in Workplace.objects.of(member).filter(removed_at=None):
        if one.kind == Workplace.Kind.LIFT:
            lifts += one.many
        elif one.kind == Workplace.Kind.BAY:
            places.append({
                "name": one.name, "kind": "bay", "capacity": one.many,
                "door_width_mm": one.door_width_mm or None, "door_height_mm": one.door_height_mm or None,
            })  # fmt: skip
        elif one.kind == Workplace.Kind.YARD:
            places.append({**YARD, "name": one.name})
    taken = {str(one["name"]).lower() for one in places}
    if not any(one["kind"] == "outside" for one in places) and "yard" not in taken:
        places.append(YARD)
    if "field" not in taken:
        places.append(FIELD)
    return {"places": _different(places), "lifts": lifts}


def _different(places: Sequence[dict[str, Any]]) -> list[dict[str, Any]]:
    """A bay and a yard may be called alike in the settings."""
    found: dict[str, dict[str, Any]] = {}
    for one in places:
        name = str(one["name"])
        while name in found:
            name += " ′"
        found[name] = {**one, "name": name}
    return list(found.values())


def _job(job: Job, names: dict[int, str], now: dt.datetime) -> dict[str, Any]:
    draft = job.draft
    parts = [
        {"id": one.number, "arrives": one.arrives.isoformat(timespec="minutes") if one.arrives else None} for one in job.parts
    ]
    if job.not_before:
        parts.append({"id": job.reason or STANDS_STILL, "arrives": job.not_before.isoformat()})
    return {
        "id": job.key,
        "name": f"{job.machine.name}: {draft.name}",
        "machine": job.machine.name,
        "minutes": job.minutes_left,
        "hands": draft.hands,
        "skill": draft.skill,
        "posture": draft.posture,
        "place_kind": draft.place,
        "lift": draft.lift,
        "weather_bound": draft.weather_bound,
        "parts": parts,
        "after": draft.after,
        "splittable": draft.splittable,
        "pin": _pin(job, names, now),
    }


def _pin(job: Job, names: dict[int, str], now: dt.datetime) -> dict[str, Any] | None:
    """Where it was put by hand; what is under way goes on now, with whoever is at it."""
    if job.begun:
        member = next((pk for pk, name in names.items() if job.begun.by.get_full_name() == name), None)
        return {"start": now.isoformat(timespec="minutes"), "technicians": [names[member]] if member else []}
    pin = job.pin
    if not pin or dt.datetime.fromisoformat(str(pin["start"])) < now:
        return None
    known = [name for name in pin.get("technicians", []) if name in names.values()]  # type: ignore[attr-defined]
    return {"start": pin["start"], "technicians": known, "place": pin.get("place") or None}


def _previous(answer: dict[str, Any], keys: set[str]) -> list[dict[str, Any]]:
    return [
        {"id": one["id"], "start": one["parts"][0]["start"], "technicians": one["technicians"], "place": one["place"]}
        for one in answer["jobs"]
        if one["id"] in keys
    ]


def _dry(spells: Sequence[DrySpell], now: dt.datetime) -> list[dict[str, str]]:
    """Dry spells that are known; from the day after the last of them nobody knows, and nothing is held up by it."""
    known = [
        {"start": hands.local(spell.start), "end": hands.local(spell.end)}
        for spell in spells
        if hands.local(spell.end) > now.isoformat()
    ]
    last = max((dt.datetime.fromisoformat(spell["end"]).date() for spell in known), default=None)
    from_ = dt.datetime.combine(last + dt.timedelta(days=1), dt.time()) if last else now
    ends = now + dt.timedelta(days=HORIZON_DAYS)
    rest = [{"start": from_.isoformat(timespec="minutes"), "end": ends.isoformat(timespec="minutes")}] if from_ < ends else []
    return [*known, *rest]
