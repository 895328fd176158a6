"""What goes out of the season's plan: day and week sheets, tables, calendars."""

import datetime as dt
from typing import Literal, cast

from django.http import Http404, HttpRequest, HttpResponse

from season.actions import feeds
from season.queries import calendar_feeds, plans, readiness
from season.queries import sheets as made
from season.queries.hands import names_of, people
from season.schemas import SeasonPlanOut
from shops import days
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import may
from tabular import sheets

from . import paper
from .paper import for_members


def _plan(member: Member) -> SeasonPlanOut:
    """The plan people work by; whoever may not see it finds nothing here."""
    plan = plans.season(member).plan if may(member, "see the season’s plan") else None
    if plan is None:
        raise NotFoundHere
    return plan


@for_members
def sheet(request: HttpRequest, member: Member, form: str = "") -> HttpResponse:
    """A day's sheets, or a week's, of one person or of all. Query: day, days (1 or 7), for (a name)."""
    if form not in ("", "pdf"):
        raise Http404
    plan = _plan(member)
    first, many = _asked(request, plan)
    context = {
        "sheets": made.sheets(plan, first, many, request.GET.get("for", ""), readiness.readiness(member)),
        "week": many > 1,
        "first": first,
        "last": first + dt.timedelta(days=many - 1),
        "shop": member.shop,
        "query": request.GET.urlencode(),
    }
    if form == "pdf":
        return paper.pdf("season_sheet", context, f"work-{first}")
    return HttpResponse(paper.page("season_sheet", context, nonce=paper.nonce_of(request)))


def _asked(request: HttpRequest, plan: SeasonPlanOut) -> tuple[dt.date, int]:
    try:
        first = dt.date.fromisoformat(request.GET["day"]) if "day" in request.GET else made.first_day(plan)
        return first, 7 if request.GET.get("days") == "7" else 1
    except ValueError:
        raise Http404 from None


@for_members
def table(request: HttpRequest, member: Member, form: str) -> HttpResponse:
    """Every job of the plan as a table."""
    if form not in ("csv", "xlsx"):
        raise Http404
    return sheets.table("work-plan", cast(Literal["csv", "xlsx"], form), made.rows(_plan(member)))


@for_members
def own_calendar(request: HttpRequest, member: Member) -> HttpResponse:
    """One's own work as a calendar file."""
    return _calendar(member, _plan(member))


def feed(request: HttpRequest, secret: str) -> HttpResponse:
    """The same for a calendar that has its address, and nothing else."""
    opened = calendar_feeds.opened_by(secret)
    if opened is None or not may(opened.member, "work by the plan"):
        raise Http404
    member = opened.member
    feeds.used(opened)
    days.as_in(member.shop)
    try:
        return _calendar(member, plans.season(member).plan)
    finally:
        days.as_nowhere()


def _calendar(member: Member, plan: SeasonPlanOut | None) -> HttpResponse:
    called = names_of(people(member)).get(member.pk, member.name)
    ready = readiness.in_words(member) if plan else {}
    content = made.calendar(plan, member.shop, called, ready)
    response = HttpResponse(content, content_type="text/calendar; charset=utf-8")
    response["Content-Disposition"] = 'attachment; filename="work.ics"'
    response["Cache-Control"] = "no-store"
    return response
