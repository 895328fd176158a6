"""The ring's Saturday: what three open machines need, and what the plan makes of a closed store and a far one."""

import datetime as dt
import uuid
from dataclasses import replace

import pytest
from django.utils import timezone

from demo import supply as demo_supply
from demo.desk_book import SHELVES
from lumvek_core.planning.sourcing import source_parts
from shops.models import Member
from supply.actions import plans
from supply.models import NeedDate, Plan, Supplier, Terms
from supply.queries import costs, net_requirements, sourcing, strip_down_offers


@pytest.fixture
def bram(demo):
    """The parts person on the coming Saturday, a little after one."""
    today = timezone.localdate()
    saturday = today + dt.timedelta(days=(5 - today.weekday()) % 7)
    at = dt.datetime.combine(saturday, dt.time(13, 10), tzinfo=timezone.get_current_timezone())
    Terms.objects.update(now=at)
    demo.bram.shop.refresh_from_db()
    for name, days in demo_supply.NEEDED.items():
        NeedDate.objects.filter(machine__name=name).update(day=saturday + dt.timedelta(days=days))
    closed = (saturday + dt.timedelta(days=demo_supply.STOCKTAKING)).isoformat()
    Supplier.objects.filter(name="Bridge Street Parts").update(closed=[closed])
    return demo.bram


def test_the_list_of_three_machines(bram):
    lines = {line.number or line.name: line for line in net_requirements.build(bram, timezone.now()).lines}
    machines = {piece.machine.name for line in lines.values() for piece in line.pieces}
    assert {"Dunmere 12", "Heron 4", "Corvane 90"} <= machines
    # Handed springs, discs in pairs, scrapers as companions, shims from the shelf, oil by the litre for two machines at once.
    assert (lines["C9-2028L"].side, lines["C9-2028R"].side) == ("left", "right")
    assert (lines["D12-4001"].needed, lines["D12-4001"].order) == (4, 4)
    assert [piece.origin for piece in lines["D12-4031R"].pieces] == ["companion"]
    assert (lines["TH-2168"].needed, lines["TH-2168"].shelf, lines["TH-2168"].net) == (2, 6, 0)
    assert lines["RING-OIL-90"].unit == "l" and {p.machine.name for p in lines["RING-OIL-90"].pieces} == {"Heron 4", "Weir 107"}
    assert lines["D12-4018"].note.startswith("Replaces D12-4017.")
    assert [line.number for line in net_requirements.build(bram, timezone.now()).lines][:2] == ["", ""]


def test_the_plan_says_why_it_does_not_drive_to_the_far_store_on_monday(bram):
    given = replace(sourcing.question(bram), time_limit_s=120)  # the best, on a busy machine too
    assert sourcing.clock(bram.shop.terms).strftime("%A %H:%M") == "Saturday 13:10"
    found = source_parts(given)
    cheapest, surest, quickest = found.plans
    assert [trip.supplier for trip in cheapest.trips] == ["Bridge Street Parts"] and cheapest.trips[0].call_at
    # What is surely there rides along on the trip that is made after a call.
    assert [trip.supplier for trip in surest.trips] == ["Bridge Street Parts"] and surest.trips[0].call_at
    assert [trip.supplier for trip in quickest.trips] == ["Northmere Depot"] and quickest.last_arrival < cheapest.last_arrival
    assert surest.p_all_in_time == cheapest.p_all_in_time and found.surer is None, "the call makes the cheapest the surest"
    reasons = {one.supplier: one for one in found.reasons}
    assert not reasons["Northmere Depot"].drives and reasons["Northmere Depot"].extra_cost > 0
    assert reasons["Bridge Street Parts"].drives
    tie_rod = next(line for line in cheapest.lines if line.id == "TH-2483")
    assert (tie_rod.p_there, tie_rod.if_missing.supplier) == (0.5, "Northmere Depot")
    assert found.impossible == []


def test_every_number_of_the_list_is_sold_by_somebody(bram):
    sold = {number for shelf in SHELVES.values() for number in shelf}
    wanted = {line.number for line in net_requirements.build(bram, timezone.now()).lines if line.number}
    assert wanted <= sold


def test_a_plan_is_kept_with_what_it_was_asked(bram):
    plan = uuid.uuid4()
    list(plans.stream(bram, plan, []))
    kept = Plan.objects.get(uuid=plan)
    assert [line["id"] for line in kept.asked["lines"]] and len(kept.answer["plans"]) == 3
    assert sourcing.changed_since(bram, kept) == []


def test_lotte_bears_her_shares(bram):
    lotte = Member.objects.get(user__username="lotte")
    found = costs.estimates(lotte)[1]
    assert [one.machine.name for one in found] == ["Dunmere 12", "Heron 4"]
    assert [(name, int(percent)) for one in found for name, percent, _ in one.shares if name == "Lotte Ferring"] == [
        ("Lotte Ferring", 40),
        ("Lotte Ferring", 25),
    ]


def test_something_lies_open_behind_the_discs_and_the_money_decides(bram):
    from inspection.models import WalkAround

    planter = WalkAround.objects.filter(machine__name="Dunmere 12").first()
    advice = {part.advice for group in strip_down_offers.build(bram, planter) for part in group.parts}
    assert {"renew", "leave"} <= advice
