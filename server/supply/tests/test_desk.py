"""The line to the supplier's desk: what it asks, how long it waits, and that the same key is the same order whoever asks when."""

import datetime as dt
import threading
import uuid

import pytest
import urllib3
from urllib3.util import Retry, Timeout

from supply import desk as line

pytestmark = pytest.mark.django_db
MONDAY, TUESDAY = dt.date(2026, 11, 30), dt.date(2026, 12, 1)


@pytest.fixture(autouse=True)
def no_rest(monkeypatch):
    """How a line rests is tried elsewhere."""
    monkeypatch.setattr(line.lines, "reach", lambda name, ask, failed, pressed=False: ask())


def place(key, *lines, supplier="northmere"):
    return line.place(supplier, key, MONDAY, TUESDAY, "van", lines)


def test_prices_and_stock_come_from_the_desk_and_what_it_has_not_is_left_out(desk):
    found = line.quote("northmere", ["D12-4001", "NOBODY-1"])
    assert [(one.number, str(one.unit_price), one.pack) for one in found] == [("D12-4001", "48.90", 2)]


def test_the_desk_promises_a_day_and_says_when_it_is_later(desk):
    lines = {one.number: one for one in place(uuid.uuid4(), ("D12-4018", 2), ("TH-2000", 1)).lines}
    assert [str(lines[one].promised) for one in ("D12-4018", "TH-2000")] == ["2026-12-01", "2026-12-03"]


def test_many_asking_at_once_under_one_key_make_one_order(desk):
    key, answers = uuid.uuid4(), []

    def ask():
        answers.append(place(key, ("D12-4018", 3)))

    people = [threading.Thread(target=ask) for _ in range(6)]
    for one in people:
        one.start()
    for one in people:
        one.join()
    assert len(answers) == 6 and all(answer == answers[0] for answer in answers)
    assert list(desk.orders()) == [str(key)]


def test_an_order_outlives_the_desk_that_took_it(desk):
    key = uuid.uuid4()
    first = place(key, ("D12-4001", 4))
    desk.again()
    assert place(key, ("D12-4001", 4)) == first
    assert line.quote("northmere", ["D12-4001"])[0].stock == 24 - 2, "what it put aside is gone from its shelf"


def test_an_unknown_supplier_is_a_no_and_not_a_time_out(desk):
    with pytest.raises(line.DeskSaysNo, match="not known"):
        place(uuid.uuid4(), ("D12-4001", 1), supplier="nobody")
    assert desk.orders() == {}


def test_a_desk_that_is_down_is_asked_a_few_times_and_then_said_to_be_away(desk, monkeypatch):
    asked = []
    real = urllib3.connectionpool.HTTPConnectionPool._make_request
    monkeypatch.setattr(
        urllib3.connectionpool.HTTPConnectionPool, "_make_request", lambda *a, **k: asked.append(a[3]) or real(*a, **k)
    )
    line.behave("down")
    asked.clear()
    with pytest.raises(line.DeskAway):
        place(uuid.uuid4(), ("D12-4001", 1))
    assert len(asked) == 3


def test_a_slow_desk_is_not_waited_for_and_what_it_did_late_is_found(desk, monkeypatch):
    monkeypatch.setattr("demo.management.commands.supplier_desk.SLOW_S", 0.6)
    monkeypatch.setattr(line, "_pool", urllib3.PoolManager(timeout=Timeout(connect=1, read=0.15), retries=Retry(0)))
    line.behave("slow")
    key = uuid.uuid4()
    with pytest.raises(line.DeskAway):
        line._ask(
            "PUT",
            f"/orders/{key}",
            {"supplier": "northmere", "on": "2026-11-30", "wanted": "2026-12-01", "way": "van", "lines": []},
            Retry(0),
        )
    monkeypatch.undo()
    line.behave("normal")
    place(key, ("D12-4018", 1))
    assert list(desk.orders()) == [str(key)]


def test_without_a_desk_there_is_nothing_to_ask(settings):
    settings.DESK_URL = ""
    with pytest.raises(line.DeskAway, match="No supplier desk"):
        line.quote("northmere", ["D"])


def test_what_is_no_json_is_no_answer(desk, settings):
    pool = urllib3.PoolManager()
    for body, status in ((b"not json", 422), (b'{"lines": []}', 422)):
        assert pool.request("PUT", f"{settings.DESK_URL}/orders/k", body=body).status == status
    assert pool.request("GET", f"{settings.DESK_URL}/nothing").status == 404
    assert pool.request("POST", f"{settings.DESK_URL}/nothing", body=b"{}").status == 422
