"""Every endpoint of the described API, walked as every role of its shop and of another, and as nobody. A new endpoint is walked
without being named here, and a write that takes no right of the table is found."""

import datetime as dt
import json
import re
import uuid
from contextlib import contextmanager
from types import SimpleNamespace

import pytest
from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.db import connection
from django.test.utils import CaptureQueriesContext
from django.urls import URLPattern, URLResolver, get_resolver
from django.utils import timezone

from config.api import api
from demo.pictures import drawn
from fleet.actions import counting
from inspection.actions import closing, notes, photos
from logbook.actions import counter_import, servicing
from lumvek_core.workbench.subjects import SUBJECTS
from report import actions as links
from shops.models import Member, Role
from shops.rights import RIGHTS
from supply import desk
from supply.actions import stocking
from supply.models import Approval, Order, OrderLine, Plan, Supplier, Terms
from testing.layers import layer
from workbench import actions

OPEN = {("/api/session", "get"), ("/api/session/login", "post")}
BODIES = {
    "start": {"id": str(uuid.uuid4())},
    "record": {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": "1L", "raw": ["390"]},
    "decide": {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "positions": ["1L"], "choice": "do"},
    "preview": {"id": str(uuid.uuid4())},
    "hold": {"uuid": str(uuid.uuid4()), "posture": "unfolded, raised and locked"},
    "order": {"order": []},
    "finish": {"uuid": str(uuid.uuid4())},
    "reopen": {"uuid": str(uuid.uuid4()), "reason": "row 3 was forgotten"},
    "discard": {"uuid": str(uuid.uuid4()), "reason": "the wrong planter"},
    "restore": {"uuid": str(uuid.uuid4())},
    "set_aside": {
        "uuid": str(uuid.uuid4()),
        "check": "opener-disc-diameter",
        "position": "1L",
        "shown": "390",
        "outcome": "logbook",
        "taken_at": "2026-11-20T10:00:00Z",
    },
    "hand_over": {"uuid": str(uuid.uuid4()), "to": 0},
    "note": {"uuid": str(uuid.uuid4()), "text": "rattles"},
    "close_note": {"cause": "a loose bolt"},
    "set_limit": {"check": "opener-disc-diameter", "figure": "limit", "text": "387"},
    "set_count": {"thing": "row", "count": 6},
    "set_school": {"subject": "order", "choice": "round"},
    "set_feeler": {"name": "card", "thickness": "0.28"},
    "share": {"days": 3},
    "save": {"uuid": str(uuid.uuid4()), "texts": {}},
    "take_file": {"text": "1,2"},
    "gauge": {"gauge": "tape"},
    "set_number": {"model": 0, "slot": "opener-disc", "number": "D12-4001"},
    "choose": {"model": 0, "slot": "opener-disc", "number": "D12-4001"},
    "set_hand": {"walk_around": "", "slot": "opener-disc", "positions": ["1L"], "side": "L"},
    "need_date": {"machine": 0, "day": "2026-12-01"},
    "set_terms": {
        "currency": "EUR",
        "labour_rate": "62",
        "km_cost": "0.4",
        "downtime_rate": "240",
        "late_cost_per_day": "120",
        "days_before": 7,
    },
    "make_plan": {"uuid": str(uuid.uuid4())},
    "place": {"kind": "cheapest"},
    "drop_rest": {"number": "D12-4001"},
    "receive": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "quantity": 1},
    "fit": {"uuid": str(uuid.uuid4()), "walk_around": "", "slot": "opener-disc", "positions": ["1L"]},
    "stock_item": {"number": "D12-4001", "name": "Opener disc"},
    "count_stock": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "place": "shelf", "counted": 4},
    "load_truck": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "quantity": 1},
    "give_back": {"uuid": str(uuid.uuid4()), "number": "D12-4001", "quantity": 1, "note": "to Northmere Depot"},
    "approve": {"uuid": str(uuid.uuid4()), "amount": "135.00", "how": "by telephone"},
    "take_along": {"slot": "opener-bearing", "positions": ["1L"]},
    "set_supplier": {"name": "Northmere Depot"},
    "set_share": {"owner": 0, "percent": "40"},
    "desk_mode": {"mode": "normal"},
    "set_next_use": {"use": 200},
    "count_machine": {"uuid": str(uuid.uuid4()), "shown": 2900},
    "service_done": {"uuid": str(uuid.uuid4()), "key": "arm-bolts"},
    "tick_put_away": {"uuid": str(uuid.uuid4()), "key": "meters-empty", "season": 2024, "done": True},
    "preferences": {"units": "in"},
    "companions": {"slot": "opener-disc", "positions": ["1L"], "reason": "no"},
}


def operations():
    for path, methods in api.get_openapi_schema()["paths"].items():
        for method, operation in methods.items():
            name = operation["operationId"].rpartition("_api_")[2] or operation["operationId"]
            yield pytest.param(path, method, operation, id=f"{method}-{path}-{name}")


ALL = list(operations())
OWNED = [row for row in ALL if "{" in re.sub("{(family|subject|form)}", "", row.values[0])]
WRITES = [row for row in ALL if row.values[1] == "post" and (row.values[0], "post") not in OPEN]
ROLES = ("lead", "technician", "parts", "owner")


PHOTO, NOTE, RESULT, PLAN, ORDER, COUNTER, MOVEMENT, APPROVAL, DONE = (uuid.uuid4() for _ in range(9))


@layer(on="yard")
def everything(yard):
    """The yard with one of whatever an address can name, under the UUIDs above."""
    counting.record(yard.technician, yard.machine, COUNTER, 2860, timezone.now(), "typed")
    yard.machine.serial = "D12"
    yard.machine.save()
    photos.add(yard.technician, yard.walk_around.pk, PHOTO, "opener-disc-diameter", "1L", "", drawn("disc"))
    notes.note(yard.lead, yard.machine, NOTE, "rattles")
    photos.add_to_note(yard.lead, yard.machine, NOTE, PHOTO, drawn("furrow"))
    actions.save(yard.technician, SUBJECTS["chain"], RESULT, yard.machine, {}, "")
    something_to_order(yard)
    Approval.objects.create(
        uuid=APPROVAL, machine=yard.machine, amount=0, currency="EUR", how="by telephone", by=yard.lead.user
    )
    servicing.record(yard.technician, yard.machine, DONE, BODIES["service_done"]["key"], None, None, "")
    yard.link = links.make(yard.lead, yard.walk_around.pk, 3)[0].pk
    BODIES["order"] = {"order": list(range(len(yard.walk_around.plan["visits"])))}
    BODIES["hand_over"] = {**BODIES["hand_over"], "to": new_technician(yard).pk}
    return yard


@pytest.fixture(autouse=True)
def something_to_find(everything, settings, monkeypatch):
    """Everything, a modem that answers, and a desk."""
    sent = json.dumps({"at": timezone.now().isoformat(), "counter": 2861, "unit": "ha"}).encode()
    monkeypatch.setattr(counter_import, "_pool", SimpleNamespace(request=lambda *_: SimpleNamespace(data=sent)))
    monkeypatch.setattr(desk, "behave", lambda mode: None)
    monkeypatch.setattr(desk, "answers", lambda: True)
    settings.DESK_URL = "http://127.0.0.1:9/desk"
    settings.TELEMATICS_URL = "http://127.0.0.1:9/telematics"


def new_technician(yard):
    """Somebody to hand over to."""
    user = get_user_model().objects.create_user("helper", password="x" * 12)
    return Member.objects.create(user=user, shop=yard.shop, role=Role.TECHNICIAN)


def something_to_order(yard):
    """A supplier with a plan, an order that waits for its disc, and what the bodies name."""
    yard.supplier = Supplier.objects.create(shop=yard.shop, name="Bridge Street Parts", email="counter@bridge-street.invalid")
    cost = dict.fromkeys(("parts", "trips", "delivery", "risk", "late", "total"), 0)
    plan = {
        "kind": "cheapest",
        "cost": cost,
        "p_all_in_time": 1,
        "last_arrival": None,
        "optimal": True,
        "bound": 0,
        "gap_pct": 0,
    }
    plans = [plan | {"lines": [], "trips": [], "deliveries": []}]
    asked = {"start": "2026-03-07T13:10", "lines": [], "pinned": []}
    answer = {"plans": plans, "impossible": [], "reasons": [], "able": [], "one_day_earlier": None, "surer": None}
    plan = Plan.objects.create(
        uuid=PLAN, shop=yard.shop, asked=asked, answer=answer, ordered_kind="cheapest", by=yard.lead.user
    )
    order = Order.objects.create(
        uuid=ORDER,
        shop=yard.shop,
        supplier=yard.supplier,
        plan=plan,
        way="fetch",
        run_date=dt.date(2026, 12, 1),
        state="by-hand",
        by=yard.lead.user,
    )
    OrderLine.objects.create(order=order, number="D12-4001", name="Opener disc", quantity=4, unit_price="48.90")
    stocking.keep(yard.lead, "D12-4001", "Opener disc")
    stocking.count(yard.lead, MOVEMENT, "D12-4001", "shelf", 4)
    Supplier.objects.create(shop=yard.shop, name="Harrow Mail").offers.create(
        number="D12-4001", unit_price="48.90", stock=9, source="typed", at=order.at
    )
    for name in ("set_number", "choose"):
        BODIES[name]["model"] = yard.model.pk
    for name in ("set_hand", "fit"):
        BODIES[name]["walk_around"] = str(yard.walk_around.pk)
    BODIES["need_date"]["machine"] = yard.machine.pk
    BODIES["set_share"]["owner"] = yard.technician.pk
    yard.machine.owners.add(yard.technician)


def call(browser, path, method, operation_id):
    named = [name for name in BODIES if operation_id.endswith(f"_{name}") or operation_id == name]
    body = BODIES[max(named, key=len)] if named else {}
    if operation_id.endswith("add_photo"):
        picture = SimpleUploadedFile("p.jpg", drawn("knife"), "image/jpeg")
        form = {"uuid": str(uuid.uuid4()), "check": "opener-disc-diameter", "position": "1L", "photo": picture}
        return browser.post(path, form)
    if operation_id.endswith("add_note_photo"):
        return browser.post(
            path, {"uuid": str(uuid.uuid4()), "photo": SimpleUploadedFile("p.jpg", drawn("knife"), "image/jpeg")}
        )
    if operation_id.endswith(("offers_file", "book_file", "answer_file")):
        text = b"slot,side,number,unit_price,accepted\nopener-disc,,D12-4001,1.00,2\n"
        return browser.post(path, {"file": SimpleUploadedFile("t.csv", text, "text/csv")})
    if operation_id.endswith("counters_file"):
        file = SimpleUploadedFile("c.csv", b"machine,date,counter\nD12,2026-03-05,2850\n", "text/csv")
        return browser.post(path, {"file": file})
    if operation_id.endswith("readings_file"):
        file = SimpleUploadedFile("r.csv", b"check,position,typed\nopener-disc-diameter,1L,390\n", "text/csv")
        return browser.post(path, {"file": file})
    return browser.get(path) if method == "get" else browser.send(path, **body)


NAMED = {
    "family": "air-seeder",
    "plan_id": PLAN,
    "order_id": ORDER,
    "subject": "chain",
    "form": "json",
    "result_id": RESULT,
    "photo_id": PHOTO,
    "note_id": NOTE,
    "reading": COUNTER,
    "movement_id": MOVEMENT,
    "approval": APPROVAL,
    "done": DONE,
    "check": "opener-disc-diameter",
}
"""What an address can name, beside what gets its number when it is made."""


def names_of(yard):
    return NAMED | {
        "machine_id": yard.machine.pk,
        "walk_around_id": yard.walk_around.pk,
        "model_id": yard.model.pk,
        "supplier_id": yard.supplier.pk,
        "link_id": yard.link,
    }


def nowhere(yard):
    """Names of the same kind that nothing has."""
    return {
        name: uuid.uuid4() if isinstance(value, uuid.UUID) else 10**6 if isinstance(value, int) else value
        for name, value in names_of(yard).items()
    }


def filled(path, names):
    for name, value in names.items():
        path = path.replace(f"{{{name}}}", str(value))
    assert "{" not in path, "name what stands for this parameter, so that this endpoint is walked too"
    return path


def roles_of(operation):
    """The roles that an operation says may call it; one that says nothing is for everybody."""
    return set(operation.get("x-roles", ROLES))


@contextmanager
def nothing_written():
    with CaptureQueriesContext(connection) as asked:
        yield
    assert [one["sql"] for one in asked if re.match("INSERT|UPDATE|DELETE|REPLACE", one["sql"])] == []


@pytest.mark.parametrize(("path", "method", "operation"), ALL)
def test_nobody_gets_nothing(path, method, operation, yard, as_):
    if (path, method) in OPEN:
        return
    with nothing_written():
        response = call(as_(), filled(path, names_of(yard)), method, operation["operationId"])
    assert response.status_code == 401, response.content
    assert set(response.json()) == {"error"}


@pytest.mark.parametrize(("path", "method", "operation"), WRITES)
def test_a_write_says_which_right_of_the_table_it_takes(path, method, operation):
    assert operation["x-roles"] == sorted(RIGHTS[operation["x-right"]])


@pytest.mark.parametrize(("path", "method", "operation"), WRITES)
@pytest.mark.parametrize("role", ROLES)
def test_a_write_is_for_the_roles_that_have_its_right(path, method, operation, role, yard, as_, read):
    """To everybody else it is refused in words, and nothing happens."""
    yard.machine.owners.add(yard.owner)
    stand_ready_for(operation["operationId"], yard, read)
    browser, filled_path = as_(getattr(yard, role)), filled(path, names_of(yard))
    if role in roles_of(operation):
        # Input is tried elsewhere, there is nothing to order here, and what the lead agreed to is not the owner's to take back.
        others = {
            "calculate": (200, 422),
            "plan orders": (200, 422),
            "agree to costs": (200, 404) if role == "owner" and "take-back" in path else (200,),
        }
        response = call(browser, filled_path, method, operation["operationId"])
        assert response.status_code in others.get(operation["x-right"], (200,)), response.content
    else:
        with nothing_written():
            response = call(browser, filled_path, method, operation["operationId"])
        assert response.status_code == 403, response.content
        assert response.json()["error"]["message"].endswith(f"cannot {operation['x-right']}.")


@pytest.mark.parametrize(("path", "method", "operation"), OWNED)
@pytest.mark.parametrize("role", ROLES)
def test_the_wrong_shop_finds_nothing(path, method, operation, role, yard, neighbour, as_, read):
    """A role that may not do a thing anywhere is told so, in the same words whether or not the thing exists."""
    read("opener-disc-diameter", "1L", "385")
    Terms.objects.create(shop=neighbour.shop)  # made the first time that parts are looked at
    browser = as_(getattr(neighbour, role))
    with nothing_written():
        response = call(browser, filled(path, names_of(yard)), method, operation["operationId"])
        elsewhere = call(browser, filled(path, nowhere(yard)), method, operation["operationId"])
    assert response.status_code == (404 if role in roles_of(operation) else 403), response.content
    assert set(response.json()) == {"error"}
    assert (response.status_code, response.json()) == (elsewhere.status_code, elsewhere.json())


@pytest.mark.parametrize(("path", "method", "operation"), [row for row in OWNED if row not in WRITES])
def test_the_right_shop_does_get_through(path, method, operation, yard, as_, read):
    """Or the test above would pass on an endpoint that always fails."""
    stand_ready_for(operation["operationId"], yard, read)
    assert call(as_(yard.lead), filled(path, names_of(yard)), method, operation["operationId"]).status_code == 200


def stand_ready_for(operation_id, yard, read):
    read("opener-disc-diameter", "1L", "385")
    if operation_id.endswith("_reopen"):
        closing.finish(yard.lead, yard.walk_around.pk, uuid.uuid4())
    if operation_id.endswith("take_back_order"):
        Order.objects.update(state=Order.State.TO_SEND)


def test_lists_hold_the_own_shop_only(yard, neighbour, as_):
    names = [card["machine"]["id"] for card in as_(neighbour.lead).get("/api/machines").json()]
    assert names == [neighbour.machine.pk]


def pages(patterns, prefix=""):
    for pattern in patterns:
        if isinstance(pattern, URLResolver):
            yield from pages(pattern.url_patterns, prefix + str(pattern.pattern))
        elif isinstance(pattern, URLPattern):
            yield prefix + str(pattern.pattern)


REPORTS = [page for page in pages(get_resolver().url_patterns) if page.startswith(("walk-arounds/", "machines/"))]


@pytest.mark.parametrize("page", REPORTS)
def test_reports_and_files_too(page, yard, neighbour, as_, read):
    read("opener-disc-diameter", "1L", "385")
    path = "/" + page.replace("<uuid:walk_around_id>", str(yard.walk_around.pk)).replace(
        "<int:machine_id>", str(yard.machine.pk)
    )
    path = path.replace("<path:check>", "opener-disc-diameter").replace("<str:form>", "csv")
    assert as_(neighbour.lead).get(path).status_code == 404
    sent_away = as_().get(path)
    assert (sent_away.status_code, sent_away["Location"]) == (302, f"/sign-in?next={path}")
    assert as_(yard.lead).get(path).status_code == 200


def test_an_owner_sees_own_machines_only(yard, as_):
    owner = as_(yard.owner)
    assert owner.get("/api/machines").json() == []
    assert owner.get(f"/api/walk-arounds/{yard.walk_around.pk}").status_code == 404
    yard.machine.owners.add(yard.owner)
    assert len(owner.get("/api/machines").json()) == 1
    assert owner.get(f"/api/walk-arounds/{yard.walk_around.pk}").json()["may_record"] is False


@pytest.mark.parametrize(
    ("role", "start", "record", "decide"),
    [("lead", 200, 200, 200), ("technician", 200, 200, 200), ("parts", 403, 403, 200), ("owner", 403, 403, 403)],
)
def test_what_each_role_may_do(role, start, record, decide, yard, as_, read):
    yard.machine.owners.add(yard.owner)
    read("opener-disc-diameter", "1L", "385")
    browser, walk_around = as_(getattr(yard, role)), f"/api/walk-arounds/{yard.walk_around.pk}"
    assert browser.send(f"/api/machines/{yard.machine.pk}/walk-arounds", id=str(uuid.uuid4())).status_code == start
    assert (
        browser.send(
            f"{walk_around}/readings", uuid=str(uuid.uuid4()), check="opener-disc-diameter", position="2L", raw=["390"]
        ).status_code
        == record
    )
    assert (
        browser.send(
            f"{walk_around}/decisions", uuid=str(uuid.uuid4()), check="opener-disc-diameter", positions=["1L"], choice="do"
        ).status_code
        == decide
    )
