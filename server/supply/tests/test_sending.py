"""Orders on their way outside: they count as sent when the desk or the mail server has taken them, and whatever goes wrong is said."""

import datetime as dt
import json
import uuid

import pytest
from django.core import mail as outbox
from django.utils import timezone
from supply_helpers import place

from lumvek_core.errors import BadInput
from outside import background
from outside.models import Line
from shops.access import Conflict
from supply import desk as line
from supply.actions import ordering, sending
from supply.models import Order, Supplier


@pytest.fixture
def order(planned):
    """An order to a supplier that is reached by mail alone."""
    Supplier.objects.update(desk="")
    (made,) = ordering.make(planned.parts, planned.plan.uuid, "cheapest")
    return made


def mailed(planned, order):
    sending.send_by_mail(planned.parts, order.uuid)
    return Order.objects.get(pk=order.pk)


def test_it_counts_as_sent_when_the_mail_server_has_taken_it(planned, order, post):
    sent = mailed(planned, order)
    assert (sent.state, sent.mail, sent.mail_trouble) == ("by-hand", "sent", "")
    assert [letter["To"] for letter in post.letters] == ["orders@northmere.invalid"]


@pytest.mark.parametrize("mode", ["silent", "knows nobody", "refuses"])
def test_a_letter_that_was_not_sent_leaves_the_order_to_be_sent(planned, order, post, mode):
    post.mode = mode
    kept = mailed(planned, order)
    assert (kept.state, kept.mail, kept.unsent) == ("to-send", "failed", True)
    assert kept.mail_trouble.startswith("The mail server does not")
    post.mode = "takes"
    assert mailed(planned, order).state == "by-hand"
    assert len(post.letters) == 1


def test_where_nobody_knows_it_is_said_and_the_order_cannot_be_dropped_in_silence(planned, order, post):
    post.mode = "swallows"
    kept = mailed(planned, order)
    assert (kept.state, kept.mail, kept.unsent) == ("to-send", "unsure", False)
    with pytest.raises(Conflict):
        ordering.cancel(planned.parts, order.uuid)
    sending.sent_by_hand(planned.parts, order.uuid)
    assert Order.objects.get().state == "by-hand", "they were asked, and have it"


def test_a_letter_lost_with_its_process_is_one_that_nobody_knows_of(planned, order):
    now = timezone.now()
    Order.objects.update(mail="going", mail_at=now)
    (kept,) = Order.objects.all()
    assert kept.mail_now(now) == "going" and kept.under_way(now)
    assert kept.mail_now(now + dt.timedelta(minutes=3)) == "unsure" and not kept.under_way(now + dt.timedelta(minutes=3))


def test_while_it_is_under_way_it_goes_no_other_way_and_not_twice(planned, order, monkeypatch):
    waiting = []
    monkeypatch.setattr(background, "later", waiting.append)
    assert mailed(planned, order).mail == "going"
    mailed(planned, order)
    assert len(waiting) == 1
    for other in (sending.sent_by_hand, ordering.cancel):
        with pytest.raises(Conflict):
            other(planned.parts, order.uuid)
    waiting[0]()
    assert Order.objects.get().state == "by-hand" and len(outbox.outbox) == 1


def test_nobody_waits_for_the_desk(planned, monkeypatch, as_):
    waiting = []
    monkeypatch.setattr(background, "later", waiting.append)
    (told,) = as_(planned.parts).send(f"/api/supply/plans/{planned.plan.uuid}/orders", kind="cheapest").json()["orders"]
    assert (told["state"], told["under_way"], told["tries"]) == ("to-send", True, 0)
    waiting[0]()
    told = as_(planned.parts).get(f"/api/supply/orders/{told['uuid']}").json()
    assert (told["state"], told["under_way"], told["tries"]) == ("short", False, 1)


def test_an_address_is_checked_where_it_is_typed_and_before_it_is_used(planned, order, as_):
    body = {"id": planned.far.pk, "name": "Northmere Depot", "email": "orders at northmere", "hours": "", "deliveries": []}
    answer = as_(planned.parts).send("/api/supply/suppliers", **body)
    assert (answer.status_code, answer.json()["error"]["field"]) == (422, "email")
    Supplier.objects.filter(pk=planned.far.pk).update(email="orders at northmere")
    with pytest.raises(BadInput, match="is no e-mail address"):
        sending.send_by_mail(planned.parts, order.uuid)
    assert Order.objects.get().mail == ""


def test_a_desk_that_stays_away_is_left_alone_and_asked_again_when_somebody_presses(planned, desk):
    desk.stop()
    (order,) = place(planned.parts, planned.plan)
    for _ in range(2):
        sending.send(planned.parts, order.uuid)
    assert Line.objects.get(name="desk").rests_until
    with pytest.raises(line.DeskAway, match="left alone until"):
        line.place("northmere", uuid.uuid4(), order.run_date, order.run_date, "van", [])
    desk.again()
    assert sending.send(planned.parts, order.uuid).state == "short"
    assert Line.objects.get(name="desk").rests_until is None


def answering(monkeypatch, **answer):
    monkeypatch.setattr(line, "_call", lambda *_: json.loads(json.dumps(answer)))


ODD = [
    {"state": "eaten", "reference": "1", "lines": []},
    {"state": "accepted", "lines": []},
    {"state": "accepted", "reference": "1", "lines": [{"number": "D12-4001", "accepted": -1}]},
    {"state": "accepted", "reference": "1", "lines": [{"number": "D12-4001", "accepted": 400}]},
    {"state": "accepted", "reference": "1", "lines": [{"number": "D12-4001", "accepted": 4, "promised": "soon"}]},
    {"state": "short", "reference": "1", "lines": [{"number": "D12-4001", "follows": 4, "follows_on": "2036-01-01"}]},
    {"state": "short", "reference": "1", "lines": [{"number": "D12-4001", "follows": 4, "follows_on": "1970-01-01"}]},
    {"state": "accepted", "reference": "x" * 500, "lines": []},
    {"state": "accepted", "reference": "1", "lines": {"D12-4001": 4}},
]


@pytest.mark.parametrize("answer", ODD)
def test_an_answer_that_cannot_be_is_said_and_nothing_is_done_by_it(planned, monkeypatch, answer):
    answering(monkeypatch, **answer)
    (order,) = place(planned.parts, planned.plan)
    assert order.state == "to-send" and "The desk’s answer cannot be" in order.trouble
    assert set(order.lines.values_list("accepted", "follows", "promised")) == {(0, 0, None)}
    assert not Line.objects.filter(failures__gt=0).exists(), "it answers: the line is well"


@pytest.mark.parametrize(
    "offer",
    [
        {"unit_price": "NaN"},
        {"unit_price": "-1"},
        {"unit_price": 1e300},
        {"stock": -2},
        {"pack": 0},
        {"p_stock": 7},
        {"number": ""},
    ],
)
def test_prices_that_cannot_be_are_not_kept(planned, monkeypatch, as_, offer):
    before = sorted(planned.far.offers.values_list("number", "unit_price"))
    answering(monkeypatch, offers=[{"number": "D12-4001", "unit_price": "48.90"} | offer])
    told = as_(planned.parts).send("/api/supply/ask-desks", uuid=str(uuid.uuid4())).json()["told"]
    assert all("cannot be understood" in one["trouble"] for one in told)
    assert sorted(planned.far.offers.values_list("number", "unit_price")) == before


def test_a_desk_that_is_silent_is_asked_once_and_not_once_for_each_supplier(planned, desk, monkeypatch, as_):
    asked = []
    real = line._call
    monkeypatch.setattr(line, "_call", lambda *given: asked.append(given) or real(*given))
    desk.stop()
    told = as_(planned.parts).send("/api/supply/ask-desks", uuid=str(uuid.uuid4())).json()["told"]
    assert len(told) == 2 and len(asked) == 1
    desk.again()
