"""When the parts that work waits for are here: on the shelf, promised, as the newest plan has them bought, or nobody knows."""

import datetime as dt
from dataclasses import dataclass

from shops.models import Member
from supply.queries import net_requirements
from supply.queries.sourcing import last_plan

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


def arrivals(member: Member, now: dt.datetime) -> dict[str, Arrival]:
    """Of each number on the parts list; of a part without one by its name."""
    plan = last_plan(member)
    answer = plan.answer if plan and plan.answer else {}
    lines = [line for one in answer.get("plans", []) if one["kind"] == "cheapest" for line in one["lines"]]
    bought = {line["id"]: dt.date.fromisoformat(line["arrives"]) for line in lines}
    found = {}
    for line in net_requirements.build(member, now).lines:
        number = line.number or f"{line.name}: number to be found"
        short = line.needed - line.fitted - line.shelf - line.truck
        day, by = None, ""
        if line.net > 0:
            day, by = bought.get(line.number), "as planned, not ordered yet"
        elif short > 0:
            day, by = line.promised, "ordered"
        arrives = dt.datetime.combine(day, COMES_AT) if day else None
        found[number] = Arrival(number, line.name, short <= 0, arrives, by if day else "", line.bin)
    return found
