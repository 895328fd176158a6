"""The ring's season: a bay with a door of 5.2 m and a wash-down yard, two pairs of hands, when it will be dry, what was decided
to be done, and a part that comes too late."""

import datetime as dt
from decimal import Decimal

from django.utils import timezone

from fleet.models import Machine
from inspection.actions import decisions
from inspection.models import WalkAround
from season.actions import hands, marking, planning
from shops.models import Member, Workplace
from supply.models import Order, OrderLine, Supplier

from .machines import Yard
from .record_helpers import made_uuid

WIDTHS = {"Heron 6": 3500, "Heron 4": 3300, "Dunmere 12": 3000, "Dunmere 6": 3000, "Corvane 90": 5900}
"""Folded, in millimetres. Headers ride on their trailers."""
DRY = ((2, 8, 3, 18), (5, 7, 5, 17), (9, 8, 12, 17), (16, 8, 18, 17))
"""First day and hour, last day and hour, counted from the day that it is loaded."""
PLANNED_WITHIN_S = 3.0
"""Nobody waits longer for the demo: a good plan, and what makes machines late."""
TO_DO = {
    "Heron 4": [
        "feeder-chain-stretch",
        "feeder-take-up",
        "drum-arms",
        "jack-bearings",
        "support-arm",
        "spline-grease",
        "platform.guards",
    ],
    "Dunmere 12": ["gauge-wheel-gap", "opener-bearing", "outer-scraper", "hitch-hoses"],
    "Corvane 90": ["firmer-springs"],
    "Heron 6": ["tie-rods", "draper.hold-down", "draper.reel-tines", "draper.side-belt-tension"],
}
"""Checks of each machine's newest walk-around of which every finding that is due is to be done."""


def load(yard: Yard, people: dict[str, Member], now: dt.datetime) -> None:
    """Everything that a season's plan begins with."""
    for name, width in WIDTHS.items():
        Machine.objects.filter(shop=yard.shop, name=name).update(folded_width_mm=width)
    for kind, name, door in (("bay", "Bay", 5200), ("yard", "Wash-down yard", None), ("bench", "Bench", None)):
        Workplace.objects.create(uuid=made_uuid("place", name), shop=yard.shop, kind=kind, name=name, door_width_mm=door)
    hands.set_hands(yard.lead, people["tomas"].pk, planned=True, hours="", skills="hydraulics, welding")
    hands.set_hands(yard.lead, people["ines"].pk, planned=True, hours="", skills="")
    today = timezone.localtime(now).date()
    for i, (first, begins, last, ends) in enumerate(DRY):
        start = dt.datetime.combine(today + dt.timedelta(days=first), dt.time(begins))
        end = dt.datetime.combine(today + dt.timedelta(days=last), dt.time(ends))
        hands.add_dry(yard.lead, made_uuid("dry", i), start, end)
    _decide(yard)
    _comes_late(yard, now)
    job = {"name": "Weld the tank step", "minutes": 45, "skill": "welding"}
    marking.add_job(yard.lead, made_uuid("job", "step"), yard.heron_6.pk, job)
    planning.at_once(yard.lead, made_uuid("plan"), PLANNED_WITHIN_S)


def _decide(yard: Yard) -> None:
    for name, checks in TO_DO.items():
        walk = WalkAround.objects.filter(machine__name=name, machine__shop=yard.shop).order_by("-started_at").first()
        assert walk is not None  # noqa: S101  (each of them has one)
        for check in checks:
            due = walk.verdicts.filter(check_key=check, severity__in=("due", "stop"), ask="")
            places = sorted(due.values_list("position_key", flat=True))
            decisions.decide(yard.lead, walk.pk, made_uuid("to do", name, check), check, places, "do")


def _comes_late(yard: Yard, now: dt.datetime) -> None:
    """The platform's guards were ordered in good time; half of them are on their way from the maker."""
    assert yard.sill_61.season_date is not None  # noqa: S101
    order = Order.objects.create(
        uuid=made_uuid("order", "guards"),
        shop=yard.shop,
        supplier=Supplier.objects.get(shop=yard.shop, name="Northmere Depot"),
        way="van",
        run_date=now.date() - dt.timedelta(days=4),
        run_cost=Decimal("18"),
        state=Order.State.SHORT,
        reference="ND-2207",
        by=yard.lead.user,
        answered_at=now - dt.timedelta(days=4),
    )
    OrderLine.objects.create(
        order=order,
        number="LS-2042",
        name="Knife guard",
        quantity=2,
        unit_price=Decimal("24.10"),
        follows=2,
        follows_on=yard.sill_61.season_date + dt.timedelta(days=2),
        serves=["Sill 61: whole machine, Guards"],
    )
