"""The log of everything that is the shop's own."""

import pytest

from shops.actions.log import log_change
from shops.models import Change
from shops.queries.changes import PAGE


@pytest.fixture
def look(yard, as_):
    return lambda by=None, **asked: as_(by or yard.lead).get("/api/shop/changes", asked)


def test_who_what_from_what_to_what(yard, as_, look):
    as_(yard.lead).send("/api/shop", name="Sallow Bridge Machinery Ring", second_factor=False)
    found = look().json()
    assert found["page"]["total"] == 1
    one = found["changes"][0]
    told = (one["by"], one["about"], one["what"], one["before"], one["after"])
    assert told == ("Lead", "shop", "Name", "Sallow Bridge", "Sallow Bridge Machinery Ring")


def test_it_is_filtered_searched_and_paged_where_it_lies(yard, look, django_assert_num_queries):
    for i in range(PAGE + 5):
        log_change(yard.lead, Change.About.MACHINE, f"Dunmere {i}: season date", "none", "2027-03-20")
    log_change(yard.lead, Change.About.PERSON, "Ines Marrow", "Technician", "Technician and parts")
    assert [one["what"] for one in look(about="person").json()["changes"]] == ["Ines Marrow"]
    assert [one["what"] for one in look(search="season dunmere lead 17").json()["changes"]] == ["Dunmere 17: season date"]
    assert look(search="no such").json()["changes"] == []
    first, second = look(about="machine").json(), look(about="machine", page=2).json()
    assert (len(first["changes"]), len(second["changes"]), first["page"]["total"]) == (PAGE, 5, PAGE + 5)
    assert first["changes"][0]["what"] == f"Dunmere {PAGE + 4}: season date", "the newest first"


def test_no_shop_reads_anothers(yard, neighbour, look):
    log_change(neighbour.lead, Change.About.SHOP, "Name", "a", "b")
    assert look().json()["changes"] == []


@pytest.mark.parametrize("role", ["technician", "parts", "owner"])
def test_only_the_lead_reads_it(role, yard, look):
    assert look(by=getattr(yard, role)).status_code == 403


def test_what_is_as_it_was_is_no_change(yard, as_):
    as_(yard.lead).send("/api/shop", name="Sallow Bridge", second_factor=False)
    assert not Change.objects.exists()


def test_a_shop_needs_a_name(yard, as_):
    answer = as_(yard.lead).send("/api/shop", name=" ", second_factor=True)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "name")
    yard.shop.refresh_from_db()
    assert not yard.shop.second_factor


def test_the_first_day_ends_when_its_lead_says_so(yard, as_):
    yard.shop.begun = False
    yard.shop.save()
    lead = as_(yard.lead)
    assert lead.get("/api/session").json()["me"]["begun"] is False
    assert lead.get("/api/shop").json()["people"] == 4
    lead.send("/api/shop/begun")
    assert lead.get("/api/session").json()["me"]["begun"] is True
