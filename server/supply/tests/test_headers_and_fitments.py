"""A header's parts are the header's: its number, its cost, its fitment; and what a fitment means for findings and later
winters."""

import uuid

import pytest
from django.utils import timezone

from fleet.models import Fitment
from inspection.actions import recording, starting
from inspection.judging.typed_readings import NewReading
from supply.actions import fitting, stocking
from supply.models import StockItem
from supply.queries import costs, net_requirements, stock


@pytest.fixture
def ring(demo):
    """The demo's shop: a finished combine with its platform, a half done planter."""
    return demo


def lines(ring):
    return {line.number or line.name: line for line in net_requirements.build(ring.bram, timezone.now()).lines}


def put(ring, number, pieces, place="shelf"):
    stocking.keep(ring.bram, number, number)
    there = stock.levels(ring.shop.pk, [number]).get(number, {}).get(place, 0)
    stocking.count(ring.bram, uuid.uuid4(), number, place, there + pieces)


def fit(ring, walk_around, slot, *at, **more):
    given = {"counter": None, "place": "shelf"} | more
    return fitting.fit(ring.tomas, uuid.uuid4(), walk_around.pk, slot, at, given["counter"], given["place"])


def test_guards_found_on_the_platform_are_ordered_for_the_platform(ring):
    (piece,) = lines(ring)["LS-2042"].pieces
    assert (piece.machine.name, piece.slot, piece.walk_slot, piece.quantity) == ("Sill 61", "guard", "platform.guard", 2)
    names = {one.machine.name for one in costs.estimates(ring.bram)[1]}
    assert {"Sill 61", "Heron 4"} <= names


def test_the_owner_of_a_combine_does_not_pay_for_somebody_elses_header_and_the_headers_owner_does(ring):
    assert "Sill 61" not in {one.machine.name for one in costs.estimates(ring.lotte)[1]}
    ring.machines["Sill 61"].owners.add(ring.lotte)
    ring.machines["Heron 4"].owners.remove(ring.lotte)
    assert {one.machine.name for one in costs.estimates(ring.lotte)[1]} == {"Dunmere 12", "Sill 61"}


def test_a_platform_walked_by_itself_lists_its_own_numbers(ring, as_):
    alone = starting.start(ring.tomas, ring.machines["Sill 61"], uuid.uuid4())
    guards = NewReading(uuid=uuid.uuid4(), check="platform.guards", position="all", raw=["2"])
    recording.record_reading(ring.tomas, alone.pk, guards)
    listed = as_(ring.tomas).get(f"/api/walk-arounds/{alone.pk}/parts").json()["parts"]
    assert {part["slot"]: part["number"] for part in listed}["platform.guard"] == "LS-2042"


def test_a_disc_read_at_its_limit_in_inches_is_due_with_its_part(ring, as_):
    """Dunmere 6: discs of 15 in, renewed at 14 1/2 in."""
    begun = starting.start(ring.tomas, ring.machines["Dunmere 6"], uuid.uuid4())
    disc = NewReading(uuid=uuid.uuid4(), check="opener-disc-diameter", position="1L", raw=["14 1/2 in"])
    recording.record_reading(ring.tomas, begun.pk, disc)
    place = begun.verdicts.get(check_key="opener-disc-diameter", position_key="1L")
    assert place.severity == "due"
    assert place.reason.startswith("368.3 mm, limit 368.3 mm (14 1/2 in) reached.")
    listed = as_(ring.tomas).get(f"/api/walk-arounds/{begun.pk}/parts").json()["parts"]
    assert {part["slot"]: part["number"] for part in listed}["opener-disc"] == "D6-4001"


def test_a_guard_is_fitted_to_the_platform_by_its_own_counter(ring, as_):
    put(ring, "LS-2042", 2)
    (made,) = fit(ring, ring.combine, "platform.guard", "all", counter=2320)
    assert (made.machine.name, made.slot, made.quantity, made.counter) == ("Sill 61", "guard", 2, 2320)
    ring.machines["Sill 61"].refresh_from_db()
    assert ring.machines["Sill 61"].area_ha == 2320
    assert lines(ring)["LS-2042"].fitted == 2
    found = as_(ring.tomas).get(f"/api/walk-arounds/{ring.combine.pk}/findings").json()
    guards = next(group for group in found["groups"] if group["check"] == "platform.guards")
    assert "2320 ha: 0 % worn" in guards["findings"][0]["place"]["fitted"]


def test_a_set_for_the_whole_machine_renews_every_place_it_was_read_at(ring, as_):
    put(ring, "TH-2007", 1)
    fit(ring, ring.combine, "feeder-sprockets", "all")
    found = as_(ring.tomas).get(f"/api/walk-arounds/{ring.combine.pk}/findings").json()
    sprockets = next(group for group in found["groups"] if group["check"] == "feeder-sprockets")
    assert all(finding["place"]["fitted"] for finding in sprockets["findings"])


def test_one_disc_of_a_row_says_nothing_of_the_other_row(ring, as_):
    put(ring, "D12-4001", 2)
    fit(ring, ring.planter, "opener-disc", "5L", "5R")
    places = as_(ring.tomas).get(f"/api/walk-arounds/{ring.planter.pk}").json()["places"]
    discs = {one["position"]: one for one in places if one["check"] == "opener-disc-diameter"}
    assert discs["5L"]["used"] == 0 and discs["5R"]["fitted"] and not discs["6R"]["fitted"] and discs["6R"]["used"] >= 1


def test_the_next_disc_at_a_place_ends_the_fitment_before(ring):
    put(ring, "D12-4001", 2)
    first = fit(ring, ring.planter, "opener-disc", "5L")[0]
    Fitment.objects.filter(pk=first.pk).update(fitted_at=ring.planter.started_at - (timezone.now() - ring.planter.started_at))
    second = fit(ring, ring.planter, "opener-disc", "5L")[0]
    first.refresh_from_db()
    assert first.until_at is not None and second.until_at is None
    assert Fitment.objects.filter(position_key="5L", until_at=None).count() == 1


def test_parts_are_fitted_from_the_truck_as_well(ring):
    before = stock.levels(ring.shop.pk)["D12-4022"]
    fit(ring, ring.planter, "opener-bearing", "9L", place="truck")
    after = stock.levels(ring.shop.pk)["D12-4022"]
    assert (before["truck"] - after["truck"], before["shelf"]) == (1, after["shelf"])


def test_oil_for_two_machines_comes_off_one_shelf(ring):
    assert (lines(ring)["RING-OIL-90"].needed, lines(ring)["RING-OIL-90"].shelf) == (2, 8)
    fit(ring, ring.combine, "gear-oil", "all")
    line = lines(ring)["RING-OIL-90"]
    assert (line.fitted, line.shelf, line.net) == (1, 7, 0)


def test_changing_what_the_truck_carries_keeps_what_failed_before(ring, as_):
    browser = as_(ring.bram)
    put(ring, "D12-4022", 2)
    fit(ring, ring.planter, "opener-bearing", "5L")

    def shown():
        return next(one for one in browser.get("/api/supply/stock").json()["items"] if one["number"] == "D12-4022")

    item = shown()
    assert (item["events"], item["past_events"]) == (6, 5)
    body = {key: item[key] for key in ("number", "name", "bin", "past_events", "hours_ahead", "prior_hours")}
    browser.send("/api/supply/stock/items", **body, past_hours=item["hours"], carry=item["advised"])
    again = shown()
    assert (again["events"], again["carry"], again["advised"], again["expected"]) == (
        6,
        item["advised"],
        item["advised"],
        item["expected"],
    )
    refused = browser.send("/api/supply/stock/items", **body, past_hours=-1, carry=1)
    assert (refused.status_code, refused.json()["error"]["field"]) == (422, "past_hours")


def test_movements_say_who_moved_what_and_why(ring, as_):
    fit(ring, ring.planter, "opener-bearing", "9L", place="truck")
    newest = as_(ring.bram).get("/api/supply/stock").json()["movements"][0]
    assert (newest["number"], newest["place"], newest["change"], newest["reason"], newest["note"], newest["by"]) == (
        "D12-4022", "truck", -1, "Fitted", "Dunmere 12", "Tomas Vey",
    )  # fmt: skip


def test_the_truck_carries_what_it_should_before_it_gives_any_away(ring):
    """Two hubs on the truck, two it should carry: only the one on the shelf counts for the two that are needed."""
    line = lines(ring)["D12-4022"]
    assert (line.needed, line.shelf, line.truck, line.net) == (2, 1, 0, 1)
    StockItem.objects.filter(number="D12-4022").update(carry=1)
    line = lines(ring)["D12-4022"]
    assert (line.truck, line.net) == (1, 0)


def test_a_piece_that_was_fitted_is_not_fitted_to_another_shops_machine(ring, neighbour):
    from lumvek_core.errors import BadInput

    before = Fitment.objects.count()
    with pytest.raises(BadInput, match="nothing is needed"):
        fitting.fit(neighbour.technician, uuid.uuid4(), ring.planter.pk, "opener-disc", ["5L"], None, "shelf")
    assert Fitment.objects.count() == before
