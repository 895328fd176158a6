"""What is changed of suppliers, rates, dates, shares, stock and numbers stands in the shop's log, by whom and what it was."""

import uuid

import pytest
from django.db import transaction

from shops.models import Change
from supply.actions import numbering
from supply.models import Supplier

NEW = {"name": "Harrow Mail", "email": "desk@harrow-mail.invalid", "hours": "Mon–Fri 07:30–17:00", "distance_km": 11}


@pytest.fixture
def said():
    """What the log says of parts since the test began, the oldest first."""
    begun = Change.objects.order_by("-pk").values_list("pk", flat=True).first() or 0

    def since():
        rows = Change.objects.filter(pk__gt=begun, about=Change.About.PARTS).order_by("pk")
        return list(rows.values_list("what", "before", "after"))

    return since


@pytest.fixture
def lead(yard, as_):
    return as_(yard.lead)


def test_a_supplier_is_entered_once_under_its_uuid_and_changed(lead, said):
    key = str(uuid.uuid4())
    for _ in range(2):  # the first answer was lost
        assert lead.send("/api/supply/suppliers", uuid=key, **NEW).status_code == 200
    kept = Supplier.objects.get(name="Harrow Mail")
    changed = {"id": kept.pk, "hours": "Mon–Fri 07:30–12:00, 12:45–17:00", "call_min": 5}
    assert lead.send("/api/supply/suppliers", **NEW | changed).status_code == 200
    assert said() == [
        ("Supplier Harrow Mail", "", "entered"),
        ("Supplier Harrow Mail: a call, min", "none", "5"),
        ("Supplier Harrow Mail: open", "Mon–Fri 07:30–17:00", "Mon–Fri 07:30–12:00, 12:45–17:00"),
    ]


def test_sent_again_with_something_corrected_it_is_still_one(lead):
    key = str(uuid.uuid4())
    lead.send("/api/supply/suppliers", uuid=key, **NEW)
    lead.send("/api/supply/suppliers", uuid=key, **NEW | {"distance_km": 12})
    assert list(Supplier.objects.values_list("name", "distance_km")) == [("Harrow Mail", 12.0)]


def test_a_name_and_a_uuid_belong_to_one_supplier(lead, neighbour, as_):
    key = str(uuid.uuid4())
    lead.send("/api/supply/suppliers", uuid=key, **NEW)
    again = lead.send("/api/supply/suppliers", uuid=str(uuid.uuid4()), **NEW)
    assert again.json()["error"] == {"field": "name", "message": "there is a supplier of that name"}
    elsewhere = as_(neighbour.lead).send("/api/supply/suppliers", uuid=key, **NEW)
    assert elsewhere.json()["error"]["field"] == "uuid"
    assert Supplier.objects.count() == 1


def test_rates(lead, said):
    rates = {"labour_rate": "62", "km_cost": "0.42", "downtime_rate": "240", "late_cost_per_day": "120"}
    lead.send("/api/supply/terms", currency="EUR", days_before=7, **rates)
    assert said() == [], "as they were"
    lead.send("/api/supply/terms", currency="EUR", days_before=10, **rates | {"labour_rate": "64.5"})
    assert said() == [
        ("Rates: an hour of work", "62.00 EUR", "64.50 EUR"),
        ("Rates: days before the season", "7", "10"),
    ]


def test_the_day_parts_are_wanted(lead, yard, said):
    for day in ("2027-03-01", "2027-03-01", None):
        assert lead.send("/api/supply/need-dates", machine=yard.machine.pk, day=day).status_code == 200
    assert said() == [
        ("Dunmere 12: parts wanted", "by its season", "2027-03-01"),
        ("Dunmere 12: parts wanted", "2027-03-01", "by its season"),
    ]


def test_who_bears_how_much(lead, yard, said):
    yard.machine.owners.add(yard.owner)
    for percent in ("60", "60,0", ""):
        sent = lead.send(f"/api/supply/costs/{yard.machine.pk}/shares", owner=yard.owner.pk, percent=percent)
        assert sent.status_code == 200
    name = f"Dunmere 12: share of {yard.owner.name}"
    assert said() == [(name, "as the others", "60 %"), (name, "60 %", "as the others")]


def test_what_is_kept_in_stock(lead, said):
    item = {"number": "X-1", "name": "Opener disc"}
    for more in ({}, {"bin": "A4"}, {"bin": "A4", "carry": 2}):
        assert lead.send("/api/supply/stock/items", **item, **more).status_code == 200
    assert said() == [
        ("Stock of X-1", "", "kept: Opener disc"),
        ("Stock of X-1: bin", "none", "A4"),
        ("Stock of X-1: the truck carries", "0", "2"),
    ]


def test_a_number_that_was_found(lead, yard, said):
    sent = lead.send("/api/supply/numbers", model=yard.model.pk, slot="opener-disc", side="", number="D12-4009", pack=1)
    assert sent.status_code == 200
    assert said() == [("Dunmere 12, opener disc", "D12-4001", "D12-4009")]


def test_a_delivery_that_is_ordered_earlier_is_a_change(lead, said):
    van = {"name": "van", "lead_days": 1, "working": True, "cutoff": "15:00", "price": 18}
    key = str(uuid.uuid4())
    for way in (van, van | {"cutoff": "14:00"}, van | {"cutoff": None, "working": False}):
        assert lead.send("/api/supply/suppliers", uuid=key, **NEW, deliveries=[way]).status_code == 200
    assert [(before, after) for what, before, after in said() if what.endswith("sends by")] == [
        ("van in 1 working d if ordered by 15:00 for 18", "van in 1 working d if ordered by 14:00 for 18"),
        ("van in 1 working d if ordered by 14:00 for 18", "van in 1 d for 18"),
    ]


def test_a_parts_book_from_a_file(yard, said):
    book = "slot,side,number,pack\nopener-disc,,D12-4010,1\n"
    numbering.read_file(yard.parts, yard.model, book, dry=False)
    assert said() == [("Dunmere 12: parts book", "", "1 number from a file")]


def test_of_a_file_that_was_only_looked_at_or_refused_nothing_is_said(yard, said):
    for book, dry in (("slot,number\nopener-disc,D12-4010\n", True), ("slot,number\nno-such-part,D12-4010\n", False)):
        with transaction.atomic():
            numbering.read_file(yard.parts, yard.model, book, dry=dry)
    assert said() == []
