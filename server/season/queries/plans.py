"""Plans as they were made, with what became of their jobs since."""

import datetime as dt
import uuid
from collections.abc import Mapping
from typing import Any

from django.utils import timezone

from lumvek_core.counted import counted
from shops.access import NotFoundHere
from shops.days import said
from shops.models import Member
from shops.rights import may

from ..models import JobMark, SeasonPlan
from ..schemas import (
    AwaitedOut,
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


def begun(member: Member) -> dict[str, JobMark]:
    """What is under way, by the job's key."""
    return {key: marks[-1] for key, marks in _marks(member).items() if marks[-1].kind == JobMark.Kind.START}


def _marks(member: Member) -> dict[str, list[JobMark]]:
    """What was done with each job, but for moving it."""
    found: dict[str, list[JobMark]] = {}
    rows = JobMark.objects.in_shop(member.shop_id).filter(taken_back_at=None).exclude(kind=JobMark.Kind.PIN)
    for mark in rows.select_related("by").order_by("id"):
        found.setdefault(mark.key, []).append(mark)
    return found


def season(member: Member) -> SeasonWorkOut:
    """The plan that people work by, and what is otherwise since it was made."""
    plan = taken(member)
    return SeasonWorkOut(
        plan=shown(member, plan) if plan else None,
        stale=_stale(member, plan) if plan else [],
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
        SeasonPlanBrief(uuid=one.uuid, at=one.at, by=_name(one), words=one.words, taken=one.taken_at is not None)
        for one in rows[:EARLIER]
    ]


def _name(plan: SeasonPlan) -> str:
    return str(plan.by.get_full_name() or plan.by.get_username())


def _stale(member: Member, plan: SeasonPlan) -> list[str]:
    rows = JobMark.objects.in_shop(member.shop_id).filter(at__gt=plan.at, taken_back_at=None, kind=JobMark.Kind.CANNOT)
    return [f"{mark.name}: {mark.reason}" for mark in rows]


def shown(member: Member, plan: SeasonPlan) -> SeasonPlanOut:
    """A plan for the screen. Its answer must be there."""
    asked, answer, about = plan.asked, plan.answer or {}, plan.shown
    marks = _marks(member)
    there = {job["id"]: job for job in answer["jobs"]}
    without = {one["id"]: one["reason"] for one in answer["unplaced"]}
    against: dict[str, list[str]] = {}
    for one in answer["conflicts"]:
        against.setdefault(one["id"], []).append(one["words"])
    before = {one["id"]: one for one in asked["previous"]}
    jobs = [
        _job(about["jobs"][job["id"]], job, there.get(job["id"]), without.get(job["id"], ""), against.get(job["id"], []),
             before.get(job["id"]), marks.get(job["id"], []), plan.at)
        for job in asked["jobs"]
    ]  # fmt: skip
    start = dt.datetime.fromisoformat(asked["now"])
    return SeasonPlanOut(
        uuid=plan.uuid,
        at=plan.at,
        by=_name(plan),
        words=plan.words,
        taken=plan.taken_at is not None,
        now=asked["now"],
        ends=(start + dt.timedelta(days=asked["horizon_days"])).isoformat(timespec="minutes"),
        people=[
            SeasonPersonOut(
                name=one["name"],
                member=about["people"].get(one["name"], 0),
                shifts=[StretchOut(**span) for span in one["shifts"]],
            )
            for one in asked["technicians"]
        ],
        places=[SeasonPlaceOut(name=one["name"], kind=one["kind"]) for one in asked["places"]],
        machines=[_machine(about, one) for one in answer["machines"]],
        jobs=jobs,
        posture_moves=[PostureMoveOut(**{key: one[key] for key in ("machine", "start", "to", "minutes")})
                       for one in answer["posture_moves"]],
        dry=[StretchOut(**span) for span in asked["dry"]],
        late_h=answer["objective"]["late_h"],
        late_bound_h=answer["objective"]["late_bound_h"],
        gap_pct=answer["gap_pct"],
        optimal=answer["optimal"],
        moved=[f"{job.machine}: {job.name}" for job in jobs if job.moved],
    )  # fmt: skip


def _job(
    about: Mapping[str, Any],
    asked: Mapping[str, Any],
    placed: Mapping[str, Any] | None,
    without: str,
    against: list[str],
    before: Mapping[str, Any] | None,
    marks: list[JobMark],
    made_at: dt.datetime,
) -> SeasonJobOut:
    last = marks[-1] if marks else None
    at_it = last if last and last.kind == JobMark.Kind.START else None
    cannot = last.reason if last and last.kind == JobMark.Kind.CANNOT else ""
    done = any(mark.kind == JobMark.Kind.DONE and mark.at >= made_at for mark in marks)
    stretches = [StretchOut(**span) for span in placed["parts"]] if placed else []
    stood = before and (before["start"], before["technicians"])
    return SeasonJobOut(
        key=asked["id"],
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
        stretches=stretches,
        technicians=placed["technicians"] if placed else [],
        pinned=about["pinned"],
        against=against,
        without=without,
        moved=bool(before) and (not placed or stood != (placed["parts"][0]["start"], placed["technicians"])),
        parts=[AwaitedOut(**part) for part in about["parts"]],
        after=asked["after"],
        tools=about["tools"],
        cautions=about["cautions"],
        begun_by=(at_it.by.get_full_name() or at_it.by.get_username()) if at_it else "",
        begun_at=at_it.at if at_it else None,
        done=done,
        cannot=cannot,
    )


def _machine(about: Mapping[str, Any], one: Mapping[str, Any]) -> SeasonMachineOut:
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
    if one["late_h"] <= 0:
        return ""
    late = f"Late by {span_words(one['late_h'])}" if one["ready"] else "Not ready within this plan"
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
