"""What is otherwise since a plan was made, in words: it is shown beside the plan, and planning again takes it in.

Everything is read by when it was said, so that nothing is worked out for it; a constant number of queries.
"""

from collections.abc import Iterable, Iterator

from django.db.models import Q

from fleet.models import Machine
from inspection.models import Decision, WalkAround
from logbook.models import ServiceDone
from lumvek_core.counted import counted
from shops.days import said
from shops.models import Change, Member
from supply.models import Movement, Order

from ..models import Away, DrySpell, Hands, JobMark, OwnJob, SeasonPlan
from .marks import words as mark_words
from .question import now_of

MOST_NAMED = 3


def since(member: Member, plan: SeasonPlan) -> list[str]:
    """What was said since, each kind of change once."""
    return [*_of_jobs(member, plan), *_of_machines(member, plan), *_of_parts(member, plan), *_of_hands(member, plan)]


def _of_jobs(member: Member, plan: SeasonPlan) -> Iterator[str]:
    marks = JobMark.objects.in_shop(member.shop_id).filter(at__gt=plan.at, taken_back_at=None)
    for mark in marks.filter(kind=JobMark.Kind.CANNOT).select_related("machine"):
        yield f"{mark.about} {mark_words(mark)}"
    jobs = OwnJob.objects.in_shop(member.shop_id).filter(Q(changed_at__gt=plan.at) | Q(taken_back_at__gt=plan.at))
    yield from _named("typed: ", [job.name for job in jobs if job.taken_back_at is None and job.at > plan.at])
    yield from _named("changed: ", [job.name for job in jobs if job.taken_back_at is None and job.at <= plan.at])
    yield from _named("taken back: ", [job.name for job in jobs if job.taken_back_at and job.at <= plan.at])


def _of_machines(member: Member, plan: SeasonPlan) -> Iterator[str]:
    ours = Machine.objects.in_shop(member.shop_id)
    walks = WalkAround.objects.of(member).filter(discarded_at=None)
    decided = Decision.objects.filter(walk_around__in=walks, at__gt=plan.at).exclude(choice=Decision.Choice.OPEN)
    yield from _named("decided on ", decided.values_list("walk_around__machine__name", flat=True))
    new = walks.filter(Q(started_at__gt=plan.at) | Q(finished_at__gt=plan.at))
    yield from _named("looked at ", new.values_list("machine__name", flat=True))
    serviced = ServiceDone.objects.filter(machine__in=ours, at__gt=plan.at, taken_back_at=None)
    yield from _named("serviced: ", serviced.values_list("machine__name", flat=True))
    moved = Change.objects.of(member).filter(about=Change.About.MACHINE, at__gt=plan.at)
    dates = moved.filter(Q(what__endswith=": season date") | Q(what__endswith=": when it is late"))
    yield from _named("wanted otherwise: ", [one.what.rsplit(":", 1)[0] for one in dates])


def _of_parts(member: Member, plan: SeasonPlan) -> Iterator[str]:
    """Parts that came, orders that were placed or answered, and what should have come by now."""
    jobs = plan.shown["jobs"].values()
    awaited = {part["id"]: part for job in jobs for part in job["parts"]}
    came = Movement.objects.of(member).filter(at__gt=plan.at, reason=Movement.Reason.RECEIVED, undone_by=None)
    here = set(came.values_list("number", flat=True)) & set(awaited)
    yield from _named("came: ", [awaited[number]["words"] for number in here])
    orders = (
        Order.objects.of(member).filter(Q(at__gt=plan.at) | Q(answered_at__gt=plan.at)).exclude(state=Order.State.CANCELLED)
    )
    yield from _named("ordered or answered: ", orders.values_list("supplier__name", flat=True))
    now = now_of(member).isoformat()
    late = [part for part in awaited.values() if part["by"] == "ordered" and part["arrives"] and part["arrives"] < now]
    yield from _named("not here as promised: ", [part["words"] for part in late if part["id"] not in here])


def _of_hands(member: Member, plan: SeasonPlan) -> Iterator[str]:
    off = Away.objects.in_shop(member.shop_id).select_related("member__user")
    for one in off.filter(Q(at__gt=plan.at, taken_back_at=None) | Q(at__lte=plan.at, taken_back_at__gt=plan.at)):
        days = said(one.first) if one.first == one.last else f"{said(one.first)} to {said(one.last)}"
        yield f"{one.member.name} is {'there after all' if one.taken_back_at else 'away'} {days}"
    changed = Change.objects.of(member).filter(about=Change.About.PERSON, what__endswith=": hands", at__gt=plan.at)
    yield from _named("other hours or skills: ", [one.what.removesuffix(": hands") for one in changed])
    dry = DrySpell.objects.of(member)
    if dry.filter(Q(at__gt=plan.at, taken_back_at=None) | Q(at__lte=plan.at, taken_back_at__gt=plan.at)).exists():
        yield "other dry spells"
    if Hands.objects.of(member).filter(member__left_at__gt=plan.at).exists():
        yield "somebody left"


def _named(before: str, names: Iterable[str]) -> Iterator[str]:
    """Each name once, the first few of them; nothing without any."""
    found = sorted(set(names))
    if found:
        more = f" and {counted(len(found) - MOST_NAMED, 'other')}" if len(found) > MOST_NAMED else ""
        yield before + ", ".join(found[:MOST_NAMED]) + more
