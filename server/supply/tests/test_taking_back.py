"""Second thoughts: what was received, fitted, counted, loaded, ordered or agreed to is taken back, once, and stays on record."""

import uuid

import pytest
from supply_helpers import place

from fleet.models import Fitment
from fleet.queries.machines import fitments_of
from shops.access import Conflict, NotFoundHere
from supply.actions import fitting, ordering, sending, stocking, taking_back
from supply.models import Approval, Movement, Order
from supply.queries import net_requirements, orders, stock

DISC = "D12-4001"


@pytest.fixture
def shelf(shop):
    """Four discs on the shelf."""
    stocking.keep(shop.parts, DISC, "Opener disc")
    stocking.count(shop.parts, uuid.uuid4(), DISC, "shelf", 4)
    return shop


def there(shop):
    levels = stock.levels(shop.shop.pk)[DISC]
    return levels["shelf"], levels["truck"]


def fit(shop, *at):
    act = uuid.uuid4()
    fitting.fit(shop.technician, act, shop.walk_around.pk, "opener-disc", at, None, "shelf")
    return act


def disc_line(shop):
    return next(line for line in net_requirements.build(shop.parts, shop.walk_around.started_at).lines if line.number == DISC)


def test_what_was_fitted_by_mistake_is_needed_again_and_the_old_part_stands_there(shelf, as_):
    first = fit(shelf, "2L")
    Fitment.objects.update(
        fitted_at=shelf.walk_around.started_at - (Fitment.objects.get().fitted_at - shelf.walk_around.started_at)
    )
    old = Fitment.objects.get()
    fitment = fit(shelf, "2L", "2R")
    assert (disc_line(shelf).fitted, there(shelf)) == (2, (1, 0))
    technician = as_(shelf.technician)
    for _ in range(2):
        answer = technician.send(f"/api/supply/movements/{fitment}/take-back")
        assert answer.status_code == 200
    assert (answer.json()["change"], answer.json()["reason"]) == (2, "Taken back")
    assert (disc_line(shelf).fitted, there(shelf)) == (0, (3, 0))
    assert fitments_of([shelf.machine.pk])[shelf.machine.pk, "opener-disc", "2L"].pk == old.pk
    assert (shelf.machine.pk, "opener-disc", "2R") not in fitments_of([shelf.machine.pk])
    taken_back = Fitment.objects.filter(fitting=fitment)
    assert {one.taken_back_by for one in taken_back} == {shelf.technician.user}
    assert first != fitment


def test_what_was_renewed_since_is_taken_back_first(shelf):
    first = fit(shelf, "2L")
    Fitment.objects.update(fitted_at=shelf.walk_around.started_at.replace(year=2020))
    fit(shelf, "2L")
    with pytest.raises(Conflict, match="newer part was fitted at row 2 left"):
        taking_back.take_back(shelf.technician, first)
    assert there(shelf) == (2, 0)


def test_what_was_received_by_mistake_is_still_to_come(planned):
    place(planned.parts, planned.plan)
    wanted = orders.expected(planned.parts, DISC)
    assert wanted >= 2
    came = uuid.uuid4()
    ordering.receive(planned.parts, came, DISC, 2)
    taking_back.take_back(planned.parts, came)
    assert (orders.expected(planned.parts, DISC), there(planned)[0]) == (wanted, 0)
    taking_back.take_back(planned.parts, came)
    assert there(planned)[0] == 0, "twice is once"
    ordering.receive(planned.parts, uuid.uuid4(), DISC, 2)
    assert orders.expected(planned.parts, DISC) == wanted - 2


def test_what_has_been_fitted_cannot_be_sent_back_to_where_it_came_from(planned):
    place(planned.parts, planned.plan)
    came = uuid.uuid4()
    ordering.receive(planned.parts, came, DISC, 2)
    fit(planned, "2L")
    with pytest.raises(Conflict, match="Only 1 left on the shelf"):
        taking_back.take_back(planned.parts, came)


@pytest.mark.parametrize(
    ("do", "after"),
    [
        (lambda shop, act: stocking.count(shop.parts, act, DISC, "shelf", 1), (1, 0)),
        (lambda shop, act: stocking.load_truck(shop.parts, act, DISC, 3), (1, 3)),
        (lambda shop, act: stocking.give_back(shop.parts, act, DISC, 2, "wrong hand, to Northmere Depot"), (2, 0)),
    ],
    ids=["counted", "loaded", "given back"],
)
def test_shelf_and_truck_are_as_before(do, after, shelf):
    act = uuid.uuid4()
    do(shelf, act)
    assert there(shelf) == after
    undone = taking_back.take_back(shelf.parts, act)
    assert there(shelf) == (4, 0)
    with pytest.raises(Conflict, match="do the thing itself again"):
        taking_back.take_back(shelf.parts, undone.uuid)


def test_only_one_of_the_two_movements_of_loading_offers_it(shelf, as_):
    stocking.load_truck(shelf.parts, uuid.uuid4(), DISC, 3)
    moved = as_(shelf.parts).get("/api/supply/stock").json()["movements"]
    assert [(one["place"], one["may_take_back"]) for one in moved] == [("truck", False), ("shelf", True), ("shelf", True)]


def test_a_neighbour_takes_nothing_back_and_an_owner_neither(shelf, neighbour, as_):
    act = Movement.objects.get().uuid
    with pytest.raises(NotFoundHere):
        taking_back.take_back(neighbour.parts, act)
    answer = as_(shelf.owner).send(f"/api/supply/movements/{act}/take-back")
    assert answer.status_code == 403 and there(shelf) == (4, 0)


def test_an_order_is_taken_back_until_it_is_sent(planned, as_):
    shop, wanted = planned, disc_line(planned).net
    order = ordering.make(shop.parts, shop.plan.uuid, "cheapest")[0]
    assert disc_line(shop).net < wanted
    buyer, path = as_(shop.parts), f"/api/supply/orders/{order.uuid}/take-back"
    assert as_(shop.technician).send(path).status_code == 403
    for _ in range(2):
        assert buyer.send(path).status_code == 200
    taken = Order.objects.get(pk=order.pk)
    assert (taken.get_state_display(), taken.trouble) == ("Taken back", "Taken back by Parts before it was sent.")
    assert disc_line(shop).net == wanted and orders.expected(shop.parts, DISC) == 0
    assert sending.send(shop.parts, order.uuid).state == Order.State.CANCELLED, "and it is never sent"


def test_an_order_that_left_the_house_is_not(planned):
    order = ordering.make(planned.parts, planned.plan.uuid, "cheapest")[0]
    sending.sent_by_hand(planned.parts, order.uuid)
    with pytest.raises(Conflict, match="call the supplier"):
        ordering.cancel(planned.parts, order.uuid)


def test_what_an_owner_agreed_to_is_taken_back_by_that_owner_or_the_shop(shop, as_):
    shop.machine.owners.add(shop.owner)
    browser, costs = as_(shop.owner), f"/api/supply/costs/{shop.machine.pk}"
    total = browser.get("/api/supply/costs").json()["machines"][0]["total"]
    browser.send(f"{costs}/approve", uuid=str(uuid.uuid4()), amount=total)
    given = Approval.objects.get()
    assert as_(shop.technician).send(f"{costs}/approvals/{given.uuid}/take-back").status_code == 403
    answer = browser.send(f"{costs}/approvals/{given.uuid}/take-back")
    assert answer.json()["machines"][0]["approvals"] == []
    given.refresh_from_db()
    assert given.taken_back_by == shop.owner.user
    said = uuid.uuid4()
    as_(shop.parts).send(f"{costs}/approve", uuid=str(said), amount=total, how="by telephone")
    assert browser.send(f"{costs}/approvals/{said}/take-back").status_code == 404, "not this owner's word"
    assert as_(shop.parts).send(f"{costs}/approvals/{said}/take-back").json()["machines"][0]["approvals"] == []
