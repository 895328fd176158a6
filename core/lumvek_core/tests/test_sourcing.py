"""Sourcing: worked cases of the near store and the far one, and proof by trying everything that small plans are the cheapest."""

import pytest

from lumvek_core import registry
from lumvek_core.errors import BadInput

SATURDAY = "2026-11-21"
WEEKDAYS = [{"weekday": day, "from": "07:30", "to": "17:00"} for day in range(5)]
BRIDGE = {"name": "Bridge Street Parts", "distance_km": 11, "travel_min": 15, "open": WEEKDAYS, "call_min": 5}
NORTHMERE = {
    "name": "Northmere Depot",
    "distance_km": 64,
    "travel_min": 60,
    "open": [*WEEKDAYS, {"weekday": 5, "from": "08:00", "to": "12:00"}],
    "call_min": 5,
}
HARROW = {"name": "Harrow Mail", "deliveries": [{"name": "post", "lead_days": 3, "cutoff": "15:00", "price": 8}]}


def offer(supplier, part="D", price=50, stock=9, p=1, **more):
    return {"supplier": supplier["name"], "part": part, "unit_price": price, "stock": stock, "p_stock": p, **more}


def line(name="1", part="D", qty=1, need_by="2026-11-23", **more):
    return {"id": name, "part": part, "qty": qty, "need_by": need_by, **more}


def ask(start, lines, offers, suppliers=(BRIDGE, NORTHMERE, HARROW), **more):
    return registry.find("source_parts").run(
        {"start": start, "lines": lines, "offers": offers, "suppliers": list(suppliers), "labour_rate": 60, **more}
    )


def plan(answer, kind="cheapest"):
    return next(one for one in answer["plans"] if one["kind"] == kind)


def test_a_trip_costs_both_ways_and_the_counter_once_whatever_it_brings():
    # 2 · 15 + 15 = 45 min at 60 an hour, and 22 km at 0.5.
    found = ask(f"{SATURDAY}T09:00", [line("1"), line("2")], [offer(BRIDGE)], km_cost=0.5)
    cheapest = plan(found)
    assert cheapest["cost"] == {"parts": 100, "trips": 56, "delivery": 0, "risk": 0, "late": 0, "total": 156}
    (trip,) = cheapest["trips"]
    assert (trip["leave"], trip["back"], trip["lines"]) == ("2026-11-23T07:15", "2026-11-23T08:00", ["1", "2"])


def test_on_saturday_the_near_store_is_closed_and_monday_is_in_time_for_monday():
    needed_monday = ask(f"{SATURDAY}T09:00", [line()], [offer(BRIDGE), offer(NORTHMERE, price=45)])
    assert plan(needed_monday)["trips"][0]["supplier"] == "Bridge Street Parts"
    reasons = {one["supplier"]: one for one in needed_monday["reasons"]}
    # Northmere on Saturday: 135 + 45 against 45 + 50.
    assert reasons["Northmere Depot"]["extra_cost"] == pytest.approx(85)
    assert reasons["Bridge Street Parts"]["drives"] and reasons["Bridge Street Parts"]["extra_cost"] == pytest.approx(85)


def test_needed_on_sunday_only_the_far_store_will_do():
    found = ask(f"{SATURDAY}T09:00", [line(need_by="2026-11-22")], [offer(BRIDGE), offer(NORTHMERE)])
    (trip,) = plan(found)["trips"]
    assert (trip["supplier"], trip["leave"], trip["back"]) == ("Northmere Depot", f"{SATURDAY}T09:00", f"{SATURDAY}T11:15")
    reasons = {one["supplier"]: one for one in found["reasons"]}
    assert reasons["Northmere Depot"]["more_late"] == 1  # without it the line would be late
    # Standing at the counter after noon is too late, and then nothing arrives before Monday.
    late = ask(f"{SATURDAY}T10:46", [line(need_by="2026-11-22")], [offer(BRIDGE), offer(NORTHMERE)])
    assert late["impossible"][0]["earliest"] == "2026-11-23" and "1 day late" in late["impossible"][0]["reason"]


def test_a_call_turns_may_have_it_into_yes_or_no():
    # Monday 08:00. Near: 45 + 50 with 0.5; far: 135 + 50 for sure. Needed the same day.
    found = ask("2026-11-23T08:00", [line(late_cost_per_day=500)], [offer(BRIDGE, p=0.5), offer(NORTHMERE)])
    cheapest = plan(found)
    (trip,) = cheapest["trips"]
    assert (trip["call_at"], trip["leave"], trip["only_if_there"]) == ("2026-11-23T08:00", "2026-11-23T08:05", True)
    # 5 for the call, 45 if it is there, 135 if it is not.
    assert cheapest["cost"]["total"] == pytest.approx(50 + 5 + 0.5 * 45 + 0.5 * 135)
    (one,) = cheapest["lines"]
    assert one["if_missing"] == {"supplier": "Northmere Depot", "way": "fetch", "arrives": "2026-11-23", "extra_cost": 135}
    assert one["p_in_time"] == 1


def test_without_a_call_the_fallback_begins_the_next_day_and_the_surest_plan_says_what_it_costs():
    no_phone = {**BRIDGE, "call_min": None}
    offers = [offer(BRIDGE, p=0.8), offer(NORTHMERE)]
    found = ask("2026-11-23T08:00", [line(late_cost_per_day=100)], offers, (no_phone, NORTHMERE))
    cheapest, surest = plan(found), plan(found, "surest")
    assert cheapest["cost"]["risk"] == pytest.approx(0.2 * (135 + 100))
    assert (cheapest["p_all_in_time"], surest["p_all_in_time"]) == (0.8, 1)
    assert found["surer"] == {"extra_cost": pytest.approx(135 - 45 - 47), "extra_p": pytest.approx(0.2)}


def test_post_counts_working_days_from_the_day_it_goes_out():
    for ordered, goes_out, arrives in [
        (f"{SATURDAY}T09:00", "2026-11-23", "2026-11-26"),
        ("2026-11-25T15:00", "2026-11-25", "2026-11-30"),
        ("2026-11-25T15:01", "2026-11-26", "2026-12-01"),
    ]:
        found = ask(ordered, [line(need_by=None)], [offer(HARROW)])
        (sending,) = plan(found)["deliveries"]
        assert (sending["goes_out"], sending["arrives"]) == (goes_out, arrives)


def test_packs_are_bought_whole_and_too_few_cannot_be_fetched_but_follow_when_restocked():
    found = ask("2026-11-23T08:00", [line(qty=3)], [offer(BRIDGE, pack=2, price=10)])
    assert plan(found)["lines"][0]["quantity"] == 4 and plan(found)["cost"]["parts"] == 40
    few = ask(
        "2026-11-23T08:00",
        [line(qty=3, need_by="2026-12-04")],
        [offer(BRIDGE, stock=2), offer(HARROW, stock=0, restock_days=4)],
    )
    (one,) = plan(few)["lines"]
    assert (one["supplier"], one["date"], one["arrives"], one["p_there"]) == ("Harrow Mail", "2026-11-27", "2026-12-02", 1)


def test_what_nobody_has_is_named_and_the_rest_is_planned():
    found = ask("2026-11-23T08:00", [line("1"), line("2", "X"), line("3", "Y")], [offer(BRIDGE), offer(BRIDGE, "Y", stock=0)])
    assert [(one["id"], one["earliest"], one["reason"]) for one in found["impossible"]] == [
        ("2", None, "nobody offers it"),
        ("3", None, "nobody has enough of it within 21 days"),
    ]
    assert [one["id"] for one in plan(found)["lines"]] == ["1"] and plan(found)["p_all_in_time"] == 0


def test_a_day_earlier_is_priced_and_the_quickest_plan_has_it_all_first():
    found = ask("2026-11-23T08:00", [line(need_by="2026-12-04")], [offer(BRIDGE, price=30), offer(HARROW, price=20)])
    assert plan(found)["last_arrival"] == "2026-11-26" and plan(found, "quickest")["last_arrival"] == "2026-11-23"
    assert found["one_day_earlier"] == {"last_arrival": "2026-11-23", "extra_cost": 75 - 28}


def test_a_supplier_is_able_when_it_has_all_that_is_needed_to_run():
    lines = [line("1"), line("2", "S", needed="apart")]
    assert ask("2026-11-23T08:00", lines, [offer(BRIDGE), offer(NORTHMERE, stock=0)])["able"] == ["Bridge Street Parts"]


FAR = {"name": "Northmere Depot", "distance_km": 70, "travel_min": 60, "open": WEEKDAYS}


def test_a_line_waits_for_a_trip_that_is_made_later_anyway():
    pin = {"line": "2", "supplier": "Northmere Depot", "way": "fetch", "date": "2026-11-25"}
    lines = [line("1", need_by=None), line("2", "S", need_by=None)]
    found = ask("2026-11-23T08:00", lines, [offer(FAR, price=20), offer(FAR, "S", price=20)], (FAR,), pinned=[pin])
    cheapest = plan(found)
    assert cheapest["cost"]["total"] == 175  # one trip of 135 for two lines at 20
    assert [trip["lines"] for trip in cheapest["trips"]] == [["1", "2"]] and cheapest["optimal"]


def test_a_line_waits_for_a_delivery_that_another_one_needs():
    post = {"name": "Harrow Mail", "deliveries": [{"name": "post", "lead_days": 1, "price": 40}]}
    offers = [offer(post, price=20), offer(post, "S", price=20, stock=0, restock_days=3)]
    found = ask("2026-11-23T08:00", [line("1", need_by=None), line("2", "S", need_by=None)], offers, (post,))
    cheapest = plan(found)
    assert cheapest["cost"]["total"] == 80 and len(cheapest["deliveries"]) == 1
    assert cheapest["deliveries"][0]["ordered"] == "2026-11-26"
    # Unless it would be late by waiting.
    soon = ask("2026-11-23T08:00", [line("1", need_by="2026-11-25"), line("2", "S", need_by=None)], offers, (post,))
    assert plan(soon)["cost"]["total"] == 120


def test_a_sure_line_shares_a_trip_that_is_made_after_a_call_for_another():
    offers = [offer(BRIDGE, price=20), offer(BRIDGE, "S", price=20, p=0.5)]
    found = ask("2026-11-23T08:00", [line("1"), line("2", "S", late_cost_per_day=400)], offers, (BRIDGE,))
    assert [trip["lines"] for trip in plan(found)["trips"]] == [["1", "2"]]


def test_what_is_pinned_stays_and_what_cannot_be_is_refused_at_the_pin():
    offers = [offer(BRIDGE), offer(NORTHMERE)]
    pin = {"line": "1", "supplier": "Northmere Depot", "way": "fetch", "date": "2026-11-24"}
    found = ask("2026-11-23T08:00", [line(need_by="2026-11-27")], offers, pinned=[pin])
    assert plan(found)["trips"][0]["leave"] == "2026-11-24T06:30"
    for wrong, field in [
        ({"date": "2026-11-22"}, "date"),
        ({"way": "van"}, "way"),
        ({"supplier": "Nobody"}, "supplier"),
        ({"date": "2026-11-29"}, ""),
    ]:
        with pytest.raises(BadInput) as refused:
            ask("2026-11-23T08:00", [line(need_by="2026-11-27")], offers, pinned=[pin | wrong])
        assert refused.value.field == f"pinned.0.{field}".rstrip(".")


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"start": "Saturday"}, "start"),
        ({"lines": [line(), line()]}, "lines.1.id"),
        ({"lines": [line(need_by="soon")]}, "lines.0.need_by"),
        ({"offers": [offer({"name": "Nobody"})]}, "offers.0.supplier"),
        ({"offers": [offer(BRIDGE), offer(BRIDGE)]}, "offers.1.part"),
        ({"suppliers": [BRIDGE | {"open": [{"weekday": 1, "from": "17:00", "to": "08:00"}]}]}, "suppliers.0.open.0.to"),
        ({"suppliers": [HARROW | {"deliveries": [{"name": "fetch", "lead_days": 1}]}]}, "suppliers.0.deliveries.0.name"),
    ],
)
def test_a_contradiction_is_refused_at_its_field(change, field):
    given = {"start": "2026-11-23", "lines": [line()], "offers": [offer(BRIDGE)], "suppliers": [BRIDGE], "labour_rate": 60}
    with pytest.raises(BadInput) as refused:
        registry.find("source_parts").run(given | change)
    assert refused.value.field == field
