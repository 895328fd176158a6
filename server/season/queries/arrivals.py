"""When the parts that work waits for are here: on the shelf, as promised, as they would be if they were ordered now, or nobody
knows."""

import datetime as dt
from dataclasses import dataclass
from typing import Any

from lumvek_core import apart, registry, structure
from lumvek_core.errors import BadInput
from shops.models import Member
from supply.queries import net_requirements
from supply.queries.sourcing import last_plan, question

NOT_ORDERED = "not ordered yet"
LOOKS_S = 2.0
"""Of looking for the cheapest way to get everything."""
COMES_AT = dt.time(12)
"""The hour of the day by which a part is here that comes that day."""


@dataclass(frozen=True)
class Arrival:
    """number: or what it is, where its number is to be found. by: an order, or the plan to buy it. bin: where it lies."""

    number: str
    name: str
    here: bool
    arrives: dt.datetime | None = None
    by: str = ""
    bin: str = ""

    @property
    def words(self) -> str:
        return f"{self.name} {self.number}" if self.name not in self.number else self.number


def arrivals(member: Member, now: dt.datetime, *, if_ordered: bool = True) -> dict[str, Arrival]:
    """Of each number on the parts list; of a part without one by its name. if_ordered: what is not ordered yet is there when it
    would be if it were ordered now; else nobody knows."""
    lines = net_requirements.build(member, now).lines
    bought = _bought(member, [line.number for line in lines if line.number and line.net > 0]) if if_ordered else {}
    found = {}
    for line in lines:
        number = line.pieces[0].called
        short = line.needed - line.fitted - line.shelf - line.truck
        day, by = None, ""
        if line.net > 0:
            day, by = bought.get(line.number), NOT_ORDERED
        elif short > 0:
            day, by = line.promised, "ordered"
        arrives = dt.datetime.combine(day, COMES_AT) if day else None
        found[number] = Arrival(number, line.name, short <= 0, arrives, by if day else "", line.bin)
    return found


def _bought(member: Member, wanted: list[str]) -> dict[str, dt.date]:
    """The day each number would be here: by the newest plan of parts, where that has them all, else as is cheapest now."""
    plan = last_plan(member)
    days = _days(plan.answer) if plan and plan.answer else {}
    if set(wanted) <= set(days):
        return days
    asked = structure.write(question(member)) | {"time_limit_s": LOOKS_S, "cheapest_only": True}
    try:
        return _days(registry.find("source_parts").run_within_limits(asked))
    except (BadInput, apart.Busy):
        return days  # what cannot be bought waits: nobody knows when it comes


def _days(answer: dict[str, Any]) -> dict[str, dt.date]:
    lines = [line for one in answer.get("plans", []) if one["kind"] == "cheapest" for line in one["lines"]]
    return {line["id"]: dt.date.fromisoformat(line["arrives"]) for line in lines}
