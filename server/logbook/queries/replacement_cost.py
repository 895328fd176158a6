"""What waiting costs: the core's `replace_decision` for a wearing place, with the shop's prices and rates."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from decimal import Decimal
from typing import Any

from fleet.models import Machine
from lumvek_core import positions
from lumvek_core.calculators.decision import Advice, DecisionGiven, replace_decision, still_serves
from lumvek_core.catalogue.model import Check
from lumvek_core.coupled import short
from lumvek_core.judgement.companions import place_at
from parts.models import PartNumber
from parts.queries import numbers_of
from shops.models import Member
from supply.models import Terms
from supply.queries.costs import price_list
from supply.queries.needs import terms_of


@dataclass(frozen=True)
class Money:
    """A shop's rates and prices, and which number a slot has on each model. Read once for many places."""

    terms: Terms
    prices: Mapping[str, Decimal]
    numbers: Mapping[int, Mapping[tuple[str, str], PartNumber]]


@dataclass(frozen=True)
class Weighed:
    """cost_now, break_even and advice are None where the part has no number or price yet. p_fail: chance to fail at work."""

    number: str
    price: float | None
    p_fail: float
    cost_wait: float
    cost_now: float | None
    break_even: float | None
    advice: Advice | None


def of_shop(member: Member, machines: Collection[Machine]) -> Money:
    """Rates, prices and numbers. Four queries."""
    models = {machine.model_id for machine in machines}
    by_model: dict[int, list[PartNumber]] = {model: [] for model in models}
    for one in PartNumber.objects.filter(model__in=models):
        by_model[one.model_id].append(one)
    return Money(terms_of(member), price_list(member.shop_id), {model: numbers_of(found) for model, found in by_model.items()})


def weigh(
    money: Money, machine: Machine, check: Check, place: Mapping[str, Any], sizes: Mapping[str, float], use: float
) -> Weighed | None:
    """Renew now or run the coming season, for one place of a stored forecast. use: of that season.

    None where the catalogue says nothing of failing, and for safety items: those are never weighed against money.
    """
    wears = check.wears
    if wears is None or check.safety:
        return None
    allowance = sizes["new"] - sizes["limit"]
    number = _number(money, machine, check, place["name"])
    price = money.prices.get(number)
    share = abs(place["rate"]) * use / abs(allowance)
    left = 1 - (sizes["new"] - place["now"]) / allowance
    given = DecisionGiven(
        p_cross=place["p_cross"],
        remaining=still_serves(left, share, wears.p_fail),
        season_share=share,
        part_cost=float(price or 0),
        labour_h=wears.labour_h,
        field_labour_h=wears.field_labour_h,
        labour_rate=float(money.terms.labour_rate),
        downtime_h=wears.downtime_h,
        downtime_rate=float(money.terms.downtime_rate),
        p_fail_if_crossed=wears.p_fail,
        secondary_cost=wears.secondary_cost,
    )
    found = replace_decision(given)
    known = price is not None
    return Weighed(
        number=number,
        price=float(price) if price is not None else None,
        p_fail=found.p_fail,
        cost_wait=found.cost_wait,
        cost_now=found.cost_now if known else None,
        break_even=found.break_even if known else None,
        advice=found.advice if known or given.remaining <= 0 else None,
    )


def part_place(check: Check, position: str) -> str:
    """Where the part lies that is renewed for a place: a strand's chain belongs to the whole machine."""
    parts = check.renewed_parts
    return place_at(positions.find(position), parts[0].at).key if parts else position


def _number(money: Money, machine: Machine, check: Check, position: str) -> str:
    for part in check.renewed_parts[:1]:
        side, slot = positions.find(position).side or "", short(part.slot)
        numbers = money.numbers.get(machine.model_id, {})
        found = numbers.get((slot, side)) or numbers.get((slot, ""))
        return found.ordered_as if found else ""
    return ""
