"""Orders: nothing twice, whatever is pressed, lost or killed; short orders split; what comes in is received once."""

import datetime as dt
import threading
import uuid

import pytest
from django.core import mail as outbox
from django.db import connection
from django.utils import timezone
from supply_helpers import make_plan, place

from lumvek_core.errors import BadInput
from lumvek_core.planning.sourcing_model import Pin
from shops.access import Conflict
from supply import mail
from supply.actions import ordering, plans, sending, supplier_replies
from supply.models import Order, OrderLine, Plan, Supplier
from supply.queries import net_requirements, orders, serializers, serializers_orders, sourcing, stock
from supply.schemas import NeedsAsked


def line(member, number="D12-4001"):
    return next(one for one in net_requirements.build(member, timezone.now()).lines if one.number == number)


def test_from_the_list_to_the_desk_and_short_back(planned, desk):
    (order,) = place(planned.parts, planned.plan)
    assert (order.supplier.name, order.way, order.state) == ("Northmere Depot", "van", "short")
    discs = order.lines.get(number="D12-4001")
    # The far store's book said 24; two were there, two follow.
    assert (discs.quantity, discs.accepted, discs.follows) == (4, 2, 2)
    assert discs.serves[0].startswith("Dunmere 12: rows 2, 3 left")
    assert line(planned.parts).net == 0 and line(planned.parts).coming == 4


def test_what_does_not_come_in_time_is_bought_elsewhere(planned):
    (order,) = place(planned.parts, planned.plan)
    ordering.drop_rest(planned.parts, order.uuid, "D12-4001")
    ordering.drop_rest(planned.parts, order.uuid, "D12-4001")
    assert line(planned.parts).net == 2
    second = make_plan(planned.parts, [Pin("D12-4001", "Bridge Street Parts", "fetch")])
    (split,) = place(planned.parts, second)
    assert (split.supplier.name, split.state, split.lines.get().quantity) == ("Bridge Street Parts", "accepted", 2)
    assert line(planned.parts).net == 0


def test_pressing_twice_orders_once(planned, desk, as_):
    path = f"/api/supply/plans/{planned.plan.uuid}/orders"
    first, second = (as_(planned.parts).send(path, kind="cheapest") for _ in range(2))
    assert (first.status_code, second.status_code) == (200, 200)
    assert len(second.json()["orders"]) == 1 and len(desk.orders()) == 1


def test_two_people_with_a_plan_each_order_once(planned, desk):
    hers = make_plan(planned.lead)
    place(planned.parts, planned.plan)
    with pytest.raises(Conflict, match="0 needed now"):
        place(planned.lead, hers)
    assert len(desk.orders()) == 1 and Order.objects.count() == 1


@pytest.mark.django_db(transaction=True)
def test_two_people_at_the_same_instant(planned, desk):
    plans = [(planned.parts, planned.plan), (planned.lead, make_plan(planned.lead))]
    ready, came = threading.Barrier(2), []

    def press(member, plan):
        ready.wait()
        try:
            place(member, plan)
            came.append("ordered")
        except Conflict:
            came.append("refused")
        finally:
            connection.close()

    people = [threading.Thread(target=press, args=one) for one in plans]
    for one in people:
        one.start()
    for one in people:
        one.join()
    assert sorted(came) == ["ordered", "refused"]
    assert sum(OrderLine.objects.filter(number="D12-4001").values_list("quantity", flat=True)) == 4
    assert len(desk.orders()) == 1


def test_an_answer_that_is_lost_is_asked_for_again_and_ordered_once(planned, desk):
    desk.behave("deaf")
    (order,) = place(planned.parts, planned.plan)
    assert order.state == "to-send" and "does not answer" in order.trouble
    assert line(planned.parts).net == 0, "it may have arrived, so it counts as coming"
    desk.behave("normal")
    assert sending.send(planned.parts, order.uuid).state == "short"
    assert len(desk.orders()) == 1


def test_a_server_killed_between_the_desk_and_its_own_record(planned, desk, monkeypatch):
    monkeypatch.setattr(sending, "_answered", lambda *_: (_ for _ in ()).throw(SystemExit))
    with pytest.raises(SystemExit):
        place(planned.parts, planned.plan)
    monkeypatch.undo()
    desk.again()  # and the desk itself was started anew meanwhile
    order = Order.objects.get()
    assert order.state == "to-send" and len(desk.orders()) == 1
    assert sending.send(planned.parts, order.uuid).state == "short"
    assert (
        len(desk.orders()) == 1 and sending.send(planned.parts, order.uuid).reference == order.supplier.orders.get().reference
    )


def test_a_desk_that_is_down_says_so_and_keeps_the_order(planned, desk, as_):
    desk.stop()
    browser = as_(planned.parts)
    found = browser.send(f"/api/supply/plans/{planned.plan.uuid}/orders", kind="cheapest").json()["orders"]
    assert [(one["state"], one["tries"]) for one in found] == [("to-send", 1)]
    assert browser.get("/api/supply/desk").json() == {"connected": True, "answers": False, "simulated": True}
    by_hand = browser.send(f"/api/supply/orders/{found[0]['uuid']}/by-hand")
    assert by_hand.status_code == 409, "the desk may have it: saying it again by telephone would order it twice"
    asked = browser.send("/api/supply/ask-desks", uuid=str(uuid.uuid4())).json()["told"]
    assert all("does not answer" in one["trouble"] for one in asked)
    desk.again()


def test_orders_are_searched_filtered_and_paged_where_they_lie(planned, as_, monkeypatch, django_assert_num_queries):
    (short,) = place(planned.parts, planned.plan)
    day = short.run_date
    for i in range(4):
        made = Order.objects.create(
            uuid=uuid.uuid4(), shop=planned.shop, supplier=planned.near, way="fetch", by=planned.parts.user,
            run_date=day - dt.timedelta(days=i + 1), state="accepted" if i else "to-send", reference=f"B-{i}",
        )  # fmt: skip
        OrderLine.objects.create(
            order=made,
            number=f"D12-500{i}",
            name="Seed tube",
            quantity=2,
            unit_price=4,
            accepted=2,
            received=0 if i == 1 else 2,
        )
    browser = as_(planned.parts)
    look = lambda **asked: browser.get("/api/supply/orders", asked).json()  # noqa: E731
    said = [one["reference"] for one in look()["orders"]]
    assert said == ["B-0", short.reference, "B-1", "B-3", "B-2"], "not confirmed, short, to come, then the newest"
    assert [one["reference"] for one in look(state="open")["orders"]] == [short.reference, "B-1"]
    assert [one["reference"] for one in look(state="accepted", order="day")["orders"]] == ["B-3", "B-2", "B-1"]
    assert [one["reference"] for one in look(search="seed d12-5002")["orders"]] == ["B-2"]
    assert [one["reference"] for one in look(search="northmere")["orders"]] == [short.reference]
    assert len(look(supplier=planned.near.pk)["orders"]) == 4
    assert [one["name"] for one in look()["suppliers"]] == ["Bridge Street Parts", "Northmere Depot"]
    monkeypatch.setattr(serializers_orders, "PAGE", 2)
    assert [one["reference"] for one in look(page=2)["orders"]] == said[2:4]
    with django_assert_num_queries(7):
        look()


def test_while_the_desk_is_away_nobody_waits_for_each_order_in_turn(planned, desk, as_):
    pin = Pin("D12-4018", "Bridge Street Parts", "fetch")
    planned.near.offers.create(number="D12-4018", unit_price="20", stock=9, source="typed", at=timezone.now())
    plan = make_plan(planned.parts, [pin])
    desk.behave("down")
    found = as_(planned.parts).send(f"/api/supply/plans/{plan.uuid}/orders", kind="cheapest").json()["orders"]
    assert sorted(one["tries"] for one in found) == [0, 1], "the second is not sent, so it may still be said by telephone"
    unsent = next(one for one in found if not one["tries"])
    assert as_(planned.parts).send(f"/api/supply/orders/{unsent['uuid']}/by-hand").status_code == 200


def test_a_plan_that_the_list_has_left_behind_is_not_ordered(planned, read):
    for place_ in ("2L", "2R"):
        read("opener-disc-diameter", place_, "398")
    assert sourcing.changed_since(planned.parts, planned.plan)[0].startswith("Opener disc: 4 planned, 2 needed")
    with pytest.raises(Conflict, match="1 needed now, and the plan has 2"):
        ordering.make(planned.parts, planned.plan.uuid, "cheapest")
    assert not Order.objects.exists()


def test_the_same_plan_asked_twice_is_worked_out_once_and_progress_is_told(planned):
    again = list(plans.stream(planned.parts, planned.plan.uuid, []))
    assert len(again) == 1 and Plan.objects.count() == 1
    steps = list(plans.stream(planned.parts, uuid.uuid4(), []))
    assert [step["what"] for step in steps[:3]] == ["what is on offer", "cheapest", "surest"] and steps[-1]["done"]


def test_a_choice_by_hand_that_cannot_be_is_refused_at_its_place(planned):
    pin = Pin("D12-4001", "Bridge Street Parts", "fetch")  # two there, four wanted
    with pytest.raises(BadInput) as refused:
        list(plans.stream(planned.parts, uuid.uuid4(), [pin]))
    assert refused.value.field == "pinned.0"


def test_parts_are_received_by_number_in_pieces_and_once(planned):
    place(planned.parts, planned.plan)
    movement = uuid.uuid4()
    for _ in range(2):
        ordering.receive(planned.technician, movement, "d12-4001 ", 2)
    assert stock.levels(planned.shop.pk)["D12-4001"]["shelf"] == 2 and orders.expected(planned.parts, "D12-4001") == 2
    with pytest.raises(BadInput, match="2 still to come"):
        ordering.receive(planned.parts, uuid.uuid4(), "D12-4001", 3)
    ordering.receive(planned.parts, uuid.uuid4(), "D12-4001", 2)
    with pytest.raises(BadInput, match="all of it has been received"):
        ordering.receive(planned.parts, uuid.uuid4(), "D12-4001", 1)
    with pytest.raises(BadInput, match="nothing called") as refused:
        ordering.receive(planned.parts, uuid.uuid4(), "D99-1", 1)
    assert refused.value.field == "number"
    assert line(planned.parts).shelf == 4 and line(planned.parts).coming == 0


def test_scanning_takes_all_that_is_to_come_and_says_the_bin(planned, as_):
    place(planned.parts, planned.plan)
    found = as_(planned.technician).send("/api/supply/receive", uuid=str(uuid.uuid4()), number="D12-4018").json()
    assert (found["received"], found["to_come"], found["name"]) == (2, 0, "Centre scraper")


def test_an_order_by_hand_goes_out_by_mail_and_its_answer_comes_back_as_a_table(planned):
    Supplier.objects.update(desk="")
    (order,) = ordering.make(planned.parts, planned.plan.uuid, "cheapest")
    letter = mail.letter(planned.parts, order)
    sent = sending.send_by_mail(planned.parts, order.uuid)
    assert (sent.state, sent.mail) == ("by-hand", "sent")
    assert len(outbox.outbox) == 1 and outbox.outbox[0].to == ["orders@northmere.invalid"]
    assert "4 x  D12-4001" in letter.text and "by van, to be here on Tuesday 01 December" in letter.text
    text = "number,accepted,promised,follows,follows_on,unit_price\nD12-4001,2,2026-12-01,2,2026-12-09,49.50\n"
    bad = supplier_replies.read_file(planned.parts, order.uuid, text + "X,1,,,,\n", dry=False)
    assert bad.count("refused") == 1 and Order.objects.get().state == "by-hand"
    assert supplier_replies.read_file(planned.parts, order.uuid, text, dry=True).count("taken") == 1
    with pytest.raises(BadInput, match="2001 lines, and 2000 are taken at once"):
        supplier_replies.read_file(planned.parts, order.uuid, text + "X,1,,,,\n" * 2000, dry=True)
    supplier_replies.read_file(planned.parts, order.uuid, text, dry=False)
    discs = OrderLine.objects.get(number="D12-4001")
    assert (Order.objects.get().state, discs.accepted, discs.follows, str(discs.unit_price)) == ("short", 2, 2, "49.50")
    with pytest.raises(Conflict):
        supplier_replies.read_file(planned.parts, order.uuid, text, dry=False)


def test_an_order_that_was_said_by_telephone_meanwhile_does_not_go_to_the_desk_as_well(planned, desk, monkeypatch):
    (order,) = ordering.make(planned.parts, planned.plan.uuid, "cheapest")
    stale = orders.order_of(planned.parts, order.uuid)
    sending.sent_by_hand(planned.lead, order.uuid)
    real = orders.order_of
    answers_ = iter([stale])
    monkeypatch.setattr(sending, "order_of", lambda *given: next(answers_, None) or real(*given))
    assert sending.send(planned.parts, order.uuid).state == "by-hand"
    assert desk.orders() == {}


def test_an_order_has_the_prices_it_was_chosen_by(planned, desk):
    planned.far.offers.all().delete()
    (order,) = ordering.make(planned.parts, planned.plan.uuid, "cheapest")
    assert str(order.lines.get(number="D12-4001").unit_price) == "48.90"


def test_a_supplier_that_went_away_is_planned_around(planned):
    Supplier.objects.filter(pk=planned.far.pk).update(name="Northmere")
    with pytest.raises(Conflict, match="no longer among the suppliers"):
        ordering.make(planned.parts, planned.plan.uuid, "cheapest")
    assert not Order.objects.exists()


def test_a_letter_about_an_order_the_desk_has_taken_does_not_order_it_again(planned):
    (order,) = place(planned.parts, planned.plan)
    text = mail.letter(planned.parts, order).text
    assert f"order no. {order.reference}" in text and "do not enter it again" in text and "We order" not in text


def test_whoever_may_not_buy_may_not_order(planned, as_):
    for member in (planned.technician, planned.owner):
        assert as_(member).send(f"/api/supply/plans/{planned.plan.uuid}/orders", kind="cheapest").status_code == 403
    assert as_(planned.owner).get("/api/supply/orders").status_code == 403
    assert not Order.objects.exists()


# Ordered by word, without a plan and without a price


def ordered(shop, **more):
    said = {"number": "D12-4001", "supplier": "Bridge Street Parts", "way": "telephone", "quantity": 4} | more
    key = more.pop("key", None) or uuid.uuid4()
    ordering.by_word(shop.parts, key, ordering.ByWord(**{name: said[name] for name in said if name != "key"}))
    return Order.objects.get(uuid=key)


def test_what_was_ordered_by_telephone_is_coming_with_no_price_and_no_day(shop):
    order = ordered(shop)
    assert (order.state, order.supplier.name, order.lines.get().unit_price) == ("by-hand", "Bridge Street Parts", None)
    assert (line(shop.parts).coming, line(shop.parts).net, line(shop.parts).promised) == (4, 0, None)
    shown = serializers_orders.order(order)
    assert (shown.parts, shown.lines[0].unit_price, shown.lines[0].promised) == ("", "", None)
    got = ordering.receive(shop.parts, uuid.uuid4(), "D12-4001", 4)
    assert got.order == order and line(shop.parts).shelf == 4
    assert serializers_orders.order(Order.objects.get()).state_name == "Received"


def test_a_price_and_a_day_that_were_said_are_kept(shop):
    day = timezone.localdate() + dt.timedelta(days=3)
    ordered(shop, price="31,50", promised=day, supplier="The blacksmith at the bridge")
    assert line(shop.parts).promised == day
    assert Supplier.objects.filter(name="The blacksmith at the bridge").count() == 1
    shown = next(one for one in serializers.needs(shop.parts, NeedsAsked(whole=True)).lines if one.number == "D12-4001")
    assert (shown.price, shown.state) == ("31.50", "coming")


def test_pieces_without_a_day_leave_their_number_without_one(shop):
    ordered(shop, quantity=2, promised=timezone.localdate() + dt.timedelta(days=3))
    assert line(shop.parts).promised is not None
    ordered(shop, quantity=2)
    assert (line(shop.parts).coming, line(shop.parts).promised) == (4, None)


def test_what_was_bought_over_the_counter_is_here_at_once_and_once(shop):
    key = uuid.uuid4()
    for _ in range(2):
        ordered(shop, key=key, way="counter", here=True)
    assert (Order.objects.count(), line(shop.parts).shelf, line(shop.parts).coming) == (1, 4, 0)
    with pytest.raises(Conflict):
        ordering.cancel(shop.parts, key)


def test_an_order_by_word_can_be_taken_back_until_something_came(shop):
    order = ordered(shop)
    ordering.cancel(shop.parts, order.uuid)
    assert line(shop.parts).net == 4 and line(shop.parts).coming == 0


@pytest.mark.parametrize(
    ("wrong", "field"), [({"number": "X-1"}, "number"), ({"supplier": " "}, "supplier"), ({"price": "dear"}, "price")]
)
def test_what_is_said_wrongly_is_refused_at_its_field(shop, as_, wrong, field):
    body = {"uuid": str(uuid.uuid4()), "number": "D12-4001", "supplier": "B", "way": "site", "quantity": 1} | wrong
    answer = as_(shop.parts).send("/api/supply/by-word", **body)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, field)
    assert Order.objects.count() == 0


def test_who_may_not_order_orders_nothing_by_word_either(shop, as_):
    body = {"uuid": str(uuid.uuid4()), "number": "D12-4001", "supplier": "B", "way": "site", "quantity": 1}
    assert as_(shop.technician).send("/api/supply/by-word", **body).status_code == 403
