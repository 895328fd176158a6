"""One search over everything: what words are about, for who may see it, however much there is."""

import uuid

import pytest

from faults.actions import tracing
from faults.schemas import TraceEndIn, TraceIn
from inspection.actions import notes
from inspection.models import Verdict
from shops.models import Member
from supply.models import StockItem, Supplier


@pytest.fixture
def find(yard, as_):
    def ask(text, by=None):
        return as_(by or yard.lead).get("/api/search", {"q": text}).json()

    return ask


def titles(found, kind):
    return [one["title"] for one in found if one["kind"] == kind]


def test_a_machine_is_found_by_name_maker_and_plate(find, yard):
    yard.machine.serial = "D12-0417"
    yard.machine.save()
    for text in ("dunmere", "D12-04", "12 dunm"):
        (one,) = [one for one in find(text) if one["kind"] == "machine"]
        assert (one["title"], one["path"]) == ("Dunmere 12", f"/machines/{yard.machine.pk}")
    assert one["words"] == "Row-crop planter, serial D12-0417"


def test_a_sold_machine_is_found_and_says_so(find, yard):
    yard.machine.gone = "sold"
    yard.machine.save()
    assert find("dunmere")[0]["words"] == "Row-crop planter, sold"


def test_findings_notes_parts_people_and_checks(find, yard, read):
    read("opener-disc-diameter", "3L", "380")
    notes.note(yard.lead, yard.machine, uuid.uuid4(), "The disc drive growls in the headland")
    StockItem.objects.create(shop=yard.shop, number="D12-4001", name="Opener disc", bin="A3")
    Supplier.objects.create(shop=yard.shop, name="Discs and More", email="")
    found = find("disc")
    assert titles(found, "finding") == ["Opener disc diameter: due"]
    assert titles(found, "note") == ["The disc drive growls in the headland"]
    assert titles(found, "part") == ["D12-4001"]
    assert titles(found, "supplier") == ["Discs and More"]
    assert "Opener disc diameter" in titles(found, "check")
    assert titles(find("technic"), "person") == ["Technician"]


def test_symptoms_are_found_with_the_machines_that_can_have_them_and_what_was_traced(find, yard, neighbour):
    uuid_ = uuid.uuid4()
    found = find("misses")  # another word for it
    symptoms = [(one["title"], one["words"]) for one in found if one["kind"] == "symptom"]
    assert symptoms == [("Skips", "Dunmere 12"), ("Skips with belt delivery", "Dunmere 12")]
    assert titles(found, "fault") == []
    trace = tracing.begin(yard.technician, yard.machine, TraceIn(uuid=uuid_, symptom="skips", words="row 4 from the hill on"))
    tracing.end(yard.technician, trace, TraceEndIn(outcome="found", cause="vent"))
    for text in ("skips", "from the hill"):
        (one,) = [one for one in find(text) if one["kind"] == "fault"]
        assert (one["title"], one["words"]) == ("Skips", "Dunmere 12: Vent blocked")
        assert one["path"] == f"/machines/{yard.machine.pk}/faults/{uuid_}"
    assert titles(find("skips", neighbour.lead), "fault") == titles(find("skips", yard.owner), "fault") == []


def test_nothing_of_another_shop_and_nothing_a_role_may_not_see(find, yard, neighbour, read):
    read("opener-disc-diameter", "3L", "380")
    StockItem.objects.create(shop=yard.shop, number="D12-4001", name="Opener disc")
    for by in (neighbour.lead, neighbour.technician):
        found = find("disc", by)
        assert {one["kind"] for one in found} <= {"check", "part"}
        assert "D12-4001" not in [one["title"] for one in found if one["path"] == "/parts/stock"]
    owner = find("d", yard.owner) + find("disc", yard.owner) + find("technician", yard.owner)
    assert {one["kind"] for one in owner} == {"check"}
    yard.machine.owners.add(yard.owner)
    mine = find("disc", yard.owner) + find("dunmere", yard.owner)
    assert {one["kind"] for one in mine} == {"check", "finding", "machine"}


def test_as_many_queries_for_much_as_for_little(yard, as_, read, django_assert_max_num_queries):
    read("opener-disc-diameter", "3L", "380")
    browser = as_(yard.lead)
    browser.get("/api/search", {"q": "disc"})
    with django_assert_max_num_queries(15):
        browser.get("/api/search", {"q": "disc"})
    Verdict.objects.filter(check_key="opener-disc-diameter").update(severity="due")
    with django_assert_max_num_queries(15):
        browser.get("/api/search", {"q": "disc"})


@pytest.mark.parametrize("text", ["", " ", "d", "%", "no such thing at all", "' OR 1=1 --", "\\"])
def test_what_means_nothing_finds_nothing(text, find):
    assert find(text) == []


def test_who_was_let_go_is_found_as_such(find, yard):
    Member.objects.filter(pk=yard.technician.pk).update(left_at="2026-01-01T00:00:00Z")
    assert [one["words"] for one in find("technician") if one["kind"] == "person"] == ["let go"]
