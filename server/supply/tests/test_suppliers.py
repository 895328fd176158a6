"""Suppliers as a person enters them, rates, shares, and numbers that were superseded."""

from decimal import Decimal

from django.utils import timezone

from parts.models import PartNumber
from supply.models import Share, Supplier, Terms
from supply.queries import costs, net_requirements

SUPPLIER = {
    "name": "Harrow Mail", "email": "desk@harrow-mail.invalid", "hours": "", "closed": "2026-12-24",
    "deliveries": [{"name": "post", "lead_days": 3, "working": True, "cutoff": "16:00", "price": 7.5}],
}  # fmt: skip


def test_a_supplier_is_entered_changed_and_named_once(shop, neighbour, as_):
    browser = as_(shop.parts)
    found = next(one for one in browser.send("/api/supply/suppliers", **SUPPLIER).json() if one["name"] == "Harrow Mail")
    assert (found["ways"], found["closed"], found["call_min"]) == (["post"], "2026-12-24", None)
    changed = browser.send("/api/supply/suppliers", **SUPPLIER | {"id": found["id"], "hours": "Mon–Fri 08:00–16:00"}).json()
    assert next(one for one in changed if one["id"] == found["id"])["hours"] == "Mon–Fri 08:00–16:00"
    for wrong, field in [
        ({}, "name"),
        ({"name": "New", "hours": "always"}, "hours"),
        ({"name": "New", "closed": "Christmas"}, "closed"),
        ({"name": "New", "deliveries": [{"name": "fetch", "lead_days": 1}]}, "deliveries"),
        ({"name": "New", "travel_min": -1}, "travel_min"),
        ({"name": "New", "deliveries": [{"name": "van", "lead_days": 1, "cutoff": "noon"}]}, "deliveries.0.cutoff"),
    ]:
        refused = browser.send("/api/supply/suppliers", **SUPPLIER | wrong)
        assert (refused.status_code, refused.json()["error"]["field"]) == (422, field)
    stranger = as_(neighbour.parts).send("/api/supply/suppliers", **SUPPLIER | {"id": found["id"]})
    assert stranger.status_code == 404 and Supplier.objects.get(pk=found["id"]).openings
    assert as_(shop.technician).send("/api/supply/suppliers", **SUPPLIER | {"name": "New"}).status_code == 403


def test_the_shop_sets_its_currency_and_rates(shop, as_):
    rates = {
        "currency": "DKK",
        "labour_rate": "460,50",
        "km_cost": "3.1",
        "downtime_rate": "1800",
        "late_cost_per_day": "900",
        "days_before": 10,
    }
    terms = as_(shop.lead).send("/api/supply/terms", **rates).json()["terms"]
    assert (terms["currency"], terms["labour_rate"], Terms.objects.get(shop=shop.shop).km_cost) == (
        "DKK",
        "460.50",
        Decimal("3.10"),
    )
    for wrong, field in [
        ({"labour_rate": "much"}, "labour_rate"),
        ({"currency": "crowns"}, "currency"),
        ({"km_cost": "-1"}, "km_cost"),
        ({"now": "2026-12-07T08:00:00"}, "now"),  # on nobody's clock
    ]:
        assert as_(shop.lead).send("/api/supply/terms", **rates | wrong).json()["error"]["field"] == field


def test_owners_without_shares_bear_alike_and_shares_never_pass_the_whole(planned, as_):
    planned.machine.owners.add(planned.owner, planned.lead)
    (one,) = costs.estimates(planned.parts)[1]
    assert sum(amount for _, _, amount in one.shares) == one.total and len(one.shares) == 2
    path = f"/api/supply/costs/{planned.machine.pk}/shares"
    browser = as_(planned.parts)
    assert browser.send(path, owner=planned.owner.pk, percent="70").status_code == 200
    assert browser.send(path, owner=planned.lead.pk, percent="31").json()["error"]["field"] == "percent"
    assert browser.send(path, owner=planned.technician.pk, percent="10").json()["error"]["field"] == "owner"
    (machine,) = browser.send(path, owner=planned.lead.pk, percent="10").json()["machines"]
    assert [(one["name"], one["percent"]) for one in machine["shares"]] == [("Owner", "70"), ("Lead", "10"), ("others", "20")]
    browser.send(path, owner=planned.lead.pk, percent="")
    assert Share.objects.count() == 1


def test_what_came_after_a_number_is_ordered_and_the_old_one_is_told_apart(shop):
    PartNumber.objects.filter(slot="opener-disc").update(replaced_by="D12-4003", mark="The old one has a notch")
    line = next(one for one in net_requirements.build(shop.parts, timezone.now()).lines if one.name == "Opener disc")
    assert (line.number, line.note) == ("D12-4003", "Replaces D12-4001. The old one has a notch.")


def test_a_machines_day_is_set_and_taken_back(shop, as_):
    browser = as_(shop.parts)
    (machine,) = browser.send("/api/supply/need-dates", machine=shop.machine.pk, day="2026-12-02").json()["machines"]
    assert machine["need_by"] == "2026-12-02"
    (machine,) = browser.send("/api/supply/need-dates", machine=shop.machine.pk, day=None).json()["machines"]
    assert machine["need_by"] == "2026-12-05", "a week before the season"
