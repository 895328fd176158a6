"""What became of jobs, as people said."""

import datetime as dt

from shops.days import said
from shops.models import Member

from ..models import JobMark


def by_job(member: Member) -> dict[str, list[JobMark]]:
    """What was done with each job, in the order it was said, moving it included."""
    found: dict[str, list[JobMark]] = {}
    for mark in JobMark.objects.in_shop(member.shop_id).filter(taken_back_at=None).select_related("by").order_by("id"):
        found.setdefault(mark.key, []).append(mark)
    return found


def worked(marks: list[JobMark]) -> list[JobMark]:
    """What was done with a job, but for moving it."""
    return [mark for mark in marks if mark.kind != JobMark.Kind.PIN]


def begun(member: Member, key: str) -> JobMark | None:
    """How a job that is under way was begun."""
    mine = JobMark.objects.in_shop(member.shop_id).filter(taken_back_at=None, key=key).exclude(kind=JobMark.Kind.PIN)
    last = mine.order_by("-id").first()
    return last if last and last.kind == JobMark.Kind.START else None


def words(mark: JobMark) -> str:
    """What somebody did with a job, as the log says it."""
    match mark.kind:
        case JobMark.Kind.PIN if mark.pin:
            start = dt.datetime.fromisoformat(str(mark.pin["start"]))
            people = " and ".join(mark.pin.get("technicians", []))
            return ", ".join(filter(None, [f"set by hand to {start:%a} {said(start)} {start:%H:%M}", people]))
        case JobMark.Kind.PIN:
            return "may move again"
        case JobMark.Kind.DONE if mark.minutes:
            return f"done, {mark.minutes:.0f} min"
        case JobMark.Kind.CANNOT:
            until = f", not before {said(mark.not_before)}" if mark.not_before else ""
            return f"could not be done: {mark.reason}{until}"
    return str(mark.get_kind_display()).lower()
