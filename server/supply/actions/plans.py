"""Working out from whom to get the list, step by step while somebody looks on."""

import uuid
from collections.abc import Iterator, Sequence
from queue import SimpleQueue
from threading import Thread
from typing import Any

from lumvek_core import apart, registry, structure
from lumvek_core.errors import BadInput
from lumvek_core.planning.sourcing_model import Pin
from shops.models import Member
from shops.rights import action

from ..models import Plan
from ..queries.sourcing import question

DONE = {"what": "", "steps": 1, "of": 1, "done": True}


@action("plan orders", atomic=False)
def stream(member: Member, plan: uuid.UUID, pins: Sequence[Pin]) -> Iterator[dict[str, Any]]:
    """Work out a plan and keep it: what is told of each step, then ``done``. The same UUID again gives what was
    kept.

    The work runs in a process of its own; a thread waits for it, so that each step is told while the next one is worked on.
    """
    had = Plan.objects.of(member).filter(uuid=plan).first()
    if had is not None:
        yield DONE
        return
    given = question(member, pins)
    if not given.lines:
        raise BadInput("lines", "there is nothing to order")
    sourcing = registry.find("source_parts")
    told: SimpleQueue[tuple[str, int, int] | BaseException | dict[str, Any]] = SimpleQueue()

    def work() -> None:
        try:
            asked = structure.write(given)
            told.put(sourcing.run_within_limits(asked, lambda what, done, of: told.put((what, done, of))))
        except BaseException as problem:  # told to whoever waits, who would wait for ever otherwise
            told.put(problem)

    Thread(target=work, daemon=True).start()
    while True:
        match told.get():
            case (what, done, of):
                yield {"what": what, "steps": done, "of": of, "done": False}
            case dict() as answer:
                Plan.objects.get_or_create(
                    uuid=plan,
                    shop_id=member.shop_id,
                    defaults={"asked": structure.write(given), "answer": answer, "by": member.user},
                )
                yield DONE
                return
            case BadInput() as problem:
                yield problem.as_dict()
                return
            case apart.Busy() as problem:
                yield BadInput("", str(problem)).as_dict()
                return
            case problem:
                raise RuntimeError("the plan could not be worked out") from problem
