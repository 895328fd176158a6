"""While it is apart: what else lies open behind the parts of a walk-around, and whether renewing it now is cheaper than
later.
"""

from dataclasses import dataclass, field
from decimal import Decimal
from functools import partial

from fleet.models import Machine
from inspection.judging import forecasting
from inspection.models import Verdict, WalkAround
from inspection.queries import coupled, rule_books
from lumvek_core import coupled as keys
from lumvek_core import positions, registry
from lumvek_core.catalogue.model import Slot
from lumvek_core.catalogue.rule_book import RuleBook
from lumvek_core.coupled import prefix_of, short
from lumvek_core.judgement.strip_downs import LaidOpen, laid_open, life_left, p_fail
from parts.models import PartNumber, PartsLine
from parts.queries import numbers_of
from shops.models import Member

from ..models import Terms
from .costs import price_list
from .needs import terms_of


@dataclass
class ExposedPart:
    """One part that lies open. cost_now, cost_later, saving: in the shop's currency, None where it has no price yet.

    by_school: the advice is the shop's school of bearings, not what the money says.
    """

    slot: str
    name: str
    position: str
    label: str
    state: str
    number: str
    price: float | None
    p_fail: float
    remaining: float
    taken: bool
    because: str
    cost_now: float | None = None
    cost_later: float | None = None
    saving: float | None = None
    break_even: float | None = None
    advice: str = "price"
    bearing: bool = False
    by_school: bool = False


@dataclass
class Opened:
    """One strip-down of a walk-around. opened_by: what is renewed there anyway, in words."""

    key: str
    name: str
    opened_by: str
    hours: float
    downtime_h: float
    source: str
    place: str = ""
    parts: list[ExposedPart] = field(default_factory=list)


def build(member: Member, walk_around: WalkAround) -> list[Opened]:
    """Strip-downs that the parts of this walk-around need, with what else lies open and what it costs now and later."""
    terms = terms_of(member)
    book = rule_books.opened(walk_around.rule_book_id)
    prices = price_list(member.shop_id)
    lines = list(PartsLine.objects.filter(walk_around=walk_around, declined_reason=""))
    states = {
        (check, position): (severity, used)
        for check, position, severity, used in Verdict.objects.filter(walk_around=walk_around).values_list(
            "check_key", "position_key", "severity", "used"
        )
    }
    groups: dict[tuple[str, str, str], Opened] = {}
    there = coupled.of(walk_around)
    for prefix in dict.fromkeys(prefix_of(line.slot) for line in lines):
        long = partial(keys.long, prefix)
        mine = [line for line in lines if prefix_of(line.slot) == prefix]
        machine = there.owner(mine[0].slot)
        numbers = numbers_of(PartNumber.objects.filter(model=machine.model_id))
        foreseen = _foreseen(machine, member)
        taken = {(short(line.slot), line.position_key) for line in mine if line.origin == "apart"}
        renewed = [(short(line.slot), line.position_key) for line in mine if line.origin != "apart"]
        for open_ in laid_open(rule_books.shipped().strip_downs, renewed, partial(_places, book, walk_around, prefix)):
            check = book.family.checks.get(long(open_.reach.check))
            slot = book.family.slots.get(long(open_.reach.slot))
            if check is None or slot is None or check.safety:
                continue
            number = _number(numbers, slot, open_)
            severity, used = states.get((check.key, open_.position), ("not seen", None))
            part = _part(open_, slot, severity, used, number, prices, (open_.reach.slot, open_.position) in taken)
            if known := foreseen.get((check.key, open_.position)):
                part.p_fail, part.remaining = known
            part.slot, part.because = long(part.slot), long(part.because)
            part.bearing = check.kind == "bearing"
            row = positions.find(open_.position).number
            key = (prefix, open_.strip_down.key, str(row or ""))
            group = groups.setdefault(key, _opened(open_, book.family.slots[long(open_.because)]))
            group.place = str(row or "")
            group.parts.append(part)
    for group in groups.values():
        _weigh(group, terms)
        _by_school(group, book.schools.get("bearings", ""))
    return list(groups.values())


def _places(book: RuleBook, walk_around: WalkAround, prefix: str, check_key: str) -> list[str]:
    """Where a check is made on this machine; nowhere if it is not."""
    check = book.family.checks.get(keys.long(prefix, check_key))
    return [place.key for place in positions.expand(check.per, walk_around.layout)] if check else []


def _by_school(group: Opened, school: str) -> None:
    """Bearings as the shop's school has them, whatever the money says."""
    advice = {"only-bad": "leave", "while-apart": "renew"}.get(school)
    for part in group.parts:
        if advice and part.bearing:
            part.advice, part.by_school = advice, True


def _foreseen(machine: Machine, member: Member) -> dict[tuple[str, str], tuple[float, float]]:
    """(check, position) → chance to fail in the coming season and life left, where the machine's own history tells."""
    found = {}
    checks = rule_books.shipped().families[machine.model.family].checks
    for stored in forecasting.forecasts([machine], member.shop)[machine.pk]:
        wears = checks[stored.check_key].wears if stored.check_key in checks else None
        allowance = stored.sizes["limit"] - stored.sizes["new"]
        for place in stored.places if wears else ():
            left = max(0.0, (stored.sizes["limit"] - place["now"]) / allowance)
            found[stored.check_key, place["name"]] = (place["p_cross"] * (wears.p_fail if wears else 1.0), left)
    return found


def _opened(open_: LaidOpen, slot: Slot) -> Opened:
    down = open_.strip_down
    opened_by = f"{slot.name.lower()}, {positions.find(open_.at).label.lower()}"
    return Opened(down.key, down.name, opened_by, down.hours, down.downtime_h, down.source)


def _number(numbers: dict[tuple[str, str], PartNumber], slot: Slot, open_: LaidOpen) -> str:
    side = positions.find(open_.position).side or "" if slot.handed else ""
    found = numbers.get((open_.reach.slot, side))
    return found.ordered_as if found else ""


def _part(
    open_: LaidOpen, slot: Slot, severity: str, used: float | None, number: str, prices: dict[str, Decimal], taken: bool
) -> ExposedPart:
    price = prices.get(number)
    return ExposedPart(
        slot=open_.reach.slot,
        name=slot.name,
        position=open_.position,
        label=positions.find(open_.position).label,
        state=severity,
        number=number,
        price=float(price) if price is not None else None,
        p_fail=p_fail(open_.reach, severity),
        remaining=life_left(severity, used),
        taken=taken,
        because=open_.because,
    )


def _weigh(group: Opened, terms: Terms) -> None:
    """Now against later, by the core's `while_apart`, for the parts that have a price."""
    priced = {str(i): part for i, part in enumerate(group.parts) if part.price is not None}
    if not priced:
        return
    extra = {reach.slot: reach for down in rule_books.shipped().strip_downs if down.key == group.key for reach in down.reaches}
    answer = registry.find("while_apart").run(
        {
            "teardown_h": group.hours,
            "labour_rate": float(terms.labour_rate),
            "downtime_h": group.downtime_h,
            "downtime_rate": float(terms.downtime_rate),
            "parts": [
                {
                    "name": name,
                    "part_cost": part.price,
                    "p_fail": part.p_fail,
                    "remaining": part.remaining,
                    "extra_h": extra[short(part.slot)].extra_h,
                    "p_fail_new": extra[short(part.slot)].p_fail_new,
                }
                for name, part in priced.items()
            ],
        }
    )
    for one in answer["parts"]:
        part = priced[one["name"]]
        part.cost_now, part.cost_later, part.saving = one["cost_now"], one["cost_later"], one["saving"]
        part.break_even, part.advice = one["break_even"], one["advice"]
