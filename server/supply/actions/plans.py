"""Working out from whom to get the list, step by step while somebody looks on."""

import uuid
from collections.abc import Callable, Iterator, Sequence
from typing import Any

from lumvek_core import registry, structure
from lumvek_core.errors import BadInput
from lumvek_core.planning.sourcing_model import Pin
from shops.access import kept_already
from shops.models import Member
from shops.rights import action
from tabular import streamed

from ..models import Plan
from ..queries.sourcing import question

DONE = {"what": "", "steps": 1, "of": 1, "done": True}


@action("plan orders", atomic=False)
def stream(member: Member, plan: uuid.UUID, pins: Sequence[Pin]) -> Iterator[dict[str, Any]]:
    """Work out a plan and keep it: what is told of each step, then ``done``. The same UUID again gives what was
    kept; another shop's is not found.

    The work runs in a process of its own; a thread waits for it, so that each step is told while the next one is worked on.
    """
    if kept_already(member, Plan, plan):
        yield DONE
        return
    given = question(member, pins)
    if not given.lines:
        raise BadInput("lines", "there is nothing to order")
    asked = structure.write(given)

    def work(tell: Callable[[dict[str, Any]], None]) -> dict[str, Any]:
        def step(what: str, done: int, of: int) -> None:
            tell({"what": what, "steps": done, "of": of, "done": False})

        return registry.find("source_parts").run_within_limits(asked, step)

    def keep(answer: dict[str, Any]) -> None:
        kept = {"asked": asked, "answer": answer, "by": member.user}
        Plan.objects.get_or_create(uuid=plan, shop_id=member.shop_id, defaults=kept)

    yield from streamed.alongside(work, keep)
    yield DONE
