"""Working out the season's plan while somebody looks on, and taking one to work by."""

import datetime as dt
import uuid
from collections.abc import Callable, Iterator, Sequence
from dataclasses import dataclass
from functools import partial
from typing import Any

from django.utils import timezone

from fleet.queries.machines import machine_for
from lumvek_core import apart, registry
from lumvek_core.errors import BadInput
from outside import background
from shops import days
from shops.access import kept_already
from shops.models import Member
from shops.rights import action
from tabular import streamed

from ..models import SeasonPlan
from ..queries import later, plans, question

DONE: dict[str, Any] = {"what": "", "found": 0, "bound": 0, "done": True}


@dataclass(frozen=True)
class Try:
    """What may be otherwise than it stands. day: on which everybody works beside; hand: one more pair of hands; rush: a part
    that is here at once; machine, season_date: another date for one machine."""

    day: dt.date | None = None
    hand: bool = False
    rush: str = ""
    machine: int | None = None
    season_date: dt.date | None = None


@action("plan the season", atomic=False)
def stream(
    member: Member, plan: uuid.UUID, tried: Try, *, anew: bool = False, chosen: Sequence[int] = ()
) -> Iterator[dict[str, Any]]:
    """Work out a plan and keep it: how late the best is so far in weighted minutes, and what none is under; then ``done``. The
    same UUID again gives what was kept. It runs in a process of its own; somebody may say that what there is will do. As little
    as may be moves against the plan that people work by; anew: whatever moves.
    """
    if kept_already(member, SeasonPlan, plan) and plans.plan_of(member, plan).answer is not None:
        yield DONE
        return
    begun = {"by": member.user, "at": timezone.now(), "enough": False}
    kept, _ = SeasonPlan.objects.update_or_create(uuid=plan, shop_id=member.shop_id, defaults=begun)
    try:
        found = _asked(member, kept, tried, chosen, anew=anew)
        yield from streamed.alongside(partial(_work_out, kept.pk, found.asked), partial(_keep, member, kept.pk, found))
    except Exception:
        kept.delete()  # nothing is being worked out any more
        raise
    yield DONE


def _asked(member: Member, kept: SeasonPlan, tried: Try, chosen: Sequence[int], *, anew: bool) -> question.Question:
    """What is asked, kept with the plan to come. Raises BadInput."""
    found = question.question(member, None if anew else plans.taken(member), chosen)
    if not found.jobs:
        raise BadInput("jobs", "there is nothing to do on any machine")
    if tried != Try():
        machine = machine_for(member, tried.machine) if tried.machine is not None else None
        kept.words = question.otherwise(found.asked, tried.day, tried.hand, tried.rush, machine, tried.season_date)
    kept.asked, kept.shown = found.asked, question.shown(found)
    kept.save(update_fields=["words", "asked", "shown"])
    return found


def _work_out(plan_pk: int, asked: dict[str, Any], tell: Callable[[dict[str, Any]], None]) -> dict[str, Any]:
    def step(what: str, found: int, bound: int) -> bool:
        tell({"what": what, "found": found, "bound": bound, "done": False})
        return SeasonPlan.objects.filter(pk=plan_pk, enough=True).exists()

    return registry.find("season_schedule").run_within_limits(asked, step)


def _keep(member: Member, plan_pk: int, found: question.Question, answer: dict[str, Any]) -> None:
    SeasonPlan.objects.filter(pk=plan_pk).update(answer=answer, shown=_shown(member, found, answer))


def _shown(member: Member, found: question.Question, answer: dict[str, Any]) -> dict[str, Any]:
    return question.shown(found) | {"later": later.roughly(member, found, answer)}


def again_beside(member: Member) -> None:
    """Plan anew beside, because something of the plan cannot be done; it is the plan that people work by then. Where that
    fails, the plan stays as it is, and says what is otherwise."""
    kept = SeasonPlan.objects.create(uuid=uuid.uuid4(), shop=member.shop, by=member.user)
    background.later(partial(_again, member.pk, kept.pk))


def at_once(member: Member, plan: uuid.UUID, seconds: float) -> None:
    """Make the plan that people work by in so much time, with nobody looking on. Raises BadInput."""
    kept = SeasonPlan.objects.create(uuid=plan, shop=member.shop, by=member.user)
    _work_by(member, kept.pk, seconds)


def _work_by(member: Member, plan_pk: int, seconds: float | None = None) -> None:
    """Work a plan out, and have people work by it."""
    now = timezone.now()
    taken = plans.taken(member)
    found = question.question(member, taken, taken.shown.get("chosen", []) if taken else ())
    within = {"time_limit_s": seconds} if seconds else {}
    answer = registry.find("season_schedule").run_within_limits(found.asked | within)
    SeasonPlan.objects.filter(pk=plan_pk).update(
        asked=found.asked,
        shown=_shown(member, found, answer),
        answer=answer,
        at=now,
        taken_at=timezone.now(),
        taken_by=member.user,
    )


def _again(member_pk: int, plan_pk: int) -> None:
    member = Member.objects.select_related("user", "shop").get(pk=member_pk)
    kept = SeasonPlan.objects.filter(pk=plan_pk)
    days.as_in(member.shop)
    try:
        _work_by(member, plan_pk)
    except (BadInput, apart.Busy):
        kept.delete()
    finally:
        days.as_nowhere()


@action("plan the season")
def enough(member: Member, plan: uuid.UUID) -> None:
    """Say that the best plan so far will do. Said again, or of one that is done, it changes nothing."""
    plans.plan_of(member, plan)
    SeasonPlan.objects.of(member).filter(uuid=plan).update(enough=True)


@action("plan the season")
def take(member: Member, plan: uuid.UUID) -> None:
    """Make it the plan that people work by; taken again it is taken once. One that tries something out is none to work by."""
    found = plans.plan_of(member, plan)
    if found.answer is None:
        raise BadInput("plan", "is not worked out yet")
    if found.words:
        raise BadInput("plan", f"tries out what is not so: {found.words}")
    if found.taken_at is None:
        SeasonPlan.objects.filter(pk=found.pk).update(taken_at=timezone.now(), taken_by=member.user)
