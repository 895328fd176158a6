"""Endpoints of the season's plan: looking at it, making and taking one, working by it, and who is there when."""

import uuid

from django.http import HttpRequest, StreamingHttpResponse
from ninja import File, Query, Router, UploadedFile

from shops.access import member_of
from shops.endpoints import allowed
from shops.queries.outside import inquiry_of
from shops.rights import may
from shops.schemas import InquiryIn, InquiryOut
from tabular import sheets, streamed

from .actions import feeds, marking, planning, weather
from .actions import hands as hands_actions
from .queries import calendar_feeds, hands_shown, plans, readiness, work
from .schemas import (
    AwayIn,
    DrySpellIn,
    FeedIn,
    FeedOut,
    HandsIn,
    JobMarkIn,
    OwnJobIn,
    OwnJobTyped,
    ReadinessAsked,
    ReadinessOut,
    SeasonHandsOut,
    SeasonPlanBrief,
    SeasonPlanIn,
    SeasonPlanOut,
    SeasonWorkOut,
)

router = Router(tags=["season"])
SEE = "see the season’s plan"


@router.get("", response=SeasonWorkOut, **allowed(SEE))
def season(request: HttpRequest) -> SeasonWorkOut:
    """The plan that people work by."""
    return plans.season(member_of(request))


@router.get("/readiness", response=list[ReadinessOut])
def machine_readiness(request: HttpRequest, asked: Query[ReadinessAsked]) -> list[ReadinessOut]:
    """Whether each machine that the member may see is ready, and if not, when it will be; worst first."""
    member = member_of(request)
    plan = plans.plan_of(member, asked.plan) if asked.plan and may(member, SEE) else None
    return readiness.readiness(member, asked.machine, plan)


@router.get("/plans", response=list[SeasonPlanBrief], **allowed(SEE))
def season_plans(request: HttpRequest) -> list[SeasonPlanBrief]:
    """The newest plans, to be held against each other."""
    return plans.earlier(member_of(request))


@router.post("/plans", response={200: None}, **allowed(planning.stream))
def make_season_plan(request: HttpRequest, new: SeasonPlanIn) -> StreamingHttpResponse:
    """Work out a plan: a line of JSON for each step, with how late the best so far is and what none is under; the last one with
    ``done`` or ``error``."""
    tried = planning.Try(new.day, new.hand, new.rush, new.machine, new.season_date)
    return streamed.told(planning.stream(member_of(request), new.uuid, tried, anew=new.anew, chosen=new.machines))


@router.get("/plans/{uuid:season_plan_id}", response=SeasonPlanOut | None, **allowed(SEE))
def season_plan(request: HttpRequest, season_plan_id: uuid.UUID) -> SeasonPlanOut | None:
    """One plan; nothing while it is worked out."""
    member = member_of(request)
    found = plans.plan_of(member, season_plan_id)
    return plans.shown(member, found) if found.answer is not None else None


@router.post("/plans/{uuid:season_plan_id}/enough", response=SeasonWorkOut, **allowed(planning.enough))
def season_plan_enough(request: HttpRequest, season_plan_id: uuid.UUID) -> SeasonWorkOut:
    """The best plan so far will do."""
    member = member_of(request)
    planning.enough(member, season_plan_id)
    return plans.season(member)


@router.post("/plans/{uuid:season_plan_id}/take", response=SeasonWorkOut, **allowed(planning.take))
def take_season_plan(request: HttpRequest, season_plan_id: uuid.UUID) -> SeasonWorkOut:
    """Work by this plan from now on."""
    member = member_of(request)
    planning.take(member, season_plan_id)
    return plans.season(member)


@router.post("/marks", response=SeasonWorkOut, **allowed(marking.mark))
def mark_job(request: HttpRequest, new: JobMarkIn) -> SeasonWorkOut:
    """Say what was done with a job of the plan. The same UUID twice is once."""
    member = member_of(request)
    pin = {"start": new.pin.start.replace(tzinfo=None).isoformat(timespec="minutes"), "technicians": new.pin.technicians,
           "place": new.pin.place} if new.pin else {}  # fmt: skip
    done = marking.Done(new.kind, pin, new.minutes, new.reason, new.not_before, new.at)
    marking.mark(member, new.uuid, new.key, done)
    return plans.season(member)


@router.post("/marks/{uuid:mark_id}/take-back", response=SeasonWorkOut, **allowed(marking.take_back))
def take_back_mark(request: HttpRequest, mark_id: uuid.UUID) -> SeasonWorkOut:
    """Take back what was said of a job."""
    member = member_of(request)
    marking.take_back(member, mark_id)
    return plans.season(member)


@router.post("/jobs", response=SeasonWorkOut, **allowed(marking.add_job))
def add_own_job(request: HttpRequest, new: OwnJobIn) -> SeasonWorkOut:
    """Add a job that follows from nothing else. The same UUID twice is once."""
    member = member_of(request)
    marking.add_job(member, new.uuid, new.machine, new.model_dump(exclude={"uuid", "machine"}))
    return plans.season(member)


@router.get("/jobs/{uuid:own_job_id}", response=OwnJobTyped, **allowed(SEE))
def own_job(request: HttpRequest, own_job_id: uuid.UUID) -> OwnJobTyped:
    """A job as it was typed."""
    return work.own_job(member_of(request), own_job_id)


@router.post("/jobs/{uuid:own_job_id}", response=SeasonWorkOut, **allowed(marking.change_job))
def change_own_job(request: HttpRequest, own_job_id: uuid.UUID, new: OwnJobTyped) -> SeasonWorkOut:
    """What a typed job is from now on."""
    member = member_of(request)
    marking.change_job(member, own_job_id, new.machine, new.model_dump(exclude={"machine"}))
    return plans.season(member)


@router.post("/jobs/{uuid:own_job_id}/take-back", response=SeasonWorkOut, **allowed(marking.take_back_job))
def take_back_own_job(request: HttpRequest, own_job_id: uuid.UUID) -> SeasonWorkOut:
    """Take back a job that was typed."""
    member = member_of(request)
    marking.take_back_job(member, own_job_id)
    return plans.season(member)


@router.get("/hands", response=SeasonHandsOut, **allowed(SEE))
def season_hands(request: HttpRequest) -> SeasonHandsOut:
    """Who is there when, what they may do, and when it is dry."""
    return hands_shown.shown(member_of(request))


@router.post("/hands/{int:person_id}", response=SeasonHandsOut, **allowed(hands_actions.set_hands))
def set_hands(request: HttpRequest, person_id: int, new: HandsIn) -> SeasonHandsOut:
    """Say when somebody works and what they may do."""
    member = member_of(request)
    hands_actions.set_hands(member, person_id, planned=new.planned, hours=new.hours, skills=new.skills)
    return hands_shown.shown(member)


@router.post("/hands/{int:person_id}/away", response=SeasonHandsOut, **allowed(hands_actions.set_away))
def set_away(request: HttpRequest, person_id: int, new: AwayIn) -> SeasonHandsOut:
    """Somebody is not there on some days."""
    member = member_of(request)
    hands_actions.set_away(member, person_id, new.uuid, new.first, new.last, new.note)
    return hands_shown.shown(member)


@router.post("/away/{uuid:away_id}/take-back", response=SeasonHandsOut, **allowed(hands_actions.take_back_away))
def take_back_away(request: HttpRequest, away_id: uuid.UUID) -> SeasonHandsOut:
    """Somebody is there after all."""
    member = member_of(request)
    hands_actions.take_back_away(member, away_id)
    return hands_shown.shown(member)


@router.post("/dry", response=SeasonHandsOut, **allowed(hands_actions.add_dry))
def add_dry_spell(request: HttpRequest, new: DrySpellIn) -> SeasonHandsOut:
    """Dry weather that is expected, on the shop's clock."""
    member = member_of(request)
    hands_actions.add_dry(member, new.uuid, new.start.replace(tzinfo=None), new.end.replace(tzinfo=None))
    return hands_shown.shown(member)


@router.post("/dry/{uuid:dry_spell_id}/take-back", response=SeasonHandsOut, **allowed(hands_actions.take_back_dry))
def take_back_dry_spell(request: HttpRequest, dry_spell_id: uuid.UUID) -> SeasonHandsOut:
    """It will not be dry then."""
    member = member_of(request)
    hands_actions.take_back_dry(member, dry_spell_id)
    return hands_shown.shown(member)


@router.post("/forecast", response=InquiryOut, **allowed(weather.ask_forecast))
def ask_forecast(request: HttpRequest, new: InquiryIn) -> InquiryOut:
    """Have the forecast asked; what it says takes the place of what it said before."""
    member = member_of(request)
    weather.ask_forecast(member, new.uuid)
    return inquiry_of(member, new.uuid)


@router.post("/dry-file", response=SeasonHandsOut, **allowed(weather.read_file))
def dry_file(request: HttpRequest, file: File[UploadedFile]) -> SeasonHandsOut:
    """Dry spells from an iCalendar file, every event one."""
    member = member_of(request)
    weather.read_file(member, sheets.words_of(file))
    return hands_shown.shown(member)


@router.get("/feed", response=FeedOut, **allowed(feeds.make))
def calendar_feed(request: HttpRequest) -> FeedOut:
    """Whether one's own work can be read as a calendar."""
    return calendar_feeds.shown(member_of(request))


@router.post("/feed", response=FeedOut, **allowed(feeds.make))
def make_calendar_feed(request: HttpRequest, new: FeedIn) -> FeedOut:
    """A new address of one's own work as a calendar; the one before ends. It is shown to whoever asks with the same UUID."""
    member = member_of(request)
    return calendar_feeds.shown(member, feeds.make(member, new.uuid))


@router.post("/feed/end", response=FeedOut, **allowed(feeds.end))
def end_calendar_feed(request: HttpRequest) -> FeedOut:
    """No calendar reads it any more."""
    member = member_of(request)
    feeds.end(member)
    return calendar_feeds.shown(member)
