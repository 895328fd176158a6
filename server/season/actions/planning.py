"""Working out the season's plan while somebody looks on, and taking one to work by."""

import datetime as dt
import uuid
from collections.abc import Iterator
from dataclasses import dataclass
from functools import partial
from queue import SimpleQueue
from threading import Thread
from typing import Any

from django.db import connection
from django.utils import timezone

from fleet.queries.machines import machine_for
from lumvek_core import apart, registry
from lumvek_core.errors import BadInput
from outside import background
from shops import days
from shops.access import NotFoundHere
from shops.models import Member
from shops.rights import action

from ..models import SeasonPlan
from ..queries import plans, question

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
def stream(member: Member, plan: uuid.UUID, tried: Try, *, anew: bool = False) -> Iterator[dict[str, Any]]:
    """Work out a plan and keep it: how late the best is so far in weighted minutes, and what none is under; then ``done``. The
    same UUID again gives what was kept. It runs in a process of its own; somebody may say that what there is will do. As little
    as may be moves against the plan that people work by; anew: whatever moves.
    """
    had = SeasonPlan.objects.filter(uuid=plan).first()
    if had is not None:
        if had.shop_id != member.shop_id:
            raise NotFoundHere("There is no such plan.")
        if had.answer is not None:
            yield DONE
            return
    asked = question.question(member, None if anew else plans.taken(member))
    if not asked.jobs:
        raise BadInput("jobs", "there is nothing to do on any machine")
    words = ""
    if tried != Try():
        machine = machine_for(member, tried.machine) if tried.machine is not None else None
        words = question.otherwise(asked.asked, tried.day, tried.hand, tried.rush, machine, tried.season_date)
    kept, _ = SeasonPlan.objects.update_or_create(
        uuid=plan,
        shop_id=member.shop_id,
        defaults={"asked": asked.asked, "shown": question.shown(asked), "words": words, "by": member.user, "enough": False},
    )
    told: SimpleQueue[tuple[str, int, int] | BaseException | dict[str, Any]] = SimpleQueue()

    def tell(what: str, found: int, bound: int) -> bool:
        told.put((what, found, bound))
        return SeasonPlan.objects.filter(pk=kept.pk, enough=True).exists()

    def work() -> None:
        try:
            told.put(registry.find("season_schedule").run_within_limits(asked.asked, tell))
        except BaseException as problem:  # told to whoever waits, who would wait for ever otherwise
            told.put(problem)
        finally:
            connection.close()

    Thread(target=work, daemon=True).start()
    while True:
        match told.get():
            case (what, found, bound):
                yield {"what": what, "found": found, "bound": bound, "done": False}
            case dict() as answer:
                SeasonPlan.objects.filter(pk=kept.pk).update(answer=answer)
                yield DONE
                return
            case BadInput() | apart.Busy() as problem:
                kept.delete()  # nothing is being worked out any more
                yield (problem if isinstance(problem, BadInput) else BadInput("", str(problem))).as_dict()
                return
            case problem:
                kept.delete()
                raise RuntimeError("the season's plan could not be worked out") from problem


def again_beside(member: Member) -> None:
    """Plan anew beside, because something of the plan cannot be done; it is the plan that people work by then. Where that
    fails, the plan stays as it is, and says what is otherwise."""
    kept = SeasonPlan.objects.create(uuid=uuid.uuid4(), shop=member.shop, by=member.user)
    background.later(partial(_again, member.pk, kept.pk))


def _again(member_pk: int, plan_pk: int) -> None:
    member = Member.objects.select_related("user", "shop").get(pk=member_pk)
    kept = SeasonPlan.objects.filter(pk=plan_pk)
    days.as_in(member.shop)
    try:
        asked = question.question(member, plans.taken(member))
        answer = registry.find("season_schedule").run_within_limits(asked.asked)
        kept.update(
            asked=asked.asked, shown=question.shown(asked), answer=answer, taken_at=timezone.now(), taken_by=member.user
        )
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
