"""Who may do what with parts: buyers plan and order, technicians receive, count and fit, owners see cost."""

import uuid

import pytest

ALL = {"lead", "technician", "parts"}
BUYERS = {"lead", "parts"}


def some():
    return str(uuid.uuid4())


@pytest.mark.parametrize(
    ("path", "body", "allowed"),
    [
        ("list", None, ALL),
        ("orders", None, ALL),
        ("stock", None, ALL),
        ("book", None, ALL),
        ("suppliers", None, ALL),
        ("plans/latest", None, ALL),
        ("desk", None, ALL),
        ("costs", None, ALL | {"owner"}),
        (
            "terms",
            {
                "currency": "EUR",
                "labour_rate": "60",
                "km_cost": "0",
                "downtime_rate": "0",
                "late_cost_per_day": "0",
                "days_before": 7,
            },
            BUYERS,
        ),
        ("suppliers", {"name": "Harrow Mail"}, BUYERS),
        ("numbers", {"model": 0, "slot": "opener-disc", "number": "D12-4002"}, BUYERS),
        ("choices", {"model": 0, "slot": "opener-disc", "number": "D12-4001"}, BUYERS),
        ("need-dates", {"machine": 0, "day": "2026-12-01"}, BUYERS),
        ("ask-desks", {"uuid": str(uuid.uuid4())}, BUYERS),
        ("plans", {"uuid": ""}, BUYERS),
        ("desk", {"mode": "normal"}, BUYERS),
        ("stock/items", {"number": "D12-4001", "name": "Opener disc"}, ALL),
        ("receive", {"uuid": "", "number": "D12-4001", "quantity": 1}, ALL),
    ],
)
def test_who_may(path, body, allowed, planned, as_):
    planned.machine.owners.add(planned.owner)
    if path == "receive":
        from supply_helpers import place

        place(planned.parts, planned.plan)
    for role in ("lead", "technician", "parts", "owner"):
        browser = as_(getattr(planned, role))
        if body is None:
            answer = browser.get(f"/api/supply/{path}")
        else:
            ids = {"model": planned.model.pk, "machine": planned.machine.pk, "uuid": some()}
            filled = {key: ids.get(key, value) for key, value in body.items()}
            if path == "suppliers":
                filled["name"] = role
            answer = browser.send(f"/api/supply/{path}", **filled)
        assert answer.status_code == (200 if role in allowed else 403), (role, answer)
        list(answer if answer.streaming else ())  # a plan keeps its seat until its last line is told


def test_everything_of_supply_belongs_to_its_shop(planned, neighbour, as_):
    """Lists of a neighbour hold nothing of this shop's."""
    browser = as_(neighbour.parts)
    assert browser.get("/api/supply/list").json()["lines"] == []
    assert browser.get("/api/supply/orders").json()["orders"] == []
    assert browser.get("/api/supply/suppliers").json() == []
    assert browser.get("/api/supply/stock").json()["items"] == []
    assert browser.get("/api/supply/costs").json()["machines"] == []
    assert browser.get("/api/supply/plans/latest").json() is None
    assert [model["id"] for model in browser.get("/api/supply/book").json()["models"]] == [neighbour.model.pk]
    refused = browser.send("/api/supply/plans", uuid=some())
    assert (refused.status_code, refused.json()["error"]["message"]) == (422, "there is nothing to order")
    named = browser.send("/api/supply/receive", uuid=some(), number="D12-4001", quantity=1)
    assert named.json()["error"]["field"] == "number"
