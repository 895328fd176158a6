"""Plans as they were made, with what became of their jobs since."""

import datetime as dt
import uuid
from collections.abc import Mapping, Sequence
from typing import Any

from django.utils import timezone

from inspection.queries.serializers import full_name
from lumvek_core.counted import counted
from shops.access import NotFoundHere
from shops.days import said
from shops.models import Member
from shops.rights import may

from ..models import JobMark, SeasonPlan
from ..schemas import (
    AwaitedOut,
    JobSaidOut,
    LaterOut,
    PostureMoveOut,
    SeasonFixOut,
    SeasonJobOut,
    SeasonMachineOut,
    SeasonPersonOut,
    SeasonPlaceOut,
    SeasonPlanBrief,
    SeasonPlanOut,
    SeasonWorkOut,
    StretchOut,
)
from . import changed, marks

EARLIER = 20
CAUSES = {
    "parts": "it waits for parts",
    "hands": "there are too few hands",
    "bay": "it waits for room in the bay",
    "weather": "it waits for dry weather",
    "season_date": "its date is too early for the work there is",
}


def plan_of(member: Member, plan: uuid.UUID) -> SeasonPlan:
    """A plan of the member's shop. Raises NotFoundHere."""
    found = SeasonPlan.objects.of(member).select_related("by").filter(uuid=plan).first()
    if found is None:
        raise NotFoundHere("There is no such plan.")
    return found


def taken(member: Member) -> SeasonPlan | None:
    """The plan that people work by: the one that was taken last."""
    rows = SeasonPlan.objects.of(member).filter(taken_at__isnull=False, answer__isnull=False)
    return rows.select_related("by").order_by("-taken_at", "-id").first()


def job_shown(member: Member, key: str) -> dict[str, Any]:
    """A job of the plan that people work by. Raises NotFoundHere."""
    plan = taken(member)
    found = plan.shown["jobs"].get(key) if plan else None
    if found is None:
        raise NotFoundHere("There is no such job in the plan.")
    job: dict[str, Any] = found
    return job


def season(member: Member) -> SeasonWorkOut:
    """The plan that people work by, and what is otherwise since it was made."""
    plan = taken(member)
    return SeasonWorkOut(
        plan=shown(member, plan) if plan else None,
        stale=changed.since(member, plan) if plan else [],
        under_way=_under_way(member),
        may_plan=may(member, "plan the season"),
        may_work=may(member, "work by the plan"),
    )


PLANS_FOR = dt.timedelta(seconds=150)
"""A plan that has been worked out for longer was lost with its process."""


def _under_way(member: Member) -> bool:
    """Whether a plan is being worked out at this moment."""
    since = timezone.now() - PLANS_FOR
    return SeasonPlan.objects.of(member).filter(answer__isnull=True, words="", at__gt=since).exists()


def earlier(member: Member) -> list[SeasonPlanBrief]:
    """Plans to hold against each other, the newest first."""
    rows = SeasonPlan.objects.of(member).filter(answer__isnull=False).select_related("by").defer("asked", "shown", "answer")
    return [
        SeasonPlanBrief(uuid=one.uuid, at=one.at, by=full_name(one.by), words=one.words, taken=one.taken_at is not None)
        for one in rows[:EARLIER]
    ]


def shown(member: Member, plan: SeasonPlan) -> SeasonPlanOut:
    """A plan for the screen. Its answer must be there."""
    asked, answer, about = plan.asked, plan.answer or {}, plan.shown
    reading = _Jobs(plan, marks.by_job(member))
    jobs = [reading.job(job) for job in asked["jobs"]]
    ends = dt.datetime.fromisoformat(asked["now"]) + dt.timedelta(days=asked["horizon_days"])
    return SeasonPlanOut(
        uuid=plan.uuid,
        at=plan.at,
        by=full_name(plan.by),
        words=plan.words,
        taken=plan.taken_at is not None,
        now=asked["now"],
        ends=ends.isoformat(timespec="minutes"),
        people=[
            SeasonPersonOut(
                name=one["name"],
                member=about["people"].get(one["name"], 0),
                shifts=[StretchOut(**span) for span in one["shifts"]],
            )
            for one in asked["technicians"]
        ],
        places=[SeasonPlaceOut(name=one["name"], kind=one["kind"]) for one in asked["places"]],
        machines=[_machine(about, one, jobs, ends) for one in answer["machines"]],
        jobs=jobs,
        posture_moves=[PostureMoveOut(**{key: one[key] for key in ("machine", "start", "to", "minutes")})
                       for one in answer["posture_moves"]],
        dry=[StretchOut(**span) for span in asked["dry"]],
        late_h=answer["objective"]["late_h"],
        late_bound_h=answer["objective"]["late_bound_h"],
        gap_pct=answer["gap_pct"],
        optimal=answer["optimal"],
        moved=[f"{job.machine}: {job.name}" for job in jobs if job.moved],
        later=[LaterOut(**one) for one in about.get("later", [])],
        chosen=about.get("chosen", []),
    )  # fmt: skip


class _Jobs:
    """The jobs of a plan as they are shown. marks: what people did with each."""

    def __init__(self, plan: SeasonPlan, marks: Mapping[str, list[JobMark]]) -> None:
        answer = plan.answer or {}
        self.plan, self.marks = plan, marks
        self.placed = {one["id"]: one for one in answer["jobs"]}
        self.without = {one["id"]: one["reason"] for one in answer["unplaced"]}
        self.against: dict[str, list[str]] = {}
        for one in answer["conflicts"]:
            self.against.setdefault(one["id"], []).append(one["words"])
        self.before = {one["id"]: one for one in plan.asked["previous"]}

    def job(self, asked: Mapping[str, Any]) -> SeasonJobOut:
        """asked: the job as it was planned."""
        key = asked["id"]
        about, placed, before = self.plan.shown["jobs"][key], self.placed.get(key), self.before.get(key)
        done_with = self.marks.get(key, [])
        worked = marks.worked(done_with)
        last = worked[-1] if worked else None
        at_it = last if last and last.kind == JobMark.Kind.START else None
        done = any(mark.kind == JobMark.Kind.DONE and mark.at >= self.plan.at for mark in worked)
        stood = before and (before["start"], before["technicians"])
        return SeasonJobOut(
            key=key,
            name=about["name"],
            kind=about["kind"],
            machine=asked["machine"],
            machine_id=about["machine_id"],
            minutes=asked["minutes"],
            timed=about["timed"],
            low=about["low"],
            high=about["high"],
            hands=asked["hands"],
            skill=asked["skill"] or "",
            posture=asked["posture"] or "",
            place_kind=asked["place_kind"],
            place=(placed["place"] or "") if placed else "",
            stretches=[StretchOut(**span) for span in placed["parts"]] if placed else [],
            technicians=placed["technicians"] if placed else [],
            pinned=about["pinned"],
            against=self.against.get(key, []),
            pin_trouble="" if at_it or done else _pin_trouble(self.against.get(key, []), about["parts"], placed),
            without=self.without.get(key, ""),
            moved=bool(before) and (not placed or stood != (placed["parts"][0]["start"], placed["technicians"])),
            parts=[AwaitedOut(**part) for part in about["parts"]],
            after=asked["after"],
            tools=about["tools"],
            cautions=about["cautions"],
            begun_by=full_name(at_it.by) if at_it else "",
            begun_at=at_it.at if at_it else None,
            done=done,
            cannot=last.reason if last and last.kind == JobMark.Kind.CANNOT else "",
            said=[JobSaidOut(at=mark.at, by=full_name(mark.by), words=marks.words(mark)) for mark in done_with],
        )


BEFORE_PART = "pinned before "
"""How the words begin where it is a part that is not here by then."""


def _pin_trouble(against: list[str], parts: Sequence[Mapping[str, Any]], placed: Mapping[str, Any] | None) -> str:
    """Why a job cannot be done where it was set: for a part that is not here by then, or whatever else contradicts it."""
    if not against:
        return ""
    begins = placed["parts"][0]["start"] if placed else ""
    late = [one for one in parts if begins and (not one["arrives"] or one["arrives"] > begins)]
    return f"{BEFORE_PART}{late[0]['words']} is here" if late else f"pinned, but {against[0]}"


def _with_pins(one: Mapping[str, Any], jobs: Sequence[SeasonJobOut], ends: dt.datetime) -> dict[str, Any]:
    """What a plan says of a machine, with what was set by hand to where it cannot be done: it is ready when the part is here
    that such a job waits for, and nobody knows when where it is anything else."""
    troubled = [job for job in jobs if job.machine == one["name"] and job.pin_trouble]
    if not troubled:
        return dict(one)
    waits = [[part.arrives for part in job.parts] for job in troubled]
    known = one["ready"] and all(days and None not in days for days in waits)
    ready = max([one["ready"], *(day for days in waits for day in days if day)]) if known else None
    last = dt.datetime.fromisoformat(ready) if ready else ends
    late = (last - dt.datetime.fromisoformat(one["due"])).total_seconds() / 3600 if one["due"] else 0.0
    return {**one, "ready": ready, "late_h": max(one["late_h"], late), "pinned": troubled[0]}


def _machine(
    about: Mapping[str, Any], one: Mapping[str, Any], jobs: Sequence[SeasonJobOut], ends: dt.datetime
) -> SeasonMachineOut:
    one = _with_pins(one, jobs, ends)
    known = about["machines"][one["name"]]
    fixes = [
        SeasonFixOut(**fix, words=_fix_words(about, fix))
        for fix in one["fixes"]
    ]  # fmt: skip
    return SeasonMachineOut(
        id=known["id"],
        name=one["name"],
        season_date=known["season_date"],
        due=one["due"],
        ready=one["ready"],
        late_h=one["late_h"],
        cause=one["cause"],
        words=_late_words(one, fixes),
        fixes=fixes,
    )


def _late_words(one: Mapping[str, Any], fixes: list[SeasonFixOut]) -> str:
    pinned = one.get("pinned")
    if one["late_h"] <= 0:
        return f"“{pinned.name}” is {pinned.pin_trouble}." if pinned else ""
    late = f"Late by {span_words(one['late_h'])}" if one["ready"] else "Not ready within this plan"
    if pinned:
        return f"{late}: “{pinned.name}” is {pinned.pin_trouble}."
    cure = f" {fixes[0].words[0].upper()}{fixes[0].words[1:]} gains {span_words(fixes[0].gain_h)}." if fixes else ""
    return f"{late}: {CAUSES.get(one['cause'], 'nobody knows why')}.{cure}"


def _fix_words(about: Mapping[str, Any], fix: Mapping[str, Any]) -> str:
    match fix["kind"]:
        case "rush_part":
            return f"rushing {about['parts'].get(fix['what'], fix['what'])}"
        case "one_day":
            day = dt.date.fromisoformat(fix["what"])
            return f"working on {day:%A} {said(day)}"
    return "one more pair of hands"


def span_words(hours: float) -> str:
    """``3 h``, ``2 days``: as long as it is."""
    return counted(round(hours / 24), "day") if hours >= 36 else f"{hours:.0f} h" if hours >= 1 else f"{hours * 60:.0f} min"
